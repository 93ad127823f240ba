package knollfield.app.calculation;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.ExampleObject;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import knollfield.app.calculation.CalculationViews.ChainIn;
import knollfield.app.calculation.CalculationViews.ChainOut;
import knollfield.app.calculation.CalculationViews.ForecastIn;
import knollfield.app.calculation.CalculationViews.ForecastOut;
import knollfield.app.calculation.CalculationViews.RejectedOut;
import knollfield.app.engine.EngineBook;
import knollfield.app.problem.Checks;
import knollfield.app.shared.Words;
import knollfield.core.due.DueEngine;
import knollfield.core.due.Policy;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.odometer.Projection;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.UsageRate;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The same core the screens use, for anyone who brings the figures. */
@RestController
@RequestMapping("/api/calculations")
class CalculationController {

    private static final String CURRENCY = "EUR";

    private final EngineBook book;
    private final Words words;

    CalculationController(EngineBook book, Words words) {
        this.book = book;
        this.words = words;
    }

    @Operation(
            summary = "Which readings tell one story, and what usage they show",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content =
                                    @Content(examples = @ExampleObject(name = "miles among kilometres", value = """
                                    {
                                      "readings": [
                                        {"date": "2024-05-01", "km": 60000, "source": "WORKSHOP"},
                                        {"date": "2025-05-01", "km": 49700, "source": "CUSTOMER"},
                                        {"date": "2026-05-01", "km": 100000, "source": "WORKSHOP"}
                                      ],
                                      "usageClass": {"meanKmPerYear": 20000, "spreadKmPerYear": 6000},
                                      "on": "2027-05-01"
                                    }"""))))
    @PostMapping("/readings-chain")
    ChainOut chain(@RequestBody ChainIn in) {
        Checks checks = new Checks();
        CalculationViews.readings(in.readings(), checks);
        CalculationViews.usage(in.usageClass(), checks);
        checks.orThrow();
        List<Reading> readings = CalculationViews.core(in.readings());
        ReadingChain chain = ReadingChain.of(readings);
        UsageRate rate = UsageRate.estimate(chain.kept(), CalculationViews.core(in.usageClass()));
        Optional<Projection> projection = chain.last().map(r -> new Projection(r.date(), r.km(), rate, List.of()));
        LocalDate on = in.on();
        return new ChainOut(
                chain.kept().stream().map(CalculationViews::view).toList(),
                chain.rejected().stream()
                        .map(r -> new RejectedOut(
                                CalculationViews.view(r.reading()), r.reason().words()))
                        .toList(),
                rate.kmPerYear(),
                Math.sqrt(rate.variance()),
                on == null ? null : CalculationViews.shown(chain, projection, on, 0.5),
                on == null ? null : CalculationViews.shown(chain, projection, on, 0.1),
                on == null ? null : CalculationViews.shown(chain, projection, on, 0.9));
    }

    @Operation(
            summary = "When the timing drive is due, and why",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content = @Content(examples = @ExampleObject(name = "a belt in dust", value = """
                                    {
                                      "today": "2026-11-25",
                                      "engine": {
                                        "drive": "BELT", "interference": "YES",
                                        "items": [{
                                          "code": "belt", "name": "Timing belt", "kind": "TIMING_BELT",
                                          "normal": {"km": 120000, "months": 72}, "severe": {"km": 70000, "months": 60}
                                        }]
                                      },
                                      "firstRegistered": "2018-11-25",
                                      "cameWithReading": false,
                                      "readings": [
                                        {"date": "2025-11-25", "km": 118000, "source": "WORKSHOP"},
                                        {"date": "2026-11-20", "km": 138000, "source": "WORKSHOP"}
                                      ],
                                      "starts": {"belt": {"date": "2022-05-25", "km": 40000, "grade": "DOCUMENTED"}},
                                      "conditions": ["DUST"],
                                      "evidence": [],
                                      "usageClass": {"meanKmPerYear": 20000, "spreadKmPerYear": 6000},
                                      "trips": []
                                    }"""))))
    @PostMapping("/forecast")
    ForecastOut forecast(@RequestBody ForecastIn in) {
        Checks checks = new Checks();
        Optional<EngineFamily> family = family(in, checks);
        in.check(checks);
        checks.orThrow();
        VehicleFacts facts = CalculationViews.facts(in);
        Policy policy =
                Optional.ofNullable(in.policy()).map(CalculationViews::core).orElseGet(Policy::defaults);
        VehicleForecast f = DueEngine.forecast(facts, family, policy, OdometerAssumptions.defaults(), in.today());
        return new ForecastOut(
                f.status(),
                f.actBy().orElse(null),
                f.projection().rate().kmPerYear(),
                f.items().stream().map(CalculationViews::item).toList(),
                f.reasons().stream()
                        .map(r -> words.write(r.statement(), CURRENCY))
                        .toList());
    }

    private Optional<EngineFamily> family(ForecastIn in, Checks checks) {
        RequestedEngine engine = in.engine();
        String code = in.family();
        checks.that((engine == null) != (code == null), "/engine", "Give the engine, or the code of a family on file.");
        if (engine != null) {
            return engine.family("/engine", checks);
        }
        Optional<EngineFamily> found =
                Optional.ofNullable(code).flatMap(book::find).map(f -> f.family());
        checks.that(
                code == null || found.isPresent(), "/family", "No engine family \"%s\" is on file.".formatted(code));
        return found;
    }
}
