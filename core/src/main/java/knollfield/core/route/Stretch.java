package knollfield.core.route;

/** The stretches of a job in the order people know (docs/procedure.md); a line keeps to it as far as its arrows let it. */
public enum Stretch {
    SAFE("Make safe, raise"),
    DRAIN("Drain"),
    CLEAR("Clear the way"),
    OPEN("Covers, pulley"),
    MARKS("All marks in"),
    RELEASE("Release, off"),
    STRIP("Strip"),
    COMPARE("Clean, compare"),
    FIT("Fit what lies behind"),
    SCRATCH("Timing from scratch"),
    LAY("Lay on"),
    TENSION("Tension"),
    TURN("Turn twice"),
    PROVE("Prove"),
    CLOSE("Close up"),
    FILL("Fill"),
    START("First start"),
    RECORD("Record");

    private final String title;

    Stretch(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }
}
