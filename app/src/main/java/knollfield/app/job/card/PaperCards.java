package knollfield.app.job.card;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import knollfield.app.documents.PaperCard;
import knollfield.app.documents.PaperCardPrinter;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.due.JobStage;
import knollfield.core.jobcard.Answer;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.Phase;
import knollfield.core.jobcard.Step;
import knollfield.core.jobcard.Task;
import knollfield.core.jobcard.TorqueWords;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** A day without tablets: the card on paper, in its order, and what was written on it typed in afterwards. */
@Service
class PaperCards {

    private static final String BOX = "[   ] ";
    private static final String LINE = "__________";
    private static final int MOST = 500;

    private final Jobs jobs;
    private final Cards cards;
    private final PaperCardPrinter printer;
    private final WorkshopSettings settings;
    private final Words words;

    PaperCards(Jobs jobs, Cards cards, PaperCardPrinter printer, WorkshopSettings settings, Words words) {
        this.jobs = jobs;
        this.cards = cards;
        this.printer = printer;
        this.settings = settings;
        this.words = words;
    }

    /** The card as a PDF, as it stands now. */
    byte[] pdf(long jobId) {
        Job job = jobs.get(jobId);
        CardState state = cards.state(job);
        Vehicle vehicle = jobs.state(job).vehicle();
        List<String> facts = new ArrayList<>();
        facts.add("Renewed: "
                + String.join(
                        ", ",
                        state.plan().basis().family().items().stream()
                                .filter(i -> state.scope().items().contains(i.code()))
                                .map(i -> "%s (%s)".formatted(i.name(), jobs.fittedPart(job, i)))
                                .toList()));
        facts.add("Odometer ______________   Keys ______________   Codes read ______________________");
        facts.add("The manufacturer's instructions, local codes and licensed practice come first.");
        return printer.print(new PaperCard(
                jobId,
                settings.get().name(),
                vehicle.registration(),
                "%s, %s"
                        .formatted(
                                vehicle.makeModel(),
                                state.plan().basis().family().name()),
                facts,
                state.plan().phases().stream().map(p -> phase(p, state)).toList()));
    }

    private PaperCard.Phase phase(Phase phase, CardState state) {
        return new PaperCard.Phase(
                phase.code() + "  " + phase.title(),
                phase.steps().stream().map(s -> step(s, state)).toList());
    }

    private PaperCard.Step step(Step step, CardState state) {
        Optional<Answer> answer = Optional.ofNullable(state.answers().get(step.code()));
        return new PaperCard.Step(
                step.title(),
                answer.isPresent(),
                Stream.concat(step.caution().stream(), step.notes().stream()).toList(),
                answer.map(a -> List.of(a.words() + ", " + a.by())).orElseGet(() -> room(step.task())),
                step.gate().filter(g -> answer.isEmpty()).map(g -> g.words()).orElse(""));
    }

    /** Boxes and lines for what a step asks. */
    private List<String> room(Task task) {
        if (task instanceof Task.Inspect t) {
            return t.results().stream().map(r -> BOX + r).toList();
        } else if (task instanceof Task.Choose t) {
            return Stream.concat(t.options().stream().map(o -> BOX + o.words()), Stream.of("Why " + LINE + LINE))
                    .toList();
        } else if (task instanceof Task.Count t) {
            return List.of("%s of %d %s".formatted(LINE, t.expected(), t.what()));
        } else if (task instanceof Task.Check t) {
            return t.points().stream().map(p -> BOX + p + ": " + t.right()).toList();
        } else if (task instanceof Task.Measure t) {
            return List.of("%s %s, good %s"
                    .formatted(
                            LINE,
                            t.unit(),
                            t.isOpen()
                                    ? "from " + number(t.low())
                                    : "%s to %s".formatted(number(t.low()), number(t.high()))));
        } else if (task instanceof Task.Runs t) {
            return Stream.concat(
                            t.runs().stream().map(r -> "%s: old ______ new ______".formatted(r)),
                            Stream.of("on the wheels ______, all %d".formatted(t.total())))
                    .toList();
        } else if (task instanceof Task.MarkToMark t) {
            return Stream.concat(
                            t.spans().stream().map(s -> "%s: old ____ again ____ new ____ again ____".formatted(s)),
                            Stream.of("all %d %s".formatted(t.total(), t.counted())))
                    .toList();
        } else if (task instanceof Task.Passes t) {
            List<String> lines = new ArrayList<>();
            lines.add(IntStream.rangeClosed(1, t.passes())
                    .mapToObj(n -> BOX + "pass " + n)
                    .reduce((a, b) -> a + "  " + b)
                    .orElse(BOX));
            t.spec().ifPresent(s -> lines.add("Book: " + TorqueWords.inBothUnits(s)));
            return lines;
        } else if (task instanceof Task.Tighten t) {
            List<String> lines = new ArrayList<>();
            lines.add("%s N·m%s"
                    .formatted(
                            LINE,
                            t.spec().filter(s -> s.angleDegrees().isPresent()).isPresent() ? "   + ______°" : ""));
            lines.add(t.spec()
                    .map(s -> "Book: " + TorqueWords.inBothUnits(s))
                    .orElse("Not on file: value and its origin " + LINE));
            return lines;
        } else if (task instanceof Task.Turn) {
            return List.of(BOX + "done, no stop");
        } else if (task instanceof Task.TrueMarks t) {
            return t.references().stream().map(r -> BOX + r + ": true").toList();
        }
        return List.of(BOX + "done");
    }

    private String number(double value) {
        return words.plain(BigDecimal.valueOf(value));
    }

    /**
     * Types in what was written on a card: all of it in order, or nothing.
     *
     * @param workedBy who did the work
     * @throws Conflict where the job is not at the bench
     * @throws knollfield.core.jobcard.CardRefused naming the step that does not take its entry
     */
    @Transactional
    void typeIn(long jobId, String workedBy, List<CardEntryIn> entries) {
        new Checks()
                .text(workedBy, 120, "/workedBy", "Who worked by the card")
                .that(!entries.isEmpty(), "/entries", "Nothing was written on the card yet.")
                .that(entries.size() <= MOST, "/entries", "At most %d entries at once.".formatted(MOST))
                .that(
                        entries.stream().allMatch(e -> e instanceof CardEntryIn.AtStep),
                        "/entries",
                        "Only answers to steps are typed in from paper.")
                .orThrow();
        Job job = jobs.get(jobId);
        if (job.stage() != JobStage.UNDER_WAY) {
            throw new Conflict("Job %d is not at the bench; check it in first.".formatted(jobId));
        }
        // what came in before is not counted: the next answers at the bench are not from paper
        List<CardEntryIn> fresh = entries.stream()
                .filter(e -> !cards.hasForUpdate(jobId, e.clientKey()))
                .toList();
        if (!fresh.isEmpty()) {
            cards.enter(jobId, new CardEvent.FromPaper(workedBy.strip(), fresh.size()));
            fresh.forEach(e -> cards.enter(jobId, e));
        }
    }
}
