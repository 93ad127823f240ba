package knollfield.app.due;

import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import knollfield.app.shared.Folded;
import knollfield.app.vehicle.PhoneNumber;
import knollfield.app.vehicle.Registration;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.core.due.SetAside;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.risk.Careful;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.DeskOrder;
import knollfield.core.risk.Exposure;

/**
 * A vehicle and how it stands today.
 *
 * @param facts as the forecast took them, with the usage class in force
 * @param plannedMinutes labour of the job that would be done by the rules alone; zero without an engine family
 * @param plannedMinor what that job costs, minor units
 * @param consequence what a failure costs; empty without an engine family
 * @param renewed codes of the items that job renews
 * @param week exposure of waiting seven days; empty where it is not known
 * @param whileHere what renewing on a visit for other work would do, where that is worth doing and it is not due
 * @param aside why it is not in today's list although its status stands
 * @param callBack a call was promised for today or earlier
 * @param search what the find box looks through, in small letters
 * @param unjudged what of it cannot be reckoned with; the rest is judged without it
 */
public record VehicleState(
        VehicleHistory history,
        VehicleFacts facts,
        Optional<EngineFamily> family,
        VehicleForecast forecast,
        int plannedMinutes,
        long plannedMinor,
        Optional<Consequence> consequence,
        Set<String> renewed,
        Optional<Exposure> week,
        Optional<Careful.WhileHere> whileHere,
        Optional<SetAside> aside,
        boolean callBack,
        Search search,
        Optional<Unjudged.Part> unjudged)
        implements DeskOrder.Waiting {

    /**
     * What the find box looks through.
     *
     * @param key registration as it is compared, without accents
     * @param vin the same of its VIN; may be empty
     * @param words owner, make and model, engine, its family and fleet, in small letters
     * @param phone digits
     */
    public record Search(String key, String vin, String words, String phone) {

        static Search of(Vehicle v, Optional<EngineFamily> family) {
            return new Search(
                    Registration.key(Folded.of(v.registration())),
                    v.vin().map(Registration::key).orElse(""),
                    Folded.of(v.ownerName() + " " + v.makeModel() + " " + v.engine() + " "
                            + family.map(f -> f.code() + " " + f.name()).orElse("")
                            + v.fleet().map(f -> " " + f.name()).orElse("")),
                    PhoneNumber.digits(v.ownerPhone()));
        }
    }

    /** This judgement, made without {@code part} of {@code whole}. */
    VehicleState unjudged(VehicleHistory whole, Unjudged.Part part) {
        return new VehicleState(
                whole,
                facts,
                family,
                forecast,
                plannedMinutes,
                plannedMinor,
                consequence,
                renewed,
                week,
                whileHere,
                aside,
                callBack,
                search,
                Optional.of(part));
    }

    public Vehicle vehicle() {
        return history.vehicle();
    }

    /** Exposure of waiting seven days, whole minor units; empty where it is not known. */
    public OptionalLong exposurePerWeekMinor() {
        return week.isPresent() ? OptionalLong.of(week.get().minor()) : OptionalLong.empty();
    }

    /** Exposure of the next seven days for each hour of that job, minor units; empty where it is not known. */
    public Optional<Double> exposurePerHour() {
        return week.filter(w -> plannedMinutes > 0).map(w -> Exposure.perHour(w.amountMinor(), plannedMinutes));
    }
}
