package knollfield.app.due;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.settings.WorkshopSettings.SettingsChanged;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.FleetChanged;
import knollfield.app.vehicle.VehicleChanged;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.app.vehicle.VehicleService;
import knollfield.app.vehicle.VehiclesChanged;
import knollfield.core.bundle.BundleRules;
import knollfield.core.bundle.UsualJobs;
import knollfield.core.due.DueEngine;
import knollfield.core.due.Evidence;
import knollfield.core.due.SetAside;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.odometer.ClassLearning;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.UsageClass;
import knollfield.core.risk.Careful;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.DeskOrder;
import knollfield.core.risk.Exposure;
import knollfield.core.risk.WearModels;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Service;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;

/**
 * How every vehicle stands, kept in memory. Recomputed for one vehicle when it changes, for all when the workshop's
 * figures change or the day turns; never stored. Usage classes are learned anew whenever all are recomputed, so that one
 * vehicle's reading does not move the others during the day.
 */
@Service
public class Forecasts {

    /** After a failure, so that not every question tries again. */
    private static final Duration RETRY = Duration.ofSeconds(30);

    private static final Logger LOG = LoggerFactory.getLogger(Forecasts.class);

    private final VehicleService vehicles;
    private final EngineBook book;
    private final WorkshopSettings settings;
    private final WorkshopClock clock;
    private final Object computing = new Object();
    private volatile @Nullable Snapshot snapshot;
    private volatile UsualJobs usualJobs = new UsualJobs();
    private volatile boolean stale;
    private volatile boolean old;
    private volatile Instant notBefore = Instant.EPOCH;
    private volatile Moves.Why staleBy = Moves.Why.NEW_DAY;
    private volatile Optional<Moves> moves = Optional.empty();

    Forecasts(VehicleService vehicles, EngineBook book, WorkshopSettings settings, WorkshopClock clock) {
        this.vehicles = vehicles;
        this.book = book;
        this.settings = settings;
        this.clock = clock;
    }

    /**
     * @param at when it was computed
     * @param sorted worst first, made when it is first asked for after a change
     */
    private record Snapshot(
            Instant at,
            LocalDate today,
            Map<String, ClassLearning> classes,
            Map<Long, VehicleState> states,
            Sorted sorted) {

        List<VehicleHistory> histories() {
            return states.values().stream().map(VehicleState::history).toList();
        }
    }

    /** What all vehicles are judged by, made ready once for them. */
    private record Rules(Workshop workshop, WearModels wear) {
        static Rules of(Workshop workshop) {
            return new Rules(workshop, workshop.wearModels());
        }
    }

    private static final class Sorted {
        private volatile @Nullable List<VehicleState> list;
    }

    /** A vehicle whose status or act-by date is no longer what it was. */
    public record Move(VehicleState before, VehicleState after) {}

    /**
     * What the last recomputing of all vehicles moved.
     *
     * @param why what made it necessary
     */
    public record Moves(Instant at, Why why, List<Move> list) {
        /** What makes all vehicles be judged anew. */
        public enum Why {
            NEW_DAY("with the new day"),
            ASSUMPTIONS("with the changed assumptions"),
            BOOK("with a changed engine book");

            private final String words;

            Why(String words) {
                this.words = words;
            }

            public String words() {
                return words;
            }
        }

        public Moves {
            list = List.copyOf(list);
        }
    }

    /** The order of the Desk. */
    public static final Comparator<VehicleState> WORST_FIRST =
            DeskOrder.<VehicleState>byExposure().thenComparing(s -> s.vehicle().registration());

    /** Every vehicle's state, in no order. */
    public Collection<VehicleState> all() {
        return current().states().values();
    }

    /** Every vehicle's state in the order of the Desk. */
    public List<VehicleState> worstFirst() {
        Snapshot now = current();
        List<VehicleState> known = now.sorted().list;
        if (known != null) {
            return known;
        }
        // under the lock of changes: a list begun before a change must not be kept after it
        synchronized (computing) {
            List<VehicleState> again = now.sorted().list;
            if (again != null) {
                return again;
            }
            List<VehicleState> made =
                    now.states().values().stream().sorted(WORST_FIRST).toList();
            now.sorted().list = made;
            return made;
        }
    }

    public Optional<VehicleState> find(long vehicleId) {
        return Optional.ofNullable(current().states().get(vehicleId));
    }

    /** What the workshop's vehicles teach about each usage class, by code. */
    public Map<String, ClassLearning> classes() {
        return current().classes();
    }

    /** What the last recomputing of all vehicles moved; empty where there was none since the server started. */
    public Optional<Moves> moves() {
        current();
        return moves;
    }

    /** When the figures were computed, where computing them anew has failed since; empty where they are of now. */
    public Optional<Instant> oldSince() {
        Snapshot now = current();
        return old ? Optional.of(now.at()) : Optional.empty();
    }

    /** Every vehicle's state if the workshop's figures were {@code workshop}, in no order. Changes nothing. */
    public Collection<VehicleState> under(Workshop workshop) {
        return under(current(), workshop).states().values();
    }

    /** What would move if the workshop's figures were {@code workshop}. Changes nothing. */
    public List<Move> preview(Workshop workshop) {
        Snapshot now = current();
        return moved(now, under(now, workshop));
    }

    private Snapshot under(Snapshot now, Workshop workshop) {
        return compute(now.histories(), workshop, settings.usageClasses(workshop.assumptions()), now.today());
    }

    /** The equipment, clocks and evidence that decide what goes into a vehicle's job. */
    public BundleRules.Vehicle forBundle(VehicleState state) {
        return forBundle(state.history(), state.facts(), state.forecast());
    }

    private static BundleRules.Vehicle forBundle(VehicleHistory history, VehicleFacts facts, VehicleForecast forecast) {
        return new BundleRules.Vehicle(
                history.vehicle().equipment(),
                facts.starts(),
                facts.evidence(),
                forecast.today(),
                forecast.projection().medianKm(forecast.today()));
    }

    /** Exposure of waiting until {@code until}; empty where it is not known. */
    public Optional<Exposure> exposure(VehicleState state, VehicleForecast forecast, LocalDate until) {
        return state.consequence()
                .flatMap(c -> Exposure.ofWaiting(
                        forecast,
                        state.facts().firstRegistered(),
                        state.facts().evidence(),
                        settings.get().wearModels(),
                        stake(settings.get(), c, state.plannedMinor()),
                        until));
    }

    /** Another forecast of the same vehicle, as the policy in force has it. */
    public VehicleForecast judged(VehicleState state, VehicleForecast other) {
        Workshop workshop = settings.get();
        return state.consequence()
                .map(c -> workshop.careful()
                        .judged(
                                other,
                                state.facts(),
                                workshop.policy(),
                                workshop.wearModels(),
                                stake(workshop, c, state.plannedMinor()),
                                state.renewed())
                        .forecast())
                .orElse(other);
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    void changed(VehicleChanged event) {
        synchronized (computing) {
            Snapshot known = snapshot;
            if (known == null) {
                return;
            }
            vehicles.historyForForecast(event.vehicleId()).ifPresent(h -> {
                known.states()
                        .put(event.vehicleId(), judge(h, known.classes(), Rules.of(settings.get()), known.today()));
                known.sorted().list = null;
            });
        }
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    void changed(FleetChanged event) {
        synchronized (computing) {
            Snapshot known = snapshot;
            if (known == null) {
                return;
            }
            vehicles.fleets().stream()
                    .filter(f -> f.id() == event.fleetId())
                    .forEach(fleet -> known.states()
                            .replaceAll((id, s) -> s.vehicle()
                                            .fleet()
                                            .filter(f -> f.id() == fleet.id())
                                            .isPresent()
                                    ? judge(
                                            s.history().of(fleet),
                                            known.classes(),
                                            Rules.of(settings.get()),
                                            known.today())
                                    : s));
            known.sorted().list = null;
        }
    }

    /** A list is judged at once, whole, by whoever asks next. */
    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    void changed(VehiclesChanged event) {
        forget();
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    @Order(1)
    void changed(SettingsChanged event) {
        staleBy = Moves.Why.ASSUMPTIONS;
        stale = true;
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    @Order(1)
    void changed(EngineBook.BookChanged event) {
        staleBy = Moves.Why.BOOK;
        stale = true;
    }

    /** Lets the next question compute everything anew. */
    public void forget() {
        synchronized (computing) {
            snapshot = null;
        }
    }

    /** Judges everything once the server is up, so that the first to ask does not wait for it. */
    @EventListener(ApplicationReadyEvent.class)
    void judgeAtStart() {
        Thread first = new Thread(
                () -> {
                    try {
                        worstFirst();
                    } catch (RuntimeException e) {
                        // whoever asks next tries again and is told
                        LOG.warn("the first judgement of all vehicles failed", e);
                    }
                },
                "first-judgement");
        first.setDaemon(true);
        first.start();
    }

    private Snapshot current() {
        LocalDate today = clock.today();
        Snapshot known = snapshot;
        if (known != null && !stale && known.today().equals(today)) {
            return known;
        }
        synchronized (computing) {
            Snapshot again = snapshot;
            if (again != null && !stale && again.today().equals(today)) {
                return again;
            }
            if (again != null && clock.instant().isBefore(notBefore)) {
                return again;
            }
            Snapshot made;
            try {
                // on the same day only figures have changed: what is on file of each vehicle is known
                List<VehicleHistory> histories =
                        again != null && again.today().equals(today) ? again.histories() : vehicles.allHistories();
                made = compute(histories, settings.get(), settings.usageClasses(), today);
            } catch (RuntimeException e) {
                if (again == null) {
                    throw e;
                }
                // all or nothing: the figures so far stand, and the Desk says since when
                LOG.error("recomputing all vehicles failed; the figures so far stand", e);
                notBefore = clock.instant().plus(RETRY);
                old = true;
                return again;
            }
            stale = false;
            old = false;
            if (again != null) {
                List<Move> list = moved(again, made);
                moves = Optional.of(
                        new Moves(clock.instant(), again.today().equals(today) ? staleBy : Moves.Why.NEW_DAY, list));
            }
            snapshot = made;
            return made;
        }
    }

    private static List<Move> moved(Snapshot before, Snapshot after) {
        boolean sameDay = before.today().equals(after.today());
        List<Move> list = new ArrayList<>();
        for (VehicleState then : after.states().values()) {
            VehicleState was = before.states().get(then.vehicle().id());
            if (was == null) {
                continue;
            }
            boolean status = was.forecast().status() != then.forecast().status();
            // when the day turns, "now" moves with it and is no news
            boolean date =
                    sameDay && !was.forecast().actBy().equals(then.forecast().actBy());
            if (status || date) {
                list.add(new Move(was, then));
            }
        }
        list.sort(Comparator.comparing(Move::after, WORST_FIRST));
        return list;
    }

    private Snapshot compute(
            List<VehicleHistory> histories, Workshop workshop, Map<String, UsageClass> assumed, LocalDate today) {
        // those of books that are no longer in force go with the figures they were for
        usualJobs = new UsualJobs();
        // in one order, so that what a class learns does not differ in its last digit
        List<Optional<Taught>> taught =
                histories.stream()
                        .sorted(Comparator.comparingLong(h -> h.vehicle().id()))
                        .toList()
                        .parallelStream()
                        .map(h -> taught(h, workshop, assumed))
                        .toList();
        Map<String, List<List<Reading>>> chains = new HashMap<>();
        for (Optional<Taught> t : taught) {
            t.ifPresent(one -> chains.computeIfAbsent(one.usageClass(), c -> new ArrayList<>())
                    .add(one.kept()));
        }
        Map<String, ClassLearning> classes = assumed.values().stream()
                .map(c -> ClassLearning.of(c, chains.getOrDefault(c.code(), List.of())))
                .collect(Collectors.toMap(c -> c.assumed().code(), Function.identity()));
        Rules rules = Rules.of(workshop);
        Map<Long, VehicleState> states = histories.parallelStream()
                .map(h -> judge(h, classes, rules, today))
                .collect(Collectors.toConcurrentMap(s -> s.vehicle().id(), Function.identity()));
        return new Snapshot(clock.instant(), today, classes, new ConcurrentHashMap<>(states), new Sorted());
    }

    /** What a vehicle's readings teach about its class. */
    private record Taught(String usageClass, List<Reading> kept) {}

    private static Optional<Taught> taught(VehicleHistory history, Workshop workshop, Map<String, UsageClass> assumed) {
        try {
            VehicleFacts facts = history.facts(assumedOf(assumed, history));
            return Optional.of(new Taught(
                    history.vehicle().usageClass(),
                    ReadingChain.of(facts.allReadings(), workshop.odometer()).kept()));
        } catch (RuntimeException e) {
            // it teaches its class nothing; that it cannot be judged is said with the others
            LOG.debug("vehicle {} teaches nothing", history.vehicle().id(), e);
            return Optional.empty();
        }
    }

    private static UsageClass assumedOf(Map<String, UsageClass> classes, VehicleHistory history) {
        return Optional.ofNullable(classes.get(history.vehicle().usageClass()))
                .orElseThrow(() -> new IllegalStateException(
                        "no usage class " + history.vehicle().usageClass()));
    }

    private static UsageClass inForce(Map<String, ClassLearning> classes, VehicleHistory history) {
        return Optional.ofNullable(classes.get(history.vehicle().usageClass()))
                .map(ClassLearning::inForce)
                .orElseThrow(() -> new IllegalStateException(
                        "no usage class " + history.vehicle().usageClass()));
    }

    /**
     * How a vehicle stands. One that cannot be judged is set aside with why, judged without what keeps it from being; it never
     * keeps the others from being judged.
     */
    private VehicleState judge(
            VehicleHistory history, Map<String, ClassLearning> classes, Rules rules, LocalDate today) {
        try {
            return state(history, history.facts(inForce(classes, history)), rules, today);
        } catch (RuntimeException e) {
            LOG.warn("vehicle {} cannot be judged", history.vehicle().id(), e);
            for (Unjudged.Part part : Unjudged.Part.values()) {
                VehicleHistory without = Unjudged.without(history, part, today);
                try {
                    return state(without, without.facts(inForce(classes, without)), rules, today)
                            .unjudged(history, part);
                } catch (RuntimeException again) {
                    LOG.debug("nor without {}", part, again);
                }
            }
            throw e;
        }
    }

    private static Exposure.Stake stake(Workshop workshop, Consequence consequence, long plannedMinor) {
        return new Exposure.Stake(consequence, plannedMinor, workshop.costs().dayOffRoadMinor());
    }

    /** The vehicle as it stood on the morning of a day gone by, judged as vehicles are today. */
    public VehicleState on(VehicleState now, LocalDate day) {
        VehicleHistory then = now.history().on(day);
        return state(then, then.facts(now.facts().usage()), Rules.of(settings.get()), day);
    }

    private VehicleState state(VehicleHistory history, VehicleFacts facts, Rules rules, LocalDate today) {
        Workshop workshop = rules.workshop();
        Optional<EngineFamily> family =
                history.vehicle().familyCode().flatMap(book::find).map(VersionedFamily::family);
        VehicleForecast forecast = DueEngine.forecast(facts, family, workshop.policy(), workshop.odometer(), today);
        List<SetAside.Wish> wishes = history.wishes();
        Collection<Evidence> evidence = facts.evidence();
        Optional<SetAside> aside = SetAside.of(wishes, evidence, today);
        boolean callBack = SetAside.callBack(wishes, today);
        VehicleState.Search search = VehicleState.Search.of(history.vehicle(), family);
        if (family.isEmpty()) {
            return new VehicleState(
                    history,
                    facts,
                    family,
                    forecast,
                    0,
                    0,
                    Optional.empty(),
                    Set.of(),
                    Optional.empty(),
                    Optional.empty(),
                    aside,
                    callBack,
                    search,
                    Optional.empty());
        }
        UsualJobs.Usual usual = usualJobs.of(family.get(), forBundle(history, facts, forecast));
        long planned = usual.plannedMinor(workshop.labourRateMinor());
        Consequence consequence =
                Consequence.of(family.get(), history.vehicle().valueMinor(), planned, workshop.costs());
        Exposure.Stake stake = stake(workshop, consequence, planned);
        Careful.Judged careful =
                workshop.careful().judged(forecast, facts, workshop.policy(), rules.wear(), stake, usual.items());
        int horizon = workshop.policy().horizonDays();
        VehicleForecast judged =
                history.forward().map(f -> f.on(careful.forecast(), horizon)).orElse(careful.forecast());
        Optional<Exposure> week = Exposure.ofAWeek(judged, facts.firstRegistered(), evidence, rules.wear(), stake);
        return new VehicleState(
                history,
                facts,
                family,
                judged,
                usual.minutes(),
                planned,
                Optional.of(consequence),
                usual.items(),
                week,
                careful.whileHere(),
                aside,
                callBack,
                search,
                Optional.empty());
    }
}
