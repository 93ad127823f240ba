package knollfield.app.importing;

import java.math.BigDecimal;
import java.time.DayOfWeek;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.app.engine.EngineBook;
import knollfield.app.parts.CatalogPart;
import knollfield.app.parts.Catalogue;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Renewal;
import knollfield.app.vehicle.StoredReading;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.Condition;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.units.DistanceUnit;
import org.springframework.stereotype.Component;

/** What is on file, in the very form in which a list is taken in; taken in again it changes nothing. */
@Component
class ListWriter {

    private final VehicleService vehicles;
    private final EngineBook book;
    private final Catalogue catalogue;
    private final People people;
    private final WorkshopSettings settings;

    ListWriter(
            VehicleService vehicles, EngineBook book, Catalogue catalogue, People people, WorkshopSettings settings) {
        this.vehicles = vehicles;
        this.book = book;
        this.catalogue = catalogue;
        this.people = people;
        this.settings = settings;
    }

    /** The header and a line for each of its kind. */
    List<List<String>> of(ImportKind kind) {
        Stream<Map<ImportField, String>> lines = switch (kind) {
            case VEHICLES -> vehicles.allHistories().stream().map(this::vehicle);
            case READINGS -> vehicles.allHistories().stream().flatMap(this::readings);
            case RENEWALS -> vehicles.allHistories().stream().flatMap(this::renewals);
            case PARTS -> catalogue.all().stream().map(this::part);
            case PEOPLE -> people.all().stream().map(this::person);
        };
        List<List<String>> rows = new ArrayList<>();
        rows.add(kind.fields().stream().map(ImportField::words).toList());
        lines.forEach(l ->
                rows.add(kind.fields().stream().map(f -> l.getOrDefault(f, "")).toList()));
        return rows;
    }

    private static void put(Map<ImportField, String> line, ImportField field, Object value) {
        line.put(field, String.valueOf(value));
    }

    private Map<ImportField, String> vehicle(VehicleHistory h) {
        Vehicle v = h.vehicle();
        Map<ImportField, String> line = new EnumMap<>(ImportField.class);
        put(line, ImportField.REGISTRATION, v.registration());
        put(line, ImportField.MAKE_MODEL, v.makeModel());
        put(line, ImportField.OWNER, v.ownerName());
        put(line, ImportField.PHONE, v.ownerPhone());
        put(line, ImportField.FIRST_REGISTERED, v.firstRegistered());
        put(
                line,
                ImportField.USAGE,
                Optional.ofNullable(settings.usageClasses().get(v.usageClass()))
                        .map(c -> c.name())
                        .orElse(v.usageClass()));
        put(line, ImportField.ENGINE_FAMILY, v.familyCode().orElse(""));
        put(line, ImportField.ENGINE_LETTERS, v.engine());
        put(line, ImportField.VIN, v.vin().orElse(""));
        put(line, ImportField.FLEET, v.fleet().map(Fleet::name).orElse(""));
        put(
                line,
                ImportField.CONDITIONS,
                v.conditions().stream().sorted().map(Condition::words).collect(Collectors.joining("; ")));
        put(line, ImportField.EQUIPMENT, v.equipment().stream().sorted().collect(Collectors.joining("; ")));
        h.readings().stream()
                .filter(r -> !r.markedWrong())
                .max(Comparator.comparing(StoredReading::date).thenComparing(StoredReading::id))
                .ifPresent(r -> {
                    put(
                            line,
                            ImportField.ODOMETER,
                            r.writtenValue().stripTrailingZeros().toPlainString());
                    put(line, ImportField.ODOMETER_UNIT, unit(r.writtenUnit()));
                    put(line, ImportField.ODOMETER_DATE, r.date());
                });
        return line;
    }

    private static String unit(DistanceUnit unit) {
        return unit == DistanceUnit.KM ? "km" : "miles";
    }

    private Stream<Map<ImportField, String>> readings(VehicleHistory h) {
        return h.readings().stream().filter(r -> !r.markedWrong()).map(r -> {
            Map<ImportField, String> line = new EnumMap<>(ImportField.class);
            put(line, ImportField.REGISTRATION, h.vehicle().registration());
            put(line, ImportField.DATE, r.date());
            BigDecimal value = r.writtenValue().stripTrailingZeros();
            put(line, ImportField.ODOMETER, value.toPlainString());
            put(line, ImportField.ODOMETER_UNIT, unit(r.writtenUnit()));
            put(line, ImportField.SOURCE, r.source().words());
            return line;
        });
    }

    private Stream<Map<ImportField, String>> renewals(VehicleHistory h) {
        return h.renewals().stream().map(r -> {
            Map<ImportField, String> line = new EnumMap<>(ImportField.class);
            put(line, ImportField.REGISTRATION, h.vehicle().registration());
            put(line, ImportField.ITEM, item(h.vehicle(), r));
            put(line, ImportField.DATE, r.date());
            put(line, ImportField.ODOMETER, r.km());
            put(line, ImportField.ODOMETER_UNIT, "km");
            put(line, ImportField.PART_NUMBER, r.part());
            return line;
        });
    }

    private String item(Vehicle vehicle, Renewal renewal) {
        return vehicle.familyCode()
                .flatMap(book::find)
                .flatMap(f -> f.family().item(renewal.itemCode()))
                .map(Item::name)
                .orElse(renewal.itemCode());
    }

    private Map<ImportField, String> part(CatalogPart p) {
        Map<ImportField, String> line = new EnumMap<>(ImportField.class);
        Optional<EngineFamily> family = book.find(p.familyCode()).map(f -> f.family());
        put(line, ImportField.PART_NUMBER, p.number());
        put(line, ImportField.PART_NAME, p.name());
        put(line, ImportField.ENGINE_FAMILY, p.familyCode());
        put(
                line,
                ImportField.ITEM,
                family.flatMap(f -> f.item(p.itemCode())).map(Item::name).orElse(p.itemCode()));
        put(
                line,
                ImportField.PRICE,
                BigDecimal.valueOf(p.priceMinor())
                        .movePointLeft(settings.get().currencyDigits())
                        .toPlainString());
        put(line, ImportField.GRADE, p.grade().words());
        OptionalInt life = p.expectedKm();
        put(line, ImportField.LIFE, life.isPresent() ? life.getAsInt() : "");
        put(line, ImportField.LEAD_DAYS, p.leadDays());
        return line;
    }

    private Map<ImportField, String> person(Person p) {
        Map<ImportField, String> line = new EnumMap<>(ImportField.class);
        put(line, ImportField.PERSON, p.name());
        put(line, ImportField.SIGN_IN, p.signIn());
        put(line, ImportField.ROLE, p.role().name().replace('_', ' ').toLowerCase(Locale.ROOT));
        put(
                line,
                ImportField.SKILLS,
                p.skills().stream().sorted().map(s -> s.words()).collect(Collectors.joining("; ")));
        put(
                line,
                ImportField.WORKING_DAYS,
                p.hours().isPresent()
                        ? ""
                        : p.workingDays().stream()
                                .sorted(Comparator.naturalOrder())
                                .map(DayOfWeek::name)
                                .map(d -> d.charAt(0) + d.substring(1, 3).toLowerCase(Locale.ROOT))
                                .collect(Collectors.joining("; ")));
        put(
                line,
                ImportField.FLEET,
                p.fleetId()
                        .flatMap(id -> vehicles.fleets().stream()
                                .filter(f -> f.id() == id)
                                .findFirst())
                        .map(Fleet::name)
                        .orElse(""));
        return line;
    }
}
