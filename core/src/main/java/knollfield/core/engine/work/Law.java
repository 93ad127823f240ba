package knollfield.core.engine.work;

/** The laws of the work, by their number in docs/route.md. */
public enum Law {
    CLOSED(1, "What was undone is done up again"),
    DONE(2, "What is agreed is done"),
    REACH(3, "Nothing from behind what is on"),
    FOUND_AND_HELD(4, "Found and held"),
    MOVEMENTS(5, "How it may be turned"),
    HELD_AGAINST(6, "Held against the wrench"),
    PROVEN(7, "Proven after two turns"),
    IN_IS_OUT(8, "What went in comes out"),
    CARRIED(9, "The engine is carried"),
    START(10, "No start before it is proven"),
    FLUIDS(11, "What ran out runs in"),
    BEFORE_IT_HIDES(12, "Looked at before it hides"),
    OPENINGS(13, "Openings covered"),
    HELD_LOOPS(14, "A loop that stays is held"),
    TENSIONER(15, "The tensioner's order"),
    FOR_NOW(16, "Put on for now"),
    UNDER_IT(17, "Under the vehicle"),
    SAID(18, "Said where it belongs");

    private final int number;
    private final String words;

    Law(int number, String words) {
        this.number = number;
        this.words = words;
    }

    public int number() {
        return number;
    }

    public String words() {
        return words;
    }

    /** True for the laws nobody overrides. */
    public boolean absolute() {
        return this == MOVEMENTS || this == PROVEN || this == IN_IS_OUT || this == START;
    }
}
