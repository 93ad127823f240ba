package knollfield.core.engine;

/** How the tensioner is set (rules.md section 8). */
public enum TensionerKind {
    SPRING_PIN("spring tensioner with pin"),
    HYDRAULIC_PIN("hydraulic tensioner with pin"),
    ECCENTRIC_POINTER("eccentric tensioner with pointer and window"),
    /** By a torque tool in the tensioner's square, never a click wrench; set again after the two turns. */
    TORQUE_TOOL("tensioner set by a torque tool in its square"),
    /** The engine is turned on by so many teeth, then the tensioner is tightened. */
    TEETH_ON("tensioner tightened after turning on by teeth"),
    TWIST("tensioner set by the twist of the longest run"),
    FREQUENCY("tensioner set by the frequency of a free run"),
    CHAIN_RATCHET("ratchet chain tensioner");

    private final String words;

    TensionerKind(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** True where a pin of its own holds the tensioner back until it is pulled. */
    public boolean hasPin() {
        return this == SPRING_PIN || this == HYDRAULIC_PIN;
    }
}
