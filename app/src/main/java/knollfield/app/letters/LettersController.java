package knollfield.app.letters;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import knollfield.app.letters.LettersViews.ChosenIn;
import knollfield.app.letters.LettersViews.LetterView;
import knollfield.app.letters.LettersViews.ReminderKept;
import knollfield.app.letters.LettersViews.ReminderLetter;
import knollfield.app.letters.LettersViews.ReminderLine;
import knollfield.app.letters.LettersViews.RemindersView;
import knollfield.app.letters.LettersViews.SendIn;
import knollfield.app.letters.LettersViews.SentView;
import knollfield.app.letters.LettersViews.WayView;
import knollfield.app.problem.Checks;
import knollfield.app.shared.Words;
import knollfield.app.vehicle.Owner;
import knollfield.core.reminder.NotNow;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Today's reminders, before they go. */
@RestController
@RequestMapping("/api/letters")
class LettersController {

    private static final List<String> NTH = List.of("first", "second", "third", "fourth", "fifth", "sixth");

    private final ReminderBatch batch;
    private final Letters letters;
    private final Words words;

    LettersController(ReminderBatch batch, Letters letters, Words words) {
        this.batch = batch;
        this.letters = letters;
        this.words = words;
    }

    @GetMapping("/reminders")
    RemindersView reminders() {
        ReminderBatch.Batch today = batch.today();
        LetterWordsRepository.Rule rule = letters.rule();
        List<ReminderKept> kept = new ArrayList<>();
        int later = 0;
        for (ReminderBatch.Kept k : today.kept()) {
            later += k.why() == NotNow.NOT_YET ? 1 : 0;
            k.state()
                    .forecast()
                    .actBy()
                    .filter(d -> LettersViews.isWithin(
                            d, k.state().forecast().today(), rule.rule().weeksBefore()))
                    .ifPresent(d -> kept.add(new ReminderKept(
                            k.state().vehicle().id(),
                            k.state().vehicle().registration(),
                            k.state().vehicle().ownerName(),
                            d,
                            k.why().words())));
        }
        kept.sort(Comparator.comparing(ReminderKept::actBy).thenComparing(ReminderKept::vehicleId));
        return new RemindersView(
                rule.rule().weeksBefore(),
                rule.rule().weeksBetween(),
                rule.rule().most(),
                today.letters().stream().map(this::view).toList(),
                kept,
                later);
    }

    private ReminderLetter view(ReminderBatch.Ready l) {
        Owner o = l.owner();
        return new ReminderLetter(
                o.id(),
                o.name(),
                o.prefers().words(),
                o.phones().stream().map(Owner.Phone::number).findFirst().orElse(null),
                l.suggested().orElse(null),
                l.ways().stream().map(w -> new WayView(w, w.words())).toList(),
                l.about().stream().map(this::view).toList());
    }

    private ReminderLine view(ReminderBatch.About a) {
        int n = a.line().nth();
        return new ReminderLine(
                a.line().vehicle(),
                a.state().vehicle().registration(),
                a.state().vehicle().makeModel(),
                a.line().actBy(),
                "%s, act by %s; %s reminder%s"
                        .formatted(
                                a.state().forecast().statusWords(),
                                words.day(a.line().actBy()),
                                n <= NTH.size() ? NTH.get(n - 1) : n + "th",
                                a.sent().isEmpty()
                                        ? ""
                                        : ", the last went on "
                                                + words.day(
                                                        a.sent().get(a.sent().size() - 1))));
    }

    /** A reminder as it would go. */
    @GetMapping("/reminders/{ownerId}")
    LetterView preview(@PathVariable long ownerId) {
        LetterText.Template t = batch.preview(ownerId);
        return new LetterView(t.subject(), t.body());
    }

    /** Sends those that were chosen, as they were shown. */
    @PostMapping("/reminders")
    SentView send(@RequestBody SendIn in) {
        List<ReminderBatch.Chosen> chosen = new ArrayList<>();
        List<ChosenIn> asked = Objects.requireNonNullElse(in.letters(), List.of());
        Checks checks = new Checks();
        for (int i = 0; i < asked.size(); i++) {
            checks.that(
                    asked.get(i).channel() != null,
                    "/letters/%d/channel".formatted(i),
                    "By e-mail, by text message or by letter?");
        }
        checks.orThrow();
        for (ChosenIn c : asked) {
            Set<Long> vehicles = new HashSet<>(Objects.requireNonNullElse(c.vehicles(), List.<Long>of()));
            chosen.add(new ReminderBatch.Chosen(c.ownerId(), Objects.requireNonNull(c.channel()), vehicles));
        }
        return new SentView(batch.send(chosen), reminders());
    }
}
