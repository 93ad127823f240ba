package knollfield.app.documents;

import java.time.LocalDate;
import java.util.List;

/**
 * What an owner signs who leaves work that the workshop advises.
 *
 * @param letterhead what stands under the workshop's name, line by line; may be empty
 * @param waiting what waiting costs, in words
 */
public record DeclineSheet(
        String workshop,
        List<String> letterhead,
        long job,
        int number,
        String registration,
        String makeModel,
        String owner,
        LocalDate on,
        List<Line> lines,
        String waiting,
        String toldBy) {

    public DeclineSheet {
        letterhead = List.copyOf(letterhead);
        lines = List.copyOf(lines);
    }

    /** @param warning what was told of the risk */
    public record Line(String name, String warning) {}
}
