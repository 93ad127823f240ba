package knollfield.app.record;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.app.aftercare.Aftercare;
import knollfield.app.documents.RecordSheet;
import knollfield.app.documents.RecordSheet.Line;
import knollfield.app.documents.RecordSheet.Section;
import knollfield.app.estimate.Estimates;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.job.card.Cards;
import knollfield.app.job.card.JobPictures;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.NotFound;
import knollfield.app.settings.Houses;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.bundle.BundleLine;
import knollfield.core.bundle.FitCheck;
import knollfield.core.completion.Completion;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.estimate.Consent;
import knollfield.core.jobcard.Answer;
import knollfield.core.jobcard.CardEntry;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardRefused;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.Step;
import knollfield.core.jobcard.Task;
import knollfield.core.jobcard.TorqueWords;
import knollfield.core.jobcard.WorkClock;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;

/** Gathers the record of a signed job from its card, its bundle and what the owner said (procedure.md). */
@Service
public class JobRecords {

    private static final Logger LOG = LoggerFactory.getLogger(JobRecords.class);

    private final Jobs jobs;
    private final Cards cards;
    private final JobPictures pictures;
    private final Estimates estimates;
    private final WorkshopSettings settings;
    private final Houses houses;
    private final Words words;
    private final JobRecordRepository kept;
    private final WorkshopClock clock;
    private final Aftercare aftercare;

    JobRecords(
            Jobs jobs,
            Cards cards,
            JobPictures pictures,
            Estimates estimates,
            WorkshopSettings settings,
            Houses houses,
            Words words,
            JobRecordRepository kept,
            WorkshopClock clock,
            Aftercare aftercare) {
        this.aftercare = aftercare;
        this.jobs = jobs;
        this.cards = cards;
        this.pictures = pictures;
        this.estimates = estimates;
        this.settings = settings;
        this.houses = houses;
        this.words = words;
        this.kept = kept;
        this.clock = clock;
    }

    /**
     * The record of a job.
     *
     * @throws Conflict where it is not signed yet
     */
    RecordSheet of(long jobId, boolean withPictures) {
        Optional<JobRecordRepository.Kept> signed = kept.find(jobId);
        if (signed.isEmpty()) {
            return gathered(jobId, withPictures);
        }
        if (!signed.get().whole()) {
            throw new Conflict("The record of job %d is not as it was signed: its hash does not fit.".formatted(jobId));
        }
        RecordSheet sheet = signed.get().sheet();
        if (!withPictures) {
            return sheet;
        }
        Job job = jobs.get(jobId);
        return new RecordSheet(
                sheet.workshop(),
                sheet.letterhead(),
                sheet.job(),
                sheet.registration(),
                sheet.makeModel(),
                sheet.owner(),
                sheet.day(),
                sheet.odometer(),
                sheet.nextDue(),
                sheet.sections(),
                pictures.of(job, cards.state(job)));
    }

    /** What a job was signed with is kept; nobody's later change of owner, bundle or words reaches it. */
    @EventListener
    void signed(Cards.JobSigned event) {
        kept.keep(event.jobId(), gathered(event.jobId(), false), clock.instant());
    }

    /** Jobs signed before records were kept: theirs stay from now on what they are. */
    @EventListener(ApplicationReadyEvent.class)
    public void keepThoseSignedBefore() {
        for (long job : kept.signedWithout()) {
            try {
                kept.keep(job, gathered(job, false), clock.instant());
            } catch (CardRefused | Conflict | NotFound e) {
                // one old card that cannot be read keeps nobody from the others
                LOG.warn("The record of job {} cannot be kept: {}", job, e.getMessage());
            }
        }
    }

    private RecordSheet gathered(long jobId, boolean withPictures) {
        Job job = jobs.get(jobId);
        Job.Done done = job.done()
                .orElseThrow(
                        () -> new Conflict("Job %d is not signed yet; its record is not closed.".formatted(jobId)));
        CardState card = cards.state(job);
        Vehicle vehicle = jobs.state(job).history().vehicle();
        List<Section> sections = new ArrayList<>();
        add(sections, "Renewed, left, moved over", items(job, card));
        add(sections, "Timing", timing(card));
        add(sections, "Joints", joints(card));
        add(sections, "Looked at, counted, measured", looks(card));
        add(sections, "Deviations, with words", deviations(card));
        add(sections, "Found, and what follows", found(job, card));
        add(sections, "Time", time(job, card));
        add(sections, "Owner", owner(jobId, card));
        return new RecordSheet(
                settings.get().name(),
                houses.get().letterhead(),
                jobId,
                vehicle.registration(),
                vehicle.makeModel(),
                vehicle.ownerName(),
                done.on(),
                words.km(done.km()),
                nextDue(done),
                sections,
                withPictures ? pictures.of(job, card) : List.of());
    }

    private static void add(List<Section> sections, String title, List<Line> lines) {
        if (!lines.isEmpty()) {
            sections.add(new Section(title, lines));
        }
    }

    private String nextDue(Job.Done done) {
        List<String> limits = new ArrayList<>();
        done.nextDueOn().ifPresent(d -> limits.add(words.day(d)));
        done.nextDueKm().ifPresent(km -> limits.add(words.km(km)));
        return limits.isEmpty() ? "no interval in the book" : String.join(" or ", limits) + ", whichever first";
    }

    private List<Line> items(Job job, CardState card) {
        EngineFamily family = jobs.family(job);
        Set<String> renewed = Completion.items(card);
        String by = card.signature().map(CardState.Signature::by).orElse("");
        List<Line> lines = new ArrayList<>();
        for (Item item : family.items()) {
            if (renewed.contains(item.code())) {
                lines.add(new Line(
                        item.name(),
                        "renewed, part %s%s, %s"
                                .formatted(
                                        jobs.fittedPart(job, item),
                                        Optional.ofNullable(card.batches().get(item.code()))
                                                .map(b -> ", batch " + b)
                                                .orElse(""),
                                        job.scope().ownerSupplied().contains(item.code())
                                                ? "brought by the owner"
                                                : "supplied by the workshop"),
                        by,
                        false));
            }
        }
        card.inspectionEnd()
                .ifPresent(d -> lines.add(new Line(
                        "Inspection",
                        "%s: %s".formatted(d.end().words(), d.reason()),
                        by,
                        d.end().needsAJob())));
        if (renewed.isEmpty() && !job.scope().isInspection()) {
            lines.add(new Line("Parts", "the same parts put back; no clock restarted", by, true));
        }
        Set<String> back = new HashSet<>();
        card.noted(CardEvent.GoesBack.class).forEach(e -> {
            back.add(e.item());
            lines.add(new Line(
                    family.item(e.item()).map(Item::name).orElse(e.item()),
                    "left: the old one went back, " + e.why().strip(),
                    by,
                    true));
        });
        for (BundleLine line : jobs.bundle(job).lines()) {
            if (line.kind() == BundleLine.Kind.ITEM
                    && !back.contains(line.code())
                    && !renewed.contains(line.code())
                    && job.scope().decisions().containsKey(line.code())) {
                String typed = Objects.requireNonNull(job.scope().decisions().get(line.code()))
                        .reason()
                        .strip();
                String rule = words.write(line.reason(), settings.get().currency());
                lines.add(new Line(
                        line.name(), "left: " + (typed.isEmpty() ? rule : "%s. %s".formatted(typed, rule)), "", false));
            }
        }
        answered(card, Step::movesOver)
                .forEach(a -> lines.add(new Line("Small parts", a.answer().words(), by(a), false)));
        return lines;
    }

    /** @param onPaperBy who did it, where it was typed in from a printed card */
    private record Answered(Step step, Answer answer, Optional<String> onPaperBy) {}

    private static List<Answered> answered(CardState card, java.util.function.Predicate<Step> which) {
        return card.plan().steps().stream()
                .filter(which)
                .flatMap(s -> Optional.ofNullable(card.answers().get(s.code())).stream()
                        .map(a -> new Answered(s, a, card.onPaperBy(a.seq()))))
                .toList();
    }

    private List<Line> timing(CardState card) {
        List<Line> lines = new ArrayList<>();
        String method = card.scope().paint()
                ? "own paint marks in place of the locking tools"
                : switch (card.plan().basis().family().reference()) {
                    case PINS -> "pins and bars";
                    case MARKS -> "maker's marks";
                    case PAINT -> "own paint marks";
                };
        if (card.plan().steps().stream().anyMatch(Step::provesReferences)) {
            lines.add(new Line("Reference", method, "", card.scope().paint()));
            if (card.scope().outOfTime()) {
                boolean planned = card.noted(CardEvent.OutOfTime.class).stream().anyMatch(CardEvent.OutOfTime::planned);
                lines.add(new Line(
                        planned ? "Head or cams were out" : "Found out of time", "timed from scratch", "", !planned));
            }
            card.attempts()
                    .forEach(a -> lines.add(
                            new Line("Attempt " + a.number(), a.what(), a.by() + ", " + words.moment(a.at()), false)));
            lines.add(new Line("Attempts", String.valueOf(card.attempt()), "", false));
        }
        answered(card, Step::isOfTiming).forEach(a -> lines.add(line(a)));
        return lines;
    }

    private List<Line> joints(CardState card) {
        List<Line> lines = new ArrayList<>();
        for (Answered a : answered(card, Step::isOfJoints)) {
            if (a.step().task() instanceof Task.Tighten t) {
                lines.add(new Line(
                        t.joint() + (t.bolts() > 1 ? ", %d bolts".formatted(t.bolts()) : ""),
                        "%s, measured; book %s"
                                .formatted(
                                        a.answer().words(),
                                        t.spec().map(JobRecords::book).orElse("not on file")),
                        by(a),
                        false));
            } else if (a.step().task() instanceof Task.Passes t) {
                lines.add(new Line(
                        t.joint(),
                        "%s; book %s"
                                .formatted(
                                        a.answer().words(),
                                        t.spec().map(JobRecords::book).orElse("not on file")),
                        by(a),
                        false));
            } else {
                lines.add(new Line(a.step().title(), "ticked, not measured", by(a), false));
            }
        }
        return lines;
    }

    private static String book(TorqueSpec spec) {
        return "%s (%s)".formatted(TorqueWords.of(spec), spec.origin());
    }

    private List<Line> looks(CardState card) {
        EngineFamily family = card.plan().basis().family();
        Stream<Line> inHand = card.partsMeasured().entrySet().stream()
                .sorted(java.util.Map.Entry.comparingByKey())
                .map(e -> new Line(
                        family.item(e.getKey()).map(Item::name).orElse(e.getKey()) + ", new, in hand",
                        FitCheck.words(e.getValue()),
                        "",
                        false));
        Stream<Line> steps = answered(
                        card,
                        s -> !(s.task() instanceof Task.Tick
                                || s.task() instanceof Task.Confirm
                                || s.isOfTiming()
                                || s.isOfJoints()
                                || s.movesOver()))
                .stream()
                .map(this::line);
        return Stream.concat(inHand, steps).toList();
    }

    private Line line(Answered a) {
        return new Line(a.step().title(), a.answer().words(), by(a), a.answer().deviation());
    }

    private List<Line> deviations(CardState card) {
        List<Line> lines = new ArrayList<>();
        card.overrides().entrySet().stream()
                .sorted(java.util.Map.Entry.comparingByKey())
                .forEach(e -> lines.add(new Line(
                        e.getKey().words(),
                        "opened by the manager: " + e.getValue().words(),
                        e.getValue().by() + ", " + words.moment(e.getValue().at()),
                        true)));
        answered(card, s -> true).stream().filter(a -> a.answer().deviation()).forEach(a -> lines.add(line(a)));
        card.toolsFailed().values().stream()
                .sorted(Comparator.comparing(CardEvent.ToolFailed::piece))
                .forEach(t -> lines.add(new Line(
                        "Tool: " + t.piece(),
                        (t.missing() ? "missing" : "broken")
                                + (t.words().isBlank() ? "" : ", " + t.words().strip()),
                        "",
                        true)));
        List<String> otherwise = card.answeredOtherwise();
        if (!otherwise.isEmpty()) {
            lines.add(new Line(
                    "Steps of an earlier card",
                    "answered as they were asked then: " + String.join(", ", otherwise),
                    "",
                    false));
        }
        card.scope()
                .filed()
                .forEach((joint, spec) -> lines.add(new Line(
                        card.plan()
                                .basis()
                                .family()
                                .joint(joint)
                                .map(j -> j.name())
                                .orElse(joint),
                        "torque was not on file; entered as " + book(spec),
                        "",
                        true)));
        return lines;
    }

    private List<Line> found(Job job, CardState card) {
        List<Line> lines = new ArrayList<>();
        card.findings()
                .forEach(f -> lines.add(new Line(
                        "Found", f.kind().words() + (f.words().isBlank() ? "" : ": " + f.words()), f.by(), false)));
        aftercare.followUps(job.vehicleId()).stream()
                .filter(f -> f.jobId().equals(Optional.of(job.id())))
                .forEach(f ->
                        lines.add(new Line(f.urgent() ? "Follow-up, urgent" : "Follow-up", f.what(), "", f.urgent())));
        Workshop workshop = settings.get();
        card.moreWork()
                .values()
                .forEach(c -> lines.add(new Line(
                        "Not planned",
                        "%s, %d min%s"
                                .formatted(
                                        c.what(),
                                        c.minutes(),
                                        c.part().isBlank()
                                                ? ""
                                                : ", %s %s"
                                                        .formatted(
                                                                c.part(),
                                                                words.money(c.partMinor(), workshop.currency()))),
                        "",
                        false)));
        aftercare.rechecks(job.vehicleId()).stream()
                .filter(r -> r.jobId() == job.id())
                .forEach(r -> lines.add(new Line("Recheck", r.what(), "due " + words.day(r.due()), false)));
        return lines;
    }

    private List<Line> time(Job job, CardState card) {
        WorkClock clock = cards.worked(job, card);
        List<Line> lines = new ArrayList<>();
        lines.add(new Line(
                "Book",
                hours(card.plan().bookMinutes()),
                job.actual().map(a -> "took " + hours(a.minutes())).orElse(""),
                false));
        card.plan()
                .phases()
                .forEach(p -> Optional.ofNullable(clock.byPhase().get(p.code()))
                        .filter(m -> m > 0)
                        .ifPresent(m -> lines.add(new Line(p.code() + " " + p.title(), hours(m), "", false))));
        clock.byPerson().forEach((who, m) -> lines.add(new Line(who, hours(m), "", false)));
        clock.waits()
                .forEach(w -> lines.add(new Line(
                        "Waited for " + w.why(),
                        w.minutes().map(JobRecords::hours).orElse("")
                                + (w.words().isBlank() ? "" : " " + w.words()),
                        "from " + words.moment(w.from()),
                        false)));
        for (CardEntry entry : card.journal()) {
            if (entry.event() instanceof CardEvent.HandedOver h) {
                lines.add(new Line(
                        "Handed over",
                        "%s to %s%s".formatted(entry.by(), h.to(), h.words().isBlank() ? "" : ": " + h.words()),
                        words.moment(entry.at()),
                        false));
            }
        }
        return lines;
    }

    private static String hours(int minutes) {
        return String.format(Locale.ROOT, "%.1f h", minutes / 60.0);
    }

    private List<Line> owner(long jobId, CardState card) {
        List<Line> lines = new ArrayList<>();
        EngineFamily family = card.plan().basis().family();
        Set<String> left = estimates.left(jobs.get(jobId));
        for (Consent c : estimates.said(jobId)) {
            lines.add(new Line(
                    family.item(c.lineCode()).map(Item::name).orElse(c.lineCode()),
                    "%s%s%s"
                            .formatted(
                                    c.answer().words(),
                                    c.warning().isBlank() ? "" : ", told: " + c.warning(),
                                    c.signed() ? ", decline signed" : ""),
                    "%s, %s, %s".formatted(c.saidBy(), c.how().words(), words.day(c.on())),
                    c.answer() == Consent.Answer.LEFT && left.contains(c.lineCode())));
        }
        card.signature().ifPresent(s -> {
            if (!card.plan().isInspection()) {
                lines.add(new Line("Old parts", s.event().oldParts().words(), "", false));
            }
            if (!s.event().note().isBlank()) {
                lines.add(new Line("Words", s.event().note(), "", false));
            }
            lines.add(new Line("Signed", "by " + s.by(), words.moment(s.at()), false));
        });
        card.checkIn().ifPresent(c -> {
            CardEvent.Started e = c.event();
            String found = String.join(
                    "; ",
                    java.util.stream.Stream.of(
                                    e.keys().isBlank() ? "" : "keys: " + e.keys(),
                                    e.codes().isBlank() ? "" : "codes: " + e.codes(),
                                    e.stateFound())
                            .filter(w -> !w.isBlank())
                            .toList());
            if (!found.isBlank()) {
                lines.add(new Line("At check-in", found, c.by() + ", " + words.moment(c.at()), false));
            }
        });
        return lines;
    }

    private String by(Answered a) {
        return a.onPaperBy().map(worked -> worked + " on paper, typed in by ").orElse("")
                + a.answer().by() + ", " + words.moment(a.answer().at());
    }
}
