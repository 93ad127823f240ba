package knollfield.app.letters;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.HashMap;
import java.util.IllformedLocaleException;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import knollfield.app.outbox.Channel;
import knollfield.app.outbox.Message;
import knollfield.app.outbox.MessageKind;
import knollfield.app.outbox.Outbox;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.House;
import knollfield.app.settings.Houses;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.vehicle.Owner;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.reminder.ReminderRule;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Writes to owners: in the workshop's words, in the owner's language, by a way that reaches them. */
@Service
public class Letters {

    private final LetterWordsRepository repository;
    private final Outbox outbox;
    private final WorkshopSettings settings;
    private final Houses houses;
    private final CurrentPerson current;

    Letters(
            LetterWordsRepository repository,
            Outbox outbox,
            WorkshopSettings settings,
            Houses houses,
            CurrentPerson current) {
        this.repository = repository;
        this.outbox = outbox;
        this.settings = settings;
        this.houses = houses;
        this.current = current;
    }

    /** The words for a language: its own, those of the language without its region, the workshop's usual ones, the app's. */
    LetterText.Template words(LetterText text, String language) {
        List<LetterWordsRepository.Own> own = repository.all();
        String plain = Locale.forLanguageTag(language).getLanguage();
        return List.of(language, plain, "").stream()
                .flatMap(l -> own.stream()
                        .filter(o -> o.text() == text && o.language().equalsIgnoreCase(l)))
                .map(LetterWordsRepository.Own::template)
                .findFirst()
                .orElse(text.own());
    }

    List<LetterWordsRepository.Own> own() {
        return repository.all();
    }

    LetterWordsRepository.Rule rule() {
        return repository.rule();
    }

    /** @throws Conflict where somebody else changed it first */
    @Transactional
    public void change(int before, int between, int most, int version) {
        new Checks()
                .that(
                        before >= 0 && before <= ReminderRule.MOST_BEFORE,
                        "/weeksBefore",
                        "0 to %d weeks.".formatted(ReminderRule.MOST_BEFORE))
                .that(
                        between >= 1 && between <= ReminderRule.MOST_BETWEEN,
                        "/weeksBetween",
                        "1 to %d weeks.".formatted(ReminderRule.MOST_BETWEEN))
                .that(
                        most >= 1 && most <= ReminderRule.MOST_TIMES,
                        "/most",
                        "1 to %d times.".formatted(ReminderRule.MOST_TIMES))
                .orThrow();
        if (!repository.change(
                new ReminderRule(before, between, most), version, current.get().name())) {
            throw changedMeanwhile();
        }
    }

    private static Conflict changedMeanwhile() {
        return new Conflict("Somebody else changed this first. Yours was not saved.");
    }

    /**
     * Puts the workshop's words in the place of the app's.
     *
     * @param version 0 where it had none of its own in that language
     */
    @Transactional
    public void change(LetterText text, String language, LetterText.Template template, int version) {
        if (!isLanguage(language)) {
            throw new InvalidInput(
                    "/language", "\"%s\" is no language; write a tag such as de, el or pt-BR.".formatted(language));
        }
        if (!text.wrong(template).isEmpty()) {
            throw new InvalidInput(text.wrong(template));
        }
        String by = current.get().name();
        boolean kept = version == 0
                ? repository.add(text, language, template, by)
                : repository.change(text, language, template, version, by);
        if (!kept) {
            throw changedMeanwhile();
        }
    }

    /** Takes the workshop's own words away; the app's stand again. */
    @Transactional
    public void remove(LetterText text, String language, int version) {
        if (!repository.remove(text, language, version)) {
            throw changedMeanwhile();
        }
    }

    private static boolean isLanguage(String tag) {
        try {
            new Locale.Builder().setLanguageTag(tag);
            return tag.length() <= 35;
        } catch (IllformedLocaleException e) {
            return false;
        }
    }

    /** What fills the fields that every letter may have. */
    private Map<String, String> usual(Owner owner) {
        House h = houses.get();
        Map<String, String> values = new HashMap<>();
        values.put("owner", owner.name());
        values.put("workshop", settings.get().name());
        values.put("phone", h.phone().isEmpty() ? h.email() : h.phone());
        return values;
    }

    private static String day(LocalDate day, String language) {
        return DateTimeFormatter.ofLocalizedDate(FormatStyle.LONG)
                .withLocale(locale(language))
                .format(day);
    }

    private static String time(LocalDateTime at, String language) {
        return "%s, %s"
                .formatted(
                        day(at.toLocalDate(), language),
                        DateTimeFormatter.ofPattern("HH:mm").format(at));
    }

    private static Locale locale(String language) {
        return language.isEmpty() ? Locale.UK : Locale.forLanguageTag(language);
    }

    /**
     * What an owner is reminded of.
     *
     * @param known the last renewal is on file
     */
    record Remembered(Vehicle vehicle, LocalDate actBy, boolean known) {}

    /** A reminder as it would go. */
    LetterText.Template reminder(Owner owner, List<Remembered> about, LocalDate today) {
        String language = owner.language();
        StringBuilder lines = new StringBuilder();
        for (Remembered r : about) {
            Map<String, String> values = Map.of(
                    "registration",
                    r.vehicle().registration(),
                    "vehicle",
                    r.vehicle().makeModel(),
                    "day",
                    day(r.actBy(), language));
            LetterText line = !r.known()
                    ? LetterText.REMINDER_NO_RECORD
                    : r.actBy().isAfter(today) ? LetterText.REMINDER_AHEAD : LetterText.REMINDER_NOW;
            lines.append(lines.isEmpty() ? "" : "\n")
                    .append(words(line, language).filled(values).body());
        }
        Map<String, String> values = usual(owner);
        values.put("vehicles", lines.toString());
        return words(LetterText.REMINDER, language).filled(values);
    }

    /** Puts a reminder in the outbox. */
    void remind(Owner owner, Channel channel, List<Remembered> about, LocalDate today) {
        put(
                MessageKind.REMINDER,
                owner,
                channel,
                Optional.empty(),
                reminder(owner, about, today),
                about.stream().map(r -> r.vehicle().id()).toList());
    }

    /** Writes of an estimate; its private page is made when the message goes. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void estimate(Owner owner, Channel channel, Vehicle vehicle, long jobId, LocalDate until) {
        Map<String, String> values = usual(owner);
        values.put("registration", vehicle.registration());
        values.put("vehicle", vehicle.makeModel());
        values.put("until", day(until, owner.language()));
        put(
                MessageKind.ESTIMATE,
                owner,
                channel,
                Optional.of(jobId),
                words(LetterText.ESTIMATE, owner.language()).filled(values),
                List.of(vehicle.id()));
    }

    /**
     * Writes that a promised time has changed.
     *
     * @param now the time that stands; empty where there is none
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public void promise(
            Owner owner, Channel channel, Vehicle vehicle, LocalDateTime before, Optional<LocalDateTime> now) {
        Map<String, String> values = usual(owner);
        values.put("registration", vehicle.registration());
        values.put("before", time(before, owner.language()));
        now.ifPresent(t -> values.put("now", time(t, owner.language())));
        LetterText text = now.isPresent() ? LetterText.PROMISE_MOVED : LetterText.PROMISE_GONE;
        put(
                MessageKind.PROMISE,
                owner,
                channel,
                Optional.empty(),
                words(text, owner.language()).filled(values),
                List.of(vehicle.id()));
    }

    /** Writes that a vehicle in the workshop is ready later than was said. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void ready(Owner owner, Channel channel, Vehicle vehicle, LocalDateTime before, LocalDateTime now) {
        Map<String, String> values = usual(owner);
        values.put("registration", vehicle.registration());
        values.put("before", time(before, owner.language()));
        values.put("now", time(now, owner.language()));
        put(
                MessageKind.PROMISE,
                owner,
                channel,
                Optional.empty(),
                words(LetterText.READY_LATER, owner.language()).filled(values),
                List.of(vehicle.id()));
    }

    private void put(
            MessageKind kind,
            Owner owner,
            Channel channel,
            Optional<Long> job,
            LetterText.Template words,
            List<Long> vehicles) {
        if (houses.get().phone().isEmpty() && houses.get().email().isEmpty()) {
            throw new InvalidInput(
                    "/channel",
                    "Setup does not say yet how the workshop is reached: a letter would not say whom to ring.");
        }
        if (!outbox.ways(owner).contains(channel)) {
            throw new InvalidInput(
                    "/channel",
                    "%s cannot be reached %s: nothing is on file for it.".formatted(owner.name(), channel.words()));
        }
        outbox.put(new Message.Draft(
                kind,
                channel,
                owner.id(),
                job,
                owner.name(),
                Outbox.place(owner, channel),
                words.subject(),
                words.body(),
                vehicles));
    }
}
