package knollfield.app.setup;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.Function;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.settings.Assumptions;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.core.due.Policy;
import knollfield.core.due.UseState;
import knollfield.core.outlook.OneVehicle;
import knollfield.core.outlook.OneVehicle.Setting;
import knollfield.core.outlook.Outlook;
import knollfield.core.risk.DriveHazard;
import org.springframework.stereotype.Service;

/** What a policy means for the workshop's own vehicles, beside others it could choose. */
@Service
class Outlooks {

    /** Of more vehicles so many are reckoned, spread over all of them. */
    private static final int SAMPLE = 400;

    private static final double[] SHARES = {1, 0.95, 0.9, 0.85, 0.8, 0.75, 0.7};
    private static final double[] STRANDINGS = {0, 1_000, 2_500, 5_000, 10_000, 20_000, 40_000, 80_000};

    private final Forecasts forecasts;
    private final WorkshopSettings settings;

    Outlooks(Forecasts forecasts, WorkshopSettings settings) {
        this.forecasts = forecasts;
        this.settings = settings;
    }

    /**
     * A policy and its year.
     *
     * @param amount share of the limits, or price of a stranding in the currency itself
     */
    record Point(double amount, Outlook year) {}

    /**
     * The proposed policy among others.
     *
     * @param vehicles in use that have an engine's book, limits and a job to price
     * @param reckoned how many of them were
     * @param leftOut vehicles in use without limits to wear by
     * @param early acting at shares of the limits, the latest first
     * @param careful acting on the cheapest day, the cheapest stranding first
     */
    record Frontier(
            int vehicles,
            int reckoned,
            int leftOut,
            List<Point> early,
            List<Point> careful,
            Outlook now,
            Outlook proposed) {}

    Frontier of(Workshop proposed) {
        List<OneVehicle> then = vehicles(forecasts.under(proposed), proposed);
        List<OneVehicle> today = vehicles(forecasts.all(), settings.get());
        int inUse = (int) forecasts.all().stream().filter(Outlooks::isInUse).count();
        List<Point> early = new ArrayList<>();
        for (double share : SHARES) {
            Policy.Timing timing = share == 1 ? new Policy.Timing.Book() : new Policy.Timing.Early(share);
            early.add(new Point(share, year(then, setting(proposed, timing, 0))));
        }
        TreeSet<Double> prices = new TreeSet<>();
        for (double price : STRANDINGS) {
            prices.add(price);
        }
        prices.add(proposed.assumptions().stranding());
        List<Point> careful = prices.stream()
                .map(p -> new Point(
                        p, year(then, setting(proposed, new Policy.Timing.Careful(), p * proposed.minorPerUnit()))))
                .toList();
        return new Frontier(
                then.size(),
                Math.min(SAMPLE, then.size()),
                inUse - then.size(),
                early,
                careful,
                year(today, setting(settings.get())),
                year(then, setting(proposed)));
    }

    private static Setting setting(Workshop w) {
        return setting(w, w.policy().timing(), w.assumptions().stranding() * w.minorPerUnit());
    }

    private static Setting setting(Workshop w, Policy.Timing timing, double strandingMinor) {
        Assumptions a = w.assumptions();
        return new Setting(
                w.policy().with(timing),
                Math.round(strandingMinor),
                Math.round(a.visit() * w.minorPerUnit()),
                a.visitsPerYear());
    }

    private static boolean isInUse(VehicleState state) {
        return state.facts().special().state().kind() == UseState.Kind.IN_USE;
    }

    private static List<OneVehicle> vehicles(Collection<VehicleState> states, Workshop w) {
        return states.stream()
                .filter(Outlooks::isInUse)
                .sorted(Comparator.comparingLong(s -> s.vehicle().id()))
                .map(s -> vehicle(s, w))
                .flatMap(Optional::stream)
                .toList();
    }

    private static Optional<OneVehicle> vehicle(VehicleState s, Workshop w) {
        if (s.family().isEmpty() || s.consequence().isEmpty() || s.plannedMinor() <= 0) {
            return Optional.empty();
        }
        return DriveHazard.of(s.forecast(), s.facts().firstRegistered(), List.of(), w.wearModels())
                .map(h -> new OneVehicle(
                        s.facts(),
                        s.family().get(),
                        s.forecast(),
                        w.odometer(),
                        h.fresh(s.renewed()),
                        s.renewed(),
                        s.plannedMinor(),
                        s.consequence().get().likely(),
                        s.plannedMinutes()))
                .filter(v -> Double.isFinite(v.fresh().yearsToFirstLimit()));
    }

    private static Outlook year(List<OneVehicle> vehicles, Setting setting) {
        int reckoned = Math.min(SAMPLE, vehicles.size());
        List<OneVehicle> sample = new ArrayList<>(reckoned);
        for (int i = 0; i < reckoned; i++) {
            sample.add(vehicles.get((int) ((long) i * vehicles.size() / reckoned)));
        }
        Function<OneVehicle, Outlook> one = v -> v.under(setting).orElse(Outlook.NONE);
        Outlook sum = Outlook.sum(sample.parallelStream().map(one).toList());
        return reckoned == 0 ? Outlook.NONE : sum.times((double) vehicles.size() / reckoned);
    }
}
