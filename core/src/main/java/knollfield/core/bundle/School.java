package knollfield.core.bundle;

/** How a workshop decides what goes in beside what must (rules.md section 5; practitioners differ). */
public enum School {
    EVERYTHING("everything behind the cover"),
    WHAT_PAYS("what pays"),
    BOOK_MINIMUM("book minimum with inspection");

    private final String words;

    School(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** When shaft seals are renewed. */
    public enum Seals {
        WHILE_OPEN("always while open"),
        WHEN_WET("when wet");

        private final String words;

        Seals(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}
