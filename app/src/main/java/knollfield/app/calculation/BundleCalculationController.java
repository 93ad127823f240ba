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
import java.util.stream.Collectors;
import knollfield.app.calculation.BundleCalculationViews.BundleIn;
import knollfield.app.calculation.BundleCalculationViews.BundleOut;
import knollfield.app.calculation.BundleCalculationViews.FreeItemIn;
import knollfield.app.calculation.BundleCalculationViews.GradeIn;
import knollfield.app.calculation.BundleCalculationViews.GradeOut;
import knollfield.app.calculation.BundleCalculationViews.LabourIn;
import knollfield.app.calculation.BundleCalculationViews.LabourOut;
import knollfield.app.calculation.BundleCalculationViews.WorkStepOut;
import knollfield.core.bundle.Grade;
import knollfield.core.bundle.Labour;
import knollfield.core.bundle.Optimum;
import knollfield.core.bundle.Sixtieths;
import knollfield.core.engine.AccessStep;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What goes in, by the figures in the request alone: labour, bundle, part grade, tooth geometry. */
@RestController
@RequestMapping("/api/calculations")
class BundleCalculationController {

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
        List<AccessStep> steps = BundleCalculationViews.steps(in.steps());
        Map<String, List<String>> ways = new LinkedHashMap<>();
        in.items().forEach(i -> ways.put(i.code(), i.steps()));
        Labour union = BundleCalculationViews.union(steps, in.equipment(), ways);
        int sum = ways.entrySet().stream()
                .mapToInt(w -> BundleCalculationViews.union(steps, in.equipment(), Map.of(w.getKey(), w.getValue()))
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
        List<AccessStep> steps = BundleCalculationViews.steps(in.steps());
        in.check();
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
            BundleCalculationViews.union(steps, in.equipment(), Map.of(item.code(), item.steps()))
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
                BundleCalculationViews.union(steps, in.equipment(), ways).minutes(),
                Sixtieths.toMinor(best.cost()),
                Sixtieths.toMinor(
                        question.cost(in.items().stream().map(FreeItemIn::code).collect(Collectors.toSet()))),
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
        in.check();
        return new GradeOut(Grade.costPer10000Km(in.priceMinor(), in.labourShareMinor(), in.expectedKm()));
    }
}
