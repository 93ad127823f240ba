package knollfield.core.estimate;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * What somebody said to one line of an estimate.
 *
 * @param lineCode the estimate line's code
 * @param upToMinor the price that was agreed to at worst, minor units before tax
 * @param saidBy who spoke for the vehicle
 * @param warning what was told of the risk; needed where a line is left
 * @param signed the decline of a required line was signed
 */
public record Consent(
        String lineCode,
        Answer answer,
        long upToMinor,
        String saidBy,
        LocalDate on,
        How how,
        String warning,
        boolean signed) {

    /** What was said. */
    public enum Answer {
        AGREED("agreed"),
        LEFT("left");

        private final String words;

        Answer(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** By what way it was said. */
    public enum How {
        IN_PERSON("in person"),
        PHONE("phone"),
        MAIL("mail"),
        TEXT_MESSAGE("text message");

        private final String words;

        How(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What of an answer is lacking. */
    public enum Field {
        LINE,
        WARNING,
        SIGNED
    }

    /** @param words what an answer still needs, one sentence */
    public record Lack(Field field, String words) {}

    /**
     * What {@code answer} to {@code line} needs (rules.md section 6): a line that is left needs the warning that was
     * given, a required one a signed decline; what the job is for cannot be left, the job is refused instead.
     */
    public static List<Lack> lacks(Estimate.Line line, boolean purpose, Answer answer, String warning, boolean signed) {
        List<Lack> lacks = new ArrayList<>();
        if (answer == Answer.AGREED) {
            return lacks;
        }
        if (warning.isBlank()) {
            lacks.add(new Lack(Field.WARNING, "Say what was told of the risk of leaving it."));
        }
        if (purpose) {
            lacks.add(new Lack(
                    Field.LINE,
                    "Without the %s there is no job; give the job up instead."
                            .formatted(line.name().toLowerCase(Locale.ROOT))));
        } else if (line.required() && !signed) {
            lacks.add(new Lack(
                    Field.SIGNED,
                    "%s is required: leaving it needs a signed decline, or the job is refused."
                            .formatted(line.name())));
        }
        return lacks;
    }

    /** @param consent empty: not asked, or the price has risen above what was agreed to */
    public record OfLine(Estimate.Line line, Optional<Consent> consent) {

        public boolean isOpen() {
            return consent.isEmpty();
        }
    }

    /**
     * How each line that can be answered stands: the newest answer to it counts. Lines added by a later finding are open,
     * the others keep what was said; a line that has become dearer than agreed at worst is open again.
     *
     * @param oldestFirst as they were given
     */
    public static List<OfLine> standing(Estimate estimate, Collection<Consent> oldestFirst) {
        List<OfLine> lines = new ArrayList<>();
        for (Estimate.Line line : estimate.lines()) {
            if (!line.kind().isAnswered()) {
                continue;
            }
            Optional<Consent> newest = oldestFirst.stream()
                    .filter(c -> c.lineCode().equals(line.code()))
                    .reduce((earlier, later) -> later)
                    .filter(c -> c.answer() == Answer.LEFT || line.likelyMinor() <= c.upToMinor());
            lines.add(new OfLine(line, newest));
        }
        lines.sort(Comparator.comparing(l -> !l.line().required()));
        return lines;
    }
}
