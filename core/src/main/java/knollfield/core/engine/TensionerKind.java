package knollfield.core.engine;

/** How the tensioner is set (rules.md section 8). */
public enum TensionerKind {
    SPRING_PIN("spring tensioner with pin"),
    HYDRAULIC_PIN("hydraulic tensioner with pin"),
    ECCENTRIC_POINTER("eccentric tensioner with pointer and window"),
    CHAIN_RATCHET("ratchet chain tensioner");

    private final String words;

    TensionerKind(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
