package knollfield.app.feed;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import knollfield.app.problem.Checks;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.Secret;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Registration;
import knollfield.app.vehicle.StoredReading;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.units.DistanceUnit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Takes what feeds send. Each line is judged by itself, by the same rules as a reading that somebody types: what does not fit
 * is refused and kept to be looked at, and never keeps the others out. Of one vehicle and day, the first counts.
 */
@Service
public class Feeds {

    /** More than any fleet has vehicles, and few enough to be judged while somebody waits. */
    static final int MOST_LINES = 5_000;

    private static final int MOST_SILENT_DAYS = 365;
    /** No reading has more digits; a number written as 1E999999999 is none. */
    private static final int MOST_DIGITS = 15;

    private final FeedRepository repository;
    private final VehicleService vehicles;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final TransactionTemplate transaction;

    Feeds(
            FeedRepository repository,
            VehicleService vehicles,
            CurrentPerson current,
            WorkshopClock clock,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.vehicles = vehicles;
        this.current = current;
        this.clock = clock;
        this.transaction = transaction;
    }

    List<Feed> all() {
        return repository.all();
    }

    /** Feeds that have been silent for too long. */
    List<Feed> silent() {
        return repository.all().stream()
                .filter(f -> f.silentSince(clock.instant()).isPresent())
                .toList();
    }

    List<Feed.Refused> refused(long id) {
        return repository.refused(id);
    }

    String fleetName(Feed feed) {
        return vehicles.fleets().stream()
                .filter(f -> f.id() == feed.fleetId())
                .map(Fleet::name)
                .findFirst()
                .orElse("a fleet that is gone");
    }

    /**
     * Makes a feed and returns its key; it is shown this once and cannot be read again.
     *
     * @throws InvalidInput for a fleet that is not there, a name that is missing, and days out of range
     */
    @Transactional
    public String make(long fleetId, String name, int silentDays, boolean standIn) {
        new Checks()
                .that(vehicles.fleets().stream().anyMatch(f -> f.id() == fleetId), "/fleetId", "Choose a fleet.")
                .text(name, 60, "/name", "The feed's name")
                .that(
                        silentDays >= 1 && silentDays <= MOST_SILENT_DAYS,
                        "/silentDays",
                        "1 to %d days.".formatted(MOST_SILENT_DAYS))
                .orThrow();
        String key = Secret.make();
        repository.add(
                fleetId,
                name.strip(),
                Secret.hash(key),
                silentDays,
                standIn,
                clock.instant(),
                current.get().name());
        return key;
    }

    @Transactional
    public void end(long id) {
        if (!repository.end(id, clock.instant())) {
            throw new NotFound("There is no such feed any more.");
        }
    }

    Optional<Feed> byKey(String key) {
        return repository.byKey(Secret.hash(key));
    }

    /**
     * Takes what a feed sends.
     *
     * @throws InvalidInput where there are too many lines; none is taken then
     */
    Feed.Received receive(Feed feed, List<Feed.Line> lines) {
        if (lines.size() > MOST_LINES) {
            throw new InvalidInput("/readings", "At most %d at once.".formatted(MOST_LINES));
        }
        return current.asFleet("Feed " + feed.name(), feed.fleetId(), () -> {
            Map<String, Vehicle> known = known(feed.fleetId());
            int taken = 0;
            int same = 0;
            List<Feed.Refusal> refused = new ArrayList<>();
            for (int i = 0; i < lines.size(); i++) {
                Feed.Line line = lines.get(i);
                try {
                    boolean fresh = Boolean.TRUE.equals(transaction.execute(s -> take(line, known)));
                    taken += fresh ? 1 : 0;
                    same += fresh ? 0 : 1;
                } catch (InvalidInput e) {
                    refused.add(new Feed.Refusal(i, line.vehicle(), words(e)));
                }
            }
            note(feed, lines, refused);
            return new Feed.Received(taken, same, refused);
        });
    }

    /** By registration and by VIN, both as they are compared. */
    private Map<String, Vehicle> known(long fleetId) {
        Map<String, Vehicle> known = new HashMap<>();
        for (Vehicle v : vehicles.all()) {
            if (v.fleet().map(Fleet::id).equals(Optional.of(fleetId))) {
                known.put(Registration.key(v.registration()), v);
                v.vin().ifPresent(vin -> known.put(Registration.key(vin), v));
            }
        }
        return known;
    }

    /** False where the vehicle has one of a feed for that day. */
    private boolean take(Feed.Line line, Map<String, Vehicle> known) {
        Vehicle vehicle = Optional.ofNullable(known.get(Registration.key(line.vehicle())))
                .orElseThrow(() ->
                        new InvalidInput("/vehicle", "\"%s\" is no vehicle of this fleet.".formatted(line.vehicle())));
        LocalDate day = day(line.at());
        BigDecimal value = value(line.value());
        DistanceUnit unit = unit(line.unit());
        boolean there = vehicles.history(vehicle).readings().stream()
                .anyMatch(r -> r.source() == ReadingSource.TELEMATICS && isOf(r, day));
        if (there) {
            return false;
        }
        vehicles.addReading(vehicle.id(), day, value, unit, ReadingSource.TELEMATICS, false);
        return true;
    }

    private static boolean isOf(StoredReading r, LocalDate day) {
        return r.date().equals(day) && !r.markedWrong();
    }

    private LocalDate day(String at) {
        String text = at.strip();
        try {
            if (text.isEmpty()) {
                return clock.today();
            }
            if (text.length() <= "2026-11-25".length()) {
                return LocalDate.parse(text);
            }
            // a moment that says where it is counted from is one of the workshop's days by the workshop's clock
            return text.matches(".*([zZ]|[+-]\\d\\d:?\\d\\d)$")
                    ? OffsetDateTime.parse(text).atZoneSameInstant(clock.zone()).toLocalDate()
                    : LocalDateTime.parse(text.replace(' ', 'T')).toLocalDate();
        } catch (DateTimeException e) {
            throw new InvalidInput(
                    "/at", "\"%s\" is no moment; write 2026-11-25 or 2026-11-25T08:30:00Z.".formatted(text));
        }
    }

    private static BigDecimal value(String text) {
        try {
            BigDecimal value = new BigDecimal(text.strip());
            if (value.precision() <= MOST_DIGITS && Math.abs(value.scale()) <= MOST_DIGITS) {
                return value;
            }
        } catch (NumberFormatException e) {
            // said below
        }
        throw new InvalidInput("/value", "\"%s\" is no odometer reading.".formatted(text));
    }

    private static DistanceUnit unit(String text) {
        return switch (text.strip().toLowerCase(Locale.ROOT)) {
            case "", "km", "kilometres", "kilometers" -> DistanceUnit.KM;
            case "mi", "mile", "miles" -> DistanceUnit.MILES;
            default -> throw new InvalidInput("/unit", "\"%s\" is no unit; write km or mi.".formatted(text));
        };
    }

    private static String words(InvalidInput e) {
        return e.problems().stream().map(FieldProblem::detail).collect(Collectors.joining(" "));
    }

    private void note(Feed feed, List<Feed.Line> lines, List<Feed.Refusal> refused) {
        transaction.executeWithoutResult(s -> {
            repository.heard(feed.id(), clock.instant());
            for (Feed.Refusal r : refused) {
                Feed.Line line = lines.get(r.line());
                String what = (line.value() + " " + line.unit() + " " + line.at())
                        .strip()
                        .replaceAll("\\s+", " ");
                repository.refused(feed.id(), new Feed.Refused(clock.instant(), r.vehicle(), what, r.why()));
            }
            repository.prune(feed.id());
        });
    }
}
