package knollfield.core.engine;

import java.util.List;

/**
 * Something in a family's book that cannot stand, or that should be looked at.
 *
 * @param pointer where it is, as a JSON pointer (RFC 6901) into the family's document, such as {@code /path/pulleys/2}
 * @param words what is wrong there and what would be right, one sentence
 */
public record BookFault(String pointer, String words) {

    /** The same fault seen from a document that holds this one at {@code prefix}. */
    public BookFault under(String prefix) {
        return new BookFault(prefix + pointer, words);
    }

    /** A book that cannot stand: all of its faults at once. */
    public static final class Broken extends IllegalArgumentException {

        private static final long serialVersionUID = 1L;

        private final transient List<BookFault> faults;

        public Broken(List<BookFault> faults) {
            super(String.join(" ", faults.stream().map(BookFault::words).toList()));
            this.faults = List.copyOf(faults);
        }

        public List<BookFault> faults() {
            return faults;
        }
    }
}
