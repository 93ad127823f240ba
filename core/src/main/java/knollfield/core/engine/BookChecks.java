package knollfield.core.engine;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/** Whether the parts of a book fit together; every fault with its place. */
public final class BookChecks {

    private BookChecks() {}

    /** What forbids such a book; empty where nothing does. The list may be added to. */
    public static List<BookFault> faults(
            ReferenceMethod reference,
            List<String> pins,
            Optional<BeltPath> path,
            List<Item> items,
            List<AccessStep> steps,
            List<Joint> joints,
            Handling handling,
            List<Variant> variants,
            List<Kit> kits) {
        List<BookFault> faults = new ArrayList<>();
        Set<String> itemCodes = unique("/items", "item", items, Item::code, faults);
        Set<String> stepCodes = unique("/accessSteps", "access step", steps, AccessStep::code, faults);
        Set<String> jointCodes = unique("/joints", "joint", joints, Joint::code, faults);
        unique("/variants", "variant", variants, Variant::code, faults);
        for (int i = 0; i < items.size(); i++) {
            Item item = items.get(i);
            known(item.accessSteps(), stepCodes, "/items/" + i + "/accessSteps", "access step", faults);
            if (item.halfOf().isPresent()) {
                known(List.of(item.halfOf().get()), itemCodes, "/items/" + i + "/halfOf", "item", faults);
                if (item.halfOf().get().equals(item.code())) {
                    faults.add(new BookFault(
                            "/items/" + i + "/halfOf", "item %s is half of itself".formatted(item.code())));
                }
            }
        }
        for (int i = 0; i < steps.size(); i++) {
            known(steps.get(i).requires(), stepCodes, "/accessSteps/" + i + "/requires", "access step", faults);
            known(steps.get(i).opens(), jointCodes, "/accessSteps/" + i + "/opens", "joint", faults);
        }
        noCircle(steps, faults);
        long drives = items.stream().filter(i -> i.kind().isTheDrive()).count();
        if (drives < 1) {
            faults.add(new BookFault("/items", "a family needs a belt or chain among its items"));
        }
        if (reference == ReferenceMethod.PINS && pins.isEmpty()) {
            faults.add(new BookFault("/pins", "the family is timed by pins and names none"));
        }
        Set<String> wheels = new HashSet<>();
        path.stream().flatMap(p -> p.pulleys().stream()).forEach(p -> wheels.add(p.code()));
        handling.lastWheel().ifPresent(w -> known(List.of(w), wheels, "/handling/lastWheel", "wheel", faults));
        for (int v = 0; v < variants.size(); v++) {
            List<Variant.Choice> choices = variants.get(v).choices();
            unique("/variants/" + v + "/choices", "choice", choices, Variant.Choice::code, faults);
            for (int c = 0; c < choices.size(); c++) {
                String at = "/variants/%d/choices/%d".formatted(v, c);
                known(choices.get(c).torques().keySet(), jointCodes, at + "/torques", "joint", faults);
                known(choices.get(c).parts().keySet(), itemCodes, at + "/parts", "item", faults);
            }
        }
        for (int k = 0; k < kits.size(); k++) {
            known(kits.get(k).items(), itemCodes, "/kits/" + k + "/items", "item", faults);
        }
        return faults;
    }

    /** Figures in two units that contradict each other, and torques that are not on file. */
    static List<BookFault> remarks(List<Joint> joints, List<Variant> variants) {
        List<BookFault> remarks = new ArrayList<>();
        for (int j = 0; j < joints.size(); j++) {
            Joint joint = joints.get(j);
            String at = "/joints/" + j + "/torque";
            if (joint.torque().isEmpty()) {
                boolean byVariant = variants.stream()
                        .flatMap(v -> v.choices().stream())
                        .anyMatch(c -> c.torques().containsKey(joint.code()));
                remarks.add(new BookFault(
                        at,
                        "The torque of %s is not on file%s."
                                .formatted(
                                        joint.name(),
                                        byVariant ? "; a variant settles it" : "; its sign-off waits for it")));
            } else {
                contradiction(joint.torque().get(), joint.name(), at, remarks);
            }
        }
        for (int v = 0; v < variants.size(); v++) {
            List<Variant.Choice> choices = variants.get(v).choices();
            for (int c = 0; c < choices.size(); c++) {
                String at = "/variants/%d/choices/%d/torques/".formatted(v, c);
                String name = choices.get(c).name();
                choices.get(c)
                        .torques()
                        .forEach((joint, spec) -> contradiction(spec, joint + ", " + name, at + joint, remarks));
            }
        }
        return remarks;
    }

    private static void contradiction(TorqueSpec spec, String name, String at, List<BookFault> remarks) {
        List<PrintedTorque> printed = spec.printed();
        if (printed.size() == 2 && printed.get(0).contradicts(printed.get(1))) {
            PrintedTorque a = printed.get(0);
            PrintedTorque b = printed.get(1);
            remarks.add(new BookFault(
                    at,
                    String.format(
                            Locale.ROOT,
                            "%s: %s and %s are not the same torque; %s is %.1f %s. Look it up again.",
                            name,
                            a,
                            b,
                            a,
                            a.torque().in(b.unit()),
                            b.unit().symbol())));
        }
        for (PrintedTorque p : printed) {
            double book = spec.torque().newtonMetres();
            if (Math.abs(p.torque().newtonMetres() - book) > 0.02 * book + 0.5) {
                remarks.add(new BookFault(
                        at,
                        String.format(
                                Locale.ROOT,
                                "%s: the figure used, %.1f N·m, is not the one printed, %s.",
                                name,
                                book,
                                p)));
                break;
            }
        }
    }

    private static <T> Set<String> unique(
            String at, String what, List<T> things, Function<T, String> code, List<BookFault> faults) {
        Set<String> seen = new HashSet<>();
        for (int i = 0; i < things.size(); i++) {
            String c = code.apply(things.get(i));
            if (!seen.add(c)) {
                faults.add(new BookFault("%s/%d/code".formatted(at, i), "there are two of %s %s".formatted(what, c)));
            }
        }
        return seen;
    }

    private static void known(
            Collection<String> references, Set<String> known, String at, String what, List<BookFault> faults) {
        for (String r : references) {
            if (!known.contains(r)) {
                faults.add(new BookFault(at, "it refers to %s %s, which is not there".formatted(what, r)));
            }
        }
    }

    private static void noCircle(List<AccessStep> steps, List<BookFault> faults) {
        for (int i : needThemselves(steps)) {
            faults.add(new BookFault(
                    "/accessSteps/" + i + "/requires",
                    "access step %s needs itself".formatted(steps.get(i).code())));
        }
    }

    /** Indices of steps that, one after the other, come to need themselves. */
    public static List<Integer> needThemselves(List<AccessStep> steps) {
        Map<String, List<String>> requires = new HashMap<>();
        steps.forEach(s -> requires.put(s.code(), s.requires()));
        List<Integer> found = new ArrayList<>();
        for (int i = 0; i < steps.size(); i++) {
            if (reaches(steps.get(i).requires(), steps.get(i).code(), requires, new HashSet<>())) {
                found.add(i);
            }
        }
        return found;
    }

    private static boolean reaches(
            List<String> from, String target, Map<String, List<String>> requires, Set<String> seen) {
        for (String s : from) {
            if (s.equals(target)
                    || (seen.add(s) && reaches(requires.getOrDefault(s, List.of()), target, requires, seen))) {
                return true;
            }
        }
        return false;
    }
}
