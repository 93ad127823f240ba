package knollfield.core.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import knollfield.core.engine.build.Look;

/** What a book does not say yet, and what waits for it. */
public final class BookGaps {

    /**
     * @param what is not on file
     * @param blocks what does not work until it is
     */
    public record Gap(String what, String blocks) {}

    private BookGaps() {}

    /** Gaps of {@code family} in the order in which the work meets them; empty where it says all a job needs. */
    public static List<Gap> of(EngineFamily family) {
        List<Gap> gaps = new ArrayList<>();
        if (family.interference() == Interference.UNKNOWN) {
            gaps.add(new Gap("Interference", "the engine is worked as one that is destroyed when its drive lets go"));
        }
        names(
                gaps,
                "Limits of ",
                family.items().stream()
                        .filter(i -> i.kind().isTheDrive() && i.schedule().isEmpty())
                        .map(Item::name)
                        .toList(),
                "no due date from the book: vehicles stand on the list as without a limit");
        if (family.repair().high() == 0) {
            gaps.add(new Gap(
                    "What a failure costs", "the risk of waiting is not put into money, and the list cannot weigh it"));
        }
        names(
                gaps,
                "Price of ",
                family.items().stream()
                        .filter(i -> i.part().priceMinor() == 0)
                        .map(Item::name)
                        .toList(),
                "an estimate counts nothing for it");
        names(
                gaps,
                "Part number of ",
                family.items().stream()
                        .filter(i -> i.part().number().equalsIgnoreCase(family.code() + "-" + i.code()))
                        .map(Item::name)
                        .toList(),
                "it is ordered by the family's own short name");
        names(
                gaps,
                "Torque of ",
                joints(family, true),
                "the joint cannot be signed off until the figure is entered on the card, with its origin");
        names(gaps, "Torque of ", joints(family, false), "done up by feel, and noted so");
        names(
                gaps,
                "Quantity of ",
                family.build().stream()
                        .flatMap(b -> b.fluids().stream())
                        .filter(f -> f.litres() == 0)
                        .map(f -> f.name())
                        .toList(),
                "the card does not say how much goes in");
        names(
                gaps,
                "Window of ",
                family.build().stream()
                        .flatMap(b -> b.looks().stream())
                        .filter(k -> k.kind() == Look.Kind.WINDOW && !k.hasFigure())
                        .map(Look::name)
                        .toList(),
                "no tension is proven by a figure");
        names(
                gaps,
                "Figure for ",
                family.build().stream()
                        .flatMap(b -> b.looks().stream())
                        .filter(k -> (k.kind() == Look.Kind.GAP || k.kind() == Look.Kind.CLEARANCE) && !k.hasFigure())
                        .map(Look::name)
                        .toList(),
                "it is looked at, and no figure judges it");
        if (family.path().isEmpty()) {
            gaps.add(
                    new Gap("Drawing", "no runs, lengths or paint marks are computed, and there is no practice on it"));
        }
        return gaps;
    }

    private static List<String> joints(EngineFamily family, boolean critical) {
        return family.joints().stream()
                .filter(j -> j.critical() == critical && j.torque().isEmpty())
                .map(Joint::name)
                .toList();
    }

    private static void names(List<Gap> into, String before, List<String> names, String blocks) {
        if (!names.isEmpty()) {
            into.add(new Gap(before + names.stream().map(BookGaps::inside).collect(Collectors.joining(", ")), blocks));
        }
    }

    /** A name as it stands inside a sentence; what is written in capitals stays. */
    private static String inside(String name) {
        return name.length() > 1 && Character.isLowerCase(name.charAt(1))
                ? Character.toLowerCase(name.charAt(0)) + name.substring(1)
                : name;
    }
}
