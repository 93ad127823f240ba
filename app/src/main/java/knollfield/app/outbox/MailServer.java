package knollfield.app.outbox;

/**
 * The server that takes the workshop's mail.
 *
 * @param host empty: there is none, and messages are written as files
 * @param userName empty: it asks for none
 * @param sender the address mail comes from; empty: the workshop's own
 */
record MailServer(
        String host,
        int port,
        Security security,
        String userName,
        String password,
        String sender,
        int version,
        String changedBy) {

    boolean isThere() {
        return !host.isEmpty();
    }

    /** How the way to it is kept from others. */
    enum Security {
        STARTTLS("STARTTLS, the usual one"),
        TLS("TLS from the start"),
        NONE("none: only for a server on this machine");

        private final String words;

        Security(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }
    }
}
