package knollfield.app.vehicle;

import java.util.List;

/**
 * Whom a vehicle belongs to: one record, however many vehicles.
 *
 * @param language tag of the language letters are written in (BCP 47); empty: the workshop's
 * @param mayWrite letters and messages may be sent
 * @param phones the first is the one to ring
 * @param speakers names of those who may answer for the owner; empty: nobody is named, and anybody may
 * @param version rises with every change
 */
public record Owner(
        long id,
        String name,
        Kind kind,
        String address,
        String email,
        Prefers prefers,
        String language,
        boolean mayWrite,
        List<Phone> phones,
        List<String> speakers,
        int version) {

    /** What stands for a name or number that nobody has stated. */
    public static final String NOT_STATED = "not stated";

    public Owner {
        phones = List.copyOf(phones);
        speakers = List.copyOf(speakers);
    }

    /** Who it is in law. */
    public enum Kind {
        PERSON("person"),
        FIRM("firm");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** How an owner likes to hear from the workshop. */
    public enum Prefers {
        PHONE("by phone"),
        MESSAGE("by text message"),
        EMAIL("by e-mail"),
        LETTER("by letter");

        private final String words;

        Prefers(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** @param label whose or which it is, such as "work"; may be empty */
    public record Phone(String number, String label) {}

    /** The same owner with these telephones, the first the one to ring. */
    Owner with(List<Phone> others) {
        return new Owner(id, name, kind, address, email, prefers, language, mayWrite, others, speakers, version);
    }

    /** What is on file here, to be written over {@code read}, the version that somebody read. */
    Owner over(int read) {
        return new Owner(id, name, kind, address, email, prefers, language, mayWrite, phones, speakers, read);
    }
}
