package knollfield.app.own;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.estimate.Declines;
import knollfield.app.estimate.Estimates;
import knollfield.app.estimate.StoredEstimate;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.problem.FieldProblem;
import knollfield.app.settings.House;
import knollfield.app.settings.Houses;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.estimate.Consent;
import knollfield.core.estimate.Estimate;
import org.springframework.core.io.ClassPathResource;
import org.springframework.stereotype.Component;
import org.springframework.web.util.HtmlUtils;

/**
 * An owner's private page as a letter of HTML: it needs no script, no cookie and no sign-in, and holds nothing beyond one
 * estimate. Style and type come with the interface's build.
 */
@Component
class OwnerPage {

    private static final String PLACE = "<main id=\"page\"></main>";
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEEE d MMMM", Locale.UK);
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm", Locale.UK);

    private final OwnAnswers answers;
    private final Estimates estimates;
    private final Jobs jobs;
    private final Houses houses;
    private final WorkshopSettings settings;
    private final Words words;

    OwnerPage(
            OwnAnswers answers, Estimates estimates, Jobs jobs, Houses houses, WorkshopSettings settings, Words words) {
        this.answers = answers;
        this.estimates = estimates;
        this.jobs = jobs;
        this.houses = houses;
        this.settings = settings;
        this.words = words;
    }

    /**
     * What was typed so far, and what is wrong with it.
     *
     * @param wrong beside its field
     */
    record Typed(List<String> agree, String name, String slot, List<FieldProblem> wrong) {
        static Typed nothing() {
            return new Typed(List.of(), "", "", List.of());
        }

        private String at(String... pointers) {
            return wrong.stream()
                    .filter(w -> List.of(pointers).contains(w.pointer()))
                    .map(w -> "<p class=\"wrong\" role=\"alert\">%s</p>".formatted(esc(w.detail())))
                    .collect(Collectors.joining());
        }

        private boolean hasWrong() {
            return !wrong.isEmpty();
        }
    }

    /** The estimate, to be answered. */
    String asking(OwnerLinks.Opened o, Typed typed) {
        Job job = o.job();
        StoredEstimate e = o.estimate();
        Vehicle v = jobs.state(job).vehicle();
        Map<String, Consent.OfLine> standing = estimates.standing(job, e.estimate()).stream()
                .collect(Collectors.toMap(l -> l.line().code(), Function.identity()));
        List<Estimate.Line> lines =
                e.estimate().lines().stream().filter(l -> l.kind().isAnswered()).toList();
        long others = e.estimate().netMinor()
                - lines.stream().mapToLong(Estimate.Line::likelyMinor).sum();
        String body = """
                %s
                <h1>Estimate for %s</h1>
                <p class="facts">%s. Estimate %d-%d of %s.</p>
                %s
                <p>Please tick what we may do, line by line, and send it. What you leave unticked stays as it is. You can answer here once, until %s. Prices of lines are before tax.</p>
                <form method="post" autocomplete="off">
                <ul class="lines">%s</ul>
                %s
                <dl class="sums">
                <div><dt>Opening, closing and what the job uses up</dt><dd>%s</dd></div>
                <div><dt>All of it before tax</dt><dd>%s</dd></div>
                <div class="total"><dt>All of it with tax, likely</dt><dd>%s</dd></div>
                <div><dt>Between</dt><dd>%s and %s</dd></div>
                </dl>
                <section class="plain">%s</section>
                %s
                <div class="field"><label for="name">Your name</label>
                <input id="name" name="name" maxlength="80" required value="%s" autocomplete="name">%s</div>
                <button type="submit" class="send">Send my answer</button>
                %s
                </form>
                """.formatted(
                head(),
                esc(v.registration()),
                esc(v.makeModel()),
                job.id(),
                e.number(),
                words.day(e.madeOn()),
                typed.hasWrong()
                        ? "<p class=\"wrong\" role=\"alert\">Nothing was sent yet. Please look at what is marked.</p>"
                        : "",
                words.day(o.link().validUntil()),
                lines.stream()
                        .map(l -> line(job, l, Optional.ofNullable(standing.get(l.code())), typed))
                        .collect(Collectors.joining()),
                typed.at("/agree", "/leave", "/lines", "/refused", "/warning", "/signed", "/on"),
                money(others),
                money(e.estimate().netMinor()),
                money(e.estimate().totalMinor()),
                money(e.estimate().lowTotalMinor()),
                money(e.estimate().highTotalMinor()),
                e.plain().stream().map(p -> "<p>%s</p>".formatted(esc(p))).collect(Collectors.joining()),
                when(o, typed),
                esc(typed.name()),
                typed.at("/name", "/saidBy"),
                answers.mayRefuse(job) ? refusal(e) : "");
        return page("Estimate for " + v.registration(), body);
    }

    private String line(Job job, Estimate.Line l, Optional<Consent.OfLine> standing, Typed typed) {
        Consent.State state = standing.map(Consent.OfLine::state).orElse(Consent.State.NOT_ASKED);
        String price = "<span class=\"price\">%s</span>".formatted(money(l.likelyMinor()));
        if (!state.isOpen()) {
            return "<li class=\"line\"><span class=\"box\"></span><span class=\"what\">%s <i>%s</i></span>%s</li>"
                    .formatted(esc(l.name()), esc(state.words()), price);
        }
        String unticked = answers.mayLeave(job, l)
                ? "If it is left: " + answers.warning(job, l)
                : "The job cannot be done without this line. If you want to leave it, say no to the whole job, or ring us.";
        return """
                <li class="line"><label><input type="checkbox" name="agree" value="%s"%s><span class="what">%s</span>%s</label>
                <p class="left">%s</p>%s</li>
                """.formatted(
                        esc(l.code()),
                        typed.agree().contains(l.code()) ? " checked" : "",
                        esc(l.name()),
                        price,
                        esc(unticked),
                        typed.at("/agree/" + l.code()));
    }

    private String when(OwnerLinks.Opened o, Typed typed) {
        if (o.promised().isPresent()) {
            return "<p>The vehicle is expected on <b>%s</b>.</p>"
                    .formatted(esc(slot(o.promised().get())));
        }
        if (o.slots().isEmpty()) {
            return "<p>We will ring you about a day.</p>";
        }
        String choices = o.slots().stream()
                .map(b -> choice(b.start().toString(), slot(b), typed.slot()))
                .collect(Collectors.joining());
        boolean known = o.slots().stream().anyMatch(b -> b.start().toString().equals(typed.slot()));
        return "<fieldset><legend>When shall it come?</legend>%s%s%s</fieldset>"
                .formatted(
                        choices,
                        choice("", "None of these: please ring me", known ? typed.slot() : ""),
                        typed.at("/slot", "/day", "/time", "/technicianId", "/bayId"));
    }

    private static String choice(String value, String label, String chosen) {
        return "<label class=\"choice\"><input type=\"radio\" name=\"slot\" value=\"%s\"%s>%s</label>"
                .formatted(esc(value), value.equals(chosen) ? " checked" : "", esc(label));
    }

    private static String refusal(StoredEstimate e) {
        return """
                <details><summary>I do not want this job at all</summary>
                <p>%s</p>
                <button type="submit" name="refused" value="yes" class="refuse">No to the whole job</button></details>
                """.formatted(esc(Declines.waiting(e)));
    }

    /** Such as "Thursday 3 December: bring it by 08:00, ready about 15:30". */
    private static String slot(Job.Booking b) {
        boolean sameDay = b.start().toLocalDate().equals(b.end().toLocalDate());
        return "%s: bring it by %s, ready %sabout %s"
                .formatted(
                        DAY.format(b.start()),
                        TIME.format(b.start()),
                        sameDay ? "" : DAY.format(b.end()) + " ",
                        TIME.format(b.end()));
    }

    /** What was noted. */
    String thanks(OwnerLinks.Opened before, OwnerLinks.Given given, Job now) {
        Map<String, String> names = before.estimate().estimate().lines().stream()
                .collect(Collectors.toMap(Estimate.Line::code, Estimate.Line::name, (a, b) -> a));
        StringBuilder said = new StringBuilder();
        if (given.refused()) {
            said.append("<p>You said no to the whole job. We have given it up.</p>");
        } else {
            if (!given.agree().isEmpty()) {
                said.append(list("You agreed to", given.agree(), names));
            }
            if (!given.leave().isEmpty()) {
                said.append(list("You left", given.leave(), names));
            }
            Estimate draft = estimates.draft(now);
            said.append("<p>The job as it stands costs likely <b>%s</b> with tax, between %s and %s.</p>"
                    .formatted(money(draft.totalMinor()), money(draft.lowTotalMinor()), money(draft.highTotalMinor())));
            said.append(now.booking()
                    .filter(Job.Booking::promised)
                    .map(b -> "<p>We expect the vehicle on <b>%s</b>.</p>".formatted(esc(slot(b))))
                    .orElse("<p>We will ring you about a day.</p>"));
        }
        return page("Your answer", """
                %s
                <h1>Thank you, %s</h1>
                %s
                <p>This address has now ended. If something is to change, please ring us%s.</p>
                """.formatted(head(), esc(given.name()), said, phone()));
    }

    private static String list(String title, List<String> codes, Map<String, String> names) {
        return "<h2>%s</h2><ul>%s</ul>"
                .formatted(
                        esc(title),
                        codes.stream()
                                .map(c -> "<li>%s</li>".formatted(esc(names.getOrDefault(c, c))))
                                .collect(Collectors.joining()));
    }

    /** A page that opens nothing, and why. */
    String closed(String why) {
        return page("Estimate", """
                %s
                <h1>This page opens nothing</h1>
                <p>%s</p>
                <p>You reach us%s.</p>
                """.formatted(head(), esc(why), phone().isEmpty() ? " as always" : phone()));
    }

    private String phone() {
        House h = houses.get();
        return h.phone().isEmpty() ? "" : ": <b>" + esc(h.phone()) + "</b>";
    }

    private String head() {
        return "<header><b>%s</b>%s</header>"
                .formatted(
                        esc(settings.get().name()),
                        houses.get().letterhead().stream()
                                .map(l -> "<span>%s</span>".formatted(esc(l)))
                                .collect(Collectors.joining()));
    }

    private String money(long minor) {
        return esc(words.money(minor, settings.get().currency()));
    }

    private static String esc(String text) {
        return HtmlUtils.htmlEscape(text, "UTF-8");
    }

    private static String page(String title, String body) {
        return Frame.HTML
                .replace("<title></title>", "<title>%s</title>".formatted(esc(title)))
                .replace(PLACE, "<main id=\"page\">\n%s</main>".formatted(body));
    }

    /** What the interface's build made of the page's frame; read when the first page is asked for. */
    private static final class Frame {

        static final String HTML = read();

        private static String read() {
            try {
                return new ClassPathResource("/static/answer.html").getContentAsString(StandardCharsets.UTF_8);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    /** A time as the form sends it; empty where none was chosen. */
    static Optional<LocalDateTime> time(String slot) {
        try {
            return slot.isEmpty() ? Optional.empty() : Optional.of(LocalDateTime.parse(slot));
        } catch (java.time.format.DateTimeParseException e) {
            return Optional.empty();
        }
    }
}
