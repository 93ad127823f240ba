package knollfield.core.learn;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import knollfield.core.risk.WearModel;

/**
 * Breakdowns of a calendar year, expected against happened.
 *
 * @param expected by the wear in force over the lives that were watched
 * @param low so many or more were likely with a chance of 90 %
 * @param high so many or fewer with a chance of 90 %
 * @param happened in the same lives
 * @param lives watched in it
 */
public record YearTold(int year, double expected, int low, int high, int happened, int lives) {

    /** Year by year, oldest first. */
    public static List<YearTold> of(List<DriveLife> lives, WearModel wear) {
        double h0 = wear.hazardAtLimits();
        TreeMap<Integer, Double> expected = new TreeMap<>();
        TreeMap<Integer, Integer> happened = new TreeMap<>();
        TreeMap<Integer, Integer> watched = new TreeMap<>();
        for (DriveLife life : lives) {
            for (DriveLife.Year y : life.years()) {
                expected.merge(y.year(), h0 * y.wear(wear.shape()), Double::sum);
                watched.merge(y.year(), 1, Integer::sum);
            }
            if (life.failed()) {
                int last = life.years().get(life.years().size() - 1).year();
                happened.merge(last, 1, Integer::sum);
            }
        }
        List<YearTold> told = new ArrayList<>(expected.size());
        expected.forEach((year, mean) -> told.add(new YearTold(
                year,
                mean,
                Erlang.quantile(mean, 0.1),
                Erlang.quantile(mean, 0.9),
                happened.getOrDefault(year, 0),
                watched.getOrDefault(year, 0))));
        return told;
    }

    /** All of them together. */
    public static YearTold total(List<YearTold> years) {
        double expected = years.stream().mapToDouble(YearTold::expected).sum();
        return new YearTold(
                0,
                expected,
                Erlang.quantile(expected, 0.1),
                Erlang.quantile(expected, 0.9),
                years.stream().mapToInt(YearTold::happened).sum(),
                years.stream().mapToInt(YearTold::lives).max().orElse(0));
    }
}
