package knollfield.app.calculation;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.ExampleObject;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.app.problem.Checks;
import knollfield.app.problem.InvalidInput;
import knollfield.core.bundle.Grade;
import knollfield.core.bundle.Labour;
import knollfield.core.bundle.Optimum;
import knollfield.core.bundle.Sixtieths;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.BookChecks;
import knollfield.core.engine.Ratio;
import knollfield.core.engine.TimingGeometry;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What goes in, by the figures in the request alone: labour, bundle, part grade, tooth geometry. */
@RestController
@RequestMapping("/api/calculations")
class BundleCalculationController {

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

    record BundleIn(long labourRateMinor, List<WorkStepIn> steps, Set<String> equipment, List<FreeItemIn> items) {}

    /** @param costMinor of the job, of leaving, and of the later job together; rounded */
    record BundleOut(Set<String> in, int minutes, long costMinor, long everythingMinor, long requiredOnlyMinor) {}

    record GradeIn(long priceMinor, long labourShareMinor, int expectedKm) {}

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
            @Nullable Double degrees) {}

    record SprocketOut(String name, double toothDegrees, double turnsPerCrankTurn) {}

    /** @param pistonMm below top dead centre; null without throw and rod */
    record GeometryOut(
            double crankToothDegrees,
            List<SprocketOut> sprockets,
            long marksReturnTurns,
            @Nullable Double pistonMm) {}

    @Operation(
            summary = "Labour of a set of items: each access step once",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content = @Content(examples = @ExampleObject(name = "5.0 + 0.4 + 0.4 h", value = """
                                    {
                                      "steps": [
                                        {"code": "open", "minutes": 300, "requires": ["aircon", "steering"]},
                                        {"code": "aircon", "minutes": 24, "requires": [], "equipment": "air conditioning"},
                                        {"code": "steering", "minutes": 24, "requires": [], "equipment": "top steering pump"}
                                      ],
                                      "equipment": ["air conditioning", "top steering pump"],
                                      "items": [{"code": "belt", "steps": ["open"]}, {"code": "pump", "steps": ["open"]}]
                                    }"""))))
    @PostMapping("/labour")
    LabourOut labour(@RequestBody LabourIn in) {
        List<AccessStep> steps = steps(in.steps());
        Map<String, List<String>> ways = new LinkedHashMap<>();
        in.items().forEach(i -> ways.put(i.code(), i.steps()));
        Labour union = union(steps, in.equipment(), ways);
        int sum = ways.entrySet().stream()
                .mapToInt(w -> union(steps, in.equipment(), Map.of(w.getKey(), w.getValue()))
                        .minutes())
                .sum();
        return new LabourOut(
                union.minutes(),
                sum,
                union.steps().stream()
                        .map(s -> new WorkStepOut(s.step().code(), s.step().minutes(), List.copyOf(s.neededBy())))
                        .toList());
    }

    @Operation(
            summary = "The cheapest set of items, exactly",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content = @Content(examples = @ExampleObject(name = "belt, pump and idler", value = """
                                    {
                                      "labourRateMinor": 9000,
                                      "steps": [
                                        {"code": "open", "minutes": 240, "requires": []},
                                        {"code": "pump", "minutes": 40, "requires": ["open"]}
                                      ],
                                      "equipment": [],
                                      "items": [
                                        {"code": "belt", "partsMinor": 4500, "steps": ["open"], "required": true,
                                         "leavingMinor": 0, "later": false},
                                        {"code": "pump", "partsMinor": 3200, "steps": ["pump"], "required": false,
                                         "leavingMinor": 900, "later": true},
                                        {"code": "idler", "partsMinor": 2000, "steps": ["open"], "required": false,
                                         "leavingMinor": 400, "later": false}
                                      ]
                                    }"""))))
    @PostMapping("/bundle")
    BundleOut bundle(@RequestBody BundleIn in) {
        List<AccessStep> steps = steps(in.steps());
        Checks checks = new Checks().that(in.labourRateMinor() >= 0, "/labourRateMinor", "Must be zero or more.");
        long free = in.items().stream().filter(i -> !i.required()).count();
        checks.that(
                free <= Optimum.MOST,
                "/items",
                "At most %d items may be free; these are %d.".formatted(Optimum.MOST, free));
        Set<String> codes = new HashSet<>();
        for (int i = 0; i < in.items().size(); i++) {
            checks.that(
                    codes.add(in.items().get(i).code()), "/items/%d/code".formatted(i), "This code is there twice.");
            checks.that(
                    in.items().get(i).partsMinor() >= 0, "/items/%d/partsMinor".formatted(i), "Must be zero or more.");
        }
        checks.orThrow();
        List<Long> prices = new ArrayList<>();
        Map<String, Integer> index = new HashMap<>();
        for (AccessStep s : steps) {
            index.put(s.code(), prices.size());
            prices.add(Sixtieths.ofLabour(s.minutes(), in.labourRateMinor()));
        }
        Set<Integer> required = new HashSet<>();
        List<Optimum.Candidate> candidates = new ArrayList<>();
        for (FreeItemIn item : in.items()) {
            Set<Integer> atoms = new HashSet<>();
            union(steps, in.equipment(), Map.of(item.code(), item.steps()))
                    .steps()
                    .forEach(
                            s -> Optional.ofNullable(index.get(s.step().code())).ifPresent(atoms::add));
            atoms.add(prices.size());
            prices.add(Sixtieths.ofMinor(item.partsMinor()));
            if (item.required()) {
                required.addAll(atoms);
            } else {
                candidates.add(new Optimum.Candidate(
                        item.code(), atoms, Sixtieths.ofMinor(item.leavingMinor()), item.later()));
            }
        }
        Optimum.Question question = new Optimum.Question(prices, required, Set.of(), candidates);
        Optimum.Answer best = Optimum.of(question);
        Map<String, List<String>> ways = new LinkedHashMap<>();
        in.items().stream()
                .filter(i -> i.required() || best.in().contains(i.code()))
                .forEach(i -> ways.put(i.code(), i.steps()));
        return new BundleOut(
                ways.keySet(),
                union(steps, in.equipment(), ways).minutes(),
                Sixtieths.toMinor(best.cost()),
                Sixtieths.toMinor(question.cost(codes)),
                Sixtieths.toMinor(question.cost(Set.of())));
    }

    @Operation(
            summary = "What a part costs for each 10,000 km",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content = @Content(examples = @ExampleObject(name = "the dear pump", value = """
                                    {"priceMinor": 3200, "labourShareMinor": 9000, "expectedKm": 130000}"""))))
    @PostMapping("/part-grade")
    GradeOut grade(@RequestBody GradeIn in) {
        new Checks()
                .that(in.priceMinor() >= 0, "/priceMinor", "Must be zero or more.")
                .that(in.labourShareMinor() >= 0, "/labourShareMinor", "Must be zero or more.")
                .that(in.expectedKm() > 0, "/expectedKm", "Must be above zero.")
                .orThrow();
        return new GradeOut(Grade.costPer10000Km(in.priceMinor(), in.labourShareMinor(), in.expectedKm()));
    }

    @Operation(
            summary = "Degrees of a tooth, turns until paint marks are back, travel of the piston",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content = @Content(examples = @ExampleObject(name = "290 turns", value = """
                                    {
                                      "teeth": 145, "crankTeeth": 24,
                                      "sprockets": [{"name": "cam", "teeth": 48, "marked": true}],
                                      "crankThrowMm": 43, "rodMm": 137, "degrees": 30
                                    }"""))))
    @PostMapping("/tooth-geometry")
    GeometryOut geometry(@RequestBody GeometryIn in) {
        Checks checks = new Checks()
                .that(in.teeth() >= 1 && in.teeth() <= 10_000, "/teeth", "Must be 1 to 10,000.")
                .that(in.crankTeeth() >= 1 && in.crankTeeth() <= 1_000, "/crankTeeth", "Must be 1 to 1,000.");
        for (int i = 0; i < in.sprockets().size(); i++) {
            SprocketIn s = in.sprockets().get(i);
            checks.that(
                    s.teeth() >= 1 && s.teeth() <= 1_000, "/sprockets/%d/teeth".formatted(i), "Must be 1 to 1,000.");
            checks.that(
                    s.ratio() == null
                            || (s.ratio().numerator() >= 1
                                    && s.ratio().denominator() >= 1
                                    && s.ratio().numerator() <= 1_000
                                    && s.ratio().denominator() <= 1_000),
                    "/sprockets/%d/ratio".formatted(i),
                    "Both sides must be 1 to 1,000.");
        }
        checks.that((in.crankThrowMm() == null) == (in.rodMm() == null), "/rodMm", "Throw and rod go together.");
        if (in.crankThrowMm() != null && in.rodMm() != null) {
            checks.that(in.crankThrowMm() > 0, "/crankThrowMm", "Must be above zero.")
                    .that(in.rodMm() > in.crankThrowMm(), "/rodMm", "The rod is longer than the throw.")
                    .that(in.degrees() != null, "/degrees", "Say at which angle.");
        }
        checks.orThrow();
        List<Ratio> marks = new ArrayList<>();
        marks.add(new Ratio(in.crankTeeth(), in.teeth()));
        List<SprocketOut> sprockets = new ArrayList<>();
        for (SprocketIn s : in.sprockets()) {
            Ratio turns = s.ratio() == null
                    ? new Ratio(in.crankTeeth(), s.teeth())
                    : new Ratio(s.ratio().numerator(), s.ratio().denominator());
            if (s.marked()) {
                marks.add(turns);
            }
            sprockets.add(new SprocketOut(s.name(), TimingGeometry.toothDegrees(s.teeth()), turns.value()));
        }
        Double piston = in.crankThrowMm() == null || in.rodMm() == null || in.degrees() == null
                ? null
                : TimingGeometry.pistonTravel(in.crankThrowMm(), in.rodMm(), in.degrees());
        return new GeometryOut(
                TimingGeometry.toothDegrees(in.crankTeeth()), sprockets, TimingGeometry.markReturn(marks), piston);
    }

    private static List<AccessStep> steps(List<WorkStepIn> in) {
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

    private static Labour union(List<AccessStep> steps, Set<String> equipment, Map<String, List<String>> ways) {
        try {
            return Labour.union(steps, equipment, ways);
        } catch (IllegalArgumentException e) {
            throw new InvalidInput("/items", "An item needs a step that is not there: " + e.getMessage() + ".");
        }
    }
}
