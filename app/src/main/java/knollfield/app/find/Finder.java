package knollfield.app.find;

import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleFilter;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.find.FindViews.Found;
import knollfield.app.find.FindViews.FoundFamily;
import knollfield.app.find.FindViews.FoundJob;
import knollfield.app.find.FindViews.FoundOwner;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.Person;
import knollfield.app.security.Role;
import knollfield.app.shared.Folded;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Owner;
import knollfield.app.vehicle.Owners;
import knollfield.app.vehicle.Registration;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.UseState;
import knollfield.core.risk.DeskOrder;
import org.springframework.stereotype.Component;

/** Finds vehicles, and owners, families and jobs beside them. */
@Component
class Finder {

    private static final int MAX_PAGE = 200;

    /** Owners, families and jobs beside the vehicles. */
    private static final int BESIDE = 20;

    private final Forecasts forecasts;
    private final VehicleService vehicles;
    private final Owners owners;
    private final EngineBook book;
    private final Jobs jobs;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    Finder(
            Forecasts forecasts,
            VehicleService vehicles,
            Owners owners,
            EngineBook book,
            Jobs jobs,
            CurrentPerson current,
            WorkshopClock clock) {
        this.forecasts = forecasts;
        this.vehicles = vehicles;
        this.owners = owners;
        this.book = book;
        this.jobs = jobs;
        this.current = current;
        this.clock = clock;
    }

    /**
     * Vehicles by registration, owner, part of a VIN, a telephone number in any spelling, make, engine or its family, sold and
     * scrapped ones too; worst first, those whose registration begins so before all. Beside them owners, families and the job
     * of that number.
     *
     * @param limit vehicles at most, 1 to 200
     */
    Found find(String q, int offset, int limit) {
        if (q.isBlank()) {
            return new Found(0, List.of(), List.of(), List.of(), List.of());
        }
        Person person = current.get();
        boolean whole = person.role() != Role.FLEET_CONTACT;
        boolean desk = person.role() == Role.MANAGER || person.role() == Role.FRONT_DESK;
        List<Long> named = desk ? owners.matching(q) : List.of();
        Set<Long> theirs = Set.copyOf(named);
        Predicate<VehicleState> matches = matching(q);
        String key = Registration.key(q);
        List<VehicleState> seen = forecasts.all().stream()
                .filter(s -> vehicles.maySee(person, s.vehicle()))
                .toList();
        List<VehicleState> found = seen.stream()
                .filter(s -> matches.test(s)
                        || s.vehicle().ownerId().filter(theirs::contains).isPresent())
                .sorted(Comparator.comparing((VehicleState s) ->
                                key.isEmpty() || !s.search().key().startsWith(key))
                        .thenComparing(s -> !s.vehicle().state().planned())
                        .thenComparing(DeskOrder.byExposure())
                        .thenComparing(s -> s.vehicle().registration()))
                .toList();
        return new Found(
                found.size(),
                found.stream()
                        .skip(Math.max(0, offset))
                        .limit(Math.max(1, Math.min(limit, MAX_PAGE)))
                        .map(FindViews::vehicle)
                        .toList(),
                owners(named, seen),
                whole ? families(q, seen) : List.of(),
                whole ? job(q) : List.of());
    }

    private Predicate<VehicleState> matching(String q) {
        VehicleFilter all = VehicleFilter.words(q);
        return new VehicleFilter(
                        all.fleet(),
                        all.drive(),
                        all.family(),
                        all.interference(),
                        all.withinDays(),
                        EnumSet.allOf(UseState.Kind.class),
                        q)
                .on(clock.today())::matches;
    }

    private List<FoundOwner> owners(List<Long> named, List<VehicleState> seen) {
        Map<Long, Long> counts = seen.stream()
                .filter(s -> s.vehicle().ownerId().isPresent())
                .collect(Collectors.groupingBy(s -> s.vehicle().ownerId().orElseThrow(), Collectors.counting()));
        return owners.of(named.stream().limit(BESIDE).toList()).stream()
                .map(o -> new FoundOwner(
                        o.id(),
                        o.name(),
                        o.phones().stream().map(Owner.Phone::number).findFirst().orElse(null),
                        counts.getOrDefault(o.id(), 0L).intValue()))
                .toList();
    }

    private List<FoundFamily> families(String q, List<VehicleState> seen) {
        String words = Folded.of(q.strip());
        return book.all().stream()
                .map(v -> v.family())
                .filter(f -> Folded.of(f.code() + " " + f.name()).contains(words))
                .limit(BESIDE)
                .map(f -> new FoundFamily(f.code(), f.name(), (int) seen.stream()
                        .filter(s -> s.vehicle().familyCode().equals(Optional.of(f.code())))
                        .count()))
                .toList();
    }

    /** The job of that number, as "12", "#12" or "job 12". */
    private List<FoundJob> job(String q) {
        String number = q.strip().toLowerCase(Locale.ROOT).replaceFirst("^(job\\s*|#)", "");
        if (!number.matches("\\d{1,9}")) {
            return List.of();
        }
        return jobs.find(Long.parseLong(number)).stream().map(this::job).toList();
    }

    private FoundJob job(Job job) {
        Vehicle vehicle = vehicles.get(job.vehicleId());
        return new FoundJob(job.id(), vehicle.registration(), vehicle.makeModel(), job.stage());
    }
}
