package knollfield.app.vehicle;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Many readings typed at once: all of them are taken, or none. */
@Service
class BulkReadings {

    private static final int MOST = 500;

    private final VehicleService vehicles;
    private final CurrentPerson current;

    BulkReadings(VehicleService vehicles, CurrentPerson current) {
        this.vehicles = vehicles;
        this.current = current;
    }

    /** One line; {@code insist} records a value that does not fit the others. */
    record Line(
            String registration, LocalDate date, @Nullable BigDecimal value, boolean insist) {}

    /** @throws InvalidInput with a pointer into the lines for everything that is wrong */
    @Transactional
    int take(DistanceUnit unit, ReadingSource source, List<Line> lines) {
        if (lines.isEmpty()) {
            throw new InvalidInput("/lines", "There is no reading to record.");
        }
        if (lines.size() > MOST) {
            throw new InvalidInput("/lines", "At most %d at once; import a list instead.".formatted(MOST));
        }
        List<FieldProblem> hard = new ArrayList<>();
        List<FieldProblem> soft = new ArrayList<>();
        Set<Long> seen = new HashSet<>();
        List<Runnable> take = new ArrayList<>();
        for (int i = 0; i < lines.size(); i++) {
            Line line = lines.get(i);
            String at = "/lines/" + i;
            Optional<Vehicle> vehicle =
                    vehicles.findByRegistration(line.registration()).filter(v -> vehicles.maySee(current.get(), v));
            if (vehicle.isEmpty()) {
                hard.add(new FieldProblem(
                        at + "/registration", "\"%s\" is not on file.".formatted(line.registration())));
                continue;
            }
            Vehicle v = vehicle.get();
            if (!seen.add(v.id())) {
                hard.add(new FieldProblem(at + "/registration", v.registration() + " stands here twice."));
            }
            BigDecimal value = line.value();
            if (value == null) {
                hard.add(new FieldProblem(at + "/value", "The reading is missing."));
                continue;
            }
            List<FieldProblem> wrong = vehicles.checkReading(v, line.date(), value, unit).problems().stream()
                    .map(p -> new FieldProblem(at + p.pointer(), p.detail()))
                    .toList();
            hard.addAll(wrong);
            if (wrong.isEmpty() && !line.insist()) {
                VehicleHistory history = vehicles.history(v);
                int km = (int) Math.round(unit.toKm(value.doubleValue())) + history.offsetOn(line.date());
                vehicles.objection(history, new Reading(0, line.date(), Math.min(Reading.MAX_KM, km), source))
                        .ifPresent(o -> soft.add(new FieldProblem(at + "/value", o)));
            }
            take.add(() -> vehicles.addReading(v.id(), line.date(), value, unit, source, true));
        }
        if (!hard.isEmpty() || !soft.isEmpty()) {
            boolean onlySoft = hard.isEmpty();
            hard.addAll(soft);
            throw onlySoft ? InvalidInput.unlessInsisted(hard) : new InvalidInput(hard);
        }
        take.forEach(Runnable::run);
        return take.size();
    }

    /** Takes them over HTTP. */
    @RestController
    static class Controller {

        private final BulkReadings bulk;
        private final CurrentPerson current;
        private final WorkshopClock clock;

        Controller(BulkReadings bulk, CurrentPerson current, WorkshopClock clock) {
            this.current = current;
            this.bulk = bulk;
            this.clock = clock;
        }

        record BulkLine(
                String registration,
                @Nullable LocalDate date,
                @Nullable BigDecimal value,
                @Nullable Boolean insist) {}

        record Bulk(DistanceUnit unit, ReadingSource source, List<BulkLine> lines) {}

        record Taken(int count) {}

        /** Readings of several vehicles; a line without a date is of today. */
        @PostMapping("/api/vehicle-readings")
        Taken take(@RequestBody Bulk body) {
            return new Taken(bulk.take(
                    body.unit(),
                    // whoever sees one fleet alone speaks for that fleet, whatever is said
                    current.get().isOutside() ? ReadingSource.FLEET_LIST : body.source(),
                    body.lines().stream()
                            .map(l -> new Line(
                                    l.registration(),
                                    Optional.ofNullable(l.date()).orElse(clock.today()),
                                    l.value(),
                                    Boolean.TRUE.equals(l.insist())))
                            .toList()));
        }
    }
}
