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
 * @param acceptance what is measured of the tension after the turns; empty where nothing is
 * @param otherBank how the crank goes on to the other bank's marks; empty for an engine of one bank
 * @param clearances valve clearances this family asks for while it is open
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
        double oilLitres,
        Optional<Acceptance> acceptance,
        Optional<OtherBank> otherBank,
        List<Clearance> clearances) {

    /**
     * The window a tension measurement must fall in.
     *
     * @param low least good value, in the quantity's unit
     * @param high greatest good value, above {@code low}
     * @param run the free run a frequency is taken on; empty for other quantities
     */
    public record Acceptance(Quantity quantity, double low, double high, Optional<FreeRun> run) {
        public Acceptance {
            if (!(low < high) || !Double.isFinite(low) || !Double.isFinite(high)) {
                throw new IllegalArgumentException(
                        "a window goes from a lower to a higher value, not from %s to %s".formatted(low, high));
            }
            if (run.isPresent() != (quantity == Quantity.FREQUENCY_HZ)) {
                throw new IllegalArgumentException("a free run belongs to a frequency, and to nothing else");
            }
        }
    }

    /** What is measured of a set tension. */
    public enum Quantity {
        /** Of the pointer past its centre; negative before it. */
        POINTER_MM("mm past centre"),
        TWIST_DEGREES("° of twist"),
        FREQUENCY_HZ("Hz"),
        TOOL_TORQUE_NM("N·m at the tool");

        private final String unit;

        Quantity(String unit) {
            this.unit = unit;
        }

        /** The unit as printed after a figure. */
        public String unit() {
            return unit;
        }
    }

    /**
     * A stretch of belt that swings freely.
     *
     * @param kilogramsPerMetre mass of the belt by length, above zero
     * @param metres length between its wheels, above zero
     */
    public record FreeRun(double kilogramsPerMetre, double metres) {
        public FreeRun {
            if (!(kilogramsPerMetre > 0) || !(metres > 0)) {
                throw new IllegalArgumentException("a free run needs a mass and a length above zero");
            }
        }
    }

    /**
     * An engine of two banks with a chain on each.
     *
     * @param onDegrees the crank is turned on by these to the other bank's position, 1 to 720
     * @param closingDegrees and by these again when the other bank has been fitted, 1 to 720
     */
    public record OtherBank(String name, int onDegrees, int closingDegrees) {
        public OtherBank {
            if (onDegrees < 1 || onDegrees > 720 || closingDegrees < 1 || closingDegrees > 720) {
                throw new IllegalArgumentException(
                        "the crank goes on by 1 to 720 degrees, not by %d and %d".formatted(onDegrees, closingDegrees));
            }
        }
    }

    /**
     * A valve clearance, engine cold.
     *
     * @param lowMm least good value, above zero
     * @param highMm greatest good value, at least {@code lowMm}
     */
    public record Clearance(String valve, double lowMm, double highMm) {
        public Clearance {
            if (!(lowMm > 0) || !(highMm >= lowMm)) {
                throw new IllegalArgumentException(
                        "a clearance goes from above zero upwards, not from %s to %s mm".formatted(lowMm, highMm));
            }
        }
    }

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
        clearances = List.copyOf(clearances);
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
                0,
                Optional.empty(),
                Optional.empty(),
                List.of());
    }
}
