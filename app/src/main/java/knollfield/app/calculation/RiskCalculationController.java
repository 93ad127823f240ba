package knollfield.app.calculation;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.ExampleObject;
import knollfield.app.calculation.CalculationViews.EconomicIn;
import knollfield.app.calculation.CalculationViews.EconomicOut;
import knollfield.app.calculation.CalculationViews.RiskIn;
import knollfield.app.calculation.CalculationViews.RiskOut;
import knollfield.app.settings.Timings;
import knollfield.core.clock.Limit;
import knollfield.core.risk.EconomicInterval;
import knollfield.core.risk.FreshSet;
import knollfield.core.risk.WearModel;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What waiting risks, and which interval costs least, worked out by hand. */
@RestController
@RequestMapping("/api/calculations")
class RiskCalculationController {

    @Operation(
            summary = "Chance of failure between two states of use, and what it may cost",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content = @Content(examples = @ExampleObject(name = "at the limit", value = """
                                    {
                                      "shareFailedAtLimits": 0.02, "shape": 4,
                                      "distanceNow": 1.00, "ageNow": 0.98, "distanceThen": 1.10, "ageThen": 1.05,
                                      "hazardFactor": 1, "failureMinor": 520000, "plannedMinor": 64000
                                    }"""))))
    @PostMapping("/risk")
    RiskOut risk(@RequestBody RiskIn in) {
        in.check();
        WearModel wear = new WearModel(in.shareFailedAtLimits(), in.shape());
        double now = wear.cumulativeHazard(
                CalculationViews.optional(in.distanceNow()), CalculationViews.optional(in.ageNow()));
        double then = wear.cumulativeHazard(
                CalculationViews.optional(in.distanceThen()), CalculationViews.optional(in.ageThen()));
        double chance = WearModel.chanceBetween(now, then, in.hazardFactor());
        return new RiskOut(chance, Math.round(chance * Math.max(0, in.failureMinor() - in.plannedMinor())));
    }

    @Operation(
            summary = "The renewal interval that costs least, beside the book limit",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            content = @Content(examples = @ExampleObject(name = "a belt", value = """
                                    {
                                      "shareFailedAtLimits": 0.02, "shape": 4,
                                      "limit": {"km": 120000, "months": 72}, "kmPerYear": 20000,
                                      "plannedMinor": 64000, "failureMinor": 520000
                                    }"""))))
    @PostMapping("/economic-interval")
    EconomicOut economic(@RequestBody EconomicIn in) {
        Integer km = in.limit().km();
        Integer months = in.limit().months();
        in.check();
        FreshSet set = FreshSet.at(in.kmPerYear())
                .with(
                        new WearModel(in.shareFailedAtLimits(), in.shape()),
                        1,
                        new Limit(Timings.optional(km), Timings.optional(months)));
        EconomicInterval e = EconomicInterval.of(set, in.plannedMinor(), in.failureMinor());
        return new EconomicOut(
                e.verdict(),
                e.verdict().words(),
                e.years().orElse(null),
                e.km().orElse(null),
                e.shareOfBook().orElse(null),
                e.perYearMinor().orElse(null),
                e.perYearAtBookMinor().orElse(null));
    }
}
