package knollfield.app.estimate;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.documents.DeclinePrinter;
import knollfield.app.documents.EstimatePrinter;
import knollfield.app.documents.EstimateSheet;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.settings.Houses;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.estimate.Consent;
import knollfield.core.estimate.Estimate;
import knollfield.core.estimate.Outcome;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** A job's estimates, what was said to them, and what the job cost. */
@RestController
@RequestMapping("/api/jobs/{id}/estimates")
class EstimateController {

    private final Estimates estimates;
    private final Jobs jobs;
    private final WorkshopSettings settings;
    private final Houses houses;
    private final EstimatePrinter printer;
    private final Declines declines;
    private final DeclinePrinter declinePrinter;

    EstimateController(
            Estimates estimates,
            Jobs jobs,
            WorkshopSettings settings,
            Houses houses,
            EstimatePrinter printer,
            Declines declines,
            DeclinePrinter declinePrinter) {
        this.estimates = estimates;
        this.jobs = jobs;
        this.settings = settings;
        this.houses = houses;
        this.printer = printer;
        this.declines = declines;
        this.declinePrinter = declinePrinter;
    }

    record ConsentView(
            Consent.Answer answer,
            String answerWords,
            String saidBy,
            LocalDate on,
            Consent.How how,
            String howWords,
            String warning,
            boolean signed,
            int estimateNumber,
            String enteredBy) {}

    /**
     * Money in minor units before tax.
     *
     * @param asked the line can be agreed to or left
     * @param purpose without it there is no job: a no to it refuses the job
     * @param said what was said to it, newest first
     */
    record EstimateLineView(
            String code,
            String name,
            Estimate.Kind kind,
            boolean required,
            boolean ownerSupplied,
            int minutes,
            long partsMinor,
            long lowMinor,
            long likelyMinor,
            long highMinor,
            boolean asked,
            boolean purpose,
            Consent.State state,
            String stateWords,
            boolean open,
            List<ConsentView> said) {}

    record LeftLineView(String code, String name, ConsentView consent) {}

    /** @param partsMinor parts, consumables and hire */
    record SumsView(
            long labourMinor,
            long partsMinor,
            long netMinor,
            long taxMinor,
            double taxShare,
            long totalMinor,
            long lowMinor,
            long highMinor) {}

    record EstimateView(
            int number,
            LocalDate madeOn,
            LocalDate validUntil,
            String madeBy,
            boolean current,
            List<EstimateLineView> lines,
            SumsView sums,
            List<String> plain) {}

    /** What the job cost against the newest estimate; minor units before tax. */
    record OutcomeView(int minutes, int estimatedMinutes, long costMinor, long estimatedMinor, long differenceMinor) {}

    /**
     * @param draft sums as things stand now
     * @param newest null where none was made yet
     * @param left lines that were left, with the warning given
     * @param open lines of the newest estimate that the owner has still to be asked about
     * @param speakers who may answer: the owner, and those the owner has named
     * @param timeFactor this workshop's time against the book's
     */
    record EstimatesView(
            SumsView draft,
            double timeFactor,
            @Nullable EstimateView newest,
            List<Integer> numbers,
            List<LeftLineView> left,
            int open,
            List<String> speakers,
            @Nullable OutcomeView outcome) {}

    /**
     * @param refused the whole job is refused, and given up
     * @param insist noted although who said it is not named as one who may speak for the owner
     */
    record SaidIn(
            List<String> lines,
            Consent.Answer answer,
            String saidBy,
            LocalDate on,
            Consent.How how,
            @Nullable String warning,
            boolean signed,
            @Nullable Boolean refused,
            @Nullable Boolean insist) {}

    @GetMapping
    EstimatesView list(@PathVariable long id) {
        Job job = jobs.get(id);
        Estimate draft = estimates.draft(job);
        Optional<StoredEstimate> newest = estimates.newest(id);
        List<EstimateRepository.Entered> consents = estimates.consents(id);
        List<LeftLineView> left = estimates.left(job).stream()
                .map(code -> new LeftLineView(
                        code, estimates.nameOf(job, code), said(consents, code).get(0)))
                .sorted(Comparator.comparing(LeftLineView::name))
                .toList();
        return new EstimatesView(
                sums(draft),
                draft.timeFactor(),
                newest.map(e -> view(job, e, draft, consents)).orElse(null),
                estimates.ofJob(id).stream().map(StoredEstimate::number).toList(),
                left,
                newest.map(e -> (int) estimates.standing(job, e.estimate()).stream()
                                .filter(Consent.OfLine::isOpen)
                                .count())
                        .orElse(0),
                List.copyOf(estimates.speakers(job)),
                outcome(job, newest));
    }

    /** What was said to a line, newest first. */
    private static List<ConsentView> said(List<EstimateRepository.Entered> oldestFirst, String code) {
        return oldestFirst.stream()
                .filter(c -> c.consent().lineCode().equals(code))
                .sorted(Comparator.comparing(EstimateRepository.Entered::id).reversed())
                .map(EstimateController::view)
                .toList();
    }

    @PostMapping
    EstimatesView make(@PathVariable long id) {
        estimates.make(id);
        return list(id);
    }

    /** Notes what was said to lines of an estimate. */
    @PostMapping("/{number}/consents")
    EstimatesView note(@PathVariable long id, @PathVariable int number, @RequestBody SaidIn said) {
        estimates.note(
                id,
                number,
                new Estimates.Said(
                        said.lines(),
                        said.answer(),
                        said.saidBy().strip(),
                        said.on(),
                        said.how(),
                        Optional.ofNullable(said.warning()).orElse("").strip(),
                        said.signed(),
                        Boolean.TRUE.equals(said.refused()),
                        Boolean.TRUE.equals(said.insist())));
        return list(id);
    }

    /** The estimate on paper. */
    @GetMapping(path = "/{number}/estimate.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> pdf(@PathVariable long id, @PathVariable int number) {
        Job job = jobs.get(id);
        Vehicle v = jobs.state(job).vehicle();
        StoredEstimate stored = estimates.get(id, number);
        EstimateSheet sheet = new EstimateSheet(
                settings.get().name(),
                houses.get().letterhead(),
                settings.get().currency(),
                id,
                number,
                stored.madeOn(),
                stored.validUntil(),
                v.registration(),
                v.makeModel(),
                v.ownerName(),
                stored.estimate(),
                stored.plain(),
                stored.madeBy());
        return ResponseEntity.ok()
                .header("Content-Disposition", "inline; filename=\"estimate-%d-%d.pdf\"".formatted(id, number))
                .body(printer.print(sheet));
    }

    /**
     * What the owner signs who leaves lines.
     *
     * @param lines codes of lines that are to be left; none: those that were left
     * @param told of the risk; none: the words that were noted, or the usual ones
     */
    @GetMapping(path = "/{number}/decline.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> decline(
            @PathVariable long id,
            @PathVariable int number,
            @RequestParam(defaultValue = "") List<String> lines,
            @RequestParam(defaultValue = "") String told) {
        Job job = jobs.get(id);
        StoredEstimate stored = estimates.get(id, number);
        return ResponseEntity.ok()
                .header("Content-Disposition", "inline; filename=\"left-%d-%d.pdf\"".formatted(id, number))
                .body(declinePrinter.print(declines.sheet(job, stored, lines, told)));
    }

    private EstimateView view(Job job, StoredEstimate e, Estimate draft, List<EstimateRepository.Entered> consents) {
        Map<String, Consent.OfLine> standing = estimates.standing(job, e.estimate()).stream()
                .collect(Collectors.toMap(l -> l.line().code(), Function.identity()));
        Set<String> purpose = jobs.purpose(job);
        return new EstimateView(
                e.number(),
                e.madeOn(),
                e.validUntil(),
                e.madeBy(),
                e.estimate().equals(draft),
                e.estimate().lines().stream()
                        .map(l -> new EstimateLineView(
                                l.code(),
                                l.name(),
                                l.kind(),
                                l.required(),
                                l.ownerSupplied(),
                                l.minutes(),
                                l.partsMinor(),
                                l.lowMinor(),
                                l.likelyMinor(),
                                l.highMinor(),
                                l.kind().isAnswered(),
                                purpose.contains(l.code()) || l.kind() == Estimate.Kind.INSPECTION,
                                state(standing, l),
                                state(standing, l).words(),
                                l.kind().isAnswered() && state(standing, l).isOpen(),
                                said(consents, l.code())))
                        .toList(),
                sums(e.estimate()),
                e.plain());
    }

    private static Consent.State state(Map<String, Consent.OfLine> standing, Estimate.Line line) {
        return Optional.ofNullable(standing.get(line.code()))
                .map(Consent.OfLine::state)
                .orElse(Consent.State.NOT_ASKED);
    }

    private @Nullable OutcomeView outcome(Job job, Optional<StoredEstimate> newest) {
        if (job.actual().isEmpty() || newest.isEmpty()) {
            return null;
        }
        Job.Actual actual = job.actual().get();
        Outcome o = Outcome.of(
                newest.get().estimate(),
                actual.minutes(),
                actual.partsMinor(),
                settings.get().labourRateMinor());
        return new OutcomeView(
                o.minutes(), o.estimatedMinutes(), o.costMinor(), o.estimatedMinor(), o.differenceMinor());
    }

    private static SumsView sums(Estimate e) {
        return new SumsView(
                e.labourMinor(),
                e.partsMinor(),
                e.netMinor(),
                e.taxMinor(),
                e.taxShare(),
                e.totalMinor(),
                e.lowTotalMinor(),
                e.highTotalMinor());
    }

    private static ConsentView view(EstimateRepository.Entered c) {
        return new ConsentView(
                c.consent().answer(),
                c.consent().answer().words(),
                c.consent().saidBy(),
                c.consent().on(),
                c.consent().how(),
                c.consent().how().words(),
                c.consent().warning(),
                c.consent().signed(),
                c.estimateNumber(),
                c.enteredBy());
    }
}
