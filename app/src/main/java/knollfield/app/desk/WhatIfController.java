package knollfield.app.desk;

import java.time.LocalDate;
import java.util.Optional;
import java.util.OptionalLong;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.problem.Checks;
import knollfield.app.problem.NotFound;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.DueEngine;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.Status;
import knollfield.core.due.VehicleForecast;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;
import knollfield.core.risk.Exposure;
import knollfield.core.units.Years;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What happens if she waits until spring? Answers for any day and any usage; stores nothing. */
@RestController
class WhatIfController {

    private static final int MAX_YEARS = 15;
    private static final int MAX_KM = 300_000;

    private final Forecasts forecasts;
    private final VehicleService vehicles;
    private final WorkshopSettings settings;
    private final Words words;

    WhatIfController(Forecasts forecasts, VehicleService vehicles, WorkshopSettings settings, Words words) {
        this.forecasts = forecasts;
        this.vehicles = vehicles;
        this.settings = settings;
        this.words = words;
    }

    /**
     * @param sentence the answer in one sentence
     * @param odometerKm even chance, as the odometer shows it
     * @param lowKm one chance in ten that it is less
     * @param highKm one chance in ten that it is more
     * @param sinceKm distance since the renewal then, km
     * @param sinceMonths age since the renewal then, months of 365.25/12 days
     * @param statusThen how the vehicle will stand on that day
     * @param exposureMinor exposure of waiting until then; null where it is not known
     * @param chance of a failure until then, 0 to 1; null where it is not known
     * @param window the due window under the usage asked for
     */
    record WhatIfView(
            String sentence,
            LocalDate date,
            double kmPerYear,
            double odometerKm,
            double lowKm,
            double highKm,
            double sinceKm,
            double sinceMonths,
            Status statusThen,
            String statusThenWords,
            @Nullable Long exposureMinor,
            @Nullable Double chance,
            @Nullable WindowView window) {}

    /**
     * @param date a day from today to fifteen years on
     * @param kmPerYear distance a year from the last reading on; left out: as believed
     */
    @GetMapping("/api/vehicles/{id}/what-if")
    WhatIfView whatIf(
            @PathVariable long id,
            @RequestParam LocalDate date,
            @RequestParam(required = false) @Nullable Double kmPerYear) {
        vehicles.get(id);
        VehicleState state = forecasts.find(id).orElseThrow(() -> new NotFound("There is no vehicle " + id + "."));
        LocalDate today = state.forecast().today();
        new Checks()
                .that(!date.isBefore(today), "/date", "Waiting begins today; %s is past.".formatted(words.day(date)))
                .that(
                        !date.isAfter(today.plusYears(MAX_YEARS)),
                        "/date",
                        "At most %d years ahead.".formatted(MAX_YEARS))
                .that(
                        kmPerYear == null || (kmPerYear >= 0 && kmPerYear <= MAX_KM),
                        "/kmPerYear",
                        "The distance must be 0 to %s a year.".formatted(words.km(MAX_KM)))
                .orThrow();
        VehicleForecast now = kmPerYear == null ? state.forecast() : forecast(state, today, kmPerYear);
        VehicleForecast then = forecast(state, date, kmPerYear);
        Optional<Exposure> exposure = forecasts.exposure(state, now, date);
        Optional<ItemForecast> deciding = now.deciding();
        ClockStart start = deciding.flatMap(ItemForecast::start)
                .orElseGet(() -> ClockStart.atFirstRegistration(state.facts().firstRegistered()));
        int offset = state.history().offsetOn(date);
        double km = now.projection().medianKm(date) - offset;
        return new WhatIfView(
                words.write(
                        sentence(date, km, exposure, then.status()),
                        settings.get().currency()),
                date,
                now.projection().rate().kmPerYear(),
                km,
                now.projection().quantileKm(date, 0.1) - offset,
                now.projection().quantileKm(date, 0.9) - offset,
                now.usedKm(start, date),
                Years.between(start.date(), date) * 12,
                then.status(),
                then.statusWords(),
                exposure.map(Exposure::minor).orElse(null),
                exposure.map(Exposure::chance).orElse(null),
                deciding.map(d -> WindowView.of(now, d, state.history())).orElse(null));
    }

    private VehicleForecast forecast(VehicleState state, LocalDate day, @Nullable Double kmPerYear) {
        Workshop w = settings.get();
        return forecasts.judged(
                state,
                kmPerYear == null
                        ? DueEngine.forecast(state.facts(), state.family(), w.policy(), w.odometer(), day)
                        : DueEngine.atStatedUsage(
                                state.facts(), state.family(), w.policy(), w.odometer(), day, kmPerYear));
    }

    private static Statement sentence(LocalDate date, double km, Optional<Exposure> exposure, Status then) {
        OptionalLong minor =
                exposure.isPresent() ? OptionalLong.of(exposure.get().minor()) : OptionalLong.empty();
        Fact.Words status = Fact.Words.midSentence(then.words());
        return minor.isPresent()
                ? Statement.of(
                        "Wait until {0}: {1}, exposure {2}; then {3}.",
                        new Fact.Day(date), new Fact.Km(km), new Fact.Money(minor.getAsLong()), status)
                : Statement.of(
                        "Wait until {0}: {1}, exposure not known; then {2}.",
                        new Fact.Day(date), new Fact.Km(km), status);
    }
}
