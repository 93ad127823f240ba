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

    public boolean isBelt() {
        return this != CHAIN;
    }
}
