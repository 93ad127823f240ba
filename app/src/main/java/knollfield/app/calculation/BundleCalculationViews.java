package knollfield.app.calculation;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.app.calculation.BundleCalculationViews.FreeItemIn;
import knollfield.app.calculation.BundleCalculationViews.SprocketIn;
import knollfield.app.calculation.BundleCalculationViews.SprocketOut;
import knollfield.app.calculation.BundleCalculationViews.WorkStepOut;
import knollfield.app.problem.Checks;
import knollfield.app.problem.InvalidInput;
import knollfield.core.bundle.Labour;
import knollfield.core.bundle.Optimum;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.BookChecks;
import org.jspecify.annotations.Nullable;

/** The bundle worked out by hand: what is asked and what is answered. */
final class BundleCalculationViews {

    private BundleCalculationViews() {}

    /** @param equipment the step is only there where the vehicle has it */
    record WorkStepIn(
            String code,
            int minutes,
            List<String> requires,
            @Nullable String equipment) {}

    record WayIn(String code, List<String> steps) {}

    /** @param items those of the set */
    record LabourIn(List<WorkStepIn> steps, Set<String> equipment, List<WayIn> items) {}

    record WorkStepOut(String code, int minutes, List<String> neededBy) {}

    /** @param sumMinutes what the items would take one by one */
    record LabourOut(int minutes, int sumMinutes, List<WorkStepOut> steps) {}

    /**
     * An item that may go in; money in minor units.
     *
     * @param required it goes in whatever it costs
     * @param leavingMinor expected cost of leaving it, beyond the later job
     * @param later left, it is done in the one later job
     */
    record FreeItemIn(
            String code, long partsMinor, List<String> steps, boolean required, long leavingMinor, boolean later) {}

    record BundleIn(long labourRateMinor, List<WorkStepIn> steps, Set<String> equipment, List<FreeItemIn> items) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        void check() {
            Checks checks = new Checks().that(labourRateMinor() >= 0, "/labourRateMinor", "Must be zero or more.");
            long free = items().stream().filter(i -> !i.required()).count();
            checks.that(
                    free <= Optimum.MOST,
                    "/items",
                    "At most %d items may be free; these are %d.".formatted(Optimum.MOST, free));
            Set<String> codes = new HashSet<>();
            for (int i = 0; i < items().size(); i++) {
                checks.that(
                        codes.add(items().get(i).code()), "/items/%d/code".formatted(i), "This code is there twice.");
                checks.that(
                        items().get(i).partsMinor() >= 0, "/items/%d/partsMinor".formatted(i), "Must be zero or more.");
            }
            checks.orThrow();
        }
    }

    /** @param costMinor of the job, of leaving, and of the later job together; rounded */
    record BundleOut(Set<String> in, int minutes, long costMinor, long everythingMinor, long requiredOnlyMinor) {}

    record GradeIn(long priceMinor, long labourShareMinor, int expectedKm) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        void check() {
            new Checks()
                    .that(priceMinor() >= 0, "/priceMinor", "Must be zero or more.")
                    .that(labourShareMinor() >= 0, "/labourShareMinor", "Must be zero or more.")
                    .that(expectedKm() > 0, "/expectedKm", "Must be above zero.")
                    .orThrow();
        }
    }

    record GradeOut(double per10000KmMinor) {}

    /** @param ratio turns for one crank turn where the wheel is not on this loop; null: it is */
    record SprocketIn(
            String name,
            int teeth,
            boolean marked,
            @Nullable RatioIn ratio) {}

    record RatioIn(long numerator, long denominator) {}

    /** @param teeth of the belt, or links of the chain */
    record GeometryIn(
            int teeth,
            int crankTeeth,
            List<SprocketIn> sprockets,
            @Nullable Double crankThrowMm,
            @Nullable Double rodMm,
            @Nullable Double degrees) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        void check() {
            Checks checks = new Checks()
                    .that(teeth() >= 1 && teeth() <= 10_000, "/teeth", "Must be 1 to 10,000.")
                    .that(crankTeeth() >= 1 && crankTeeth() <= 1_000, "/crankTeeth", "Must be 1 to 1,000.");
            for (int i = 0; i < sprockets().size(); i++) {
                SprocketIn s = sprockets().get(i);
                checks.that(
                        s.teeth() >= 1 && s.teeth() <= 1_000,
                        "/sprockets/%d/teeth".formatted(i),
                        "Must be 1 to 1,000.");
                checks.that(
                        s.ratio() == null
                                || (s.ratio().numerator() >= 1
                                        && s.ratio().denominator() >= 1
                                        && s.ratio().numerator() <= 1_000
                                        && s.ratio().denominator() <= 1_000),
                        "/sprockets/%d/ratio".formatted(i),
                        "Both sides must be 1 to 1,000.");
            }
            checks.that((crankThrowMm() == null) == (rodMm() == null), "/rodMm", "Throw and rod go together.");
            if (crankThrowMm() != null && rodMm() != null) {
                checks.that(crankThrowMm() > 0, "/crankThrowMm", "Must be above zero.")
                        .that(rodMm() > crankThrowMm(), "/rodMm", "The rod is longer than the throw.")
                        .that(degrees() != null, "/degrees", "Say at which angle.");
            }
            checks.orThrow();
        }
    }

    record SprocketOut(String name, double toothDegrees, double turnsPerCrankTurn) {}

    /** @param pistonMm below top dead centre; null without throw and rod */
    record GeometryOut(
            double crankToothDegrees,
            List<SprocketOut> sprockets,
            long marksReturnTurns,
            @Nullable Double pistonMm) {}

    static List<AccessStep> steps(List<WorkStepIn> in) {
        Checks checks = new Checks();
        Set<String> codes = new HashSet<>();
        in.forEach(s -> codes.add(s.code()));
        Map<String, List<String>> requires = new HashMap<>();
        for (int i = 0; i < in.size(); i++) {
            WorkStepIn s = in.get(i);
            checks.that(
                    s.minutes() >= 0 && s.minutes() <= 100_000,
                    "/steps/%d/minutes".formatted(i),
                    "Must be 0 to 100,000.");
            checks.that(
                    requires.put(s.code(), s.requires()) == null,
                    "/steps/%d/code".formatted(i),
                    "This code is there twice.");
            for (String r : s.requires()) {
                checks.that(codes.contains(r), "/steps/%d/requires".formatted(i), "There is no step %s.".formatted(r));
            }
        }
        checks.orThrow();
        List<AccessStep> steps = in.stream()
                .map(s -> new AccessStep(
                        s.code(),
                        s.code(),
                        s.minutes(),
                        s.requires(),
                        Optional.ofNullable(s.equipment()),
                        List.of(),
                        0))
                .toList();
        for (int i : BookChecks.needThemselves(steps)) {
            checks.that(
                    false,
                    "/steps/%d/requires".formatted(i),
                    "Step %s needs itself.".formatted(in.get(i).code()));
        }
        checks.orThrow();
        return steps;
    }

    static Labour union(List<AccessStep> steps, Set<String> equipment, Map<String, List<String>> ways) {
        try {
            return Labour.union(steps, equipment, ways);
        } catch (IllegalArgumentException e) {
            throw new InvalidInput("/items", "An item needs a step that is not there: " + e.getMessage() + ".");
        }
    }
}
