package knollfield.app.documents;

import java.time.LocalDate;
import java.util.List;

/**
 * The record of a job, ready to be set.
 *
 * @param letterhead what stands under the workshop's name, line by line; none in records kept before there was one
 * @param pictures JPEG bytes of what was photographed, with words
 */
public record RecordSheet(
        String workshop,
        List<String> letterhead,
        long job,
        String registration,
        String makeModel,
        String owner,
        LocalDate day,
        String odometer,
        String nextDue,
        List<Section> sections,
        List<Picture> pictures) {

    public RecordSheet {
        letterhead = letterhead == null ? List.of() : List.copyOf(letterhead);
        sections = List.copyOf(sections);
        pictures = List.copyOf(pictures);
    }

    /** A part of the record. */
    public record Section(String title, List<Line> lines) {
        public Section {
            lines = List.copyOf(lines);
        }
    }

    /**
     * @param what the step, part or joint
     * @param words what came of it
     * @param by who, and when; may be empty
     * @param marked a deviation or something a manager let pass
     */
    public record Line(String what, String words, String by, boolean marked) {}

    @SuppressWarnings("ArrayRecordComponent") // bytes on their way into a document; never compared
    public record Picture(byte[] jpeg, String words) {}
}
