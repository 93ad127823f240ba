package knollfield.app.due;

import java.util.Optional;
import java.util.Set;
import knollfield.core.due.UseState;
import knollfield.core.engine.Drive;
import knollfield.core.engine.Interference;
import org.jspecify.annotations.Nullable;

/**
 * The parameters of a list of vehicles as they stand in its address; each left out does not choose.
 *
 * @param fleet number of the fleet
 * @param family code of the engine family
 * @param within act-by today or within so many days
 * @param state vehicle states; left out: in use and laid up
 * @param q words that registration, owner, fleet, make and model, VIN or phone contain
 */
public record VehicleQuery(
        @Nullable Long fleet,
        @Nullable Drive drive,
        @Nullable String family,
        @Nullable Interference interference,
        @Nullable Integer within,
        @Nullable Set<UseState.Kind> state,
        @Nullable String q) {

    public VehicleFilter filter() {
        return new VehicleFilter(
                Optional.ofNullable(fleet),
                Optional.ofNullable(drive),
                Optional.ofNullable(family).filter(f -> !f.isBlank()),
                Optional.ofNullable(interference),
                Optional.ofNullable(within),
                Optional.ofNullable(state).orElse(Set.of()),
                Optional.ofNullable(q).orElse(""));
    }
}
