package knollfield.app.calendar;

import java.time.Duration;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import knollfield.app.job.Bay;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.job.Jobs.JobPlaced;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Secret;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.TimeZone;
import net.fortuna.ical4j.model.TimeZoneRegistryFactory;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.component.VTimeZone;
import net.fortuna.ical4j.model.property.Description;
import net.fortuna.ical4j.model.property.DtEnd;
import net.fortuna.ical4j.model.property.DtStamp;
import net.fortuna.ical4j.model.property.DtStart;
import net.fortuna.ical4j.model.property.LastModified;
import net.fortuna.ical4j.model.property.Location;
import net.fortuna.ical4j.model.property.ProdId;
import net.fortuna.ical4j.model.property.Sequence;
import net.fortuna.ical4j.model.property.Status;
import net.fortuna.ical4j.model.property.Summary;
import net.fortuna.ical4j.model.property.Uid;
import net.fortuna.ical4j.model.property.XProperty;
import net.fortuna.ical4j.model.property.immutable.ImmutableCalScale;
import net.fortuna.ical4j.model.property.immutable.ImmutableMethod;
import net.fortuna.ical4j.model.property.immutable.ImmutableStatus;
import net.fortuna.ical4j.model.property.immutable.ImmutableVersion;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Appointments as calendars know them (RFC 5545): each job keeps its UID, each change of its place raises SEQUENCE, and a
 * job taken off the board stays as CANCELLED for a while, so that calendars that have it take it out.
 */
@Service
class Calendars {

    private static final Duration CANCELLED_FOR = Duration.ofDays(60);
    private static final int DAYS_BACK = 14;

    private final CalendarRepository repository;
    private final Jobs jobs;
    private final People people;
    private final VehicleService vehicles;
    private final WorkshopSettings settings;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    Calendars(
            CalendarRepository repository,
            Jobs jobs,
            People people,
            VehicleService vehicles,
            WorkshopSettings settings,
            CurrentPerson current,
            WorkshopClock clock) {
        this.repository = repository;
        this.jobs = jobs;
        this.people = people;
        this.vehicles = vehicles;
        this.settings = settings;
        this.current = current;
        this.clock = clock;
    }

    @EventListener
    void placed(JobPlaced event) {
        event.after()
                .ifPresentOrElse(
                        b -> repository.tell(event.jobId(), b, clock.instant()),
                        () -> repository.cancel(event.jobId(), clock.instant()));
    }

    /** A fleet's promises; @throws NotFound where it is not there, or another's. */
    String ofFleet(long id) {
        VehicleService.View view = VehicleService.View.of(current.get());
        return vehicles.fleets().stream()
                .filter(f -> f.id() == id && view.includes(f))
                .findFirst()
                .map(f -> file(Optional.of(f.id())))
                .orElseThrow(() -> new NotFound("There is no fleet %d, or it is not yours to see.".formatted(id)));
    }

    /** The board, or one fleet's promises, as a calendar file. */
    String file(Optional<Long> fleetId) {
        Map<Long, String> technicians =
                people.technicians().stream().collect(Collectors.toMap(Person::id, Person::name));
        Map<Long, String> bays = jobs.everyBay().stream().collect(Collectors.toMap(Bay::id, Bay::name));
        String workshop = settings.get().name();
        String name =
                fleetId.map(this::fleetName).map(f -> f + " at " + workshop).orElse("Board of " + workshop);
        Calendar calendar = new Calendar();
        calendar.add(new ProdId("-//Knollfield//Board//EN"));
        calendar.add(ImmutableVersion.VERSION_2_0);
        calendar.add(ImmutableCalScale.GREGORIAN);
        calendar.add(ImmutableMethod.PUBLISH);
        calendar.add(new XProperty("X-WR-CALNAME", name));
        Optional<VTimeZone> rules = zoneRules(clock.zone());
        rules.ifPresent(calendar::add);
        Optional<ZoneId> told =
                rules.flatMap(r -> Optional.ofNullable(r.getTimeZoneId())).map(id -> ZoneId.of(id.getValue()));
        for (CalendarRepository.Entry e : repository.entries(
                clock.today().minusDays(DAYS_BACK).atStartOfDay(),
                clock.instant().minus(CANCELLED_FOR))) {
            Job job = jobs.get(e.jobId());
            Vehicle vehicle = jobs.state(job).vehicle();
            boolean ofFleet =
                    fleetId.isEmpty() || vehicle.fleet().map(Fleet::id).equals(fleetId);
            // a fleet sees what it was promised; a plan that is no promise yet is the workshop's own affair
            if (ofFleet && (fleetId.isEmpty() || e.promised())) {
                calendar.add(event(e, job, vehicle, fleetId.isPresent(), workshop, technicians, bays, told));
            }
        }
        return calendar.toString();
    }

    /** The rules of a region's clock, as a file carries them (RFC 5545, 3.6.5); empty where the library knows no such region. */
    private static Optional<VTimeZone> zoneRules(ZoneId zone) {
        return Optional.ofNullable(
                        TimeZoneRegistryFactory.getInstance().createRegistry().getTimeZone(zone.getId()))
                .map(TimeZone::getVTimeZone);
    }

    private VEvent event(
            CalendarRepository.Entry e,
            Job job,
            Vehicle vehicle,
            boolean forFleet,
            String workshop,
            Map<Long, String> technicians,
            Map<Long, String> bays,
            Optional<ZoneId> told) {
        ZoneId zone = clock.zone();
        VEvent event = new VEvent(false);
        event.add(new Uid("job-%d@knollfield".formatted(e.jobId())));
        event.add(new DtStamp(e.changedAt()));
        event.add(new LastModified(e.changedAt()));
        event.add(new Sequence(e.sequence()));
        ZonedDateTime start = e.start().atZone(zone);
        ZonedDateTime end = e.end().atZone(zone);
        if (told.isPresent()) {
            // the library has the rules of some regions under the name of another that keeps the same time
            event.add(new DtStart<>(start.withZoneSameInstant(told.get())));
            event.add(new DtEnd<>(end.withZoneSameInstant(told.get())));
        } else {
            event.add(new DtStart<>(start.toInstant()));
            event.add(new DtEnd<>(end.toInstant()));
        }
        String work = jobs.family(job).drive().words() + " job";
        event.add(new Summary("%s, %s".formatted(vehicle.registration(), work)));
        Optional<Job.Booking> booking = job.booking();
        event.add(new Location(
                forFleet
                        ? workshop
                        : booking.map(b -> bays.getOrDefault(b.bayId(), workshop))
                                .orElse(workshop)));
        event.add(new Description(
                forFleet
                        ? vehicle.makeModel()
                        : "%s, %s%s"
                                .formatted(
                                        vehicle.makeModel(),
                                        vehicle.ownerName(),
                                        booking.map(b -> technicians.get(b.technicianId()))
                                                .map(t -> "; " + t)
                                                .orElse(""))));
        Status status = e.cancelled()
                ? ImmutableStatus.VEVENT_CANCELLED
                : e.promised() ? ImmutableStatus.VEVENT_CONFIRMED : ImmutableStatus.VEVENT_TENTATIVE;
        event.add(status);
        return event;
    }

    private String fleetName(long id) {
        return vehicles.fleets().stream()
                .filter(f -> f.id() == id)
                .map(Fleet::name)
                .findFirst()
                .orElseThrow(() -> new NotFound("There is no fleet " + id + "."));
    }

    /** A feed in force, and what it shows. */
    record Told(CalendarRepository.Feed feed, String shows) {}

    List<Told> feeds() {
        return repository.feeds().stream()
                .map(f -> new Told(
                        f, f.fleetId().map(id -> fleetName(id) + ", promises").orElse("the whole board")))
                .toList();
    }

    /**
     * Makes a private address and returns its secret part; it is shown this once and cannot be read again.
     *
     * @param fleetId empty for the whole board
     */
    @Transactional
    public String makeFeed(Optional<Long> fleetId) {
        fleetId.ifPresent(id -> {
            if (vehicles.fleets().stream().noneMatch(f -> f.id() == id)) {
                throw new InvalidInput("/fleetId", "Choose a fleet.");
            }
        });
        String token = Secret.make();
        repository.addFeed(Secret.hash(token), fleetId, current.get(), clock.instant());
        return token;
    }

    @Transactional
    public void revoke(long id) {
        if (!repository.revoke(id, clock.instant())) {
            throw new NotFound("There is no such address in force.");
        }
    }

    /**
     * The file behind a private address.
     *
     * @throws NotFound where there is none, or it was revoked
     */
    String feed(String token) {
        return repository
                .feed(Secret.hash(token))
                .map(f -> file(f.fleetId()))
                .orElseThrow(() -> new NotFound("There is no calendar at this address, or it was revoked."));
    }
}
