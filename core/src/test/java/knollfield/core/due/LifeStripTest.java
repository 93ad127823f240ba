package knollfield.core.due;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.due.Policy.UnknownRule;
import knollfield.core.due.VehicleFacts.Special;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.TensionerKind;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import org.junit.jupiter.api.Test;

/** How far a vehicle has come within its limits, today and at the horizon. */
class LifeStripTest {

    private static final LocalDate RENEWED = LocalDate.of(2020, 3, 10);
    private static final LocalDate TODAY = LocalDate.of(2023, 3, 10);
    private static final Policy BOOK = new Policy(new Policy.Timing.Book(), 0.1, 0.5, 120, UnknownRule.DUE_NOW);

    private static VehicleForecast forecast(Optional<EngineFamily> family, Map<String, ClockStart> starts) {
        VehicleFacts facts = new VehicleFacts(
                        RENEWED.minusYears(9),
                        true,
                        List.of(new Reading(1, TODAY, 90_000, ReadingSource.WORKSHOP)),
                        starts,
                        Set.of(),
                        List.of(),
                        new UsageClass("T", "test", 20_000, 6_000),
                        List.of())
                .with(new Special(UseState.laidUp(TODAY), 0, Optional.empty(), Optional.empty(), Set.of()));
        return DueEngine.forecast(facts, family, BOOK, TODAY);
    }

    private static VehicleForecast renewed() {
        ClockStart start = new ClockStart(RENEWED, 60_000, ClockStart.Grade.DOCUMENTED);
        return forecast(
                Optional.of(Families.belt(TensionerKind.SPRING_PIN, true)),
                Map.of("belt", start, "tensioner", start, "pump", start));
    }

    @Test
    void theSharesAreThoseOfTheItemThatDecides() {
        VehicleForecast forecast = renewed();
        int limitKm =
                forecast.deciding().orElseThrow().limit().orElseThrow().km().orElseThrow();
        LifeStrip life = LifeStrip.of(forecast, 365);

        // it stands from today on, so only the age goes on
        assertThat(life.distance().orElseThrow()).isEqualTo(30_000.0 / limitKm, within(1e-12));
        assertThat(life.distanceSoon()).isEqualTo(life.distance());
        // Source: Gregorian calendar: 10 March 2020 to 2023 are 1,095 days, to 9 March 2024 1,460, to 2026 2,191
        assertThat(life.age().orElseThrow()).isEqualTo(1_095 / 2_191.0, within(1e-12));
        assertThat(life.ageSoon().orElseThrow()).isEqualTo(1_460 / 2_191.0, within(1e-12));
        assertThat(life.binding()).isEqualTo(Binding.AGE);
        assertThat(LifeStrip.of(forecast, 0).ageSoon()).isEqualTo(life.age());
    }

    @Test
    void whatNobodyKnowsIsLeftEmpty() {
        VehicleForecast nothingKnown = forecast(Optional.of(Families.belt(TensionerKind.SPRING_PIN, true)), Map.of());
        assertThat(nothingKnown.status()).isEqualTo(Status.UNKNOWN_HISTORY);
        for (VehicleForecast f : List.of(nothingKnown, forecast(Optional.empty(), Map.of()))) {
            LifeStrip life = LifeStrip.of(f, 120);
            assertThat(life.distance()).isEmpty();
            assertThat(life.distanceSoon()).isEmpty();
            assertThat(life.age()).isEmpty();
            assertThat(life.ageSoon()).isEmpty();
            assertThat(life.binding()).isEqualTo(Binding.NONE);
        }
    }
}
