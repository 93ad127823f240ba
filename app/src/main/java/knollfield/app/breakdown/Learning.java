package knollfield.app.breakdown;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.problem.Conflict;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.StoredEvidence;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.Evidence;
import knollfield.core.due.ItemForecast;
import knollfield.core.learn.DriveLife;
import knollfield.core.learn.DrivePast;
import knollfield.core.learn.WearLearning;
import knollfield.core.learn.YearTold;
import knollfield.core.risk.WearModel;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What the workshop's own belts and chains say about how they wear. */
@Service
class Learning {

    /** Figures that have gone through JSON and back differ by less. */
    private static final double SAME = 1e-9;

    private final Breakdowns breakdowns;
    private final Forecasts forecasts;
    private final WorkshopSettings settings;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    Learning(
            Breakdowns breakdowns,
            Forecasts forecasts,
            WorkshopSettings settings,
            CurrentPerson current,
            WorkshopClock clock) {
        this.breakdowns = breakdowns;
        this.forecasts = forecasts;
        this.settings = settings;
        this.current = current;
        this.clock = clock;
    }

    /** A family's years. */
    record FamilyTold(String code, String name, List<YearTold> years) {}

    /**
     * All that is told.
     *
     * @param families with a life that was watched, by name
     * @param learned from all of them together; empty where no life is known
     * @param inForce what is reckoned with now
     * @param notCounted breakdowns outside the watched lives: of unknown history, after a finding, or without limits
     */
    record Told(List<FamilyTold> families, Optional<WearLearning> learned, WearModel inForce, int notCounted) {}

    Told told() {
        Workshop workshop = settings.get();
        Map<Long, List<LocalDate>> failures = breakdowns.all().stream()
                .filter(Breakdown::stands)
                .collect(Collectors.groupingBy(
                        Breakdown::vehicleId, Collectors.mapping(Breakdown::on, Collectors.toList())));
        Map<String, String> names = new TreeMap<>();
        Map<String, List<DriveLife>> byFamily = new TreeMap<>();
        for (VehicleState state : forecasts.all()) {
            List<DriveLife> lives =
                    lives(state, failures.getOrDefault(state.vehicle().id(), List.of()), workshop);
            if (!lives.isEmpty() && state.family().isPresent()) {
                String code = state.family().get().code();
                names.put(code, state.family().get().name());
                byFamily.computeIfAbsent(code, c -> new ArrayList<>()).addAll(lives);
            }
        }
        List<DriveLife> all = byFamily.values().stream().flatMap(List::stream).toList();
        WearModel wear = workshop.wear();
        List<FamilyTold> families = byFamily.entrySet().stream()
                .map(e -> new FamilyTold(
                        e.getKey(), names.getOrDefault(e.getKey(), e.getKey()), YearTold.of(e.getValue(), wear)))
                .sorted(Comparator.comparing(FamilyTold::name))
                .toList();
        int noted = failures.values().stream().mapToInt(List::size).sum();
        int counted = (int) all.stream().filter(DriveLife::failed).count();
        return new Told(families, WearLearning.of(all), wear, noted - counted);
    }

    /**
     * Reckons with what was learned from now on.
     *
     * @param seen as it was shown
     * @throws Conflict where it has changed since, or somebody else changed the workshop's figures
     */
    @Transactional
    void accept(WearModel seen, int version) {
        WearModel learned = told().learned()
                .map(WearLearning::wear)
                .filter(w -> Math.abs(w.shareFailedAtLimits() - seen.shareFailedAtLimits()) < SAME
                        && Math.abs(w.shape() - seen.shape()) < SAME)
                .orElseThrow(() -> new Conflict(
                        "What is learned has changed since you looked at it; look again, then accept it."));
        settings.change(settings.get().with(learned, version, current.get().name(), clock.instant()));
    }

    private static List<DriveLife> lives(VehicleState state, List<LocalDate> failures, Workshop workshop) {
        Optional<ItemForecast> drive = state.forecast().items().stream()
                .filter(i -> i.item().kind().isTheDrive() && !i.inspection())
                .findFirst();
        if (drive.flatMap(ItemForecast::limit).isEmpty()) {
            return List.of();
        }
        String code = drive.get().item().code();
        List<ClockStart> renewals = state.history().renewals().stream()
                .filter(r -> r.itemCode().equals(code))
                .filter(r -> workshop.policy().statedCounts() || r.grade() != ClockStart.Grade.STATED)
                .map(state.history()::start)
                .toList();
        List<LocalDate> findings = state.history().evidence().stream()
                .map(StoredEvidence::evidence)
                .filter(Learning::callsForAction)
                .map(Evidence::found)
                .toList();
        double idle = state.forecast().idleKmPerYear();
        return new DrivePast(
                        state.forecast().readings(),
                        state.vehicle().firstRegistered(),
                        renewals,
                        failures,
                        findings,
                        drive.get().limit().get(),
                        state.forecast().projection().rate().kmPerYear() + idle,
                        idle)
                .lives();
    }

    private static boolean callsForAction(Evidence e) {
        return e.confidence() != Evidence.Confidence.SIMULATED
                && switch (e.kind().effect()) {
                    case STOP, ACT_NOW, ACT_NOW_WHERE_TIMING_HURTS, SOON -> true;
                    default -> false;
                };
    }
}
