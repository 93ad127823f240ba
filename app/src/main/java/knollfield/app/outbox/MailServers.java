package knollfield.app.outbox;

import jakarta.mail.internet.AddressException;
import jakarta.mail.internet.InternetAddress;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.settings.Houses;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Which server takes the workshop's mail, and whether it does. */
@Service
class MailServers {

    private static final int MOST_PORT = 65_535;

    private final MailServerRepository repository;
    private final Mails mails;
    private final Houses houses;

    MailServers(MailServerRepository repository, Mails mails, Houses houses) {
        this.repository = repository;
        this.mails = mails;
        this.houses = houses;
    }

    MailServer get() {
        return repository.read();
    }

    /** The address mail comes from; empty where neither the server nor the workshop has one. */
    String sender() {
        String own = get().sender();
        return own.isEmpty() ? houses.get().email() : own;
    }

    /** @throws Conflict where somebody else changed it first */
    @Transactional
    public void change(MailServer next) {
        new Checks()
                .that(
                        next.host().length() <= 200 && !next.host().contains(" "),
                        "/host",
                        "A name such as mail.example.")
                .that(
                        next.port() > 0 && next.port() <= MOST_PORT,
                        "/port",
                        "A port is 1 to 65535; 587 is the usual one.")
                .that(next.userName().length() <= 200, "/userName", "At most 200 characters.")
                .that(next.password().length() <= 200, "/password", "At most 200 characters.")
                .that(
                        next.sender().isEmpty() || isAddress(next.sender()),
                        "/sender",
                        "An address for letters has an @, such as desk@workshop.example.")
                .that(
                        next.host().isEmpty()
                                || !next.sender().isEmpty()
                                || !houses.get().email().isEmpty(),
                        "/sender",
                        "Say which address mail comes from; the workshop has none on file.")
                .orThrow();
        if (!repository.update(next)) {
            throw new Conflict("%s changed the mail server first. Yours was not saved."
                    .formatted(repository.read().changedBy()));
        }
    }

    /**
     * Sends a test message at once.
     *
     * @throws InvalidInput where the server does not take it, and what it said
     */
    void tryOut(String to) {
        new Checks()
                .that(isAddress(to), "/to", "An address for letters has an @, such as desk@workshop.example.")
                .orThrow();
        MailServer server = get();
        if (!server.isThere()) {
            throw new InvalidInput("/host", "Name a server and keep it first.");
        }
        try {
            mails.send(server, mails.mail("test", sender(), "", to, "Test", "If you read this, mail goes out."));
        } catch (NotTaken e) {
            throw new InvalidInput("/host", String.valueOf(e.getMessage()));
        } catch (MayHaveGone e) {
            throw new InvalidInput("/host", "No answer came: it may have gone. " + e.getMessage());
        }
    }

    /** One address as RFC 5322 has it, and nothing beside it. */
    static boolean isAddress(String text) {
        try {
            InternetAddress[] all = InternetAddress.parse(text, true);
            return text.length() <= 200 && text.contains("@") && all.length == 1 && text.equals(all[0].getAddress());
        } catch (AddressException e) {
            return false;
        }
    }
}
