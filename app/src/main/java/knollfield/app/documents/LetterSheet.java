package knollfield.app.documents;

import java.time.LocalDate;
import java.util.List;

/**
 * A letter for the printer.
 *
 * @param number of the message it is
 * @param letterhead what stands under the workshop's name, line by line; may be empty
 * @param to name and postal address, line by line
 * @param body lines, an empty one between paragraphs
 */
public record LetterSheet(
        long number,
        String workshop,
        List<String> letterhead,
        LocalDate on,
        List<String> to,
        String subject,
        String body) {

    public LetterSheet {
        letterhead = List.copyOf(letterhead);
        to = List.copyOf(to);
    }
}
