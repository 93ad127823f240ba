package knollfield.app.month;

import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.aftercare.Aftercare;
import knollfield.app.aftercare.StoredRecheck;
import knollfield.app.breakdown.Breakdown;
import knollfield.app.breakdown.Breakdowns;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.estimate.Estimates;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.security.Person;
import knollfield.app.security.PersonRepository;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Renewal;
import knollfield.app.vehicle.StandingDecline;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.completion.Became;
import knollfield.core.completion.Timeliness;
import knollfield.core.completion.WorkDone;
import knollfield.core.engine.EngineFamily;
import knollfield.core.estimate.Outcome;
import org.springframework.stereotype.Service;

/** Gathers what a month came to. */
@Service
class MonthBooks {

    private final Jobs jobs;
    private final Forecasts forecasts;
    private final Estimates estimates;
    private final Aftercare aftercare;
    private final Breakdowns breakdowns;
    private final PersonRepository people;
    private final WorkshopSettings settings;
    private final WorkshopClock clock;

    MonthBooks(
            Jobs jobs,
            Forecasts forecasts,
            Estimates estimates,
            Aftercare aftercare,
            Breakdowns breakdowns,
            PersonRepository people,
            WorkshopSettings settings,
            WorkshopClock clock) {
        this.jobs = jobs;
        this.forecasts = forecasts;
        this.estimates = estimates;
        this.aftercare = aftercare;
        this.breakdowns = breakdowns;
        this.people = people;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * A signed job.
     *
     * @param by who it was booked for; empty where it never had a place on the board
     * @param again the job that does it again
     */
    record Signed(
            Job job, VehicleState state, EngineFamily family, Optional<Person> by, WorkDone work, Optional<Job> again) {

        LocalDate on() {
            return job.done().orElseThrow().on();
        }
    }

    /** What jobs come to. */
    static WorkDone.Sums sums(List<Signed> jobs) {
        return WorkDone.sums(jobs.stream().map(Signed::work).toList());
    }

    /**
     * A no.
     *
     * @param what the whole work, or a line of a job
     * @param told the words in which the risk was told
     */
    record No(
            VehicleState state, Optional<Long> job, String what, LocalDate on, String by, String told, Became became) {}

    /** All of the month's jobs, soonest first. */
    List<Signed> signed(YearMonth month) {
        return signed(jobs.signedBetween(month.atDay(1), month.atEndOfMonth()));
    }

    /** Jobs signed on a fleet's vehicles since the first of January so many years ago, soonest first. */
    List<Signed> past(long fleet, int years) {
        LocalDate today = clock.today();
        return signed(jobs.signedBetween(today.minusYears(years).withDayOfYear(1), today).stream()
                .filter(j -> jobs.state(j)
                        .vehicle()
                        .fleet()
                        .filter(f -> f.id() == fleet)
                        .isPresent())
                .toList());
    }

    private List<Signed> signed(List<Job> done) {
        Map<Long, Job> again = jobs.reworksOf(done.stream().map(Job::id).toList()).stream()
                .collect(Collectors.toMap(
                        j -> j.rework().orElseThrow().of(), Function.identity(), (first, later) -> first));
        Map<Long, Person> byId = people.all().stream().collect(Collectors.toMap(Person::id, Function.identity()));
        return done.stream()
                .map(j -> signed(
                        j, j.booking().map(b -> byId.get(b.technicianId())), Optional.ofNullable(again.get(j.id()))))
                .toList();
    }

    private Signed signed(Job job, Optional<Person> by, Optional<Job> again) {
        VehicleState state = jobs.state(job);
        EngineFamily family = jobs.family(job);
        boolean renewsDrive =
                !job.scope().isInspection() && family.driveItems().stream().anyMatch(job.items()::contains);
        long rate = settings.get().labourRateMinor();
        WorkDone work = new WorkDone(
                renewsDrive
                        ? Optional.of(Timeliness.of(forecasts
                                .on(state, job.done().orElseThrow().on())
                                .forecast()))
                        : Optional.empty(),
                jobs.outline(job).minutes(),
                job.actual().map(a -> new WorkDone.Spent(a.minutes(), Outcome.cost(a.minutes(), a.partsMinor(), rate))),
                estimates
                        .given(job.id())
                        .map(e -> OptionalLong.of(e.netMinor()))
                        .orElseGet(OptionalLong::empty));
        return new Signed(job, state, family, by, work, again);
    }

    /** What owners said no to in the month, soonest first. */
    List<No> noes(YearMonth month) {
        LocalDate from = month.atDay(1);
        LocalDate to = month.atEndOfMonth();
        List<No> noes = new ArrayList<>();
        Map<Long, List<Breakdown>> broken = breakdowns.all().stream()
                .filter(Breakdown::stands)
                .collect(Collectors.groupingBy(Breakdown::vehicleId));
        for (VehicleState s : forecasts.all()) {
            for (StandingDecline d : s.history().declines()) {
                if (!d.declinedOn().isBefore(from) && !d.declinedOn().isAfter(to)) {
                    noes.add(new No(
                            s,
                            Optional.empty(),
                            "the whole work",
                            d.declinedOn(),
                            d.declinedBy(),
                            d.told(),
                            became(s, d.declinedOn(), drives(s), d.withdrawnOn().isPresent(), broken)));
                }
            }
        }
        estimates.leftBetween(from, to).forEach((jobId, left) -> {
            Job job = jobs.get(jobId);
            VehicleState s = jobs.state(job);
            left.forEach(c -> noes.add(new No(
                    s,
                    Optional.of(jobId),
                    estimates.nameOf(job, c.lineCode()),
                    c.on(),
                    c.saidBy(),
                    c.warning(),
                    became(s, c.on(), Set.of(c.lineCode()), !estimates.left(job).contains(c.lineCode()), broken))));
        });
        noes.sort(Comparator.comparing(No::on));
        return noes;
    }

    private static Set<String> drives(VehicleState s) {
        return s.family().map(EngineFamily::driveItems).orElse(Set.of());
    }

    private static Became became(
            VehicleState s, LocalDate on, Set<String> items, boolean withdrawn, Map<Long, List<Breakdown>> broken) {
        return Became.of(
                on,
                s.history().renewals().stream()
                        .filter(r -> items.contains(r.itemCode()))
                        .map(Renewal::date)
                        .toList(),
                broken.getOrDefault(s.vehicle().id(), List.of()).stream()
                        .map(Breakdown::on)
                        .toList(),
                withdrawn);
    }

    /** Drives that broke down in the month. */
    List<Breakdown> broken(YearMonth month) {
        return breakdowns.all().stream()
                .filter(Breakdown::stands)
                .filter(b -> YearMonth.from(b.on()).equals(month))
                .toList();
    }

    /** Rechecks that were due in the month. */
    List<StoredRecheck> rechecks(YearMonth month) {
        return aftercare.dueBetween(month.atDay(1), month.atEndOfMonth());
    }

    /** @param perDayMinor exposure of that day over all vehicles on file, minor units */
    record Carried(LocalDate on, double perDayMinor) {}

    /** So many vehicles are judged for one answer, about a second's work; with more of them fewer days are worked out. */
    private static final int MOST_JUDGED = 9_000;

    /**
     * What waiting exposed the workshop's vehicles to, day by day until today: each day as what was on file by then has it, over
     * the vehicles on file now.
     */
    List<Carried> carried(YearMonth month) {
        LocalDate last = month.atEndOfMonth().isAfter(clock.today()) ? clock.today() : month.atEndOfMonth();
        List<VehicleState> all = forecasts.all().stream()
                .filter(s -> s.vehicle().state().planned())
                .toList();
        int every = Math.max(1, (all.size() * month.lengthOfMonth() + MOST_JUDGED - 1) / MOST_JUDGED);
        List<Carried> days = new ArrayList<>();
        for (LocalDate d = month.atDay(1); !d.isAfter(last); d = next(d, every, last)) {
            LocalDate day = d;
            days.add(new Carried(
                    day,
                    all.parallelStream()
                            .filter(s -> !s.vehicle().firstRegistered().isAfter(day))
                            .mapToDouble(s -> forecasts
                                    .on(s, day)
                                    .week()
                                    .map(w -> w.amountMinor() / 7)
                                    .orElse(0.0))
                            .sum()));
        }
        return days;
    }

    /** The last day is always one of them. */
    private static LocalDate next(LocalDate d, int every, LocalDate last) {
        return d.isBefore(last) && d.plusDays(every).isAfter(last) ? last : d.plusDays(every);
    }

    /** Vehicles by number, to name them. */
    Map<Long, Vehicle> named() {
        Map<Long, Vehicle> named = new HashMap<>();
        forecasts.all().forEach(s -> named.put(s.vehicle().id(), s.vehicle()));
        return named;
    }
}
