package knollfield.app.due;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.settings.WorkshopSettings.SettingsChanged;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleChanged;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.bundle.Bundle;
import knollfield.core.bundle.BundleRules;
import knollfield.core.due.DueEngine;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.odometer.UsageClass;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.Exposure;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Service;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;

/**
 * How every vehicle stands, kept in memory. Recomputed for one vehicle when it changes, for all when the workshop's
 * figures change or the day turns; never stored.
 */
@Service
public class Forecasts {

    private static final int EXPOSURE_DAYS = 7;

    private final VehicleService vehicles;
    private final EngineBook book;
    private final WorkshopSettings settings;
    private final WorkshopClock clock;
    private final Object computing = new Object();
    private volatile @Nullable Snapshot snapshot;

    Forecasts(VehicleService vehicles, EngineBook book, WorkshopSettings settings, WorkshopClock clock) {
        this.vehicles = vehicles;
        this.book = book;
        this.settings = settings;
        this.clock = clock;
    }

    private record Snapshot(LocalDate today, Map<Long, VehicleState> states) {}

    /** Every vehicle's state, in no order. */
    public Collection<VehicleState> all() {
        return current().states().values();
    }

    public Optional<VehicleState> find(long vehicleId) {
        return Optional.ofNullable(current().states().get(vehicleId));
    }

    /** The equipment, clocks and evidence that decide what goes into a vehicle's job. */
    public BundleRules.Vehicle forBundle(VehicleState state) {
        VehicleHistory history = state.history();
        return new BundleRules.Vehicle(
                history.vehicle().equipment(),
                history.facts(vehicles.usage(history.vehicle())).starts(),
                history.openEvidence(),
                state.forecast().today(),
                state.forecast().projection().medianKm(state.forecast().today()));
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    void changed(VehicleChanged event) {
        synchronized (computing) {
            Snapshot known = snapshot;
            if (known == null) {
                return;
            }
            Map<String, UsageClass> classes = settings.usageClasses();
            vehicles.historyForForecast(event.vehicleId())
                    .ifPresent(h -> known.states().put(event.vehicleId(), state(h, classes, known.today())));
        }
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    @Order(1)
    void changed(SettingsChanged event) {
        forget();
    }

    /** Lets the next question compute everything anew. */
    public void forget() {
        synchronized (computing) {
            snapshot = null;
        }
    }

    private Snapshot current() {
        LocalDate today = clock.today();
        Snapshot known = snapshot;
        if (known != null && known.today().equals(today)) {
            return known;
        }
        synchronized (computing) {
            Snapshot again = snapshot;
            if (again != null && again.today().equals(today)) {
                return again;
            }
            Map<String, UsageClass> classes = settings.usageClasses();
            Map<Long, VehicleState> states = new HashMap<>();
            List<VehicleHistory> histories = vehicles.allHistories();
            histories.forEach(h -> states.put(h.vehicle().id(), state(h, classes, today)));
            Snapshot made = new Snapshot(today, new ConcurrentHashMap<>(states));
            snapshot = made;
            return made;
        }
    }

    private VehicleState state(VehicleHistory history, Map<String, UsageClass> classes, LocalDate today) {
        Workshop workshop = settings.get();
        UsageClass usage = Optional.ofNullable(classes.get(history.vehicle().usageClass()))
                .orElseThrow(() -> new IllegalStateException(
                        "no usage class " + history.vehicle().usageClass()));
        VehicleFacts facts = history.facts(usage);
        Optional<EngineFamily> family =
                history.vehicle().familyCode().flatMap(book::find).map(VersionedFamily::family);
        VehicleForecast forecast = DueEngine.forecast(facts, family, workshop.policy(), today);
        if (family.isEmpty()) {
            return new VehicleState(history, forecast, Optional.empty(), 0, Optional.empty(), OptionalLong.empty());
        }
        BundleRules.Vehicle forBundle = new BundleRules.Vehicle(
                history.vehicle().equipment(),
                facts.starts(),
                facts.evidence(),
                today,
                forecast.projection().medianKm(today));
        Bundle usual = BundleRules.bundle(family.get(), forBundle, Set.of());
        long planned = usual.partsMinor() + usual.labourMinor(workshop.labourRateMinor());
        Consequence consequence =
                Consequence.of(family.get(), history.vehicle().valueMinor(), planned, workshop.costs());
        OptionalLong exposure = Exposure.ofWaiting(
                forecast,
                facts.firstRegistered(),
                facts.evidence(),
                workshop.wear(),
                consequence,
                planned,
                today.plusDays(EXPOSURE_DAYS));
        return new VehicleState(history, forecast, Optional.of(usual), planned, Optional.of(consequence), exposure);
    }
}
