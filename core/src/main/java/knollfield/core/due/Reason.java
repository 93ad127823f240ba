package knollfield.core.due;

import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;

/** One computed statement of why a date is what it is. */
public record Reason(Topic topic, Statement statement) {

    /** What a statement is about; also the label beside it. */
    public enum Topic {
        DECIDES("Decides"),
        DISTANCE("Distance"),
        AGE("Age"),
        SCHEDULE("Schedule"),
        USAGE("Usage"),
        EVIDENCE("Evidence"),
        HISTORY("History"),
        TRIP("Trip"),
        POLICY("Policy"),
        STATE("State"),
        WEAKNESS("Weakness"),
        BOOK("Book");

        private final String words;

        Topic(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public static Reason of(Topic topic, String text, Fact... facts) {
        return new Reason(topic, Statement.of(text, facts));
    }
}
