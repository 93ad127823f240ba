package knollfield.app.vehicle;

import java.time.LocalDate;
import java.util.Optional;

/**
 * An owner does not want the work for now.
 *
 * @param told the words in which the risk was told
 */
public record StandingDecline(
        long id,
        LocalDate declinedOn,
        String declinedBy,
        String told,
        LocalDate until,
        Optional<LocalDate> withdrawnOn,
        String enteredBy) {}
