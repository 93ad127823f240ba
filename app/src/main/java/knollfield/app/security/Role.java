package knollfield.app.security;

/** What a person may do. */
public enum Role {
    MANAGER("manager"),
    FRONT_DESK("front desk"),
    TECHNICIAN("technician"),
    FLEET_CONTACT("fleet contact");

    private final String words;

    Role(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
