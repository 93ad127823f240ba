package knollfield.app.desk;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import knollfield.app.due.VehicleState;
import knollfield.app.job.Job;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.due.FindingEffect;
import knollfield.core.due.JobStage;
import knollfield.core.due.LifeStrip;
import knollfield.core.due.NextStep;
import knollfield.core.due.Standing;
import knollfield.core.due.Status;
import knollfield.core.due.UseState;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.ItemKind;
import org.springframework.stereotype.Component;

/** How a vehicle stands in the Desk's list, in few words. */
@Component
class DeskRows {

    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final WorkshopSettings settings;
    private final Words words;

    DeskRows(CurrentPerson current, WorkshopClock clock, WorkshopSettings settings, Words words) {
        this.current = current;
        this.clock = clock;
        this.settings = settings;
        this.words = words;
    }

    /**
     * @param openJobs jobs that are not done, by vehicle
     * @param rechecks what is to be looked at again today, by vehicle
     */
    DeskRow row(VehicleState state, Map<Long, Job> openJobs, Map<Long, String> rechecks) {
        Vehicle v = state.vehicle();
        Optional<Job> open = Optional.ofNullable(openJobs.get(v.id()));
        Optional<String> recheck = Optional.ofNullable(rechecks.get(v.id()));
        NextStep next = NextStep.of(
                state.forecast(),
                open.map(Job::stage),
                state.callBack(),
                recheck.isPresent(),
                open.filter(Job::awaitsOwner).isPresent());
        return new DeskRow(
                v.id(),
                v.registration(),
                v.ownerName(),
                v.ownerPhone(),
                v.fleet().map(Fleet::name).orElse(null),
                v.makeModel(),
                state.family().map(EngineFamily::drive).orElse(null),
                state.family().map(EngineFamily::interference).orElse(null),
                state.forecast().status(),
                state.forecast().statusWords(),
                state.forecast().actBy().orElse(null),
                note(state, open),
                state.exposurePerWeekMinor().isPresent()
                        ? state.exposurePerWeekMinor().getAsLong()
                        : null,
                state.exposurePerHour().map(Math::round).orElse(null),
                DeskRow.LifeStrip.of(
                        LifeStrip.of(state.forecast(), settings.get().policy().horizonDays())),
                next,
                current.get().isOutside() ? next.wordsForOwner() : next.words(),
                state.callBack(),
                recheck.orElse(null),
                open.map(Job::waits).filter(w -> !w.isEmpty()).orElse(null),
                state.whileHere().isPresent() && open.filter(Job::renews).isEmpty(),
                state.aside()
                        .map(a -> "%s until %s".formatted(a.why().words(), words.day(a.until())))
                        .orElse(null),
                v.state().kind() == UseState.Kind.IN_USE
                        ? null
                        : v.state().kind().words(),
                open.map(Job::id).orElse(null));
    }

    /** What the row says in a few words. */
    private String note(VehicleState state, Optional<Job> open) {
        Set<ItemKind> unknown = state.forecast().unknownBeside().stream()
                .map(i -> i.item().kind())
                .collect(Collectors.toCollection(TreeSet::new));
        Status status = state.forecast().status();
        boolean calm = status.isAhead() && !state.callBack();
        return calm && !unknown.isEmpty() && open.flatMap(Job::booking).isEmpty()
                ? unknown.stream().map(DeskRows::part).collect(Collectors.joining(", ")) + " not known"
                : shortNote(state, open);
    }

    private static String part(ItemKind kind) {
        return kind == ItemKind.WATER_PUMP
                ? "pump"
                : kind.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    private String shortNote(VehicleState state, Optional<Job> open) {
        if (open.map(Job::stage).filter(s -> s == JobStage.UNDER_WAY).isPresent()) {
            return "at the bench";
        }
        Optional<Job.Booking> booking = open.flatMap(Job::booking);
        if (booking.isPresent()) {
            return (booking.get().promised() ? "promised " : "planned ")
                    + booking.get().start().toLocalDate().getDayOfMonth() + " "
                    + booking.get().start().getMonth().getDisplayName(java.time.format.TextStyle.SHORT, Locale.UK);
        }
        if (state.callBack()) {
            return "call promised";
        }
        LocalDate today = clock.today();
        return switch (state.forecast().status()) {
            case STOP -> "do not run";
            case OVERDUE -> "limit " + days(Standing.daysOver(state.forecast())) + " ago";
            case UNKNOWN_HISTORY -> "no record";
            case NO_BOOK -> state.forecast().noInterval() ? "no interval" : "engine not known";
            case ACT_NOW ->
                Standing.found(state.forecast(), FindingEffect.Call.ACT_NOW)
                        .or(() -> Standing.found(state.forecast(), FindingEffect.Call.ACT_SOON))
                        .orElse("due now");
            case COMING, CLEAR ->
                state.forecast()
                        .actBy()
                        .map(d -> days(ChronoUnit.DAYS.between(today, d)))
                        .orElse("");
        };
    }

    private static String days(long days) {
        return days + (days == 1 ? " day" : " days");
    }
}
