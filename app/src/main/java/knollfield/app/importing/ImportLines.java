package knollfield.app.importing;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.FamilyRules;
import knollfield.app.importing.Spelling.NotRead;
import knollfield.app.importing.Understanding.Existing;
import knollfield.app.parts.CatalogPart;
import knollfield.app.parts.Catalogue;
import knollfield.app.problem.FieldProblem;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Owner;
import knollfield.app.vehicle.Registration;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.app.vehicle.VinWarning;
import knollfield.core.bundle.FitCheck;
import knollfield.core.bundle.Grade;
import knollfield.core.due.Condition;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.identity.Vin;
import knollfield.core.matching.FamilyRule;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;

/** Lines of a list as they are understood, each with what becomes of it; changes nothing. */
final class ImportLines {

    /** What becomes of a line. */
    enum Action {
        NEW,
        UPDATE,
        /** on file, and not to be changed */
        SKIP,
        /** on file just like this */
        SAME,
        BAD
    }

    /** What is wrong, or odd, at one place of a line. */
    record LineProblem(String column, String detail) {}

    /**
     * A line of the list.
     *
     * @param line of the file's own count, where it begins
     * @param values what each column was understood as, in words
     * @param problems what keeps it from being taken
     * @param warnings what looks odd and is taken all the same
     */
    record Line(
            long line,
            Action action,
            String registration,
            Map<ImportField, String> values,
            List<LineProblem> problems,
            List<LineProblem> warnings) {}

    /** A reading to be noted. */
    record NewReading(LocalDate day, BigDecimal value, DistanceUnit unit, int km, ReadingSource source) {}

    /** A renewal to be noted of each item. */
    record NewRenewal(List<String> items, LocalDate day, int km, String part, boolean countsAsReading) {}

    /**
     * What is to be done for a line.
     *
     * @param vehicle new, or as it is to be; empty where the vehicle stays
     * @param onFile number of the vehicle on file, where it is
     * @param fleetName a fleet to be made first, where it is not on file
     * @param part a part of the catalogue, new or changed
     * @param person an account, new or changed
     */
    record Task(
            Line line,
            Optional<Vehicle> vehicle,
            OptionalLong onFile,
            Optional<String> fleetName,
            Optional<NewReading> reading,
            Optional<NewRenewal> renewal,
            Optional<CatalogPart> part,
            Optional<Person> person) {}

    private final Understanding as;
    private final Existing existing;
    private final VehicleService vehicles;
    private final EngineBook book;
    private final List<FamilyRule> rules;
    private final WorkshopSettings settings;
    private final Words words;
    private final LocalDate today;
    private final Map<String, Vehicle> onFile;
    private final Map<String, Fleet> fleets;
    private final Map<String, String> classes = new HashMap<>();
    private final Map<String, EngineFamily> families = new HashMap<>();
    private final Map<String, CatalogPart> parts;
    private final Catalogue catalogue;
    private final People people;
    private final Set<String> readings;
    private final Set<String> renewals;
    private final Map<String, Long> seen = new HashMap<>();
    private final int minorDigits;

    ImportLines(
            Understanding as,
            Existing existing,
            VehicleService vehicles,
            EngineBook book,
            FamilyRules rules,
            WorkshopSettings settings,
            Words words,
            Catalogue catalogue,
            People people,
            ImportRepository imports,
            LocalDate today) {
        this.as = as;
        this.existing = existing;
        this.vehicles = vehicles;
        this.book = book;
        this.rules = rules.rules();
        this.settings = settings;
        this.words = words;
        this.catalogue = catalogue;
        this.people = people;
        this.today = today;
        this.onFile = vehicles.all().stream()
                .collect(Collectors.toMap(v -> Registration.key(v.registration()), Function.identity()));
        this.fleets = vehicles.fleets().stream()
                .collect(Collectors.toMap(f -> f.name().toLowerCase(Locale.ROOT), Function.identity()));
        settings.usageClasses().values().forEach(c -> {
            classes.put(c.name().toLowerCase(Locale.ROOT), c.code());
            classes.put(c.code().toLowerCase(Locale.ROOT), c.code());
        });
        book.newest().values().forEach(f -> {
            families.put(f.family().name().toLowerCase(Locale.ROOT), f.family());
            families.put(f.family().code().toLowerCase(Locale.ROOT), f.family());
        });
        this.parts = as.kind() == ImportKind.PARTS
                ? catalogue.all().stream().collect(Collectors.toMap(CatalogPart::number, Function.identity()))
                : Map.of();
        this.readings = new HashSet<>(imports.readingKeys());
        this.renewals = new HashSet<>(imports.renewalKeys());
        this.minorDigits = settings.get().currencyDigits();
    }

    List<Task> of(List<Sheet.Row> rows) {
        List<Task> tasks = new ArrayList<>();
        for (Sheet.Row row : rows) {
            Reader r = new Reader(row);
            tasks.add(
                    switch (as.kind()) {
                        case VEHICLES -> vehicle(r);
                        case READINGS -> reading(r);
                        case RENEWALS -> renewal(r);
                        case PARTS -> part(r);
                        case PEOPLE -> person(r);
                    });
        }
        return tasks;
    }

    /** A line being read; gathers what it says and what is wrong with it. */
    final class Reader {
        private final Sheet.Row row;
        private final Map<ImportField, String> values = new LinkedHashMap<>();
        private final List<LineProblem> problems = new ArrayList<>();
        private final List<LineProblem> warnings = new ArrayList<>();

        Reader(Sheet.Row row) {
            this.row = row;
            for (int i = as.headings().size(); i < row.cells().size(); i++) {
                if (as.headerRow() > 0 && !row.cell(i).isEmpty()) {
                    problems.add(new LineProblem(
                            "line",
                            "has %d values where the header has %d."
                                    .formatted(row.cells().size(), as.headings().size())));
                }
            }
        }

        boolean mapped(ImportField field) {
            return as.columns().containsKey(field);
        }

        Sheet.Cell cell(ImportField field) {
            return Optional.ofNullable(as.columns().get(field)).map(row::cell).orElse(Sheet.Cell.EMPTY);
        }

        String text(ImportField field, int max) {
            String value = cell(field).text().replaceAll("\\s+", " ");
            if (value.length() > max) {
                problem(field, "is longer than %d characters.".formatted(max));
            }
            if (!value.isEmpty()) {
                values.put(field, value);
            }
            return value;
        }

        String needed(ImportField field, int max) {
            String value = text(field, max);
            if (value.isEmpty()) {
                problem(field, "is missing.");
            }
            return value;
        }

        void problem(ImportField field, String detail) {
            problems.add(new LineProblem(column(field), detail));
        }

        void warning(ImportField field, String detail) {
            warnings.add(new LineProblem(column(field), detail));
        }

        /** The column's own heading, so that it is found in the file. */
        private String column(ImportField field) {
            return Optional.ofNullable(as.columns().get(field))
                    .map(as.headings()::get)
                    .orElse(field.words());
        }

        Optional<LocalDate> date(ImportField field) {
            Sheet.Cell cell = cell(field);
            if (cell.isEmpty()) {
                return Optional.empty();
            }
            try {
                LocalDate day =
                        cell.day().isPresent() ? cell.day().get() : Spelling.date(cell.text(), as.order(), today);
                values.put(field, words.day(day));
                return Optional.of(day);
            } catch (NotRead e) {
                problem(field, e.words());
                return Optional.empty();
            }
        }

        Optional<Spelling.Number> number(ImportField field, int decimals) {
            Sheet.Cell cell = cell(field);
            if (cell.isEmpty()) {
                return Optional.empty();
            }
            try {
                Spelling.Number n = cell.number().isPresent()
                        ? new Spelling.Number(
                                cell.number()
                                        .get()
                                        .setScale(decimals, RoundingMode.HALF_UP)
                                        .stripTrailingZeros(),
                                Optional.empty())
                        : Spelling.number(cell.text(), as.style(), decimals);
                if (n.value().signum() < 0) {
                    problem(field, "\"%s\" is below zero.".formatted(cell.text()));
                    return Optional.empty();
                }
                values.put(
                        field,
                        words.plain(n.value()) + n.unit().map(u -> " " + u).orElse(""));
                return Optional.of(n);
            } catch (NotRead e) {
                problem(field, e.words());
                return Optional.empty();
            }
        }

        /** The unit of the odometer: with the figure, in its own column, else as the list is understood. */
        DistanceUnit unit(Optional<Spelling.Number> figure) {
            DistanceUnit unit = figure.flatMap(Spelling.Number::unit)
                    .map(u -> u.equals("km") ? DistanceUnit.KM : DistanceUnit.MILES)
                    .orElseGet(this::statedUnit);
            figure.ifPresent(f -> values.put(
                    ImportField.ODOMETER, words.plain(f.value()) + (unit == DistanceUnit.KM ? " km" : " miles")));
            return unit;
        }

        private DistanceUnit statedUnit() {
            return switch (text(ImportField.ODOMETER_UNIT, 40).toLowerCase(Locale.ROOT)) {
                case "" -> as.unit();
                case "km", "kms", "kilometres", "kilometers", "k" -> DistanceUnit.KM;
                case "miles", "mi", "mile", "m" -> DistanceUnit.MILES;
                default -> {
                    problem(
                            ImportField.ODOMETER_UNIT,
                            "\"%s\" is neither km nor miles."
                                    .formatted(cell(ImportField.ODOMETER_UNIT).text()));
                    yield as.unit();
                }
            };
        }

        <T> Set<T> set(ImportField field, Function<String, @Nullable T> find, String what) {
            Set<T> found = new LinkedHashSet<>();
            for (String part : text(field, 200).split("[;|]")) {
                if (part.isBlank()) {
                    continue;
                }
                T value = find.apply(part.strip().toLowerCase(Locale.ROOT));
                if (value == null) {
                    problem(field, "\"%s\" is not %s.".formatted(part.strip(), what));
                } else {
                    found.add(value);
                }
            }
            return found;
        }

        void add(List<FieldProblem> others, ImportField value, ImportField day) {
            others.forEach(p -> problem(p.pointer().equals("/date") ? day : value, p.detail()));
        }

        Line line(Action action, String registration) {
            return new Line(
                    row.line(),
                    problems.isEmpty() ? action : Action.BAD,
                    registration,
                    values,
                    List.copyOf(problems),
                    List.copyOf(warnings));
        }
    }

    /** Where the list says what a field of the catalogue holds. */
    private static final Map<String, ImportField> COLUMNS = Map.of(
            "/name", ImportField.PART_NAME,
            "/priceMinor", ImportField.PRICE,
            "/expectedKm", ImportField.LIFE,
            "/leadDays", ImportField.LEAD_DAYS);

    private Task task(Line line) {
        return new Task(
                line,
                Optional.empty(),
                OptionalLong.empty(),
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Optional.empty());
    }

    private String registration(Reader r) {
        String registration = r.needed(ImportField.REGISTRATION, 20);
        if (!registration.isEmpty() && Registration.key(registration).isEmpty()) {
            r.problem(ImportField.REGISTRATION, "\"%s\" has neither letters nor digits.".formatted(registration));
        }
        return registration;
    }

    private void once(Reader r, String key, String what) {
        Long before = key.isEmpty() ? null : seen.putIfAbsent(key, r.row.line());
        if (before != null) {
            r.problem(
                    switch (as.kind()) {
                        case PARTS -> ImportField.PART_NUMBER;
                        case PEOPLE -> ImportField.SIGN_IN;
                        case VEHICLES, READINGS, RENEWALS -> ImportField.REGISTRATION;
                    },
                    "%s stands in this list twice, first in line %d.".formatted(what, before));
        }
    }

    private Task vehicle(Reader r) {
        String registration = registration(r);
        String key = Registration.key(registration);
        once(r, key, registration);
        Optional<Vehicle> known = Optional.ofNullable(onFile.get(key));
        String make = r.text(ImportField.MAKE, 60);
        String model = make.isEmpty() && known.isEmpty()
                ? r.needed(ImportField.MAKE_MODEL, 80)
                : r.text(ImportField.MAKE_MODEL, 80);
        String makeModel = (make + " " + model).strip();
        if (makeModel.length() > 80) {
            r.problem(ImportField.MAKE_MODEL, "make and model together are longer than 80 characters.");
        }
        String owner = r.text(ImportField.OWNER, 120);
        String phone = r.text(ImportField.PHONE, 40);
        String vin = r.text(ImportField.VIN, 40).replaceAll("\\s", "").toUpperCase(Locale.ROOT);
        if (!vin.isEmpty() && Vin.of(vin).isEmpty()) {
            r.problem(ImportField.VIN, VinWarning.SHAPE);
        } else {
            VinWarning.of(vin).ifPresent(w -> r.warning(ImportField.VIN, w));
        }
        String usage = usage(r, known);
        Optional<LocalDate> registered = r.date(ImportField.FIRST_REGISTERED);
        if (registered.isEmpty() && r.cell(ImportField.FIRST_REGISTERED).isEmpty() && known.isEmpty()) {
            r.problem(ImportField.FIRST_REGISTERED, "is missing.");
        }
        String letters = letters(r);
        Optional<String> family = family(r, makeModel, letters, registered, known);
        String fleetName = r.text(ImportField.FLEET, 80);
        Optional<Fleet> fleet = Optional.ofNullable(fleets.get(fleetName.toLowerCase(Locale.ROOT)));
        if (!fleetName.isEmpty() && fleet.isEmpty() && (known.isEmpty() || existing == Existing.UPDATE)) {
            r.warning(ImportField.FLEET, "The fleet \"%s\" is made with it.".formatted(fleetName));
        }
        Set<Condition> conditions = r.set(ImportField.CONDITIONS, ImportLines::condition, "one of " + conditionNames());
        Set<String> equipment = r.set(ImportField.EQUIPMENT, e -> e, "equipment");
        Vehicle vehicle = known.map(k -> changed(
                        k,
                        makeModel,
                        owner,
                        phone,
                        vin,
                        r.mapped(ImportField.USAGE) ? usage : "",
                        registered,
                        letters,
                        family,
                        fleet,
                        conditions,
                        equipment))
                .orElseGet(() -> new Vehicle(
                                0,
                                registration,
                                vin.isEmpty() ? Optional.empty() : Optional.of(vin),
                                makeModel,
                                family,
                                owner.isEmpty() ? Owner.NOT_STATED : owner,
                                phone.isEmpty() ? Owner.NOT_STATED : phone,
                                fleet,
                                usage,
                                registered.orElse(LocalDate.EPOCH),
                                true,
                                conditions,
                                equipment,
                                1,
                                OptionalLong.empty(),
                                1)
                        .described(letters, family));
        registered.ifPresent(d -> r.add(
                vehicles.checkReading(vehicle, d, BigDecimal.ZERO, DistanceUnit.KM)
                        .problems(),
                ImportField.FIRST_REGISTERED,
                ImportField.FIRST_REGISTERED));
        Optional<NewReading> reading = odometer(r, vehicle, known);
        Optional<NewRenewal> renewal = beltRenewal(r, vehicle, known, reading);
        return filed(r, registration, known, vehicle, fleet.isPresent() ? "" : fleetName, reading, renewal);
    }

    private Task filed(
            Reader r,
            String registration,
            Optional<Vehicle> known,
            Vehicle vehicle,
            String newFleet,
            Optional<NewReading> reading,
            Optional<NewRenewal> renewal) {
        boolean update = known.isPresent() && existing == Existing.UPDATE;
        boolean differs =
                known.filter(k -> !k.equals(vehicle)).isPresent() || (known.isPresent() && !newFleet.isEmpty());
        Action action = known.isEmpty()
                ? Action.NEW
                : !update
                        ? Action.SKIP
                        : differs || reading.isPresent() || renewal.isPresent() ? Action.UPDATE : Action.SAME;
        Line line = r.line(action, registration);
        if (line.action() != Action.NEW && line.action() != Action.UPDATE) {
            return task(line);
        }
        return new Task(
                line,
                known.isEmpty() || differs ? Optional.of(vehicle) : Optional.empty(),
                known.map(k -> OptionalLong.of(k.id())).orElse(OptionalLong.empty()),
                newFleet.isEmpty() ? Optional.empty() : Optional.of(newFleet),
                reading,
                renewal,
                Optional.empty(),
                Optional.empty());
    }

    private String usage(Reader r, Optional<Vehicle> known) {
        String usage = r.text(ImportField.USAGE, 60);
        if (usage.isEmpty()) {
            return known.map(Vehicle::usageClass).orElse(as.usageClass());
        }
        String code = classes.get(usage.toLowerCase(Locale.ROOT));
        if (code == null) {
            r.problem(
                    ImportField.USAGE,
                    "\"%s\" is not one of %s."
                            .formatted(
                                    usage,
                                    settings.usageClasses().values().stream()
                                            .map(c -> c.name())
                                            .sorted()
                                            .collect(Collectors.joining(", "))));
            return as.usageClass();
        }
        return code;
    }

    /** What the list says takes the place of what is on file; what it leaves empty stays. */
    private static Vehicle changed(
            Vehicle k,
            String makeModel,
            String owner,
            String phone,
            String vin,
            String usage,
            Optional<LocalDate> registered,
            String letters,
            Optional<String> family,
            Optional<Fleet> fleet,
            Set<Condition> conditions,
            Set<String> equipment) {
        return new Vehicle(
                k.id(),
                k.registration(),
                vin.isEmpty() ? k.vin() : Optional.of(vin),
                makeModel.isEmpty() ? k.makeModel() : makeModel,
                letters.isEmpty() ? k.engine() : letters,
                family.or(k::familyCode),
                k.ownerId(),
                owner.isEmpty() ? k.ownerName() : owner,
                phone.isEmpty() ? k.ownerPhone() : phone,
                fleet.or(k::fleet),
                usage.isEmpty() ? k.usageClass() : usage,
                registered.orElse(k.firstRegistered()),
                k.cameWithReading(),
                conditions.isEmpty() ? k.conditions() : conditions,
                equipment.isEmpty() ? k.equipment() : equipment,
                k.liftClass(),
                k.valueMinor(),
                k.state(),
                k.idleHoursPerYear(),
                k.own(),
                k.beltDateCode(),
                k.version());
    }

    /** The engine's letters: those of their own column, else what a column of families says that is none on file. */
    private String letters(Reader r) {
        String letters = r.text(ImportField.ENGINE_LETTERS, 60);
        String asked = r.text(ImportField.ENGINE_FAMILY, 60);
        return letters.isEmpty() && !families.containsKey(asked.toLowerCase(Locale.ROOT)) ? asked : letters;
    }

    /** The family the line names, else the one family that the workshop's rules give; empty where several or none fit. */
    private Optional<String> family(
            Reader r, String makeModel, String letters, Optional<LocalDate> registered, Optional<Vehicle> known) {
        String asked = r.text(ImportField.ENGINE_FAMILY, 80);
        Optional<String> named = Optional.ofNullable(families.get(asked.toLowerCase(Locale.ROOT)))
                .or(() -> Optional.ofNullable(families.get(letters.toLowerCase(Locale.ROOT))))
                .map(EngineFamily::code);
        if (named.isPresent() || known.flatMap(Vehicle::familyCode).isPresent()) {
            return named;
        }
        Set<String> fitting = FamilyRule.families(
                rules,
                new FamilyRule.Described(
                        makeModel.isEmpty() ? known.map(Vehicle::makeModel).orElse("") : makeModel,
                        letters.isEmpty() ? known.map(Vehicle::engine).orElse("") : letters,
                        registered
                                .or(() -> known.map(Vehicle::firstRegistered))
                                .map(LocalDate::getYear)
                                .orElse(0)));
        ImportField at = r.mapped(ImportField.ENGINE_LETTERS) ? ImportField.ENGINE_LETTERS : ImportField.ENGINE_FAMILY;
        if (fitting.size() == 1) {
            String code = fitting.iterator().next();
            r.warning(at, "The engine family is %s, by your matching rules.".formatted(code));
            return Optional.of(code);
        }
        if (fitting.size() > 1) {
            r.warning(
                    at,
                    "Your matching rules give several engine families, %s; the vehicle is taken in without one."
                            .formatted(String.join(", ", fitting)));
        } else if (!letters.isEmpty() || !asked.isEmpty()) {
            r.warning(
                    at,
                    "There is no engine family \"%s\" on file; the vehicle is taken in without one, the letters with it."
                            .formatted(asked.isEmpty() ? letters : asked));
        }
        return Optional.empty();
    }

    private Optional<NewReading> odometer(Reader r, Vehicle vehicle, Optional<Vehicle> known) {
        Optional<Spelling.Number> figure = r.number(ImportField.ODOMETER, 1);
        DistanceUnit unit = r.unit(figure);
        Optional<LocalDate> day = r.date(ImportField.ODOMETER_DATE);
        if (figure.isEmpty()) {
            return Optional.empty();
        }
        if (r.mapped(ImportField.ODOMETER_DATE)
                && day.isEmpty()
                && r.cell(ImportField.ODOMETER_DATE).isEmpty()) {
            r.problem(ImportField.ODOMETER_DATE, "is missing for the odometer.");
            return Optional.empty();
        }
        if (r.mapped(ImportField.ODOMETER_DATE) && day.isEmpty()) {
            return Optional.empty();
        }
        NewReading reading = reading(figure.get(), unit, day.orElse(as.readOn()), ReadingSource.FLEET_LIST);
        r.add(
                vehicles.checkReading(vehicle, reading.day(), reading.value(), unit)
                        .problems(),
                ImportField.ODOMETER,
                ImportField.ODOMETER_DATE);
        boolean there =
                known.filter(k -> readings.contains(readingKey(k, reading))).isPresent();
        return there ? Optional.empty() : Optional.of(reading);
    }

    private static NewReading reading(Spelling.Number figure, DistanceUnit unit, LocalDate day, ReadingSource source) {
        return new NewReading(
                day,
                figure.value(),
                unit,
                (int) Math.round(unit.toKm(figure.value().doubleValue())),
                source);
    }

    private static String readingKey(Vehicle vehicle, NewReading reading) {
        return ImportRepository.readingKey(vehicle.id(), reading.day().toString(), reading.km());
    }

    private Optional<NewRenewal> beltRenewal(
            Reader r, Vehicle vehicle, Optional<Vehicle> known, Optional<NewReading> reading) {
        Optional<LocalDate> on = r.date(ImportField.BELT_RENEWED_ON);
        Optional<Spelling.Number> at = r.number(ImportField.BELT_RENEWED_ODOMETER, 1);
        boolean bothThere = r.cell(ImportField.BELT_RENEWED_ON).isEmpty()
                == r.cell(ImportField.BELT_RENEWED_ODOMETER).isEmpty();
        if (!bothThere) {
            r.problem(ImportField.BELT_RENEWED_ON, "A renewal needs both its date and its odometer.");
        }
        if (on.isEmpty() || at.isEmpty()) {
            return Optional.empty();
        }
        DistanceUnit unit = at.get()
                .unit()
                .map(u -> u.equals("km") ? DistanceUnit.KM : DistanceUnit.MILES)
                .orElseGet(() -> r.unit(Optional.empty()));
        NewReading then = reading(at.get(), unit, on.get(), ReadingSource.FLEET_LIST);
        r.add(
                vehicles.checkReading(vehicle, then.day(), then.value(), unit).problems(),
                ImportField.BELT_RENEWED_ODOMETER,
                ImportField.BELT_RENEWED_ON);
        if (reading.filter(x -> !then.day().isAfter(x.day()) && then.km() > x.km())
                .isPresent()) {
            r.problem(ImportField.BELT_RENEWED_ODOMETER, "is above the odometer, although the renewal came before.");
        }
        List<String> items = driveItems(vehicle).stream()
                .filter(i -> known.isEmpty() || !renewals.contains(renewalKey(known.get(), i, then)))
                .toList();
        boolean counts = known.isPresent()
                ? !readings.contains(readingKey(known.get(), then))
                : reading.filter(x -> x.day().equals(then.day()) && x.km() == then.km())
                        .isEmpty();
        return items.isEmpty()
                ? Optional.empty()
                : Optional.of(new NewRenewal(items, then.day(), then.km(), "", counts));
    }

    private static String renewalKey(Vehicle vehicle, String item, NewReading then) {
        return ImportRepository.renewalKey(vehicle.id(), item, then.day().toString(), then.km());
    }

    /** "The belt was renewed" is taken to mean the drive and its tensioner, as the usual kit has both. */
    private List<String> driveItems(Vehicle vehicle) {
        return vehicle.familyCode()
                .flatMap(book::find)
                .map(f -> f.family().items().stream()
                        .filter(i -> i.kind().isTheDrive() || i.kind() == ItemKind.TENSIONER)
                        .map(Item::code)
                        .toList())
                .orElse(List.of("belt"));
    }

    private Optional<Vehicle> known(Reader r, String registration) {
        Optional<Vehicle> vehicle = Optional.ofNullable(onFile.get(Registration.key(registration)));
        if (!registration.isEmpty() && vehicle.isEmpty()) {
            r.problem(ImportField.REGISTRATION, "%s is not on file.".formatted(registration));
        }
        return vehicle;
    }

    private void both(Reader r, ImportField day, ImportField odometer) {
        for (ImportField f : List.of(day, odometer)) {
            if (r.cell(f).isEmpty()) {
                r.problem(f, "is missing.");
            }
        }
    }

    private Task reading(Reader r) {
        String registration = registration(r);
        Optional<Vehicle> vehicle = known(r, registration);
        both(r, ImportField.DATE, ImportField.ODOMETER);
        Optional<LocalDate> day = r.date(ImportField.DATE);
        Optional<Spelling.Number> figure = r.number(ImportField.ODOMETER, 1);
        DistanceUnit unit = r.unit(figure);
        ReadingSource source = r.set(ImportField.SOURCE, ImportLines::source, "a known source").stream()
                .findFirst()
                .orElse(ReadingSource.FLEET_LIST);
        Optional<NewReading> reading = day.flatMap(d -> figure.map(f -> reading(f, unit, d, source)));
        boolean same = false;
        if (vehicle.isPresent() && reading.isPresent()) {
            NewReading x = reading.get();
            r.add(
                    vehicles.checkReading(vehicle.get(), x.day(), x.value(), unit)
                            .problems(),
                    ImportField.ODOMETER,
                    ImportField.DATE);
            // once on file or earlier in this list is once
            same = !readings.add(readingKey(vehicle.get(), x));
        }
        Line line = r.line(same ? Action.SAME : Action.NEW, registration);
        return line.action() == Action.NEW
                ? new Task(
                        line,
                        Optional.empty(),
                        OptionalLong.of(vehicle.orElseThrow().id()),
                        Optional.empty(),
                        reading,
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty())
                : task(line);
    }

    private Task renewal(Reader r) {
        String registration = registration(r);
        Optional<Vehicle> vehicle = known(r, registration);
        both(r, ImportField.DATE, ImportField.ODOMETER);
        Optional<LocalDate> day = r.date(ImportField.DATE);
        Optional<Spelling.Number> figure = r.number(ImportField.ODOMETER, 1);
        DistanceUnit unit = r.unit(figure);
        String part = r.text(ImportField.PART_NUMBER, 60);
        String asked = r.needed(ImportField.ITEM, 80);
        Optional<String> item = vehicle.flatMap(v -> item(r, v, asked));
        boolean same = false;
        Optional<NewRenewal> renewal = Optional.empty();
        if (vehicle.isPresent() && day.isPresent() && figure.isPresent()) {
            NewReading then = reading(figure.get(), unit, day.get(), ReadingSource.FLEET_LIST);
            r.add(
                    vehicles.checkReading(vehicle.get(), then.day(), then.value(), unit)
                            .problems(),
                    ImportField.ODOMETER,
                    ImportField.DATE);
            if (item.isPresent()) {
                same = !renewals.add(renewalKey(vehicle.get(), item.get(), then));
                boolean counts = !same && readings.add(readingKey(vehicle.get(), then));
                renewal = Optional.of(new NewRenewal(List.of(item.get()), then.day(), then.km(), part, counts));
            }
        }
        Line line = r.line(same ? Action.SAME : Action.NEW, registration);
        return line.action() == Action.NEW
                ? new Task(
                        line,
                        Optional.empty(),
                        OptionalLong.of(vehicle.orElseThrow().id()),
                        Optional.empty(),
                        Optional.empty(),
                        renewal,
                        Optional.empty(),
                        Optional.empty())
                : task(line);
    }

    private Optional<String> item(Reader r, Vehicle vehicle, String asked) {
        String plain = ImportField.plain(asked);
        if (plain.isEmpty()) {
            return Optional.empty();
        }
        Optional<EngineFamily> family = vehicle.familyCode().flatMap(book::find).map(f -> f.family());
        if (family.isEmpty()) {
            if (plain.contains("belt") || plain.contains("zahnriemen") || plain.contains("courroie")) {
                return Optional.of("belt");
            }
            r.problem(
                    ImportField.ITEM,
                    "%s has no engine family on file, so that only its belt can be named."
                            .formatted(vehicle.registration()));
            return Optional.empty();
        }
        return named(r, family.get(), asked);
    }

    private Optional<String> named(Reader r, EngineFamily family, String asked) {
        String plain = ImportField.plain(asked);
        Optional<String> item = family.items().stream()
                .filter(i -> ImportField.plain(i.name()).equals(plain)
                        || i.code().equalsIgnoreCase(asked.strip())
                        || i.kind().name().replace('_', ' ').equalsIgnoreCase(plain))
                .map(Item::code)
                .findFirst();
        if (item.isEmpty()) {
            r.problem(
                    ImportField.ITEM,
                    "\"%s\" is not one of %s."
                            .formatted(
                                    asked,
                                    family.items().stream().map(Item::name).collect(Collectors.joining(", "))));
        }
        return item;
    }

    private Task part(Reader r) {
        String number = r.needed(ImportField.PART_NUMBER, 40);
        once(r, number, number);
        String name = r.text(ImportField.PART_NAME, 80);
        String asked = r.needed(ImportField.ENGINE_FAMILY, 80);
        Optional<EngineFamily> family = Optional.ofNullable(families.get(asked.toLowerCase(Locale.ROOT)));
        if (!asked.isEmpty() && family.isEmpty()) {
            r.problem(ImportField.ENGINE_FAMILY, "There is no engine family \"%s\" on file.".formatted(asked));
        }
        String itemAsked = r.needed(ImportField.ITEM, 80);
        Optional<String> item = family.flatMap(f -> itemAsked.isEmpty() ? Optional.empty() : named(r, f, itemAsked));
        Optional<Spelling.Number> price = r.number(ImportField.PRICE, minorDigits);
        if (price.isEmpty() && r.cell(ImportField.PRICE).isEmpty()) {
            r.problem(ImportField.PRICE, "is missing.");
        }
        OptionalInt life =
                r.number(ImportField.LIFE, 0).map(n -> OptionalInt.of(whole(n))).orElse(OptionalInt.empty());
        Optional<Integer> lead = r.number(ImportField.LEAD_DAYS, 0).map(ImportLines::whole);
        Grade.Kind grade = r.set(ImportField.GRADE, ImportLines::grade, "a known grade").stream()
                .findFirst()
                .orElse(Grade.Kind.EQUAL);
        Optional<CatalogPart> known = Optional.ofNullable(parts.get(number));
        Line draft = r.line(Action.NEW, "");
        if (draft.action() == Action.BAD) {
            return task(draft);
        }
        CatalogPart part = new CatalogPart(
                number,
                name.isEmpty() ? known.map(CatalogPart::name).orElse(itemAsked) : name,
                family.orElseThrow().code(),
                item.orElseThrow(),
                r.cell(ImportField.GRADE).isEmpty()
                        ? known.map(CatalogPart::grade).orElse(grade)
                        : grade,
                price.orElseThrow()
                        .value()
                        .movePointRight(minorDigits)
                        .setScale(0, RoundingMode.HALF_UP)
                        .longValueExact(),
                life.isPresent() ? life : known.map(CatalogPart::expectedKm).orElse(life),
                lead.orElse(known.map(CatalogPart::leadDays).orElse(3)),
                known.flatMap(CatalogPart::replaces),
                known.map(CatalogPart::fit)
                        .orElse(new FitCheck.Data(
                                OptionalInt.empty(),
                                OptionalDouble.empty(),
                                OptionalDouble.empty(),
                                OptionalDouble.empty(),
                                Optional.empty())),
                known.map(CatalogPart::version).orElse(0));
        catalogue
                .check(part)
                .problems()
                .forEach(p -> r.problem(COLUMNS.getOrDefault(p.pointer(), ImportField.PART_NUMBER), p.detail()));
        Action action = known.isEmpty()
                ? Action.NEW
                : known.get().equals(part) ? Action.SAME : existing == Existing.UPDATE ? Action.UPDATE : Action.SKIP;
        Line line = r.line(action, "");
        return action == Action.NEW || action == Action.UPDATE
                ? new Task(
                        line,
                        Optional.empty(),
                        OptionalLong.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.of(part),
                        Optional.empty())
                : task(line);
    }

    private Task person(Reader r) {
        Optional<Person> known = people.all().stream()
                .filter(p -> p.signIn().equalsIgnoreCase(r.text(ImportField.SIGN_IN, 60)))
                .findFirst();
        Person person = PersonLine.read(r, known, fleets);
        once(r, person.signIn().toLowerCase(Locale.ROOT), person.signIn());
        if (known.isEmpty()) {
            people.invitable(person)
                    .problems()
                    .forEach(p -> r.problem(
                            p.pointer().equals("/fleetId") ? ImportField.FLEET : ImportField.SIGN_IN, p.detail()));
        }
        Action action = known.isEmpty()
                ? Action.NEW
                : known.get().equals(person) ? Action.SAME : existing == Existing.UPDATE ? Action.UPDATE : Action.SKIP;
        Line line = r.line(action, person.name());
        return line.action() == Action.NEW || line.action() == Action.UPDATE
                ? new Task(
                        line,
                        Optional.empty(),
                        OptionalLong.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.of(person))
                : task(line);
    }

    /** A whole number; one that no such figure reaches stays too large, so that it is refused and not turned round. */
    private static int whole(Spelling.Number n) {
        return n.value().min(BigDecimal.valueOf(Integer.MAX_VALUE)).intValue();
    }

    private static Grade.@Nullable Kind grade(String name) {
        return Arrays.stream(Grade.Kind.values())
                .filter(g -> g.words().equalsIgnoreCase(name) || g.name().equalsIgnoreCase(name))
                .findFirst()
                .orElse(null);
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
