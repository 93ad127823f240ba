package knollfield.app.letters;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import knollfield.app.outbox.Message;
import knollfield.app.problem.FieldProblem;

/**
 * Words with fields in braces. What stands here is the app's own, in English; a workshop may put its own in their place, and
 * others for each language it writes.
 */
public enum LetterText {
    REMINDER(
            "Reminder of work that comes due",
            List.of("owner", "vehicles", "workshop", "phone"),
            List.of("vehicles"),
            "Your timing belt or chain",
            """
            Dear {owner},

            a timing belt or chain wears out of sight. It is time for:

            {vehicles}

            If it fails, the engine may be damaged. Please ring us for a day that suits you: {phone}.
            If the work has been done elsewhere, tell us when and at what reading, and we write no more about it.

            {workshop}"""),
    REMINDER_AHEAD(
            "Its line for a vehicle that still has time",
            List.of("registration", "vehicle", "day"),
            List.of("registration"),
            "",
            "{registration}, {vehicle}: by {day}"),
    REMINDER_NOW(
            "Its line for a vehicle whose time has come",
            List.of("registration", "vehicle"),
            List.of("registration"),
            "",
            "{registration}, {vehicle}: now"),
    REMINDER_NO_RECORD(
            "Its line for a vehicle whose last renewal is not known",
            List.of("registration", "vehicle"),
            List.of("registration"),
            "",
            "{registration}, {vehicle}: we have no record of its last renewal"),
    ESTIMATE(
            "An estimate to be answered on a private page",
            List.of("owner", "registration", "vehicle", "until", "private page", "workshop", "phone"),
            List.of("private page"),
            "Estimate for {registration}",
            """
            Dear {owner},

            our estimate for {registration}, {vehicle}, is here:

            {private page}

            You can read and answer it there, line by line, until {until}. The address is meant for you alone; it opens once.
            If you would rather talk about it, ring us: {phone}.

            {workshop}"""),
    PROMISE_MOVED(
            "A promised time has changed",
            List.of("owner", "registration", "before", "now", "workshop", "phone"),
            List.of("registration", "now"),
            "{registration}: another time",
            """
            Dear {owner},

            we had promised {registration} for {before}. It is now {now}.
            If that does not suit you, please ring us: {phone}.

            {workshop}"""),
    READY_LATER(
            "A vehicle is ready later than was said",
            List.of("owner", "registration", "before", "now", "workshop", "phone"),
            List.of("registration", "now"),
            "{registration}: ready later",
            """
            Dear {owner},

            {registration} takes longer than we said. It was to be ready {before}; now it is {now}.
            If you want to talk about it, ring us: {phone}.

            {workshop}"""),
    PROMISE_GONE(
            "A promised time can no longer be kept",
            List.of("owner", "registration", "before", "workshop", "phone"),
            List.of("registration", "before"),
            "{registration}: we need another time",
            """
            Dear {owner},

            we had promised {registration} for {before} and cannot keep it. We are sorry.
            We will ring you about another time, or ring us: {phone}.

            {workshop}""");

    private static final Pattern FIELD = Pattern.compile("\\{([^{}\\n]*)}");

    private final String what;
    private final List<String> fields;
    private final List<String> needed;
    private final String subject;
    private final String body;

    LetterText(String what, List<String> fields, List<String> needed, String subject, String body) {
        this.what = what;
        this.fields = fields;
        this.needed = needed;
        this.subject = subject;
        this.body = body;
    }

    public String what() {
        return what;
    }

    /** Fields that may stand in it. */
    public List<String> fields() {
        return fields;
    }

    /** False for what is a line of another. */
    public boolean hasSubject() {
        return !subject.isEmpty();
    }

    /** Words with their fields still open. */
    public record Template(String subject, String body) {

        /** With every field filled; a private address stays open until the message goes. */
        public Template filled(Map<String, String> values) {
            return new Template(fill(subject, values), fill(body, values));
        }

        private static String fill(String text, Map<String, String> values) {
            return FIELD.matcher(text)
                    .replaceAll(m -> Matcher.quoteReplacement(
                            Optional.ofNullable(values.get(m.group(1))).orElse(m.group())));
        }
    }

    Template own() {
        return new Template(subject, body);
    }

    /** What is wrong with a workshop's words, beside the field it is wrong in. */
    List<FieldProblem> wrong(Template t) {
        Map<String, FieldProblem> wrong = new LinkedHashMap<>();
        if (t.body().isBlank()) {
            wrong.put("empty", new FieldProblem("/body", "The words are missing."));
        }
        if (t.body().length() > 4000) {
            wrong.put("long", new FieldProblem("/body", "The words are longer than 4000 characters."));
        }
        if (hasSubject() && t.subject().isBlank()) {
            wrong.put("subject", new FieldProblem("/subject", "The subject is missing."));
        }
        if (t.subject().length() > 200 || t.subject().contains("\n")) {
            wrong.put("subject", new FieldProblem("/subject", "A subject is one line of at most 200 characters."));
        }
        String all = fields.stream().map(f -> "{" + f + "}").collect(Collectors.joining(", "));
        for (String[] place : new String[][] {{"/subject", t.subject()}, {"/body", t.body()}}) {
            Matcher m = FIELD.matcher(place[1]);
            while (m.find()) {
                boolean address = m.group().equals(Message.PRIVATE_PAGE) && place[0].equals("/subject");
                if (!fields.contains(m.group(1)) || address) {
                    wrong.put(
                            place[0] + m.group(),
                            new FieldProblem(
                                    place[0], "%s is no field here. There are: %s.".formatted(m.group(), all)));
                }
            }
            String rest = FIELD.matcher(place[1]).replaceAll("");
            if (rest.contains("{") || rest.contains("}")) {
                wrong.put(
                        place[0] + "{",
                        new FieldProblem(place[0], "A brace stands alone. Fields are written as {owner}."));
            }
        }
        needed.stream()
                .filter(f -> !t.body().contains("{" + f + "}"))
                .forEach(f -> wrong.put(
                        f, new FieldProblem("/body", "{%s} must stand in it: it is what this is about.".formatted(f))));
        return List.copyOf(wrong.values());
    }

    static Optional<LetterText> named(String name) {
        return Arrays.stream(values()).filter(t -> t.name().equals(name)).findFirst();
    }
}
