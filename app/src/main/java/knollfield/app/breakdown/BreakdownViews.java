package knollfield.app.breakdown;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import knollfield.core.learn.WearLearning;
import knollfield.core.learn.WearLearning.Span;
import knollfield.core.learn.YearTold;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;

/** Breakdowns, as they are shown and asked for. */
final class BreakdownViews {

    private BreakdownViews() {}

    /**
     * A breakdown as it is told.
     *
     * @param item code of what let go; left out where the engine has no book
     * @param costMinor left out where nobody knows yet
     * @param insist keep the odometer although it does not fit the other readings
     */
    record NewBreakdown(
            @Nullable String item,
            LocalDate date,
            BigDecimal value,
            DistanceUnit unit,
            String what,
            @Nullable Long costMinor,
            boolean declined,
            boolean insist) {}

    record NotedBreakdown(long id) {}

    record BreakdownWithdrawal(String why) {}

    /** @param withdrawn why it does not count; left out where it stands */
    record BreakdownView(
            long id,
            long vehicleId,
            String registration,
            String item,
            LocalDate on,
            int km,
            String what,
            @Nullable Long costMinor,
            boolean declined,
            String enteredBy,
            @Nullable String withdrawn) {}

    /** @param lives belts and chains watched in it */
    record YearToldView(int year, double expected, int low, int high, int happened, int lives) {
        static YearToldView of(YearTold y) {
            return new YearToldView(y.year(), y.expected(), y.low(), y.high(), y.happened(), y.lives());
        }
    }

    /** @param total of all its years; its year is 0 */
    record FamilyToldView(String code, String name, List<YearToldView> years, YearToldView total) {}

    /** A figure, below and above which it lies with a chance of 10 % each. */
    record WearSpan(double mean, double low, double high) {
        static WearSpan of(Span s) {
            return new WearSpan(s.mean(), s.low(), s.high());
        }
    }

    record LearnedWearView(int lives, int failures, WearSpan share, WearSpan shape) {
        static LearnedWearView of(WearLearning l) {
            return new LearnedWearView(
                    l.lives(), l.failures(), WearSpan.of(l.shareFailedAtLimits()), WearSpan.of(l.shape()));
        }
    }

    /**
     * Expected against happened.
     *
     * @param learned left out where no life is known
     * @param share failed when the limits are reached, as reckoned with now
     * @param notCounted breakdowns of unknown history, after a finding, or without limits
     * @param version of the workshop's figures
     */
    record BreakdownsView(
            List<FamilyToldView> families,
            @Nullable LearnedWearView learned,
            double share,
            double shape,
            int notCounted,
            List<BreakdownView> breakdowns,
            String currency,
            int version) {}

    /** What is accepted, as it was shown. */
    record AcceptedWear(double share, double shape, int version) {}
}
