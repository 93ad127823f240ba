package knollfield.app.desk;

import java.time.LocalDate;
import java.util.OptionalDouble;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.due.NextStep;
import knollfield.core.due.Status;
import knollfield.core.engine.Drive;
import knollfield.core.engine.Interference;
import org.jspecify.annotations.Nullable;

/**
 * A vehicle in the Desk's list.
 *
 * @param exposurePerHourMinor exposure of a week for each hour of the usual job
 * @param aside why and until when it is out of today's list
 * @param recheck what is to be looked at again today
 * @param waits what its job at the bench waits for
 * @param whileHere not due, but worth doing on a visit for other work
 * @param state null for a vehicle in use
 */
record DeskRow(
        long vehicleId,
        String registration,
        String ownerName,
        String ownerPhone,
        @Nullable String fleet,
        String makeModel,
        @Nullable Drive drive,
        @Nullable Interference interference,
        Status status,
        String statusWords,
        @Nullable LocalDate actBy,
        String note,
        @Nullable Long exposurePerWeekMinor,
        @Nullable Long exposurePerHourMinor,
        LifeStrip life,
        NextStep nextStep,
        String nextStepWords,
        boolean callBack,
        @Nullable String recheck,
        @Nullable String waits,
        boolean whileHere,
        @Nullable String aside,
        @Nullable String state,
        @Nullable Long jobId) {

    /**
     * Shares of the limits used, 1 = at the limit.
     *
     * @param distanceSoon the same at the horizon, by the median
     */
    record LifeStrip(
            @Nullable Double distance,
            @Nullable Double distanceSoon,
            @Nullable Double age,
            @Nullable Double ageSoon,
            Binding binding) {

        static LifeStrip of(knollfield.core.due.LifeStrip l) {
            return new LifeStrip(
                    orNull(l.distance()), orNull(l.distanceSoon()), orNull(l.age()), orNull(l.ageSoon()), l.binding());
        }

        private static @Nullable Double orNull(OptionalDouble share) {
            return share.isPresent() ? share.getAsDouble() : null;
        }
    }
}
