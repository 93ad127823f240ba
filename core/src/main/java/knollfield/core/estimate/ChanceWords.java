package knollfield.core.estimate;

import java.util.Comparator;
import java.util.List;

/** A chance as one says it to an owner, in rounded words (rules.md section 6): a figure to a tenth would claim too much. */
public final class ChanceWords {

    private record Said(double chance, String words) {}

    private static final List<Said> COMMON = List.of(
            new Said(0.1, "about one in ten"),
            new Said(0.2, "about one in five"),
            new Said(0.25, "about one in four"),
            new Said(1 / 3.0, "about one in three"),
            new Said(0.4, "about two in five"),
            new Said(0.5, "about one in two"),
            new Said(0.6, "about three in five"),
            new Said(2 / 3.0, "about two in three"),
            new Said(0.75, "about three in four"),
            new Said(0.8, "about four in five"),
            new Said(0.9, "about nine in ten"));

    private static final int[] RARE = {15, 20, 30, 50, 100, 200, 300, 500, 1_000};

    private ChanceWords() {}

    /** @param chance 0 to 1 */
    public static String of(double chance) {
        if (!(chance >= 0 && chance <= 1)) {
            throw new IllegalArgumentException("a chance is 0 to 1, not " + chance);
        }
        if (chance < 1 / 1_400.0) {
            return "less than one in a thousand";
        }
        if (chance > 0.95) {
            return "all but certain";
        }
        if (chance < 1 / 12.5) {
            int nearest = RARE[0];
            for (int n : RARE) {
                // by their ratio: one in 80 is nearer to one in 100 than to one in 50
                nearest = Math.abs(Math.log(chance * n)) < Math.abs(Math.log(chance * nearest)) ? n : nearest;
            }
            return nearest == 1_000 ? "about one in a thousand" : "about one in " + nearest;
        }
        return COMMON.stream()
                .min(Comparator.comparingDouble(s -> Math.abs(s.chance() - chance)))
                .orElseThrow()
                .words();
    }
}
