package knollfield.app.importing;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.FamilyRules;
import knollfield.app.hours.Hours;
import knollfield.app.importing.ImportLines.Action;
import knollfield.app.importing.ImportLines.Line;
import knollfield.app.importing.ImportLines.Task;
import knollfield.app.importing.ImportRepository.Touched;
import knollfield.app.importing.Understanding.Existing;
import knollfield.app.importing.Understanding.Said;
import knollfield.app.log.Made;
import knollfield.app.parts.CatalogPart;
import knollfield.app.parts.Catalogue;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Fleets;
import knollfield.app.vehicle.Owners;
import knollfield.app.vehicle.Renewal;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.app.vehicle.VehiclesChanged;
import knollfield.core.clock.ClockStart;
import knollfield.core.odometer.ReadingSource;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Takes in lists of vehicles, readings, renewals, parts and people, in the form in which people have them. */
@Service
public class Importer {

    private static final int MOST_SAID = 200;

    private final VehicleService vehicles;
    private final Fleets fleets;
    private final Owners owners;
    private final EngineBook book;
    private final FamilyRules rules;
    private final Catalogue catalogue;
    private final WorkshopSettings settings;
    private final Words words;
    private final People people;
    private final Hours hours;
    private final ImportRepository imports;
    private final Made made;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final ApplicationEventPublisher events;
    /** How far each person's import is; gone once it ends. */
    private final Map<String, Progress> running = new ConcurrentHashMap<>();

    Importer(
            VehicleService vehicles,
            Fleets fleets,
            Owners owners,
            EngineBook book,
            FamilyRules rules,
            Catalogue catalogue,
            WorkshopSettings settings,
            Words words,
            People people,
            Hours hours,
            ImportRepository imports,
            Made made,
            CurrentPerson current,
            WorkshopClock clock,
            ApplicationEventPublisher events) {
        this.vehicles = vehicles;
        this.fleets = fleets;
        this.owners = owners;
        this.book = book;
        this.rules = rules;
        this.catalogue = catalogue;
        this.settings = settings;
        this.words = words;
        this.people = people;
        this.hours = hours;
        this.imports = imports;
        this.made = made;
        this.current = current;
        this.clock = clock;
        this.events = events;
    }

    /** @param total lines to be taken; 0 where nothing runs */
    public record Progress(int done, int total) {}

    /**
     * A list as it was understood, line by line.
     *
     * @param rows its lines as they stand there
     */
    record Read(Understanding as, Existing existing, List<Sheet.Row> rows, List<Task> tasks) {
        List<Line> lines() {
            return tasks.stream().map(Task::line).toList();
        }

        int count(Action action) {
            return (int) tasks.stream().filter(t -> t.line().action() == action).count();
        }
    }

    /** What became of a list. */
    record Taken(ImportKind kind, OptionalLong batch, int made, int changed, int left, int bad) {}

    /**
     * Reads a list and changes nothing.
     *
     * @throws InvalidInput where it is not a list at all, or a needed column is missing
     */
    Read read(byte[] bytes, Said said) {
        Sheet sheet = SheetReader.read(
                bytes,
                Optional.ofNullable(said.encoding()),
                Optional.ofNullable(said.separator()).filter(s -> !s.isEmpty()).map(s -> s.charAt(0)));
        if (sheet.rows().size() > SheetReader.MOST_ROWS) {
            throw new InvalidInput(
                    "/file",
                    String.format(Locale.ROOT, "The file has more than %,d lines; split it.", SheetReader.MOST_ROWS));
        }
        Understanding as = Understanding.of(sheet, said, clock.today(), usualClass());
        if (as.kind() == ImportKind.PEOPLE && !current.get().isManager()) {
            throw new InvalidInput("/kind", "Only a manager takes in people.");
        }
        if (!settings.usageClasses().containsKey(as.usageClass())) {
            throw new InvalidInput("/usageClass", "There is no usage class \"%s\".".formatted(as.usageClass()));
        }
        Existing existing = Optional.ofNullable(said.existing()).orElse(Existing.SKIP);
        List<Sheet.Row> body =
                sheet.rows().stream().filter(r -> r.line() > as.headerRow()).toList();
        if (body.isEmpty()) {
            throw new InvalidInput("/file", "The file has a header and no lines.");
        }
        if (missing(as, existing).isEmpty()) {
            return new Read(as, existing, body, lines(as, existing).of(body));
        }
        return new Read(as, existing, body, List.of());
    }

    private String usualClass() {
        Set<String> codes = settings.usageClasses().keySet();
        return codes.contains("PRIVATE") ? "PRIVATE" : codes.iterator().next();
    }

    /**
     * Needed fields that no column is taken for; nothing of the list is read until each has one. A list that changes
     * vehicles on file needs to say which, and no more.
     */
    static List<ImportField> missing(Understanding as, Existing existing) {
        return as.kind().fields().stream()
                .filter(as.kind().needed()::contains)
                .filter(f ->
                        existing == Existing.SKIP || as.kind() != ImportKind.VEHICLES || f == ImportField.REGISTRATION)
                .filter(f -> !as.columns().containsKey(f)
                        && !(f == ImportField.MAKE_MODEL && as.columns().containsKey(ImportField.MAKE)))
                .toList();
    }

    private ImportLines lines(Understanding as, Existing existing) {
        return new ImportLines(
                as, existing, vehicles, book, rules, settings, words, catalogue, people, imports, clock.today());
    }

    /**
     * Takes a list in, in one transaction.
     *
     * @throws InvalidInput where a needed column is missing, or where any line is bad and the good ones are not asked for
     */
    @Transactional
    Taken take(byte[] bytes, Said said, String fileName) {
        Read read = read(bytes, said);
        List<ImportField> missing = missing(read.as(), read.existing());
        if (!missing.isEmpty()) {
            throw new InvalidInput(missing.stream()
                    .map(f -> new FieldProblem(
                            "/columns/" + f.name(),
                            "Say which column holds: %s.".formatted(f.words().toLowerCase(Locale.ROOT))))
                    .toList());
        }
        int bad = read.count(Action.BAD);
        if (bad > 0 && !Boolean.TRUE.equals(said.takeGood())) {
            throw new InvalidInput(read.lines().stream()
                    .flatMap(l -> l.problems().stream()
                            .map(p -> new FieldProblem(
                                    "/%d/%s".formatted(l.line(), p.column()),
                                    "Line %d, %s: %s".formatted(l.line(), p.column(), p.detail()))))
                    .limit(MOST_SAID)
                    .toList());
        }
        List<Task> tasks = read.tasks().stream()
                .filter(t -> t.line().action() == Action.NEW || t.line().action() == Action.UPDATE)
                .toList();
        int left = read.tasks().size() - tasks.size() - bad;
        if (tasks.isEmpty()) {
            return new Taken(read.as().kind(), OptionalLong.empty(), 0, 0, left, bad);
        }
        Set<Long> touched = new LinkedHashSet<>();
        List<Touched> rows = new ArrayList<>();
        String who = current.get().signIn();
        try {
            List<Made.Row> fresh = made.by(() -> work(tasks, who, touched, rows));
            fresh.forEach(r -> rows.add(
                    new Touched(r.table().name(), Long.toString(r.id()), OptionalInt.empty(), Optional.empty())));
        } finally {
            running.remove(who);
        }
        int news = (int)
                tasks.stream().filter(t -> t.line().action() == Action.NEW).count();
        long batch = imports.add(
                read.as().kind(),
                fileName.isBlank() ? "a list" : fileName.substring(0, Math.min(200, fileName.length())),
                clock.instant(),
                current.get().name(),
                news,
                tasks.size() - news);
        for (int i = 0; i < rows.size(); i++) {
            imports.addRow(batch, i, rows.get(i));
        }
        events.publishEvent(new VehiclesChanged(touched));
        return new Taken(read.as().kind(), OptionalLong.of(batch), news, tasks.size() - news, left, bad);
    }

    private void work(List<Task> tasks, String who, Set<Long> touched, List<Touched> rows) {
        Map<String, Fleet> byName = new HashMap<>();
        fleets.all().forEach(f -> byName.put(f.name().toLowerCase(Locale.ROOT), f));
        int done = 0;
        for (Task task : tasks) {
            running.put(who, new Progress(done++, tasks.size()));
            Optional<Fleet> fleet = task.fleetName().map(name -> fleet(name, task, byName, rows));
            OptionalLong id = task.onFile();
            if (task.vehicle().isPresent()) {
                Vehicle vehicle = fleet.map(f -> task.vehicle().get().of(f))
                        .orElse(task.vehicle().get());
                id = OptionalLong.of(store(vehicle, rows));
            }
            if (task.part().isPresent()) {
                store(task.part().get(), task.line().action() == Action.NEW, rows);
            }
            task.person().ifPresent(p -> store(p, task.line().action() == Action.NEW, rows));
            if (id.isPresent()) {
                long vehicle = id.getAsLong();
                touched.add(vehicle);
                task.reading()
                        .ifPresent(r -> vehicles.addReading(vehicle, r.day(), r.value(), r.unit(), r.source(), true));
                task.renewal().ifPresent(r -> store(vehicle, r));
            }
        }
    }

    /** A fleet is made once, with its first vehicle's owner as the one to call. */
    private Fleet fleet(String name, Task task, Map<String, Fleet> byName, List<Touched> rows) {
        return byName.computeIfAbsent(name.toLowerCase(Locale.ROOT), key -> {
            // one that was given up is taken up again, and given up when the import is taken back
            Optional<String> givenUp = imports.fleet(name);
            givenUp.ifPresent(id -> rows.add(new Touched("FLEET", id, OptionalInt.empty(), imports.body("FLEET", id))));
            fleets.add(new Fleet(
                    0,
                    name,
                    1,
                    task.vehicle().map(Vehicle::ownerName).orElse(""),
                    task.vehicle().map(Vehicle::ownerPhone).orElse(""),
                    Set.of(),
                    0));
            return fleets.all().stream()
                    .filter(f -> f.name().equalsIgnoreCase(name))
                    .findFirst()
                    .orElseThrow();
        });
    }

    private long store(Vehicle vehicle, List<Touched> rows) {
        if (vehicle.id() == 0) {
            return vehicles.add(vehicle, "imported");
        }
        String key = Long.toString(vehicle.id());
        Optional<String> before = imports.body("VEHICLE", key);
        vehicles.change(vehicle, "changed by a list");
        rows.add(new Touched("VEHICLE", key, imports.version("VEHICLE", key), before));
        return vehicle.id();
    }

    private void store(CatalogPart part, boolean isNew, List<Touched> rows) {
        Optional<String> before = isNew ? Optional.empty() : imports.body("PART", part.number());
        if (isNew) {
            catalogue.add(part);
        } else {
            catalogue.change(part);
        }
        rows.add(new Touched("PART", part.number(), imports.version("PART", part.number()), before));
    }

    private void store(Person person, boolean isNew, List<Touched> rows) {
        Optional<String> before = isNew ? Optional.empty() : imports.body("PERSON", person.signIn());
        if (isNew) {
            people.invite(person);
        } else {
            hours.check(person);
            people.change(person);
        }
        rows.add(new Touched("PERSON", person.signIn(), imports.version("PERSON", person.signIn()), before));
    }

    private void store(long vehicle, ImportLines.NewRenewal r) {
        String by = current.get().name();
        for (String item : r.items()) {
            // one reading for the one odometer that was stated, however many items it renewed
            vehicles.addRenewal(
                    vehicle,
                    new Renewal(item, r.day(), r.km(), ClockStart.Grade.STATED, r.part(), false, Optional.empty(), by),
                    r.countsAsReading() && item.equals(r.items().get(0)),
                    ReadingSource.FLEET_LIST);
        }
    }

    /** How far the import of whoever asks is. */
    Progress progress() {
        return running.getOrDefault(current.get().signIn(), new Progress(0, 0));
    }

    List<ImportRepository.Batch> taken() {
        return imports.batches();
    }

    /**
     * Takes a whole import back: what it made is gone, what it changed is as it was.
     *
     * @throws Conflict where something rests on it, in words
     */
    @Transactional
    void takeBack(long batch) {
        List<Touched> rows = imports.rows(batch);
        if (rows.isEmpty()) {
            throw new NotFound("There is no import %d to take back.".formatted(batch));
        }
        List<String> resting = resting(rows);
        if (!resting.isEmpty()) {
            throw new Conflict("It cannot be taken back any more. %s%s"
                    .formatted(
                            resting.stream().limit(3).collect(Collectors.joining(" ")),
                            resting.size() > 3 ? " And %d more.".formatted(resting.size() - 3) : ""));
        }
        Set<Long> touched = new LinkedHashSet<>();
        for (Touched row : rows) {
            if (row.table().equals("VEHICLE")) {
                touched.add(Long.valueOf(row.key()));
            }
        }
        touched.addAll(imports.vehiclesOf(keys(rows, "READING"), keys(rows, "RENEWAL")));
        for (String table :
                List.of("VEHICLE_LOG", "READING", "RENEWAL", "VEHICLE", "OWNER", "PART", "PERSON", "FLEET")) {
            rows.stream().filter(r -> r.table().equals(table)).forEach(r -> {
                if (r.before().isPresent()) {
                    imports.restore(r, owners::named);
                } else if (table.equals("OWNER")) {
                    imports.deleteOwner(r);
                } else {
                    imports.delete(r);
                }
            });
        }
        imports.forget(batch);
        events.publishEvent(new VehiclesChanged(touched));
    }

    private static List<String> keys(List<Touched> rows, String table) {
        return rows.stream()
                .filter(r -> r.table().equals(table))
                .map(Touched::key)
                .toList();
    }

    /** What has come to rest on an import, one sentence each. */
    private List<String> resting(List<Touched> rows) {
        List<String> resting = new ArrayList<>();
        List<String> readings = keys(rows, "READING");
        List<String> renewals = keys(rows, "RENEWAL");
        Map<String, String> registrations = new LinkedHashMap<>();
        vehicles.all().forEach(v -> registrations.put(Long.toString(v.id()), v.registration()));
        for (Touched row : rows) {
            String name = row.table().equals("VEHICLE") ? registrations.get(row.key()) : row.key();
            boolean versioned = Set.of("VEHICLE", "PART", "PERSON").contains(row.table());
            if (versioned) {
                OptionalInt now = imports.version(row.table(), row.key());
                OptionalInt then = row.versionAfter().isPresent() ? row.versionAfter() : OptionalInt.of(1);
                if (now.isPresent() && !now.equals(then)) {
                    resting.add("%s was changed since.".formatted(name));
                    continue;
                }
            }
            if (row.table().equals("VEHICLE") && row.before().isEmpty()) {
                imports.restsOnVehicle(Long.parseLong(row.key()), readings, renewals)
                        .ifPresent(what -> resting.add("%s has %s.".formatted(name, what)));
            }
            if (row.table().equals("PART") && row.before().isEmpty() && catalogue.isUsed(row.key())) {
                resting.add("Part %s is used.".formatted(row.key()));
            }
            if (row.table().equals("PERSON") && row.before().isEmpty() && imports.isPersonUsed(row.key())) {
                resting.add("%s has a password, or has done something here.".formatted(row.key()));
            }
            if (row.table().equals("FLEET") && imports.isFleetUsed(Long.parseLong(row.key()), keys(rows, "VEHICLE"))) {
                resting.add("A fleet that it made has other vehicles or contacts.");
            }
        }
        if (imports.isReadingUsed(readings)) {
            resting.add("A reading that it made marks a new odometer.");
        }
        return resting;
    }

    List<ImportRepository.Mapping> mappings() {
        return imports.mappings();
    }

    @Transactional
    void keep(ImportRepository.Mapping mapping) {
        imports.keepMapping(mapping);
    }

    @Transactional
    void forgetMapping(String name) {
        imports.forgetMapping(name);
    }
}
