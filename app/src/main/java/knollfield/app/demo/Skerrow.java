package knollfield.app.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import knollfield.app.away.Absence;
import knollfield.app.away.Absences;
import knollfield.app.board.Boards;
import knollfield.app.breakdown.Breakdowns;
import knollfield.app.data.DataFolder;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.estimate.Estimates;
import knollfield.app.feed.Feeds;
import knollfield.app.feed.TelematicsRun;
import knollfield.app.job.Bay;
import knollfield.app.job.Bays;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.job.card.Cards;
import knollfield.app.parts.CatalogPart;
import knollfield.app.parts.Catalogue;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.security.PersonRepository;
import knollfield.app.security.Role;
import knollfield.app.settings.House;
import knollfield.app.settings.Houses;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.standins.Outside;
import knollfield.app.stores.Stores;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Fleets;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.bundle.FitCheck;
import knollfield.core.bundle.Grade;
import knollfield.core.due.Condition;
import knollfield.core.due.Policy;
import knollfield.core.due.Status;
import knollfield.core.due.UseState;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Part;
import knollfield.core.jobcard.BookAnswer;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.GateKind;
import knollfield.core.jobcard.Step;
import knollfield.core.plan.Ruler;
import knollfield.core.plan.WorkHours;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Fills an empty database with the island, before the first request is answered. */
@Component
@ConditionalOnProperty("knollfield.demo")
class Skerrow implements SmartInitializingSingleton {

    /** One for all of the demo's accounts; it is printed where the demo is started. */
    static final String PASSWORD = "skerrow-demo";

    private static final Logger LOG = LoggerFactory.getLogger(Skerrow.class);
    private static final Set<DayOfWeek> WEEKDAYS = EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY);
    private static final int BOARD_JOBS = 26;
    private static final String[] VANS = {"OST-20", "OST-20", "CAL-20D", "TAV-19D"};
    private static final String[] CARS = {
        "CAL-16", "CAL-16", "HOL-12", "HOL-12", "HOL-16", "BRE-14", "BRE-14", "WIN-15", "KES-18", "SOR-22", "OST-24V",
        "LAM-27V", "TAV-19D"
    };

    private final People people;
    private final PersonRepository persons;
    private final EngineBook book;
    private final VehicleService vehicles;
    private final Forecasts forecasts;
    private final Jobs jobs;
    private final Cards cards;
    private final WorkshopSettings settings;
    private final Bays bays;
    private final Fleets fleets;
    private final DemoRepository demo;
    private final Outside outside;
    private final Catalogue catalogue;
    private final Boards boards;
    private final Stores stores;
    private final Absences absences;
    private final Estimates estimates;
    private final Breakdowns breakdowns;
    private final Houses houses;
    private final Feeds feeds;
    private final TelematicsRun telematics;
    private final WorkshopClock clock;
    private final TransactionTemplate transaction;
    private final DataFolder folder;
    private final int size;

    Skerrow(
            People people,
            PersonRepository persons,
            EngineBook book,
            VehicleService vehicles,
            Forecasts forecasts,
            Jobs jobs,
            Cards cards,
            WorkshopSettings settings,
            Bays bays,
            Fleets fleets,
            DemoRepository demo,
            Outside outside,
            Catalogue catalogue,
            Boards boards,
            Stores stores,
            Absences absences,
            Estimates estimates,
            Breakdowns breakdowns,
            Houses houses,
            Feeds feeds,
            TelematicsRun telematics,
            WorkshopClock clock,
            TransactionTemplate transaction,
            DataFolder folder,
            @Value("${knollfield.demo.vehicles:240}") int size) {
        this.people = people;
        this.persons = persons;
        this.book = book;
        this.vehicles = vehicles;
        this.forecasts = forecasts;
        this.jobs = jobs;
        this.cards = cards;
        this.settings = settings;
        this.bays = bays;
        this.fleets = fleets;
        this.demo = demo;
        this.outside = outside;
        this.catalogue = catalogue;
        this.boards = boards;
        this.stores = stores;
        this.absences = absences;
        this.estimates = estimates;
        this.breakdowns = breakdowns;
        this.houses = houses;
        this.feeds = feeds;
        this.telematics = telematics;
        this.clock = clock;
        this.transaction = transaction;
        this.folder = folder;
        this.size = size;
    }

    @Override
    public void afterSingletonsInstantiated() {
        if (!people.nobodyYet()) {
            return;
        }
        try {
            Files.writeString(folder.filling(), "");
            transaction.executeWithoutResult(t -> fill());
            transaction.executeWithoutResult(t -> addHouse());
            forecasts.forget();
            transaction.executeWithoutResult(t -> fillJobs());
            forecasts.forget();
            feeds.make(fleet("Post and parcel").id(), "Units in the vans", 3, true);
            telematics.run();
            Files.delete(folder.filling());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            SecurityContextHolder.clearContext();
        }
        LOG.info("Skerrow is there: {} vehicles", size);
    }

    private void fill() {
        people.addFirstManager("ines", "Ines Carrow", PASSWORD);
        actAs("ines");
        Workshop w = settings.get();
        settings.change(new Workshop(
                "Knollfield Garage",
                w.currency(),
                w.policy(),
                w.labourRateMinor(),
                w.costs(),
                w.wear(),
                w.school(),
                w.seals(),
                w.assumptions(),
                w.version(),
                w.changedBy(),
                w.changedAt()));
        // on the island every device has its stand-in, and parts come with the ferry
        outside.change(new Outside.State(
                true,
                true,
                true,
                "ferry",
                EnumSet.of(DayOfWeek.TUESDAY, DayOfWeek.FRIDAY),
                Optional.empty(),
                outside.get().version()));
        bays.add(new Bay(0, "Bay 1", "", 2, 2, 3500, true, 1));
        bays.add(new Bay(0, "Bay 2", "", 2, 2, 3500, true, 1));
        bays.add(new Bay(0, "Bay 3", "low lift", 1, 0, 2500, true, 1));
        bays.add(new Bay(0, "Bay 4", "high roof", 2, 4, 5000, true, 1));
        fleets.add(new Fleet(0, "Post and parcel", 2, "Bryluen Nance", "0555 010 11", Set.of(), 0));
        fleets.add(new Fleet(0, "Health visitors", 2, "Senara Angove", "0555 012 40", Set.of(), 0));
        fleets.add(new Fleet(0, "Fish co-operative", 1, "Pasco Maddern", "0555 013 07", Set.of(), 0));
        fleets.add(new Fleet(0, "School run", 1, "Merryn Tonkin", "0555 015 52", Set.of(), 0));
        fleets.add(new Fleet(0, "Harbour taxis", 2, "Jory Pask", "0555 014 27", Set.of(), 0));
        fleets.add(new Fleet(0, "Council works", 2, "Gerren Hendra", "0555 018 80", Set.of(), 0));
        addPeople();
        SkerrowFamilies.all()
                .forEach(f -> book.add(f, f.code().equals("OST-20") ? 2 : 1, "Ines Carrow", clock.instant()));
        addParts();
        addVehicles();
        demo.waysToReachOwners();
    }

    private void addHouse() {
        House h = houses.get();
        houses.change(
                "Knollfield Garage",
                settings.get().currency(),
                new House(
                        "Quarry Road 2\nSkerrow",
                        "0555 010 00",
                        "desk@knollfield-garage.example",
                        h.taxNumber(),
                        h.outsideAddress(),
                        h.zone(),
                        h.unit(),
                        h.numbers(),
                        h.version(),
                        "Ines Carrow"),
                clock.instant());
    }

    /** Each item in up to three grades; what the dear one costs more it lasts longer. */
    private void addParts() {
        for (EngineFamily family : SkerrowFamilies.all()) {
            for (Item item : family.items()) {
                int km = item.schedule()
                        .flatMap(s -> s.normal().km().isPresent()
                                ? Optional.of(s.normal().km().getAsInt())
                                : Optional.empty())
                        .orElse(130_000);
                part(family, item, Grade.Kind.ORIGINAL, "", 100, km, 3);
                // a front half is only fitted as the original maker's part
                if (item.halfOf().isPresent()) {
                    continue;
                }
                part(family, item, Grade.Kind.EQUAL, "E", 72, km * 4 / 5, 7);
                if (item.kind() == ItemKind.WATER_PUMP || item.kind() == ItemKind.IDLER) {
                    part(family, item, Grade.Kind.PLAIN, "P", 50, km * 2 / 5, 4);
                }
            }
        }
    }

    private void part(EngineFamily family, Item item, Grade.Kind grade, String suffix, int percent, int km, int lead) {
        Part book = item.part();
        boolean drive = item.kind().isTheDrive();
        catalogue.add(new CatalogPart(
                book.number() + suffix,
                suffix.isEmpty() ? book.name() : book.name() + ", " + grade.words(),
                family.code(),
                item.code(),
                grade,
                book.totalMinor() * percent / 100,
                OptionalInt.of(km),
                lead,
                suffix.isEmpty() ? Optional.empty() : Optional.of(book.number()),
                new FitCheck.Data(
                        drive ? OptionalInt.of(family.path().orElseThrow().teeth()) : OptionalInt.empty(),
                        drive && family.drive().isBelt() ? OptionalDouble.of(25.4) : OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        Optional.empty()),
                0));
    }

    private void addPeople() {
        Fleet taxis = fleet("Harbour taxis");
        EnumSet<Drive> belts = EnumSet.of(Drive.BELT);
        EnumSet<Drive> all = EnumSet.allOf(Drive.class);
        person("morwen", "Morwen Hale", Role.FRONT_DESK, null, Set.of(), Set.of());
        person("hedra", "Hedra Voss", Role.TECHNICIAN, null, all, WEEKDAYS);
        person("perran", "Perran Loy", Role.TECHNICIAN, null, belts, WEEKDAYS);
        person(
                "wenna",
                "Wenna Tal",
                Role.TECHNICIAN,
                null,
                belts,
                EnumSet.range(DayOfWeek.TUESDAY, DayOfWeek.THURSDAY));
        person("ansel", "Ansel Trew", Role.TECHNICIAN, null, EnumSet.of(Drive.BELT, Drive.BELT_IN_OIL), WEEKDAYS);
        person("odo", "Odo Brack", Role.TECHNICIAN, null, EnumSet.of(Drive.BELT, Drive.CHAIN), WEEKDAYS);
        person("jory", "Jory Pask", Role.FLEET_CONTACT, taxis.id(), Set.of(), Set.of());
    }

    private void person(
            String signIn, String name, Role role, @Nullable Long fleet, Set<Drive> skills, Set<DayOfWeek> days) {
        people.add(signIn, name, role, Optional.ofNullable(fleet), skills, days, Optional.empty(), PASSWORD);
    }

    private void addVehicles() {
        List<EngineFamily> families = SkerrowFamilies.all();
        SkerrowVehicles maker = new SkerrowVehicles(20260, clock.today(), families, settings.usageClasses());
        List<VehicleHistory> all = new ArrayList<>();
        add(all, maker, "Post and parcel", "COURIER", VANS, 14, Set.of());
        add(
                all,
                maker,
                "Health visitors",
                "COMMUNITY",
                new String[] {"HOL-12", "WIN-15", "CAL-16"},
                10,
                Set.of(Condition.SHORT_TRIPS));
        add(all, maker, "Fish co-operative", "CHILLED", VANS, 8, Set.of());
        add(all, maker, "School run", "MINIBUS", new String[] {"SOR-22", "CAL-20D"}, 7, Set.of());
        add(all, maker, "Harbour taxis", "TAXI", new String[] {"CAL-16", "CAL-20D"}, 9, Set.of());
        add(
                all,
                maker,
                "Council works",
                "PLANT",
                new String[] {"TAV-19D", "OST-20", "LAM-27V"},
                12,
                Set.of(Condition.DUST));
        all.add(maker.stopped(maker.with("TAV-19D", Optional.empty(), "PRIVATE", 0.97)));
        all.add(maker.oily(maker.with("CAL-16", Optional.empty(), "PRIVATE", 0.55)));
        all.add(maker.beforeTrip(maker.with("WIN-15", Optional.empty(), "COURIER", 0.89)));
        all.add(maker.with("LAM-27V", Optional.empty(), "PRIVATE", 1.004));
        all.add(maker.with("LAM-27V", Optional.empty(), "PRIVATE", 1.01));
        addWishes(all, maker);
        while (all.size() < size) {
            all.add(maker.next(Optional.empty(), "PRIVATE", CARS, Set.of()));
        }
        List<VehicleHistory> shown = new ArrayList<>(all.subList(0, size));
        // and one of each kind whose cards are worked out from its book
        for (String kind : SkerrowFamilies.KINDS) {
            shown.add(maker.with(SkerrowFamilies.codeOf(kind), Optional.empty(), "PRIVATE", 0.5));
        }
        shown.forEach(h -> vehicles.takeOver(h, "taken over from the old record"));
    }

    /** Owners who were rung, one who declined, a vehicle laid up for the winter, one that idles, one with a timing of its own. */
    private void addWishes(List<VehicleHistory> all, SkerrowVehicles maker) {
        LocalDate today = clock.today();
        Optional<Fleet> nobody = Optional.empty();
        all.add(maker.called(
                maker.with("HOL-16", nobody, "PRIVATE", 0.97), 8, "Away until today; wants the price then.", today));
        all.add(maker.called(
                maker.with("BRE-14", nobody, "PRIVATE", 1.02),
                2,
                "Will come after the holiday; knows that it is overdue.",
                today.plusDays(12)));
        all.add(maker.declined(
                maker.with("KES-18", nobody, "PRIVATE", 1.01),
                20,
                "Told that the chain is past its inspection and may jump; means to sell the car in spring.",
                today.plusDays(120)));
        all.add(maker.special(
                maker.with("CAL-16", nobody, "PRIVATE", 0.95),
                new UseState(UseState.Kind.LAID_UP, Optional.of(today.minusDays(40))),
                0,
                Optional.empty()));
        all.add(maker.special(
                maker.with("OST-20", Optional.of(fleet("Fish co-operative")), "CHILLED", 0.8),
                UseState.inUse(),
                600,
                Optional.empty()));
        all.add(maker.special(
                maker.with("CAL-20D", Optional.of(fleet("Harbour taxis")), "TAXI", 0.82),
                UseState.inUse(),
                0,
                Optional.of(new Policy.Own(new Policy.Timing.Early(0.8), "crosses to the mainland every day"))));
    }

    private void add(
            List<VehicleHistory> into,
            SkerrowVehicles maker,
            String fleetName,
            String usage,
            String[] families,
            int count,
            Set<Condition> conditions) {
        Fleet fleet = fleet(fleetName);
        for (int i = 0; i < count; i++) {
            into.add(maker.next(Optional.of(fleet), usage, families, conditions));
        }
    }

    private Fleet fleet(String name) {
        return vehicles.fleets().stream()
                .filter(f -> f.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    /** One job done yesterday, one at the bench, some promised, one tool set wanted twice. */
    /** Three belts that let go in past years, each renewed the same day. */
    private void addBreakdowns() {
        Iterator<Breakdowns.Told> told = List.of(
                        let("belt stripped on the harbour road, towed in", 318_000, false),
                        let("stood at the ferry, teeth gone; idler seized", 402_500, true),
                        let("stopped on the hill at low speed, valves bent", 287_000, false))
                .iterator();
        Set<String> families = new HashSet<>();
        forecasts.all().stream()
                .sorted(Comparator.comparing(s -> s.vehicle().registration()))
                .forEach(s -> s.history().renewals().stream()
                        .filter(r -> r.itemCode().equals("belt") && told.hasNext())
                        .filter(r -> s.history().readings().stream()
                                .anyMatch(x -> x.date().isBefore(r.date().minusMonths(3))))
                        .filter(r -> families.add(s.vehicle().familyCode().orElse("")))
                        .findFirst()
                        .ifPresent(r -> breakdowns.note(
                                s.vehicle().id(), told.next().at(r.date(), BigDecimal.valueOf(r.km())))));
    }

    private static Breakdowns.Told let(String what, long costMinor, boolean declined) {
        return new Breakdowns.Told(
                "belt",
                LocalDate.EPOCH,
                BigDecimal.ZERO,
                DistanceUnit.KM,
                what,
                OptionalLong.of(costMinor),
                declined,
                true);
    }

    private void fillJobs() {
        List<VehicleState> due = forecasts.all().stream()
                .filter(s ->
                        s.forecast().status() == Status.OVERDUE || s.forecast().status() == Status.ACT_NOW)
                .filter(s -> s.history().evidence().isEmpty())
                .sorted((a, b) -> Long.compare(
                        a.history().vehicle().id(), b.history().vehicle().id()))
                .toList();
        actAs("ines");
        addBreakdowns();
        LocalDate today = clock.today();
        List<VehicleState> belts = due.stream()
                .filter(s -> has(s, "CAL-16", "WIN-15", "HOL-12", "HOL-16"))
                .toList();
        if (belts.size() >= 4) {
            long done = promise(belts.get(0), "perran", "Bay 1", workingDay(today, -1), 0);
            actAs("perran");
            checkIn(done);
            work(done, s -> s.gate().filter(GateKind.FIRST_START::equals).isPresent());
            cards.enter(done, new CardEvent.SideFinding("Front brake hose chafed on the left", true));
            cards.enter(done, new CardEvent.RecheckAsked("Wheel fasteners, after the first drive", 0));
            work(done, s -> false);
            demo.moveToYesterday(done);
            actAs("ines");
            long atBench = promise(belts.get(1), "hedra", "Bay 2", workingDay(today, 0), 0);
            actAs("hedra");
            checkIn(atBench);
            work(atBench, s -> s.gate().filter(GateKind.REFERENCES_TRUE::equals).isPresent());
            actAs("ines");
            promise(belts.get(2), "ansel", "Bay 3", workingDay(today, 1), 4);
            promise(belts.get(3), "odo", "Bay 1", workingDay(today, 2), 0);
        }
        twoBanksAtTheBench();
        // the only tool set of the Lamorn V6 is promised, and a second one of them is waiting
        List<VehicleState> lamorns =
                due.stream().filter(s -> has(s, "LAM-27V")).limit(2).toList();
        if (lamorns.size() == 2) {
            promise(lamorns.get(0), "hedra", "Bay 4", workingDay(today, 3), 0);
            jobs.create(lamorns.get(1).history().vehicle().id());
        }
        fillStores();
        fillBoard();
    }

    /** A chain job on two banks, half done: the first bank's chain is on, the other one comes next. */
    private void twoBanksAtTheBench() {
        String code = SkerrowFamilies.codeOf("e09");
        Optional<VehicleState> two =
                forecasts.all().stream().filter(s -> has(s, code)).findFirst();
        if (two.isEmpty()) {
            return;
        }
        long id = promise(two.get(), "odo", "Bay 1", workingDay(clock.today(), 0), 0);
        actAs("odo");
        checkIn(id);
        work(id, s -> s.code().equals("bring:a:2"));
        actAs("ines");
    }

    /** Some of every original part on the shelf, none of some: those come with the ferry. */
    private void fillStores() {
        for (EngineFamily family : SkerrowFamilies.all()) {
            for (Item item : family.items()) {
                String number = item.part().number();
                stores.count(number, Math.floorMod(number.hashCode(), 5), 0);
            }
        }
        absences.add(absences.of(
                Absence.Kind.TECHNICIAN,
                byName("odo").id(),
                null,
                null,
                workingDay(clock.today(), 6),
                workingDay(clock.today(), 7),
                "course on the mainland"));
    }

    /** Every second vehicle that is due has a job: some promised, some planned, some waiting for parts or an answer. */
    private void fillBoard() {
        List<VehicleState> due = forecasts.worstFirst().stream()
                .filter(s -> s.forecast().status() == Status.OVERDUE
                        || s.forecast().status() == Status.ACT_NOW
                        || s.forecast().status() == Status.COMING)
                .filter(s -> s.aside().isEmpty()
                        && s.history().evidence().isEmpty()
                        && s.family().isPresent())
                .filter(s -> jobs.ofVehicle(s.vehicle().id()).stream()
                        .noneMatch(j -> j.stage().isOpen()))
                .toList();
        List<Long> made = new ArrayList<>();
        for (int i = 1; i < due.size() && made.size() < BOARD_JOBS; i += 2) {
            made.add(jobs.create(due.get(i).vehicle().id()));
        }
        for (int i = 0; i < made.size(); i++) {
            if (i % 7 == 3) {
                estimates.make(made.get(i));
            } else if (i % 3 != 2) {
                placeInTheNextDays(made.get(i), i % 6 == 1);
            }
        }
        if (!made.isEmpty()) {
            missed(made.get(made.size() - 1));
        }
        fillTheCapOfAFleet();
    }

    /** The fish co-operative may spare one van at a time: one is planned, a second one waits. */
    private void fillTheCapOfAFleet() {
        List<VehicleState> vans = forecasts.worstFirst().stream()
                .filter(s ->
                        s.vehicle().fleet().filter(f -> f.offRoadCap() == 1).isPresent())
                .filter(s -> s.family().isPresent()
                        && jobs.ofVehicle(s.vehicle().id()).stream()
                                .noneMatch(j -> j.stage().isOpen()))
                .filter(s -> s.vehicle().fleet().orElseThrow().name().startsWith("Fish"))
                .limit(2)
                .toList();
        for (int i = 0; i < vans.size(); i++) {
            long id = jobs.create(vans.get(i).vehicle().id());
            if (i == 0) {
                placeInTheNextDays(id, false);
            }
        }
    }

    private void placeInTheNextDays(long jobId, boolean promised) {
        boards.firstThatFits(
                        jobId,
                        IntStream.range(0, 9)
                                .mapToObj(step -> workingDay(clock.today(), step))
                                .flatMap(day -> Stream.of(0, 8, 4, 12)
                                        .map(slot -> new Boards.Wanted(null, null, day, Ruler.USUAL_TIMES.get(slot)))))
                .ifPresent(w -> boards.place(jobId, w, promised, jobs.get(jobId).version()));
    }

    /** A vehicle that was promised for the last working day and did not come. */
    private void missed(long jobId) {
        Job job = jobs.get(jobId);
        if (job.booking().isPresent()) {
            return;
        }
        LocalDateTime start = workingDay(clock.today(), -1).atTime(Ruler.USUAL_TIMES.get(0));
        jobs.put(
                jobId,
                Optional.of(new Job.Booking(byName("perran").id(), demo.bay("Bay 4"), start, start.plusHours(3), true)),
                job.version(),
                "job %d promised".formatted(jobId));
        boards.noShow(jobId, "not reached by phone", jobs.get(jobId).version());
    }

    private static boolean has(VehicleState state, String... families) {
        return state.history()
                .vehicle()
                .familyCode()
                .filter(List.of(families)::contains)
                .isPresent();
    }

    private long promise(VehicleState state, String technician, String bay, LocalDate day, int slot) {
        long id = jobs.create(state.history().vehicle().id());
        int minutes = jobs.bundle(jobs.get(id)).labour().minutes();
        LocalDateTime start = day.atTime(Ruler.USUAL_TIMES.get(slot));
        jobs.put(
                id,
                Optional.of(new Job.Booking(
                        byName(technician).id(),
                        demo.bay(bay),
                        start,
                        new Ruler(day, 14)
                                .end(start, minutes, WorkHours.usual())
                                .orElseThrow(),
                        true)),
                jobs.get(id).version(),
                "job %d promised".formatted(id));
        return id;
    }

    /** The working day {@code steps} after the first one from today on, before it where negative. */
    private static LocalDate workingDay(LocalDate today, int steps) {
        LocalDate day = today;
        while (!WEEKDAYS.contains(day.getDayOfWeek())) {
            day = day.plusDays(1);
        }
        for (int left = Math.abs(steps); left > 0; ) {
            day = day.plusDays(steps < 0 ? -1 : 1);
            left -= WEEKDAYS.contains(day.getDayOfWeek()) ? 1 : 0;
        }
        return day;
    }

    private void checkIn(long jobId) {
        VehicleState state = forecasts.find(jobs.get(jobId).vehicleId()).orElseThrow();
        long km = Math.round(state.forecast().projection().medianKm(clock.today()));
        cards.enter(
                jobId, new CardEvent.Started((int) km, "no faults seen", "hook 4", "none stored", Optional.empty()));
    }

    /** Works a card with good answers up to the first step that {@code until} holds for, or to its signature. */
    private void work(long jobId, Predicate<Step> until) {
        while (true) {
            CardState card = cards.state(jobs.get(jobId));
            Optional<Step> next = card.next();
            if (next.isEmpty()) {
                cards.enter(
                        jobId,
                        new CardEvent.Completed(
                                "quiet on the road test",
                                OptionalInt.of(card.plan().bookMinutes() + 15),
                                CardEvent.OldParts.SHOWN_AND_SCRAPPED));
                return;
            }
            if (until.test(next.get())) {
                return;
            }
            cards.enter(jobId, BookAnswer.to(next.get()));
        }
    }

    private void actAs(String signIn) {
        SecurityContextHolder.getContext()
                .setAuthentication(UsernamePasswordAuthenticationToken.authenticated(
                        byName(signIn).id(), null, List.of()));
    }

    private Person byName(String signIn) {
        return persons.all().stream()
                .filter(p -> p.signIn().equals(signIn))
                .findFirst()
                .orElseThrow();
    }
}
