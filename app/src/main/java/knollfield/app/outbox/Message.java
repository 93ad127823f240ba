package knollfield.app.outbox;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * A letter or message.
 *
 * @param jobId the job whose estimate its private page opens; empty where it leads to none
 * @param toPlace an e-mail address, a telephone number, or a postal address line by line
 * @param body with {@link #PRIVATE_PAGE} where the private address is set when it goes
 * @param failure what went wrong last, in words; may be empty
 */
public record Message(
        long id,
        MessageKind kind,
        Channel channel,
        Optional<Long> jobId,
        String toName,
        String toPlace,
        String subject,
        String body,
        State state,
        String via,
        int tries,
        String failure,
        Instant madeAt,
        String madeBy,
        Instant changedAt,
        List<Long> vehicles,
        int version) {

    /** Stands in words where the private address goes. It is made when the message goes, so that no list holds it. */
    public static final String PRIVATE_PAGE = "{private page}";

    public Message {
        vehicles = List.copyOf(vehicles);
    }

    /** How far it is. */
    public enum State {
        WAITING("waits"),
        SENDING("is going"),
        SENT("gone"),
        FAILED("could not go"),
        UNSURE("may have gone"),
        TAKEN_BACK("taken back");

        private final String words;

        State(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What is to be written to somebody. */
    public record Draft(
            MessageKind kind,
            Channel channel,
            long ownerId,
            Optional<Long> jobId,
            String toName,
            String toPlace,
            String subject,
            String body,
            List<Long> vehicles) {

        public Draft {
            vehicles = List.copyOf(vehicles);
        }
    }
}
