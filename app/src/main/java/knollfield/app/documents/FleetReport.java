package knollfield.app.documents;

import java.time.LocalDate;
import java.util.List;

/**
 * What comes for a fleet, on paper.
 *
 * @param id the fleet's number
 * @param letterhead what stands under the workshop's name, line by line; may be empty
 * @param contact who speaks for it; may be empty
 * @param words the picture in words
 */
public record FleetReport(
        long id,
        String workshop,
        List<String> letterhead,
        String fleet,
        String contact,
        LocalDate on,
        List<String> words,
        List<Month> months,
        List<Line> vehicles) {

    public FleetReport {
        letterhead = List.copyOf(letterhead);
        words = List.copyOf(words);
        months = List.copyOf(months);
        vehicles = List.copyOf(vehicles);
    }

    /**
     * A month.
     *
     * @param days vehicle-days off the road, against those that can be spared
     */
    public record Month(String month, int vehicles, int planned, String hours, String money, String days) {}

    /** A vehicle. */
    public record Line(
            String registration, String makeModel, String status, String actBy, String planned, String money) {}
}
