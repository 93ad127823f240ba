package knollfield.core.practice;

/** What practice asks for. */
public enum Skill {
    MARKS_IN("Bring the marks in"),
    LAY_ON("Lay the belt on"),
    TOOTH_OUT("Find the tooth that is out"),
    DECIDE("Decide after two turns"),
    WHAT_NEXT("What comes next");

    private final String words;

    Skill(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** It is practised on the drawn loop, so that it needs a drawing. */
    public boolean needsADrawing() {
        return this != WHAT_NEXT;
    }
}
