package knollfield.core.practice;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import knollfield.core.engine.BeltPath;
import knollfield.core.engine.Handling;
import knollfield.core.engine.Pulley;

/**
 * One round of practice on an engine family; the same seed gives the same round.
 *
 * @param startTeeth crank teeth, running way, from where it stands to where all marks are true; 1 to two turns less one
 * @param wheels codes of all wheels, shuffled, to be put in laying-on order
 * @param wheelOut code of the marked cam that is out
 * @param teethOut by which many teeth, −1 behind or 1 ahead
 */
public record Exercise(
        BeltPath path,
        Handling handling,
        int startTeeth,
        List<String> wheels,
        String wheelOut,
        int teethOut,
        Situation situation) {

    /** What two turns have shown. */
    public enum Situation {
        ALL_TRUE("All marks are true, the tensioner stands as it should.", Decision.GO_ON),
        ONE_MARK_OFF("Crank true, one cam a tooth behind.", Decision.SET_AGAIN),
        HARD_STOP("In the second turn the crank stops hard.", Decision.STOP),
        PAINT_AWAY("All wheel marks are true; the paint on the belt is somewhere else.", Decision.GO_ON),
        CAMS_OPPOSITE("Crank true after one turn, all cams opposite.", Decision.TURN_ON),
        TENSION_OUT("All marks are true, but the tension is out of its window.", Decision.SET_AGAIN);

        private final String words;
        private final Decision right;

        Situation(String words, Decision right) {
            this.words = words;
            this.right = right;
        }

        public String words() {
            return words;
        }

        /** What a good technician does then. */
        public Decision right() {
            return right;
        }
    }

    /** What can be done then. */
    public enum Decision {
        GO_ON("go on to the final torques"),
        SET_AGAIN("slacken, set again, turn twice again"),
        TURN_ON("one more crank turn, then look again"),
        STOP("stop, back to the locking position, nothing forced");

        private final String words;

        Decision(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public Exercise {
        wheels = List.copyOf(wheels);
    }

    /** The round that {@code seed} stands for. */
    public static Exercise of(BeltPath path, Handling handling, long seed) {
        Random random = new Random(seed);
        int start = 1 + random.nextInt(2 * path.crankTeeth() - 1);
        List<String> wheels =
                new ArrayList<>(path.pulleys().stream().map(Pulley::code).toList());
        Collections.shuffle(wheels, random);
        List<Pulley> cams = path.marked().stream()
                .filter(p -> p.role() != Pulley.Role.CRANK)
                .toList();
        List<Pulley> choice = cams.isEmpty() ? path.marked() : cams;
        Pulley out = choice.isEmpty() ? path.pulleys().get(0) : choice.get(random.nextInt(choice.size()));
        int by = random.nextBoolean() ? 1 : -1;
        Situation situation = Situation.values()[random.nextInt(Situation.values().length)];
        return new Exercise(path, handling, start, wheels, out.code(), by, situation);
    }

    /** Degrees by which the mark of the wheel that is out stands beside its pointer, running way positive. */
    public double degreesOut() {
        return path.pulleys().stream()
                .filter(p -> p.code().equals(wheelOut))
                .mapToDouble(p -> teethOut * knollfield.core.engine.TimingGeometry.toothDegrees(p.teeth()))
                .findFirst()
                .orElseThrow();
    }
}
