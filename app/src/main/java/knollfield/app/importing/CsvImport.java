package knollfield.app.importing;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.engine.EngineBook;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Registration;
import knollfield.app.vehicle.Renewal;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.app.vehicle.VinWarning;
import knollfield.core.due.ClockStart;
import knollfield.core.due.Condition;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.identity.Vin;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.units.DistanceUnit;
import org.apache.commons.csv.CSVException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Reads a list of vehicles, or of readings, as CSV (RFC 4180, UTF-8). Either every line is taken or none: a list with a
 * problem in it changes nothing.
 */
@Service
public class CsvImport {

    private static final int MAX_LINES = 20_000;

    /** Columns of a list of vehicles; the second group may be missing. */
    private static final List<String> VEHICLE_NEEDED =
            List.of("registration", "make_model", "owner", "phone", "usage", "first_registered");

    private static final List<String> VEHICLE_OPTIONAL = List.of(
            "vin",
            "engine_family",
            "fleet",
            "conditions",
            "equipment",
            "odometer",
            "odometer_unit",
            "odometer_date",
            "belt_renewed_on",
            "belt_renewed_odometer");

    private static final List<String> READING_NEEDED = List.of("registration", "date", "odometer");
    private static final List<String> READING_OPTIONAL = List.of("unit", "source");

    private final VehicleService vehicles;
    private final EngineBook book;
    private final WorkshopSettings settings;
    private final CurrentPerson current;

    CsvImport(VehicleService vehicles, EngineBook book, WorkshopSettings settings, CurrentPerson current) {
        this.vehicles = vehicles;
        this.book = book;
        this.settings = settings;
        this.current = current;
    }

    /** What a list holds. */
    public enum Kind {
        VEHICLES,
        READINGS
    }

    /** What is wrong at one place of a line. */
    public record LineProblem(String column, String detail) {}

    /**
     * A line of the list.
     *
     * @param line number in the file, the header being 1
     * @param problems what keeps the list from being taken
     * @param warnings what looks odd and is taken all the same
     */
    public record Line(
            long line, String registration, String summary, List<LineProblem> problems, List<LineProblem> warnings) {}

    /** The list as it was understood. */
    public record Preview(Kind kind, List<Line> lines, int good, int bad) {}

    /** What was taken. */
    public record Imported(Kind kind, int count) {}

    /**
     * Reads the list and changes nothing.
     *
     * @throws InvalidInput where it is not a list at all: empty, not text, wrong columns
     */
    public Preview preview(byte[] bytes) {
        Parsed parsed = parse(bytes);
        int bad =
                (int) parsed.lines.stream().filter(l -> !l.problems().isEmpty()).count();
        return new Preview(parsed.kind, parsed.lines, parsed.lines.size() - bad, bad);
    }

    /**
     * Takes every line of the list in one transaction.
     *
     * @throws InvalidInput with each problem's line where there is any
     */
    @Transactional
    public Imported take(byte[] bytes) {
        Parsed parsed = parse(bytes);
        List<FieldProblem> problems = new ArrayList<>();
        for (Line line : parsed.lines) {
            line.problems()
                    .forEach(p -> problems.add(new FieldProblem(
                            "/%d/%s".formatted(line.line(), p.column()),
                            "Line %d, %s: %s".formatted(line.line(), p.column(), p.detail()))));
        }
        if (!problems.isEmpty()) {
            throw new InvalidInput(problems);
        }
        parsed.actions.forEach(Runnable::run);
        return new Imported(parsed.kind, parsed.lines.size());
    }

    private record Parsed(Kind kind, List<Line> lines, List<Runnable> actions) {}

    private Parsed parse(byte[] bytes) {
        String text = decode(bytes);
        if (text.isBlank()) {
            throw new InvalidInput("/file", "The file is empty.");
        }
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .setTrim(true)
                .setIgnoreEmptyLines(true)
                .setAllowMissingColumnNames(true)
                .get();
        try (CSVParser parser = CSVParser.parse(text, format)) {
            Kind kind = kind(parser.getHeaderNames());
            Parsed parsed = new Parsed(kind, new ArrayList<>(), new ArrayList<>());
            Context context = new Context();
            for (CSVRecord r : parser) {
                if (parsed.lines.size() >= MAX_LINES) {
                    throw new InvalidInput("/file", "The file has more than %d lines; split it.".formatted(MAX_LINES));
                }
                Row row = new Row(r);
                if (kind == Kind.VEHICLES) {
                    vehicle(row, context, parsed);
                } else {
                    reading(row, parsed);
                }
            }
            if (parsed.lines.isEmpty()) {
                throw new InvalidInput("/file", "The file has a header and no lines.");
            }
            return parsed;
        } catch (CSVException | IllegalArgumentException | java.io.UncheckedIOException e) {
            throw new InvalidInput("/file", "The file is not CSV: " + e.getMessage());
        } catch (IOException e) {
            throw new InvalidInput("/file", "The file is not CSV: " + e.getMessage());
        }
    }

    private static String decode(byte[] bytes) {
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes))
                    .toString();
            if (text.indexOf('\0') >= 0) {
                throw new InvalidInput("/file", "The file is not text; save the list as CSV, UTF-8.");
            }
            return text.startsWith("\ufeff") ? text.substring(1) : text;
        } catch (CharacterCodingException e) {
            throw new InvalidInput("/file", "The file is not UTF-8 text; save the list as CSV, UTF-8.");
        }
    }

    private static Kind kind(List<String> header) {
        boolean readings = header.contains("date") && !header.contains("make_model");
        List<String> needed = readings ? READING_NEEDED : VEHICLE_NEEDED;
        List<String> optional = readings ? READING_OPTIONAL : VEHICLE_OPTIONAL;
        List<String> missing = needed.stream().filter(c -> !header.contains(c)).toList();
        List<String> unknown = header.stream()
                .filter(c -> !needed.contains(c) && !optional.contains(c))
                .toList();
        if (!missing.isEmpty() || !unknown.isEmpty()) {
            throw new InvalidInput(
                    "/file",
                    "The columns do not fit a list of %s.%s%s"
                            .formatted(
                                    readings ? "readings" : "vehicles",
                                    missing.isEmpty() ? "" : " Missing: " + String.join(", ", missing) + ".",
                                    unknown.isEmpty() ? "" : " Not known: " + String.join(", ", unknown) + "."));
        }
        return readings ? Kind.READINGS : Kind.VEHICLES;
    }

    /** Look-ups that every line of a list needs. */
    private final class Context {
        private final Set<String> seen = new HashSet<>();
        private final Map<String, Fleet> fleets = vehicles.fleets().stream()
                .collect(Collectors.toMap(f -> f.name().toLowerCase(Locale.ROOT), Function.identity()));
        private final Map<String, String> classes = new HashMap<>();

        Context() {
            settings.usageClasses().values().forEach(c -> {
                classes.put(c.name().toLowerCase(Locale.ROOT), c.code());
                classes.put(c.code().toLowerCase(Locale.ROOT), c.code());
            });
        }
    }

    /** A line being read; gathers what is wrong with it. */
    private static final class Row {
        private final CSVRecord csv;
        private final List<LineProblem> problems = new ArrayList<>();
        private final List<LineProblem> warnings = new ArrayList<>();

        Row(CSVRecord csv) {
            this.csv = csv;
            if (!csv.isConsistent()) {
                problems.add(new LineProblem(
                        "line",
                        "has %d values where the header has %d."
                                .formatted(
                                        csv.size(),
                                        csv.getParser().getHeaderNames().size())));
            }
        }

        long line() {
            return csv.getRecordNumber() + 1;
        }

        String text(String column) {
            return csv.isSet(column) ? csv.get(column) : "";
        }

        String textOr(String column, String other) {
            return text(column).isEmpty() ? other : text(column);
        }

        String needed(String column, int max) {
            String value = text(column);
            if (value.isEmpty()) {
                problems.add(new LineProblem(column, "is missing."));
            } else if (value.length() > max) {
                problems.add(new LineProblem(column, "is longer than %d characters.".formatted(max)));
            }
            return value;
        }

        Optional<LocalDate> date(String column) {
            String value = text(column);
            if (value.isEmpty()) {
                return Optional.empty();
            }
            try {
                return Optional.of(LocalDate.parse(value));
            } catch (DateTimeParseException e) {
                problems.add(new LineProblem(column, "\"%s\" is not a date like 2026-11-25.".formatted(value)));
                return Optional.empty();
            }
        }

        Optional<BigDecimal> number(String column) {
            String value = text(column).replace(" ", "").replace("\u00a0", "");
            if (value.isEmpty()) {
                return Optional.empty();
            }
            if (!value.matches("\\d{1,12}(\\.\\d{1,3})?")) {
                problems.add(
                        new LineProblem(column, "\"%s\" is not a number of zero or more.".formatted(text(column))));
                return Optional.empty();
            }
            return Optional.of(new BigDecimal(value));
        }

        DistanceUnit unit(String column) {
            return switch (text(column).toLowerCase(Locale.ROOT)) {
                case "", "km" -> DistanceUnit.KM;
                case "miles", "mi" -> DistanceUnit.MILES;
                default -> {
                    problems.add(new LineProblem(column, "\"%s\" is neither km nor miles.".formatted(text(column))));
                    yield DistanceUnit.KM;
                }
            };
        }

        <T> Set<T> set(String column, Function<String, @Nullable T> find, String what) {
            Set<T> found = new HashSet<>();
            for (String part : text(column).split(";")) {
                if (part.isBlank()) {
                    continue;
                }
                T value = find.apply(part.strip().toLowerCase(Locale.ROOT));
                if (value == null) {
                    problems.add(new LineProblem(column, "\"%s\" is not %s.".formatted(part.strip(), what)));
                } else {
                    found.add(value);
                }
            }
            return found;
        }

        void problem(String column, String detail) {
            problems.add(new LineProblem(column, detail));
        }

        void add(List<FieldProblem> others, String valueColumn, String dateColumn) {
            others.forEach(p -> problem(p.pointer().equals("/date") ? dateColumn : valueColumn, p.detail()));
        }
    }

    private void vehicle(Row row, Context context, Parsed into) {
        String registration = row.needed("registration", 20);
        String key = Registration.key(registration);
        if (!registration.isEmpty() && key.isEmpty()) {
            row.problem("registration", "\"%s\" has neither letters nor digits.".formatted(registration));
        } else if (!key.isEmpty() && !context.seen.add(key)) {
            row.problem("registration", "%s stands in this list twice.".formatted(registration));
        } else if (!key.isEmpty() && vehicles.findByRegistration(registration).isPresent()) {
            row.problem("registration", "%s is already on file.".formatted(registration));
        }
        String makeModel = row.needed("make_model", 80);
        String owner = row.needed("owner", 120);
        String phone = row.needed("phone", 40);
        String usage = row.needed("usage", 20);
        Optional<String> usageClass = Optional.ofNullable(context.classes.get(usage.toLowerCase(Locale.ROOT)));
        if (!usage.isEmpty() && usageClass.isEmpty()) {
            row.problem("usage", "\"%s\" is not one of %s.".formatted(usage, usageNames()));
        }
        row.needed("first_registered", 10);
        Optional<LocalDate> registered = row.date("first_registered");
        Optional<String> family = familyCode(row);
        String fleetName = row.text("fleet");
        Optional<Fleet> fleet = Optional.ofNullable(context.fleets.get(fleetName.toLowerCase(Locale.ROOT)));
        if (!fleetName.isEmpty() && fleet.isEmpty()) {
            row.problem("fleet", "There is no fleet \"%s\".".formatted(fleetName));
        }
        Set<Condition> conditions = row.set("conditions", CsvImport::condition, "one of " + conditionNames());
        Set<String> equipment = row.set("equipment", e -> e, "equipment");
        String vin = row.text("vin");
        if (!vin.isEmpty() && Vin.of(vin).isEmpty()) {
            row.problem("vin", VinWarning.SHAPE);
        }
        VinWarning.of(vin).ifPresent(w -> row.warnings.add(new LineProblem("vin", w)));
        Optional<BigDecimal> odometer = row.number("odometer");
        DistanceUnit unit = row.unit("odometer_unit");
        Optional<LocalDate> read = row.date("odometer_date");
        if (odometer.isPresent() && row.text("odometer_date").isEmpty()) {
            row.problem("odometer_date", "is missing for the odometer.");
        }
        Optional<LocalDate> renewedOn = row.date("belt_renewed_on");
        Optional<BigDecimal> renewedAt = row.number("belt_renewed_odometer");
        if (renewedOn.isPresent() != renewedAt.isPresent()
                && row.text("belt_renewed_on").isEmpty()
                        != row.text("belt_renewed_odometer").isEmpty()) {
            row.problem("belt_renewed_on", "A renewal needs both its date and its odometer.");
        }
        Vehicle vehicle = new Vehicle(
                0,
                registration,
                vin.isEmpty() ? Optional.empty() : Optional.of(vin),
                makeModel,
                family,
                owner,
                phone,
                fleet,
                usageClass.orElse("PRIVATE"),
                registered.orElse(LocalDate.EPOCH),
                true,
                conditions,
                equipment,
                1,
                OptionalLong.empty(),
                1);
        registered.ifPresent(d -> {
            row.add(
                    vehicles.checkReading(vehicle, d, BigDecimal.ZERO, DistanceUnit.KM)
                            .problems(),
                    "first_registered",
                    "first_registered");
            if (odometer.isPresent() && read.isPresent()) {
                row.add(
                        vehicles.checkReading(vehicle, read.get(), odometer.get(), unit)
                                .problems(),
                        "odometer",
                        "odometer_date");
            }
            if (renewedAt.isPresent() && renewedOn.isPresent()) {
                row.add(
                        vehicles.checkReading(vehicle, renewedOn.get(), renewedAt.get(), unit)
                                .problems(),
                        "belt_renewed_odometer",
                        "belt_renewed_on");
                renewalAfterReading(row, odometer, read, renewedAt.get(), renewedOn.get());
            }
        });
        into.lines.add(new Line(
                row.line(),
                registration,
                makeModel + ", " + owner
                        + odometer.map(o -> ", " + o.toPlainString() + " " + row.textOr("odometer_unit", "km"))
                                .orElse(""),
                List.copyOf(row.problems),
                List.copyOf(row.warnings)));
        into.actions.add(() -> store(vehicle, odometer, unit, read, renewedAt, renewedOn));
    }

    private static void renewalAfterReading(
            Row row,
            Optional<BigDecimal> odometer,
            Optional<LocalDate> read,
            BigDecimal renewedAt,
            LocalDate renewedOn) {
        if (odometer.isPresent()
                && read.isPresent()
                && !renewedOn.isAfter(read.get())
                && renewedAt.compareTo(odometer.get()) > 0) {
            row.problem("belt_renewed_odometer", "is above the odometer, although the renewal came before.");
        }
    }

    private void store(
            Vehicle vehicle,
            Optional<BigDecimal> odometer,
            DistanceUnit unit,
            Optional<LocalDate> read,
            Optional<BigDecimal> renewedAt,
            Optional<LocalDate> renewedOn) {
        long id = vehicles.add(vehicle, "imported");
        if (odometer.isPresent() && read.isPresent()) {
            vehicles.addReading(id, read.get(), odometer.get(), unit, ReadingSource.FLEET_LIST, false);
        }
        if (renewedAt.isPresent() && renewedOn.isPresent()) {
            int km = (int) Math.round(unit.toKm(renewedAt.get().doubleValue()));
            String by = current.get().name();
            List<String> items = driveItems(vehicle);
            for (String item : items) {
                // one reading for the one odometer that was stated, however many items it renewed
                vehicles.addRenewal(
                        id,
                        new Renewal(
                                item, renewedOn.get(), km, ClockStart.Grade.STATED, "", false, Optional.empty(), by),
                        item.equals(items.get(0)),
                        ReadingSource.FLEET_LIST);
            }
        }
    }

    /** "The belt was renewed" is taken to mean the drive and its tensioner, as the usual kit has both. */
    private List<String> driveItems(Vehicle vehicle) {
        Optional<EngineFamily> family = vehicle.familyCode().flatMap(book::find).map(f -> f.family());
        return family.map(f -> f.items().stream()
                        .filter(i -> i.kind().isTheDrive() || i.kind() == ItemKind.TENSIONER)
                        .map(Item::code)
                        .toList())
                .orElse(List.of("belt"));
    }

    private Optional<String> familyCode(Row row) {
        String asked = row.text("engine_family");
        if (asked.isEmpty()) {
            return Optional.empty();
        }
        Optional<String> code = book.newest().values().stream()
                .map(f -> f.family())
                .filter(f -> f.code().equalsIgnoreCase(asked) || f.name().equalsIgnoreCase(asked))
                .map(EngineFamily::code)
                .findFirst();
        if (code.isEmpty()) {
            row.problem("engine_family", "There is no engine family \"%s\" on file.".formatted(asked));
        }
        return code;
    }

    private void reading(Row row, Parsed into) {
        String registration = row.needed("registration", 20);
        Optional<Vehicle> vehicle =
                registration.isEmpty() ? Optional.empty() : vehicles.findByRegistration(registration);
        if (!registration.isEmpty() && vehicle.isEmpty()) {
            row.problem("registration", "%s is not on file.".formatted(registration));
        }
        row.needed("date", 10);
        row.needed("odometer", 20);
        Optional<LocalDate> date = row.date("date");
        Optional<BigDecimal> odometer = row.number("odometer");
        DistanceUnit unit = row.unit("unit");
        ReadingSource source = row.set("source", CsvImport::source, "a known source").stream()
                .findFirst()
                .orElse(ReadingSource.FLEET_LIST);
        if (vehicle.isPresent() && date.isPresent() && odometer.isPresent()) {
            row.add(
                    vehicles.checkReading(vehicle.get(), date.get(), odometer.get(), unit)
                            .problems(),
                    "odometer",
                    "date");
        }
        into.lines.add(new Line(
                row.line(),
                registration,
                odometer.map(o -> o.toPlainString() + " " + row.textOr("unit", "km"))
                                .orElse("")
                        + date.map(d -> " on " + d).orElse(""),
                List.copyOf(row.problems),
                List.copyOf(row.warnings)));
        // readings of a list may contradict each other; the kept chain sorts that out, with reasons
        into.actions.add(() -> vehicles.addReading(
                vehicle.orElseThrow().id(), date.orElseThrow(), odometer.orElseThrow(), unit, source, true));
    }

    private String usageNames() {
        return settings.usageClasses().values().stream()
                .map(c -> c.name())
                .sorted()
                .collect(Collectors.joining(", "));
    }

    private static @Nullable Condition condition(String name) {
        return Arrays.stream(Condition.values())
                .filter(c -> c.words().equals(name) || c.name().equalsIgnoreCase(name))
                .findFirst()
                .orElse(null);
    }

    private static String conditionNames() {
        return Arrays.stream(Condition.values()).map(Condition::words).collect(Collectors.joining(", "));
    }

    private static @Nullable ReadingSource source(String name) {
        return Arrays.stream(ReadingSource.values())
                .filter(s -> s.words().equals(name) || s.name().equalsIgnoreCase(name))
                .findFirst()
                .orElse(null);
    }
}
