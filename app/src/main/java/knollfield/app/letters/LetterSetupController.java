package knollfield.app.letters;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import knollfield.app.problem.NotFound;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The rule for reminders and the words of letters; the manager's alone. */
@RestController
@RequestMapping("/api/setup/letters")
class LetterSetupController {

    private final Letters letters;

    LetterSetupController(Letters letters) {
        this.letters = letters;
    }

    record ReminderRuleView(int weeksBefore, int weeksBetween, int most, int version, String changedBy) {}

    /** @param language empty: the workshop's usual one */
    record OwnWordsView(String language, String subject, String body, int version, String changedBy) {}

    /**
     * @param subject the app's own; empty where it has none
     * @param fields that may stand in braces
     * @param own the workshop's, by language
     */
    record LetterTextView(
            LetterText text,
            String what,
            String subject,
            String body,
            boolean hasSubject,
            List<String> fields,
            List<OwnWordsView> own) {}

    record LetterSetupView(ReminderRuleView rule, List<LetterTextView> texts) {}

    record ReminderRuleIn(int weeksBefore, int weeksBetween, int most, int version) {}

    /** @param version 0 where there were none */
    record LetterWordsIn(
            @Nullable String language,
            @Nullable String subject,
            @Nullable String body,
            int version) {}

    @GetMapping
    LetterSetupView get() {
        LetterWordsRepository.Rule r = letters.rule();
        List<LetterWordsRepository.Own> own = letters.own();
        return new LetterSetupView(
                new ReminderRuleView(
                        r.rule().weeksBefore(),
                        r.rule().weeksBetween(),
                        r.rule().most(),
                        r.version(),
                        r.changedBy()),
                Arrays.stream(LetterText.values())
                        .map(t -> new LetterTextView(
                                t,
                                t.what(),
                                t.own().subject(),
                                t.own().body(),
                                t.hasSubject(),
                                t.fields(),
                                own.stream()
                                        .filter(o -> o.text() == t)
                                        .map(o -> new OwnWordsView(
                                                o.language(),
                                                o.template().subject(),
                                                o.template().body(),
                                                o.version(),
                                                o.changedBy()))
                                        .toList()))
                        .toList());
    }

    @PutMapping("/rule")
    LetterSetupView change(@RequestBody ReminderRuleIn r) {
        letters.change(r.weeksBefore(), r.weeksBetween(), r.most(), r.version());
        return get();
    }

    @PutMapping("/texts/{text}")
    LetterSetupView change(@PathVariable String text, @RequestBody LetterWordsIn in) {
        letters.change(
                text(text),
                given(in.language()).strip(),
                new LetterText.Template(
                        given(in.subject()).strip(),
                        given(in.body()).replace("\r\n", "\n").strip()),
                in.version());
        return get();
    }

    @DeleteMapping("/texts/{text}")
    LetterSetupView remove(@PathVariable String text, @RequestParam String language, @RequestParam int version) {
        letters.remove(text(text), language, version);
        return get();
    }

    private static LetterText text(String name) {
        return LetterText.named(name).orElseThrow(() -> new NotFound("There is no letter %s.".formatted(name)));
    }

    private static String given(@Nullable String text) {
        return Objects.requireNonNullElse(text, "");
    }
}
