package knollfield.core.engine;

/** What turns the camshafts. */
public enum Drive {
    BELT("belt"),
    BELT_IN_OIL("belt in oil"),
    CHAIN("chain");

    private final String words;

    Drive(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** What is counted round it: teeth of a belt, links of a chain. */
    public String counted() {
        return isBelt() ? "teeth" : "links";
    }

    public boolean isBelt() {
        return this != CHAIN;
    }
}
