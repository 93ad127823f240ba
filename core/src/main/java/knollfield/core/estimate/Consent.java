package knollfield.core.estimate;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

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
        TEXT_MESSAGE("text message"),
        OWN_PLACE("by the fleet itself"),
        PRIVATE_PAGE("on the private page");

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
     * What {@code answer} to {@code line} needs (rules.md section 6): a no needs the warning that was given; where a required
     * line goes out by it, a signed decline or a job that is refused; where what the job is for goes out, a refused job.
     *
     * @param purpose the job is for this line
     * @param goesOut the work is left undone; false where it is too late for that
     * @param refused the whole job is given up by this answer
     */
    public static List<Lack> lacks(
            Estimate.Line line,
            boolean purpose,
            Answer answer,
            String warning,
            boolean signed,
            boolean goesOut,
            boolean refused) {
        List<Lack> lacks = new ArrayList<>();
        if (answer == Answer.AGREED) {
            return lacks;
        }
        if (warning.isBlank()) {
            lacks.add(new Lack(Field.WARNING, "Say what was told of the risk of leaving it."));
        }
        if (!goesOut || refused) {
            return lacks;
        }
        if (purpose) {
            lacks.add(new Lack(
                    Field.LINE,
                    "Without the %s there is no job: say that the job is refused, it is then given up."
                            .formatted(line.name().toLowerCase(Locale.ROOT))));
        } else if (line.required() && !signed) {
            lacks.add(new Lack(
                    Field.SIGNED,
                    "%s is required: leaving it needs a signed decline, or the job is refused."
                            .formatted(line.name())));
        }
        return lacks;
    }

    /** How a line stands, whatever was said before. */
    public enum State {
        NOT_ASKED("not asked", true),
        DEARER("agreed at less, ask again", true),
        LEFT_YET_IN("left, yet in the job", true),
        AGREED("agreed", false),
        LEFT("left", false);

        private final String words;
        private final boolean open;

        State(String words, boolean open) {
            this.words = words;
            this.open = open;
        }

        public String words() {
            return words;
        }

        /** Whether the owner has still to be asked. */
        public boolean isOpen() {
            return open;
        }
    }

    /**
     * A line and all that was said to it.
     *
     * @param said oldest first
     */
    public record OfLine(Estimate.Line line, State state, List<Consent> said) {

        public OfLine {
            said = List.copyOf(said);
        }

        public boolean isOpen() {
            return state.isOpen();
        }

        /** What was said last. */
        public Optional<Consent> newest() {
            return said.isEmpty() ? Optional.empty() : Optional.of(said.get(said.size() - 1));
        }
    }

    /**
     * How each line that can be answered stands: the newest answer to it counts. Lines added by a later finding are open,
     * the others keep what was said; a line that has become dearer than agreed at worst is open again, and so is one that was
     * left and is done all the same.
     *
     * @param oldestFirst as they were given
     * @param inJob codes of the items that the job holds now
     */
    public static List<OfLine> standing(Estimate estimate, Collection<Consent> oldestFirst, Set<String> inJob) {
        return estimate.lines().stream()
                .filter(line -> line.kind().isAnswered())
                .map(line -> {
                    List<Consent> said = oldestFirst.stream()
                            .filter(c -> c.lineCode().equals(line.code()))
                            .toList();
                    return new OfLine(line, state(line, said, inJob), said);
                })
                .sorted(Comparator.comparing(l -> !l.line().required()))
                .toList();
    }

    private static State state(Estimate.Line line, List<Consent> said, Set<String> inJob) {
        if (said.isEmpty()) {
            return State.NOT_ASKED;
        }
        Consent newest = said.get(said.size() - 1);
        if (newest.answer() == Answer.LEFT) {
            return inJob.contains(line.code()) ? State.LEFT_YET_IN : State.LEFT;
        }
        return line.likelyMinor() > newest.upToMinor() ? State.DEARER : State.AGREED;
    }

    /**
     * Codes of the lines whose last answer was no and that the job does not hold.
     *
     * @param oldestFirst as they were given
     */
    public static Set<String> left(Collection<Consent> oldestFirst, Set<String> inJob) {
        Set<String> left = new TreeSet<>();
        for (Consent c : oldestFirst) {
            if (c.answer() == Answer.LEFT) {
                left.add(c.lineCode());
            } else {
                left.remove(c.lineCode());
            }
        }
        left.removeAll(inJob);
        return left;
    }
}
