package knollfield.app.setup;

import java.time.DayOfWeek;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.app.problem.Checks;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.security.PersonRepository;
import knollfield.app.security.Role;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.due.Policy;
import knollfield.core.engine.Drive;
import knollfield.core.engine.Limit;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.WearModel;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Policy, rates and people; the manager's alone. */
@RestController
@RequestMapping("/api/setup")
class SetupController {

    private final WorkshopSettings settings;
    private final People people;
    private final PersonRepository repository;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    SetupController(
            WorkshopSettings settings,
            People people,
            PersonRepository repository,
            CurrentPerson current,
            WorkshopClock clock) {
        this.settings = settings;
        this.people = people;
        this.repository = repository;
        this.current = current;
        this.clock = clock;
    }

    enum PolicyKind {
        BOOK,
        EARLY,
        FIXED
    }

    /** Shares run from 0 to 1; money is in minor units of the currency. */
    record WorkshopView(
            String name,
            String currency,
            PolicyKind policy,
            double earlyShare,
            @Nullable Integer fixedKm,
            @Nullable Integer fixedMonths,
            double riskInterference,
            double riskOther,
            int horizonDays,
            Policy.UnknownRule unknownRule,
            long labourRateMinor,
            long recoveryMinor,
            long dayOffRoadMinor,
            int daysOffRoad,
            double shareFailedAtLimits,
            double wearShape,
            int version,
            String changedBy,
            Instant changedAt) {}

    /** The same figures as they are to be. */
    record WorkshopChange(
            String name,
            PolicyKind policy,
            double earlyShare,
            @Nullable Integer fixedKm,
            @Nullable Integer fixedMonths,
            double riskInterference,
            double riskOther,
            int horizonDays,
            Policy.UnknownRule unknownRule,
            long labourRateMinor,
            long recoveryMinor,
            long dayOffRoadMinor,
            int daysOffRoad,
            double shareFailedAtLimits,
            double wearShape,
            int version) {}

    record PersonView(
            long id,
            String signIn,
            String name,
            Role role,
            @Nullable Long fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            boolean active,
            int version) {}

    record NewPerson(
            String signIn,
            String name,
            Role role,
            @Nullable Long fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            String password) {}

    record PersonChange(
            String name,
            Role role,
            @Nullable Long fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            boolean active,
            int version) {}

    @GetMapping("/workshop")
    WorkshopView workshop() {
        return view(settings.get());
    }

    @PutMapping("/workshop")
    WorkshopView changeWorkshop(@RequestBody WorkshopChange c) {
        check(c);
        Workshop before = settings.get();
        settings.change(new Workshop(
                c.name().strip(),
                before.currency(),
                new Policy(timing(c), c.riskInterference(), c.riskOther(), c.horizonDays(), c.unknownRule()),
                c.labourRateMinor(),
                new Consequence.Costs(c.recoveryMinor(), c.dayOffRoadMinor(), c.daysOffRoad()),
                new WearModel(c.shareFailedAtLimits(), c.wearShape()),
                c.version(),
                current.get().name(),
                clock.instant()));
        return view(settings.get());
    }

    @GetMapping("/people")
    List<PersonView> people() {
        return repository.all().stream().map(SetupController::view).toList();
    }

    @PostMapping("/people")
    List<PersonView> addPerson(@RequestBody NewPerson p) {
        people.add(
                p.signIn(),
                p.name(),
                p.role(),
                Optional.ofNullable(p.fleetId()),
                p.skills(),
                p.workingDays(),
                p.password());
        return people();
    }

    @PutMapping("/people/{id}")
    List<PersonView> changePerson(@PathVariable long id, @RequestBody PersonChange p) {
        people.change(new Person(
                id,
                "",
                p.name(),
                p.role(),
                Optional.ofNullable(p.fleetId()),
                p.skills(),
                p.workingDays(),
                p.active(),
                p.version()));
        return people();
    }

    private static void check(WorkshopChange c) {
        new Checks()
                .text(c.name(), 80, "/name", "The workshop's name")
                .that(
                        c.policy() != PolicyKind.EARLY || (c.earlyShare() > 0 && c.earlyShare() <= 1),
                        "/earlyShare",
                        "The share must be above 0 % and at most 100 %.")
                .that(
                        c.policy() != PolicyKind.FIXED || c.fixedKm() != null || c.fixedMonths() != null,
                        "/fixedKm",
                        "A fixed limit needs a distance, an age, or both.")
                .that(c.fixedKm() == null || c.fixedKm() > 0, "/fixedKm", "The distance must be above zero.")
                .that(c.fixedMonths() == null || c.fixedMonths() > 0, "/fixedMonths", "The age must be above zero.")
                .that(
                        c.riskInterference() > 0 && c.riskInterference() < 1,
                        "/riskInterference",
                        "The chance must lie between 0 and 100 %.")
                .that(c.riskOther() > 0 && c.riskOther() < 1, "/riskOther", "The chance must lie between 0 and 100 %.")
                .that(
                        c.horizonDays() >= 1 && c.horizonDays() <= 730,
                        "/horizonDays",
                        "The horizon must be 1 to 730 days.")
                .that(c.labourRateMinor() >= 0, "/labourRateMinor", "The rate must be zero or more.")
                .that(c.recoveryMinor() >= 0, "/recoveryMinor", "The cost must be zero or more.")
                .that(c.dayOffRoadMinor() >= 0, "/dayOffRoadMinor", "The cost must be zero or more.")
                .that(c.daysOffRoad() >= 0, "/daysOffRoad", "The days must be zero or more.")
                .that(
                        c.shareFailedAtLimits() > 0 && c.shareFailedAtLimits() < 1,
                        "/shareFailedAtLimits",
                        "The share must lie between 0 and 100 %.")
                .that(c.wearShape() > 0, "/wearShape", "The shape must be above zero.")
                .orThrow();
    }

    private static Policy.Timing timing(WorkshopChange c) {
        return switch (c.policy()) {
            case BOOK -> new Policy.Timing.Book();
            case EARLY -> new Policy.Timing.Early(c.earlyShare());
            case FIXED -> new Policy.Timing.Fixed(new Limit(boxed(c.fixedKm()), boxed(c.fixedMonths())));
        };
    }

    private static OptionalInt boxed(@Nullable Integer value) {
        return value == null ? OptionalInt.empty() : OptionalInt.of(value);
    }

    private static WorkshopView view(Workshop w) {
        Policy p = w.policy();
        Limit fixed = p.timing() instanceof Policy.Timing.Fixed f ? f.limit() : null;
        return new WorkshopView(
                w.name(),
                w.currency(),
                p.timing() instanceof Policy.Timing.Book
                        ? PolicyKind.BOOK
                        : fixed == null ? PolicyKind.EARLY : PolicyKind.FIXED,
                p.share(),
                fixed == null || fixed.km().isEmpty() ? null : fixed.km().getAsInt(),
                fixed == null || fixed.months().isEmpty()
                        ? null
                        : fixed.months().getAsInt(),
                p.riskInterference(),
                p.riskOther(),
                p.horizonDays(),
                p.unknownRule(),
                w.labourRateMinor(),
                w.costs().recoveryMinor(),
                w.costs().dayOffRoadMinor(),
                w.costs().daysOffRoad(),
                w.wear().shareFailedAtLimits(),
                w.wear().shape(),
                w.version(),
                w.changedBy(),
                w.changedAt());
    }

    private static PersonView view(Person p) {
        return new PersonView(
                p.id(),
                p.signIn(),
                p.name(),
                p.role(),
                p.fleetId().orElse(null),
                p.skills(),
                p.workingDays(),
                p.active(),
                p.version());
    }
}
