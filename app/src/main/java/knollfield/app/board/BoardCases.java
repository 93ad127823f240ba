package knollfield.app.board;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import knollfield.app.away.Absence;
import knollfield.app.away.Absences;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.estimate.Estimates;
import knollfield.app.hours.Hours;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.stores.Stores;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.JobStage;
import knollfield.core.plan.Earliest;
import knollfield.core.plan.Place;
import knollfield.core.plan.PlanCase;
import knollfield.core.plan.PlanJob;
import knollfield.core.plan.Ruler;
import knollfield.core.plan.Shop;
import knollfield.core.plan.WaitingCost;
import knollfield.core.plan.WorkHours;
import knollfield.core.risk.Exposure;
import knollfield.core.stores.Deliveries;
import knollfield.core.stores.PartsPlan;
import org.springframework.stereotype.Component;

/** Gathers what core's board needs: people, bays, tool sets, fleets, absences, and every open job. */
@Component
class BoardCases {

    /** Days planned ahead: twelve weeks, so that a slot after the holidays can be promised too. */
    static final int DAYS = 84;

    /** A job under way is looked for so far back. */
    private static final int LONGEST_UNDER_WAY_DAYS = 30;

    static final int MINUTES_PER_SLOT = 30;

    /** Code of the set for jobs that need none; it never runs out and is shown nowhere. */
    static final String NO_TOOLS = "_none";

    private final Jobs jobs;
    private final People people;
    private final VehicleService vehicles;
    private final EngineBook book;
    private final Stores stores;
    private final Absences absences;
    private final Estimates estimates;
    private final WorkshopSettings settings;
    private final Hours hours;
    private final WorkshopClock clock;

    BoardCases(
            Jobs jobs,
            People people,
            VehicleService vehicles,
            EngineBook book,
            Stores stores,
            Absences absences,
            Estimates estimates,
            WorkshopSettings settings,
            Hours hours,
            WorkshopClock clock) {
        this.jobs = jobs;
        this.people = people;
        this.vehicles = vehicles;
        this.book = book;
        this.stores = stores;
        this.absences = absences;
        this.estimates = estimates;
        this.settings = settings;
        this.hours = hours;
        this.clock = clock;
    }

    /**
     * The board's case and what it was made from.
     *
     * @param missed planned jobs whose time is over and that nobody has begun; they wait again
     */
    record Gathered(PlanCase plan, Map<Long, Job> jobs, Set<Long> missed, List<Absence> absences) {

        Ruler ruler() {
            return plan.shop().ruler();
        }

        /** Where each job stands. */
        Map<Long, Place> places() {
            return plan.known();
        }

        Job job(long id) {
            return Objects.requireNonNull(jobs.get(id));
        }
    }

    /** The board as it is. */
    Gathered now() {
        return with(List.of());
    }

    /** The board as it would be with more away than there is. */
    Gathered with(List<Absence> more) {
        LocalDateTime now = clock.now();
        LocalDate today = now.toLocalDate();
        List<Job> open = jobs.open();
        List<Absence> away = Stream.concat(
                        absences.endingFrom(today.minusDays(LONGEST_UNDER_WAY_DAYS)).stream(), more.stream())
                .toList();
        Ruler ruler = ruler(open, today);
        Workshop workshop = settings.get();
        Set<LocalDate> cancelled = more.stream()
                .filter(a -> a.kind() == Absence.Kind.FERRY)
                .flatMap(a -> a.from().datesUntil(a.to().plusDays(1)))
                .collect(Collectors.toSet());
        Deliveries deliveries = stores.deliveries(cancelled);
        Map<Long, List<PartsPlan.Served>> served = stores.served(open, deliveries).stream()
                .collect(Collectors.groupingBy(s -> s.need().jobId()));
        Shop shop = shop(ruler, now, open, away, workshop);
        Map<Long, Fleet> fleets = vehicles.fleets().stream().collect(Collectors.toMap(Fleet::id, f -> f));
        Set<Long> missed = new HashSet<>();
        List<PlanJob> planned = new ArrayList<>();
        Map<Long, Job> byId = new HashMap<>();
        for (Job job : open) {
            byId.put(job.id(), job);
            if (job.stage() == JobStage.UNDER_WAY && job.booking().isEmpty()) {
                continue;
            }
            planned.add(planJob(job, shop, fleets, served.getOrDefault(job.id(), List.of()), missed, workshop, now));
        }
        return new Gathered(new PlanCase(shop, planned), byId, missed, away);
    }

    /** From the oldest job at the bench, or from today. */
    private Ruler ruler(List<Job> open, LocalDate today) {
        LocalDate first = open.stream()
                .filter(j -> j.stage() == JobStage.UNDER_WAY)
                .flatMap(j -> j.booking().stream())
                .map(b -> b.start().toLocalDate())
                .filter(d -> !d.isBefore(today.minusDays(LONGEST_UNDER_WAY_DAYS)))
                .min(Comparator.naturalOrder())
                .filter(d -> d.isBefore(today))
                .orElse(today);
        return new Ruler(first, (int) ChronoUnit.DAYS.between(first, today) + DAYS, hours.times());
    }

    /** When work of {@code minutes} ends at a place on the board; empty where its technician has gone or never works then. */
    Optional<LocalDateTime> end(Job.Booking place, int minutes) {
        return people.technicians().stream()
                .filter(p -> p.id() == place.technicianId())
                .findFirst()
                .flatMap(p -> new Ruler(place.start().toLocalDate(), DAYS, hours.times())
                        .end(place.start(), minutes, hours.of(p)));
    }

    private Shop shop(Ruler ruler, LocalDateTime now, List<Job> open, List<Absence> away, Workshop workshop) {
        Set<String> families = open.stream()
                .filter(j -> !j.scope().isInspection())
                .map(Job::familyCode)
                .collect(Collectors.toSet());
        Map<String, Integer> copies = stores.usableCopies();
        return new Shop(
                ruler,
                ruler.day(now.toLocalDate()),
                ruler.slotFrom(now),
                people.technicians().stream()
                        .map(p -> technician(p, ruler, away))
                        .toList(),
                jobs.bays().stream()
                        .map(b -> new Shop.Bay(
                                b.id(),
                                b.name(),
                                b.liftClass(),
                                days(
                                        ruler,
                                        away.stream()
                                                .filter(a -> a.bayId().equals(Optional.of(b.id())))
                                                .toList())))
                        .toList(),
                Stream.concat(
                                Stream.of(new Shop.ToolSet(NO_TOOLS, "none", open.size(), Map.of())),
                                families.stream()
                                        .sorted()
                                        .map(f -> new Shop.ToolSet(
                                                f,
                                                book.find(f)
                                                        .map(v -> v.family().name())
                                                        .orElse(f),
                                                copies.getOrDefault(f, 0),
                                                copiesOut(ruler, away, f))))
                        .toList(),
                vehicles.fleets().stream()
                        .map(f -> new Shop.Fleet(f.id(), f.name(), f.offRoadCap()))
                        .toList(),
                workshop.planPrices());
    }

    private static Set<String> skills(Person p) {
        return p.skills().stream().map(d -> d.words()).collect(Collectors.toSet());
    }

    private Shop.Technician technician(Person p, Ruler ruler, List<Absence> away) {
        WorkHours own = hours.of(p);
        return new Shop.Technician(p.id(), p.name(), skills(p), 100, daysOff(p, own, ruler, away), ruler.slotsOff(own));
    }

    private static Set<Integer> daysOff(Person p, WorkHours hours, Ruler ruler, List<Absence> away) {
        List<Absence> own = away.stream()
                .filter(a ->
                        a.kind() == Absence.Kind.WORKSHOP || a.technicianId().equals(Optional.of(p.id())))
                .toList();
        Set<Integer> off = new HashSet<>(days(ruler, own));
        for (int d = 0; d < ruler.days(); d++) {
            if (!hours.workOn(ruler.date(d).getDayOfWeek())) {
                off.add(d);
            }
        }
        return off;
    }

    private static Set<Integer> days(Ruler ruler, List<Absence> absences) {
        return IntStream.range(0, ruler.days())
                .filter(d -> absences.stream().anyMatch(a -> a.covers(ruler.date(d))))
                .boxed()
                .collect(Collectors.toSet());
    }

    private static Map<Integer, Integer> copiesOut(Ruler ruler, List<Absence> away, String family) {
        Map<Integer, Integer> out = new HashMap<>();
        away.stream()
                .filter(a -> a.familyCode().equals(Optional.of(family)))
                .forEach(a -> IntStream.range(0, ruler.days())
                        .filter(d -> a.covers(ruler.date(d)))
                        .forEach(d -> out.merge(d, 1, Integer::sum)));
        return out;
    }

    private PlanJob planJob(
            Job job,
            Shop shop,
            Map<Long, Fleet> fleets,
            List<PartsPlan.Served> served,
            Set<Long> missed,
            Workshop workshop,
            LocalDateTime now) {
        VehicleState state = jobs.state(job);
        Vehicle vehicle = state.vehicle();
        Ruler ruler = shop.ruler();
        Jobs.Outline outline = jobs.outline(job);
        int slots = slots(outline.minutes());
        Optional<Place> place = job.booking()
                .flatMap(b -> place(ruler, b, job.stage() == JobStage.UNDER_WAY))
                .filter(p -> shop.technician(p.technicianId()).isPresent()
                        && shop.bay(p.bayId()).isPresent());
        PlanJob.Pin pin = new PlanJob.Pin.Free();
        if (place.isPresent() && job.stage() == JobStage.UNDER_WAY) {
            slots = Math.max(1, slotsHeld(shop, place.get(), job));
            pin = new PlanJob.Pin.AtPlace(place.get(), true);
        } else if (place.isPresent() && !job.booking().orElseThrow().end().isAfter(now)) {
            missed.add(job.id());
            place = Optional.empty();
        } else if (place.isPresent()) {
            pin = PlanJob.Pin.of(place.get(), job.booking().orElseThrow().promised(), shop.now());
        } else if (job.booking().isPresent()) {
            missed.add(job.id());
        }
        Earliest earliest = earliest(job, shop, served, now.toLocalDate());
        return new PlanJob(
                job.id(),
                vehicle.registration(),
                job.scope().isInspection() ? NO_TOOLS : job.familyCode(),
                Set.of(jobs.family(job).drive().words()),
                slots,
                outline.helperMinutes(),
                vehicle.liftClass(),
                earliest.slot(),
                earliest.why(),
                blocked(job, vehicle.fleet().map(f -> fleets.getOrDefault(f.id(), f)), shop),
                vehicle.fleet().map(f -> OptionalLong.of(f.id())).orElseGet(OptionalLong::empty),
                waits(state, workshop, ruler),
                workshop.costs().dayOffRoadMinor(),
                pin,
                place);
    }

    /** With a stranding's price, which the Desk's exposure of the bills has not. */
    private static WaitingCost waits(VehicleState state, Workshop workshop, Ruler ruler) {
        int actBy = state.forecast().actBy().map(ruler::day).orElse(Integer.MAX_VALUE);
        double[] until = state.consequence()
                .map(c -> Exposure.byDay(
                        state.forecast(),
                        state.facts().firstRegistered(),
                        state.facts().evidence(),
                        workshop.wearModels(),
                        new Exposure.Stake(
                                c, state.plannedMinor(), workshop.costs().dayOffRoadMinor()),
                        workshop.careful().strandingMinor(),
                        ruler.date(0),
                        ruler.days()))
                .orElseGet(() -> new double[1]);
        return new WaitingCost.Calendar(until, actBy);
    }

    /** Half-hours of work, a begun one whole. */
    static int slots(int minutes) {
        return Math.max(1, (minutes + MINUTES_PER_SLOT - 1) / MINUTES_PER_SLOT);
    }

    /** What is under way stands somewhere, even where the hours have changed since it began. */
    private static Optional<Place> place(Ruler ruler, Job.Booking b, boolean underWay) {
        OptionalInt slot = ruler.slotAt(b.start());
        if (slot.isEmpty() && underWay && ruler.slotFrom(b.start()) < ruler.slots()) {
            slot = OptionalInt.of(ruler.slotFrom(b.start()));
        }
        return slot.isPresent()
                ? Optional.of(new Place(b.technicianId(), b.bayId(), slot.getAsInt()))
                : Optional.empty();
    }

    /** Working half-hours a job at the bench holds: as planned, and at least to the half-hour that runs. */
    private static int slotsHeld(Shop shop, Place place, Job job) {
        Ruler ruler = shop.ruler();
        Shop.Technician technician = shop.technician(place.technicianId()).orElseThrow();
        Job.Booking b = job.booking().orElseThrow();
        int end = Math.max(ruler.slotFrom(b.end()), shop.now() + 1);
        return (int) IntStream.range(ruler.slotFrom(b.start()), Math.min(end, ruler.slots()))
                .filter(s -> technician.worksIn(s, ruler))
                .count();
    }

    private Earliest earliest(Job job, Shop shop, List<PartsPlan.Served> served, LocalDate today) {
        if (job.stage() == JobStage.UNDER_WAY) {
            return new Earliest(0, "");
        }
        Optional<LocalDate> answer = estimates.asked(job) == Estimates.Asked.WAITING
                ? Optional.of(today.plusDays(settings.get().assumptions().consentDays()))
                : Optional.empty();
        return Earliest.of(
                shop.ruler(), shop.now(), served, answer, job.wishes().notBefore());
    }

    /** Days on which the owner, or the fleet, cannot spare the vehicle. */
    private static Set<Integer> blocked(Job job, Optional<Fleet> fleet, Shop shop) {
        Set<Integer> blocked = new HashSet<>(shop.closedTo(job.wishes().days()));
        fleet.ifPresent(f -> blocked.addAll(shop.closedTo(f.days())));
        return blocked;
    }
}
