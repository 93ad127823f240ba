package knollfield.core.odometer;

/** Who says what the odometer showed, with its trust weight (planning assumption, rules.md section 1). */
public enum ReadingSource {
    WORKSHOP(5, "own workshop"),
    TELEMATICS(4, "telematics"),
    CERTIFICATE(3, "roadworthiness certificate"),
    FLEET_LIST(2, "fleet list"),
    FIRST_REGISTRATION(2, "first registration at zero"),
    CUSTOMER(1, "customer by phone");

    private final int trust;
    private final String words;

    ReadingSource(int trust, String words) {
        this.trust = trust;
        this.words = words;
    }

    /** Trust weight, 1 to 5; planning assumption. */
    public int trust() {
        return trust;
    }

    /** The source in the words of the desk. */
    public String words() {
        return words;
    }
}
