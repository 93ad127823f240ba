package knollfield.app.job;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import knollfield.app.documents.Label;
import knollfield.app.documents.LabelPrinter;
import knollfield.app.problem.Conflict;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.due.JobStage;
import knollfield.core.engine.BeltPath;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.Pulley;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.GateKind;
import knollfield.core.jobcard.Step;
import knollfield.core.jobcard.Task;
import knollfield.core.jobcard.TorqueJudgement;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The job card at the bench, and its label. */
@RestController
@RequestMapping("/api/jobs/{id}/card")
class CardController {

    private final Jobs jobs;
    private final Cards cards;
    private final LabelPrinter labels;
    private final CurrentPerson current;
    private final WorkshopSettings settings;

    CardController(Jobs jobs, Cards cards, LabelPrinter labels, CurrentPerson current, WorkshopSettings settings) {
        this.jobs = jobs;
        this.cards = cards;
        this.labels = labels;
        this.current = current;
        this.settings = settings;
    }

    enum TaskKind {
        TICK,
        CONFIRM,
        INSPECT,
        COUNT,
        TIGHTEN,
        TURN,
        MARKS
    }

    record AnswerView(String words, boolean good, String by, Instant at) {}

    record StepView(
            String code,
            String title,
            @Nullable String caution,
            TaskKind task,
            @Nullable GateKind gate,
            @Nullable List<String> results,
            @Nullable String what,
            @Nullable Integer expected,
            @Nullable Integer bolts,
            @Nullable Double bookNm,
            @Nullable Double lowNm,
            @Nullable Double highNm,
            @Nullable Integer angleDegrees,
            @Nullable String origin,
            @Nullable Integer turn,
            @Nullable List<String> references,
            @Nullable AnswerView answer) {}

    record PhaseView(String code, String title, boolean done, List<StepView> steps) {}

    record GateView(
            GateKind kind,
            String words,
            boolean open,
            boolean overridable,
            @Nullable String waitsFor,
            @Nullable String overriddenWith,
            String afterStep) {}

    record PulleyView(
            String code,
            String name,
            Pulley.Role role,
            double x,
            double y,
            int teeth,
            double radiusMm,
            boolean outside,
            boolean marked) {}

    record PathView(int teeth, boolean clockwise, List<PulleyView> pulleys) {}

    record CardView(
            long jobId,
            JobStage stage,
            long seq,
            long vehicleId,
            String registration,
            String makeModel,
            String family,
            Interference interference,
            List<String> items,
            int bookMinutes,
            int turnsUntilPaintReturns,
            PathView path,
            List<PhaseView> phases,
            List<GateView> gates,
            @Nullable String nextStep,
            boolean started,
            int attempt,
            boolean hardStop,
            boolean mayOverride,
            @Nullable Integer lastOdometerKm,
            @Nullable Integer odometerKm,
            @Nullable LocalDate completedOn,
            @Nullable LocalDate nextDueOn,
            @Nullable Integer nextDueKm) {}

    @GetMapping
    CardView get(@PathVariable long id) {
        return view(jobs.get(id));
    }

    @PostMapping("/events")
    CardView enter(@PathVariable long id, @RequestBody CardEventRequest request) {
        cards.enter(id, request);
        return view(jobs.get(id));
    }

    /** The engine-bay label as a PDF, once the card is signed. */
    @GetMapping(path = "/label.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> label(@PathVariable long id) {
        Job job = jobs.get(id);
        Job.Done done = job.done()
                .orElseThrow(() -> new Conflict("Job %d is not signed yet; there is no label.".formatted(id)));
        Vehicle vehicle = jobs.state(job).history().vehicle();
        EngineFamily family = jobs.family(job);
        Label label = new Label(
                settings.get().name(),
                vehicle.registration(),
                family.items().stream()
                        .filter(i -> job.items().contains(i.code()))
                        .map(Item::name)
                        .toList(),
                done.on(),
                done.km(),
                done.nextDueOn(),
                done.nextDueKm());
        return ResponseEntity.ok()
                .header("Content-Disposition", "inline; filename=\"label-%d.pdf\"".formatted(id))
                .body(labels.print(label));
    }

    private CardView view(Job job) {
        CardState state = cards.state(job);
        Vehicle vehicle = jobs.state(job).history().vehicle();
        EngineFamily family = jobs.family(job);
        List<PhaseView> phases = state.plan().phases().stream()
                .map(p -> new PhaseView(
                        p.code(),
                        p.title(),
                        p.steps().stream()
                                .allMatch(
                                        s -> Optional.ofNullable(state.answers().get(s.code()))
                                                .filter(a -> a.good())
                                                .isPresent()),
                        p.steps().stream().map(s -> step(s, state)).toList()))
                .toList();
        List<Step> steps = state.plan().steps();
        List<GateView> gates = state.gates().stream()
                .map(g -> new GateView(
                        g.kind(),
                        g.kind().words(),
                        g.open(),
                        g.kind().overridable(),
                        g.waitsFor().orElse(null),
                        g.overriddenWith().orElse(null),
                        steps.get(state.plan().gatePositions().getOrDefault(g.kind(), 0))
                                .code()))
                .toList();
        BeltPath path = family.path();
        Optional<Job.Done> done = job.done();
        return new CardView(
                job.id(),
                job.stage(),
                state.seq(),
                vehicle.id(),
                vehicle.registration(),
                vehicle.makeModel(),
                family.name(),
                family.interference(),
                family.items().stream()
                        .filter(i -> jobs.items(job).contains(i.code()))
                        .map(Item::name)
                        .toList(),
                state.plan().bookMinutes(),
                state.plan().turnsUntilPaintReturns(),
                new PathView(
                        path.teeth(),
                        path.clockwise(),
                        path.pulleys().stream()
                                .map(p -> new PulleyView(
                                        p.code(),
                                        p.name(),
                                        p.role(),
                                        p.x(),
                                        p.y(),
                                        p.teeth(),
                                        p.radiusMm(),
                                        p.outside(),
                                        p.marked()))
                                .toList()),
                phases,
                gates,
                state.next().map(Step::code).orElse(null),
                state.started().isPresent(),
                state.attempt(),
                state.hardStop(),
                current.get().isManager(),
                jobs.state(job).forecast().readings().last().map(r -> r.km()).orElse(null),
                state.started().map(s -> s.odometerKm()).orElse(null),
                done.map(Job.Done::on).orElse(null),
                done.flatMap(Job.Done::nextDueOn).orElse(null),
                done.filter(d -> d.nextDueKm().isPresent())
                        .map(d -> d.nextDueKm().getAsInt())
                        .orElse(null));
    }

    private static StepView step(Step step, CardState state) {
        Fields f = Fields.of(step.task());
        return new StepView(
                step.code(),
                step.title(),
                step.caution().orElse(null),
                f.kind,
                step.gate().orElse(null),
                f.results,
                f.what,
                f.expected,
                f.bolts,
                f.bookNm,
                f.lowNm,
                f.highNm,
                f.angle,
                f.origin,
                f.turn,
                f.references,
                Optional.ofNullable(state.answers().get(step.code()))
                        .map(a -> new AnswerView(a.words(), a.good(), a.by(), a.at()))
                        .orElse(null));
    }

    /** What a task's kind adds to a step, flat, as the screen reads it. */
    private static final class Fields {
        private TaskKind kind = TaskKind.TICK;
        private @Nullable List<String> results;
        private @Nullable String what;
        private @Nullable Integer expected;
        private @Nullable Integer bolts;
        private @Nullable Double bookNm;
        private @Nullable Double lowNm;
        private @Nullable Double highNm;
        private @Nullable Integer angle;
        private @Nullable String origin;
        private @Nullable Integer turn;
        private @Nullable List<String> references;

        static Fields of(Task task) {
            Fields f = new Fields();
            if (task instanceof Task.Confirm) {
                f.kind = TaskKind.CONFIRM;
            } else if (task instanceof Task.Inspect t) {
                f.kind = TaskKind.INSPECT;
                f.results = t.results();
            } else if (task instanceof Task.Count t) {
                f.kind = TaskKind.COUNT;
                f.what = t.what();
                f.expected = t.expected();
            } else if (task instanceof Task.Tighten t) {
                f.kind = TaskKind.TIGHTEN;
                f.what = t.joint();
                f.bolts = t.bolts();
                t.spec().ifPresent(spec -> {
                    f.bookNm = spec.torque().newtonMetres();
                    f.lowNm = f.bookNm * (1 - TorqueJudgement.TOLERANCE);
                    f.highNm = f.bookNm * (1 + TorqueJudgement.TOLERANCE);
                    f.angle = spec.angleDegrees().isPresent()
                            ? spec.angleDegrees().getAsInt()
                            : null;
                    f.origin = spec.origin();
                });
            } else if (task instanceof Task.Turn t) {
                f.kind = TaskKind.TURN;
                f.turn = t.number();
            } else if (task instanceof Task.TrueMarks t) {
                f.kind = TaskKind.MARKS;
                f.references = t.references();
            }
            return f;
        }
    }
}
