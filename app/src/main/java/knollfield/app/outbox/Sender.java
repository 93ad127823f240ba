package knollfield.app.outbox;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Hands messages over, one after the other. Each is noted as going before it goes and as gone after; what the server was
 * handing over when it stopped is written again where that makes no second one, and else left to somebody to decide.
 */
@Component
class Sender {

    private static final Logger LOG = LoggerFactory.getLogger(Sender.class);

    static final String FILE = "FILE";
    static final String SMTP = "SMTP";

    /** How long after each failure it is tried again; after the last it is shown as failed. */
    private static final List<Duration> PATIENCE = List.of(
            Duration.ofMinutes(1),
            Duration.ofMinutes(5),
            Duration.ofMinutes(30),
            Duration.ofHours(2),
            Duration.ofHours(8));

    private final OutboxRepository repository;
    private final Outbox outbox;
    private final MailServers servers;
    private final Mails mails;
    private final Folder folder;
    private final PrivatePages pages;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final TransactionTemplate transaction;

    Sender(
            OutboxRepository repository,
            Outbox outbox,
            MailServers servers,
            Mails mails,
            Folder folder,
            PrivatePages pages,
            CurrentPerson current,
            WorkshopClock clock,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.outbox = outbox;
        this.servers = servers;
        this.mails = mails;
        this.folder = folder;
        this.pages = pages;
        this.current = current;
        this.clock = clock;
        this.transaction = transaction;
    }

    /** Settles what was going when the server stopped. */
    @EventListener(ApplicationReadyEvent.class)
    public synchronized void recover() {
        for (Message m : repository.interrupted()) {
            // a file is written under its own name, so a second time makes no second one
            boolean file = m.via().equals(FILE);
            settle(
                    m,
                    file ? Message.State.WAITING : Message.State.UNSURE,
                    file ? "" : "The server stopped while it was being handed over.",
                    clock.instant());
        }
    }

    /** Hands over whatever is due. */
    @Scheduled(fixedDelay = 2_000, initialDelay = 2_000)
    public synchronized void run() {
        MailServer server = servers.get();
        boolean mailWay = true;
        boolean fileWay = true;
        for (long id : repository.due(clock.instant())) {
            Optional<Message> found = outbox.find(id);
            boolean smtp = server.isThere()
                    && found.filter(m -> m.channel() == Channel.EMAIL).isPresent();
            if (found.isPresent() && (smtp ? mailWay : fileWay) && !hand(found.get(), server, smtp)) {
                mailWay &= !smtp;
                fileWay &= smtp;
            }
        }
    }

    /** False where the way itself is closed. */
    private boolean hand(Message waiting, MailServer server, boolean smtp) {
        Optional<String> body = claim(waiting, smtp ? SMTP : FILE);
        if (body.isEmpty()) {
            return true;
        }
        Message m = outbox.find(waiting.id()).orElseThrow();
        try {
            if (m.channel() == Channel.TEXT) {
                folder.write("text-%06d.txt".formatted(m.id()), text(m, body.get()));
            } else {
                var mail = mails.mail(
                        Long.toString(m.id()), servers.sender(), m.toName(), m.toPlace(), m.subject(), body.get());
                if (smtp) {
                    mails.send(server, mail);
                } else {
                    folder.write("mail-%06d.eml".formatted(m.id()), Mails.written(mail));
                }
            }
            settle(m, Message.State.SENT, "", clock.instant());
            return true;
        } catch (NotTaken e) {
            LOG.warn("A message for {} was not taken: {}", m.toName(), e.getMessage());
            boolean again = m.tries() <= PATIENCE.size();
            Instant next = again ? clock.instant().plus(PATIENCE.get(m.tries() - 1)) : clock.instant();
            settle(m, again ? Message.State.WAITING : Message.State.FAILED, String.valueOf(e.getMessage()), next);
            return !e.isEverything();
        } catch (MayHaveGone e) {
            settle(m, Message.State.UNSURE, String.valueOf(e.getMessage()), clock.instant());
            return true;
        } catch (RuntimeException e) {
            // one that cannot be made into a message must not keep the others from going
            LOG.error("A message could not be made", e);
            settle(m, Message.State.FAILED, String.valueOf(e.getMessage()), clock.instant());
            return true;
        }
    }

    /** Notes that it goes, and makes its private address; what is written then, or empty where it no longer waits. */
    private Optional<String> claim(Message m, String via) {
        try {
            return inOne(
                    () -> repository.claim(m.id(), via, clock.instant()) ? Optional.of(written(m)) : Optional.empty());
        } catch (InvalidInput | NotFound e) {
            // nothing to answer any more: the claim is undone with it
            inOne(() -> {
                if (repository.move(
                        m.id(),
                        List.of(Message.State.WAITING),
                        Message.State.FAILED,
                        String.valueOf(e.getMessage()),
                        clock.instant(),
                        clock.instant())) {
                    outbox.told(m, "could not go");
                }
                return Optional.<String>empty();
            });
            return Optional.empty();
        }
    }

    /** Its words with the private address made now. */
    String written(Message m) {
        return m.jobId().isPresent() && m.body().contains(Message.PRIVATE_PAGE)
                ? m.body().replace(Message.PRIVATE_PAGE, pages.make(m.jobId().get()))
                : m.body();
    }

    private void settle(Message m, Message.State to, String failure, Instant next) {
        inOne(() -> {
            if (repository.move(m.id(), List.of(Message.State.SENDING), to, failure, next, clock.instant())
                    && to != Message.State.WAITING) {
                outbox.told(m, to.words());
            }
            return Optional.<String>empty();
        });
    }

    private Optional<String> inOne(java.util.function.Supplier<Optional<String>> deed) {
        return current.as("Outbox", () -> java.util.Objects.requireNonNull(transaction.execute(status -> deed.get())));
    }

    /** A text message as a file: the number, a blank line, the words. */
    private static byte[] text(Message m, String body) {
        return "To: %s\n\n%s\n".formatted(m.toPlace(), body).getBytes(StandardCharsets.UTF_8);
    }
}
