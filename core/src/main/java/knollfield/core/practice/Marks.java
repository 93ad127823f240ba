package knollfield.core.practice;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.TimingGeometry;
import knollfield.core.practice.Exercise.Decision;

/**
 * How a round was done; each part gives 0 to 25 points.
 *
 * @param parts in the order of the round
 */
public record Marks(List<Part> parts) {

    /** Most points of one part. */
    public static final int MOST = 25;

    /** @param words what was right or wrong, as a sentence */
    public record Part(Skill skill, int points, String words) {}

    /**
     * What a trainee did.
     *
     * @param turns crank teeth of each move, in order; against the running way where negative
     * @param order codes of the wheels as the belt was laid on
     * @param wheelOut the wheel they hold to be out
     * @param teethOut by which many teeth, negative behind
     */
    public record Answers(List<Integer> turns, List<String> order, String wheelOut, int teethOut, Decision decision) {
        public Answers {
            turns = List.copyOf(turns);
            order = List.copyOf(order);
        }
    }

    public Marks {
        parts = List.copyOf(parts);
    }

    /** 0 to 100. */
    public int points() {
        return parts.stream().mapToInt(Part::points).sum();
    }

    /** Scores {@code answers} by the loop's geometry. */
    public static Marks of(Exercise exercise, Answers answers) {
        return new Marks(List.of(
                marksIn(exercise, answers.turns()),
                layingOn(exercise, answers.order()),
                toothOut(exercise, answers),
                decision(exercise, answers.decision())));
    }

    private static Part marksIn(Exercise e, List<Integer> turns) {
        int crank = e.path().crankTeeth();
        int moved = turns.stream().mapToInt(Integer::intValue).sum();
        int left = Math.floorMod(e.startTeeth() - moved, 2 * crank);
        double most = e.handling().turningBackDegrees().orElse(0);
        double back = turns.stream()
                        .mapToInt(Integer::intValue)
                        .filter(t -> t < 0)
                        .min()
                        .orElse(0)
                * -TimingGeometry.toothDegrees(crank);
        if (back > most + 1e-9) {
            return new Part(
                    Skill.MARKS_IN,
                    0,
                    most == 0
                            ? "Turned back: this engine never is."
                            : String.format(Locale.ROOT, "Turned back by %.0f°; the book allows %.0f°.", back, most));
        }
        if (left == crank) {
            return new Part(Skill.MARKS_IN, 10, "The crank is true and the cams stand opposite: one more crank turn.");
        }
        if (left != 0) {
            int off = Math.min(left % crank, crank - left % crank);
            return new Part(
                    Skill.MARKS_IN,
                    0,
                    String.format(
                            Locale.ROOT,
                            "The crank stands %d %s (%.0f°) from its mark.",
                            off,
                            off == 1 ? "tooth" : "teeth",
                            off * TimingGeometry.toothDegrees(crank)));
        }
        boolean round = moved > 2 * crank;
        return new Part(
                Skill.MARKS_IN,
                round ? 20 : MOST,
                round ? "All true, though two turns further than needed." : "All marks true, the shortest way.");
    }

    private static Part layingOn(Exercise e, List<String> order) {
        List<Pulley> right = TimingGeometry.layingOn(e.path());
        int good = 0;
        while (good < right.size()
                && good < order.size()
                && right.get(good).code().equals(order.get(good))) {
            good++;
        }
        if (good == right.size()) {
            return new Part(Skill.LAY_ON, MOST, "Tight run first, the slack ends at the tensioner.");
        }
        return new Part(
                Skill.LAY_ON,
                MOST * good / right.size(),
                "After %d right wheels comes the %s: against the running way over the tight runs, the tensioner last."
                        .formatted(good, right.get(good).name().toLowerCase(java.util.Locale.ROOT)));
    }

    private static Part toothOut(Exercise e, Answers a) {
        boolean wheel = e.wheelOut().equals(a.wheelOut());
        boolean way = Integer.signum(a.teethOut()) == e.teethOut();
        String truth = String.format(
                Locale.ROOT,
                "The %s is one tooth (%.1f°) %s.",
                e.path().pulleys().stream()
                        .filter(p -> p.code().equals(e.wheelOut()))
                        .findFirst()
                        .orElseThrow()
                        .name()
                        .toLowerCase(java.util.Locale.ROOT),
                Math.abs(e.degreesOut()),
                e.teethOut() > 0 ? "ahead" : "behind");
        return new Part(Skill.TOOTH_OUT, wheel ? (way ? MOST : 15) : 0, truth);
    }

    private static Part decision(Exercise e, Decision decision) {
        List<String> words = new ArrayList<>();
        words.add("Right is: %s.".formatted(e.situation().right().words()));
        if (e.situation() == Exercise.Situation.PAINT_AWAY) {
            words.add("The paint is back after %d turns.".formatted(e.path().turnsUntilPaintReturns()));
        }
        return new Part(Skill.DECIDE, decision == e.situation().right() ? MOST : 0, String.join(" ", words));
    }
}
