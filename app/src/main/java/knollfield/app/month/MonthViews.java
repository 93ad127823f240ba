package knollfield.app.month;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.aftercare.StoredRecheck;
import knollfield.app.month.MonthViews.MonthBreakdownView;
import knollfield.app.month.MonthViews.SignedView;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.Person;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.completion.Became;
import knollfield.core.completion.Timeliness;
import knollfield.core.completion.WorkDone;
import knollfield.core.fleet.FleetMonths;
import org.jspecify.annotations.Nullable;

/** What a month came to, as it is shown. */
final class MonthViews {

    private MonthViews() {}

    /**
     * A signed job; money in minor units before tax.
     *
     * @param timeliness null for work that renews no belt or chain
     * @param againId number of the job that does it again
     */
    record SignedView(
            long jobId,
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            @Nullable Long fleetId,
            @Nullable String fleetName,
            String familyCode,
            String familyName,
            @Nullable Long personId,
            @Nullable String person,
            LocalDate on,
            int km,
            boolean inspection,
            @Nullable Timeliness timeliness,
            @Nullable String timelinessWords,
            int bookMinutes,
            @Nullable Integer takenMinutes,
            @Nullable Long estimatedMinor,
            @Nullable Long takenMinor,
            @Nullable Long againId,
            @Nullable String againWhy) {}

    record TimelinessView(Timeliness timeliness, String words, int jobs) {}

    /**
     * Hours of the jobs whose hours are on file.
     *
     * @param jobs all of them
     * @param counted those whose hours are on file
     * @param takenToBook ratio of the two; null where one of them is not known
     */
    record HoursOf(
            String code,
            String name,
            int jobs,
            int counted,
            int bookMinutes,
            int takenMinutes,
            @Nullable Double takenToBook) {}

    /**
     * Money of the jobs that have both an estimate and what they took; minor units before tax.
     *
     * @param left jobs that lack one of them
     * @param differenceMinor above zero where they cost more than estimated
     */
    record MonthMoney(int jobs, int left, long estimatedMinor, long takenMinor, long differenceMinor) {}

    record NoView(
            long vehicleId,
            String registration,
            @Nullable Long jobId,
            String what,
            LocalDate on,
            String by,
            String told,
            Became became,
            String becameWords) {}

    /** @param late open past its day, or looked at after it */
    record MonthRecheckView(
            long vehicleId,
            String registration,
            long jobId,
            String what,
            LocalDate due,
            @Nullable LocalDate doneOn,
            @Nullable String result,
            boolean late) {}

    record MonthBreakdownView(
            long vehicleId,
            String registration,
            LocalDate on,
            String what,
            boolean declined,
            @Nullable Long costMinor) {}

    record ComingVehicle(long vehicleId, String registration) {}

    record ComingMonthView(
            LocalDate month, List<ComingVehicle> vehicles, int planned, long minutes, long likelyMinor) {}

    /**
     * @param month its first day
     * @param over the month has ended
     * @param words what it came to
     * @param timeliness of renewals, each kind with its count
     * @param coming this month from today on and the next ones, over all vehicles
     */
    record MonthView(
            LocalDate month,
            boolean over,
            List<String> words,
            List<SignedView> jobs,
            List<TimelinessView> timeliness,
            List<HoursOf> byFamily,
            List<HoursOf> byPerson,
            MonthMoney money,
            List<NoView> noes,
            List<MonthRecheckView> rechecks,
            List<MonthBreakdownView> breakdowns,
            List<ComingMonthView> coming) {}

    /** @param perDayMinor exposure of that day, minor units */
    record CarriedDay(LocalDate on, double perDayMinor) {}

    static String name(Map<Long, Vehicle> named, long vehicle) {
        return Optional.ofNullable(named.get(vehicle))
                .map(Vehicle::registration)
                .orElse("");
    }

    static List<TimelinessView> timeliness(WorkDone.Sums sums) {
        return Arrays.stream(Timeliness.values())
                .map(t -> new TimelinessView(t, t.words(), sums.of(t)))
                .toList();
    }

    static List<HoursOf> hours(
            List<MonthBooks.Signed> jobs,
            Function<MonthBooks.Signed, String> code,
            Function<MonthBooks.Signed, String> name) {
        Map<String, List<MonthBooks.Signed>> by = jobs.stream().collect(Collectors.groupingBy(code));
        return by.entrySet().stream()
                .map(e -> hours(e.getKey(), name.apply(e.getValue().get(0)), MonthBooks.sums(e.getValue())))
                .sorted(Comparator.comparing(HoursOf::jobs).reversed().thenComparing(HoursOf::name))
                .toList();
    }

    static HoursOf hours(String code, String name, WorkDone.Sums s) {
        return new HoursOf(
                code,
                name,
                s.jobs(),
                s.counted(),
                s.bookMinutes(),
                s.takenMinutes(),
                s.takenToBook().orElse(null));
    }

    static MonthMoney money(WorkDone.Sums s) {
        return new MonthMoney(
                s.compared(),
                s.jobs() - s.compared(),
                s.estimatedMinor(),
                s.comparedMinor(),
                s.comparedMinor() - s.estimatedMinor());
    }

    static SignedView view(MonthBooks.Signed s) {
        Vehicle v = s.state().vehicle();
        WorkDone w = s.work();
        return new SignedView(
                s.job().id(),
                v.id(),
                v.registration(),
                v.makeModel(),
                v.ownerName(),
                v.fleet().map(f -> f.id()).orElse(null),
                v.fleet().map(f -> f.name()).orElse(null),
                s.family().code(),
                s.family().name(),
                s.by().map(Person::id).orElse(null),
                s.by().map(Person::name).orElse(null),
                s.on(),
                s.job().done().orElseThrow().km(),
                s.job().scope().isInspection(),
                w.timeliness().orElse(null),
                w.timeliness().map(Timeliness::words).orElse(null),
                w.bookMinutes(),
                w.spent().map(WorkDone.Spent::minutes).orElse(null),
                w.estimatedMinor().isPresent() ? w.estimatedMinor().getAsLong() : null,
                w.spent().map(WorkDone.Spent::costMinor).orElse(null),
                s.again().map(j -> j.id()).orElse(null),
                s.again().map(j -> j.rework().orElseThrow().reason()).orElse(null));
    }

    static NoView view(MonthBooks.No n) {
        return new NoView(
                n.state().vehicle().id(),
                n.state().vehicle().registration(),
                n.job().orElse(null),
                n.what(),
                n.on(),
                n.by(),
                n.told(),
                n.became(),
                n.became().words());
    }

    static ComingMonthView view(FleetMonths.Month m, Map<Long, Vehicle> named) {
        FleetMonths.Sum sum = m.sum();
        return new ComingMonthView(
                m.month().atDay(1),
                m.comes().stream()
                        .map(c -> new ComingVehicle(c.vehicleId(), name(named, c.vehicleId())))
                        .toList(),
                sum.planned(),
                sum.minutes(),
                sum.money().likely());
    }

    /** @param today by which it is late, where it is open */
    static MonthRecheckView view(StoredRecheck r, String registration, LocalDate today) {
        Optional<LocalDate> done = r.done().map(d -> d.on());
        return new MonthRecheckView(
                r.vehicleId(),
                registration,
                r.jobId(),
                r.what(),
                r.due(),
                done.orElse(null),
                r.done().map(d -> d.result()).orElse(null),
                done.orElse(today).isAfter(r.due()));
    }

    /**
     * A month such as 2026-11; none: that of {@code today}.
     *
     * @throws InvalidInput where it is none, or has not begun
     */
    static YearMonth read(@Nullable String month, LocalDate today) {
        YearMonth now = YearMonth.from(today);
        if (month == null || month.isBlank()) {
            return now;
        }
        YearMonth asked;
        try {
            asked = YearMonth.parse(month.strip());
        } catch (DateTimeException e) {
            throw new InvalidInput("/month", "A month is written like %s.".formatted(now));
        }
        if (asked.isAfter(now)) {
            throw new InvalidInput("/month", "That month has not begun.");
        }
        return asked;
    }
}
