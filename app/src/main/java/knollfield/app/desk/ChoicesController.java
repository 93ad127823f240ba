package knollfield.app.desk;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import knollfield.app.engine.EngineBook;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.Person;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.standins.Outside;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.Condition;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.UseState;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.Drive;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import knollfield.core.units.Usual;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** What forms and filters offer to choose from, in the desk's words. */
@RestController
class ChoicesController {

    private final EngineBook book;
    private final VehicleService vehicles;
    private final WorkshopSettings settings;
    private final CurrentPerson current;
    private final Outside outside;

    ChoicesController(
            EngineBook book,
            VehicleService vehicles,
            WorkshopSettings settings,
            CurrentPerson current,
            Outside outside) {
        this.outside = outside;
        this.book = book;
        this.vehicles = vehicles;
        this.settings = settings;
        this.current = current;
    }

    record NamedChoice(String code, String words) {}

    /** Both ends belong to it. */
    record RangeView(double low, double high) {}

    record FleetChoice(long id, String name) {}

    record EvidenceChoice(EvidenceKind code, String words, String advice) {}

    /**
     * @param faultCodeReader something answers where fault codes are read; else they are typed
     * @param beltMeter the same for the belt's frequency
     * @param delivery what a delivery of parts is called
     * @param usual figures outside are asked about
     */
    record ChoicesView(
            List<FleetChoice> fleets,
            List<NamedChoice> families,
            List<NamedChoice> usageClasses,
            List<NamedChoice> drives,
            List<NamedChoice> conditions,
            List<String> equipment,
            List<EvidenceChoice> evidence,
            List<NamedChoice> confidences,
            List<NamedChoice> readingSources,
            List<NamedChoice> states,
            boolean faultCodeReader,
            boolean beltMeter,
            String delivery,
            Map<Usual, RangeView> usual) {}

    @GetMapping("/api/desk/choices")
    ChoicesView choices() {
        Person person = current.get();
        Outside.State now = outside.get();
        return new ChoicesView(
                vehicles.fleets().stream()
                        .filter(f ->
                                person.fleetId().isEmpty() || person.fleetId().get() == f.id())
                        .map(f -> new FleetChoice(f.id(), f.name()))
                        .toList(),
                book.all().stream()
                        .map(f -> new NamedChoice(f.family().code(), f.family().name()))
                        .toList(),
                settings.usageClasses().values().stream()
                        .sorted(Comparator.comparing(UsageClass::name))
                        .map(c -> new NamedChoice(c.code(), c.name()))
                        .toList(),
                Arrays.stream(Drive.values())
                        .map(d -> new NamedChoice(d.name(), d.words()))
                        .toList(),
                Arrays.stream(Condition.values())
                        .map(c -> new NamedChoice(c.name(), c.words()))
                        .toList(),
                book.all().stream()
                        .flatMap(f -> f.family().accessSteps().stream())
                        .map(AccessStep::equipment)
                        .flatMap(e -> e.stream())
                        .distinct()
                        .sorted()
                        .toList(),
                EvidenceKind.offered().stream()
                        .map(k -> new EvidenceChoice(k, k.words(), k.advice()))
                        .toList(),
                Arrays.stream(Evidence.Confidence.values())
                        .filter(c -> c != Evidence.Confidence.SIMULATED)
                        .map(c -> new NamedChoice(c.name(), c.words()))
                        .toList(),
                Arrays.stream(ReadingSource.values())
                        .filter(s -> s != ReadingSource.FIRST_REGISTRATION)
                        .map(s -> new NamedChoice(s.name(), s.words()))
                        .toList(),
                Arrays.stream(UseState.Kind.values())
                        .map(k -> new NamedChoice(k.name(), k.words()))
                        .toList(),
                now.faultCodes(),
                now.beltMeter(),
                now.deliveryName(),
                Arrays.stream(Usual.values()).collect(Collectors.toMap(u -> u, u -> new RangeView(u.low(), u.high()))));
    }
}
