package knollfield.core.jobcard;

import java.util.List;
import java.util.OptionalInt;
import java.util.stream.Stream;

/** What a look at a drive that opened nothing comes to; the person who looked decides, with a reason. */
public enum InspectionEnd {
    NOTHING("nothing to do", 0, false),
    AGAIN_IN_1("look again in 1 month", 1, false),
    AGAIN_IN_3("look again in 3 months", 3, false),
    AGAIN_IN_6("look again in 6 months", 6, false),
    AGAIN_IN_12("look again in 12 months", 12, false),
    TENSIONER("tensioner only", 0, true),
    FULL_SET("the full set", 0, true);

    private final String words;
    private final int months;
    private final boolean needsAJob;

    InspectionEnd(String words, int months, boolean needsAJob) {
        this.words = words;
        this.months = months;
        this.needsAJob = needsAJob;
    }

    public String words() {
        return words;
    }

    /** Months until it is looked at again, 1 to 12; empty where nobody looks again because of it. */
    public OptionalInt lookAgainMonths() {
        return months == 0 ? OptionalInt.empty() : OptionalInt.of(months);
    }

    /** Work follows from it. */
    public boolean needsAJob() {
        return needsAJob;
    }

    /**
     * What was decided, and why.
     *
     * @param reason in words, never blank
     */
    public record Decided(InspectionEnd end, String reason) {}

    static List<Task.Choose.Option> options() {
        return Stream.of(values())
                .map(e -> new Task.Choose.Option(e.name(), e.words, true))
                .toList();
    }
}
