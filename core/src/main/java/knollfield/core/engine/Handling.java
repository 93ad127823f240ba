package knollfield.core.engine;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * What the book says of working on this family's timing drive (procedure.md, "What the family's book must be able to
 * say").
 *
 * @param turningBackDegrees degrees of the crank the engine may be turned back, above zero; empty: never
 * @param safePosition where crank and cams may be moved freely, in the book's words
 * @param unreliableMarks marks known to be wrong
 * @param cams what the cams do when the loop is slack
 * @param camsHeldBy how they are held; empty where nothing is needed
 * @param leftMeans what left and right mean on this engine, such as {@code as seated in the vehicle}
 * @param slackStrategy where the slack goes while the loop is laid on, where it is not simply the tensioner
 * @param lastWheel code of the wheel that is laid on last; empty: as rotation and order say
 * @param printedMarks the belt carries printed marks
 * @param tensionerSetting how the tensioner is set, in the book's words
 * @param tensionerWindow when its setting is good, in the book's words
 * @param oilLitres engine oil filling, zero where the job does not touch it
 */
public record Handling(
        OptionalInt turningBackDegrees,
        String safePosition,
        List<String> unreliableMarks,
        Cams cams,
        Optional<String> camsHeldBy,
        CamSprockets camSprockets,
        PumpTiming pumpTiming,
        String leftMeans,
        Optional<String> slackStrategy,
        BoltsFinal sprocketBolts,
        BoltsFinal guideBolts,
        Optional<String> lastWheel,
        boolean printedMarks,
        String tensionerSetting,
        String tensionerWindow,
        double oilLitres) {

    /** What the camshafts do once the loop is slack. */
    public enum Cams {
        STAY,
        SPRING,
        ROLL
    }

    /** How the cam sprockets sit on their shafts. */
    public enum CamSprockets {
        KEYED,
        FLOATING
    }

    /** Whether an injection pump must be timed. */
    public enum PumpTiming {
        NO_TIMED_PUMP,
        RE_ENTERS_ITS_PIN,
        NOT_EXPECTED_BACK
    }

    /** When bolts get their final torque. */
    public enum BoltsFinal {
        AT_ONCE,
        WHEN_ALL_SITS,
        BEFORE_THE_BELT,
        AFTER_TENSIONING,
        AFTER_THE_TURNS
    }

    public Handling {
        unreliableMarks = List.copyOf(unreliableMarks);
        if (turningBackDegrees.orElse(1) < 1 || turningBackDegrees.orElse(1) > 180) {
            throw new IllegalArgumentException(
                    "turning back is allowed by 1 to 180 degrees, or never; not by %d degrees"
                            .formatted(turningBackDegrees.orElse(0)));
        }
        if (!(oilLitres >= 0 && oilLitres <= 60)) {
            throw new IllegalArgumentException("oil must be 0 to 60 litres, not " + oilLitres);
        }
    }

    /** Never turned back, cams stay, nothing more is known. */
    public static Handling careful() {
        return new Handling(
                OptionalInt.empty(),
                "",
                List.of(),
                Cams.STAY,
                Optional.empty(),
                CamSprockets.KEYED,
                PumpTiming.NO_TIMED_PUMP,
                "",
                Optional.empty(),
                BoltsFinal.AFTER_THE_TURNS,
                BoltsFinal.AT_ONCE,
                Optional.empty(),
                false,
                "",
                "",
                0);
    }
}
