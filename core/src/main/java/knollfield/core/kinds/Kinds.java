package knollfield.core.kinds;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** The twelve kinds of timing drive. */
public final class Kinds {

    private static final List<Kind> ALL = Stream.concat(BeltKinds.all(), ChainKinds.all())
            .sorted(java.util.Comparator.comparing(Kind::code))
            .toList();

    private Kinds() {}

    public static List<Kind> all() {
        return ALL;
    }

    public static Optional<Kind> kind(String code) {
        return ALL.stream().filter(k -> k.code().equals(code)).findFirst();
    }
}
