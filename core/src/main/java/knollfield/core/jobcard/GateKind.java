package knollfield.core.jobcard;

/** The gates of rules.md section 9 and procedure.md. The first three nobody can override. */
public enum GateKind {
    PINS_OUT("Timing pins out", false),
    TWO_TURNS("Two turns by hand", false),
    REFERENCES_TRUE("References true afterwards", false),
    VARIANT_SETTLED("Variant settled", true),
    TOOLS_HERE("Locking tools here", true),
    BATTERY_OFF("Battery earth off", true),
    ENGINE_CARRIED("Engine on a load spreader", true),
    OPENING_COVERED("Opening covered", true),
    SAFE_POSITION("Crank at its safe position", true),
    REFERENCE_FOUND("Timing reference found", true),
    CAMS_HELD("Cams held", true),
    PIECES_FOUND("No piece left in the engine", true),
    OTHER_BANK("Other bank's marks", true),
    FIT_CHECK("Parts compared", true),
    ONE_TIME_NEW("One-time fasteners new", true),
    ONE_TIME_AGAIN("Another new one-time fastener", true),
    MOVED_OVER("Small parts moved over", true),
    SLACK_AT_TENSIONER("Slack at the tensioner", true),
    TENSIONER_SET("Tensioner set", true),
    CRANK_TORQUED("Crank bolt before the turns", true),
    SECOND_EYES("A second pair of eyes", true),
    TENSION_IN_WINDOW("Tension in its window", true),
    CRITICAL_TORQUES("Critical torques measured", true),
    PLUGS_BACK("Blanking plugs back", true),
    WHEEL_AND_SUPPORT("Wheel to torque, support away", true),
    FIRST_START("First start", true),
    COOLANT_LEVEL("Coolant level, cold", true),
    LABEL("Label written", true);

    private final String words;
    private final boolean overridable;

    GateKind(String words, boolean overridable) {
        this.words = words;
        this.overridable = overridable;
    }

    public String words() {
        return words;
    }

    /** True where a manager may open it with words that are printed on the record. */
    public boolean overridable() {
        return overridable;
    }
}
