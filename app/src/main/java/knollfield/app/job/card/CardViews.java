package knollfield.app.job.card;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.app.engine.PathView;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.job.picture.PhotoRepository;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.People;
import knollfield.app.security.Person;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.bundle.BundleLine;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.JobStage;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.Item;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Loop;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.GateKind;
import knollfield.core.jobcard.Step;
import knollfield.core.jobcard.WorkClock;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** A job card as the bench reads it. */
@Component
class CardViews {

    private final BookCorrections corrections;
    private final Jobs jobs;
    private final Cards cards;
    private final PhotoRepository photos;
    private final People people;
    private final CurrentPerson current;
    private final PartsInHand inHand;
    private final WorkshopSettings settings;
    private final Words words;

    CardViews(
            Jobs jobs,
            Cards cards,
            PhotoRepository photos,
            People people,
            CurrentPerson current,
            BookCorrections corrections,
            WorkshopSettings settings,
            Words words,
            PartsInHand inHand) {
        this.corrections = corrections;
        this.settings = settings;
        this.inHand = inHand;
        this.words = words;
        this.jobs = jobs;
        this.cards = cards;
        this.photos = photos;
        this.people = people;
        this.current = current;
    }

    /** @param minutes worked in it; null where nobody has been at it yet */
    record PhaseView(
            String code,
            String title,
            boolean done,
            @Nullable Integer minutes,
            List<StepViews.StepView> steps) {}

    record GateView(
            GateKind kind,
            String words,
            boolean open,
            boolean overridable,
            @Nullable String waitsFor,
            @Nullable String overriddenWith,
            @Nullable String overriddenBy,
            String afterStep) {}

    record PauseView(CardEvent.PauseReason why, String whyWords, String words) {}

    record BenchFinding(@Nullable String step, String words, String advice, String note, String by, Instant at) {}

    record SideView(String words, boolean urgent) {}

    /** @param batch of the new part; null where nobody has read it */
    record PartBatch(String code, String name, @Nullable String batch) {}

    record ContingencyView(String step, String what, int minutes, String part, long partMinor) {}

    record PhotoView(long id, String step, String caption, int width, int height, String by, Instant at) {}

    record AttemptView(int number, String what, String by, Instant at) {}

    /** A line that what was found asks for and the card does not have. */
    record OfferedLine(String code, String name, int minutes, String reason) {}

    record AwaitedLine(String code, String name) {}

    record RecheckAskedView(String what, int days) {}

    record ReworkView(long of, String reason) {}

    record WaitView(
            String why,
            String words,
            Instant from,
            @Nullable Integer minutes) {}

    record WorkedView(
            int minutes, Map<String, Integer> byPerson, List<String> present, List<WaitView> waits, int uncounted) {}

    /** @param withoutALine what was found and asks for a part the book does not have, in words; a line of its own is offered */
    record CardView(
            long jobId,
            JobStage stage,
            long seq,
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            String ownerPhone,
            String family,
            Interference interference,
            List<String> items,
            int bookMinutes,
            int contingencyMinutes,
            WorkedView worked,
            @Nullable Integer turnsUntilPaintReturns,
            @Nullable PathView path,
            List<CardLoop> loops,
            List<PhaseView> phases,
            List<GateView> gates,
            @Nullable String nextStep,
            boolean started,
            @Nullable PauseView paused,
            int attempt,
            List<AttemptView> attempts,
            boolean hardStop,
            boolean outOfTime,
            boolean outOfTimePlanned,
            boolean mayOverride,
            List<String> technicians,
            List<BenchFinding> findings,
            List<SideView> sideFindings,
            List<ContingencyView> contingencies,
            List<PhotoView> photos,
            List<RecheckAskedView> rechecks,
            List<OfferedLine> offers,
            List<String> withoutALine,
            List<AwaitedLine> awaiting,
            List<AwaitedLine> mayGoBack,
            List<PartBatch> batches,
            List<PartsInHand.PartLine> parts,
            List<PartsInHand.KitLine> kits,
            List<PartsInHand.ToolPieceView> tools,
            List<CorrectionView> corrections,
            @Nullable ReworkView rework,
            List<String> cautions,
            boolean inspection,
            @Nullable Integer lastOdometerKm,
            @Nullable Integer odometerKm,
            @Nullable Integer actualMinutes,
            @Nullable LocalDate completedOn,
            @Nullable LocalDate nextDueOn,
            @Nullable Integer nextDueKm) {}

    /**
     * What the newest book has otherwise than this card.
     *
     * @param step code of the step it stands on; null for what the card does not have
     */
    record CorrectionView(@Nullable String step, String words) {}

    /** One of several loops, as drawn. */
    record CardLoop(String code, String name, PathView path) {}

    CardView view(Job job) {
        CardState state = cards.state(job);
        Vehicle vehicle = jobs.state(job).history().vehicle();
        EngineFamily family = state.plan().basis().family();
        WorkClock worked = cards.worked(job, state);
        Person person = current.get();
        Optional<Job.Done> done = job.done();
        // before the signature, what it would be signed with today: the label is written before it
        Optional<Job.Done> next = done.or(() -> cards.outcome(job, state));
        List<Step> steps = state.plan().steps();
        return new CardView(
                job.id(),
                job.stage(),
                state.seq(),
                vehicle.id(),
                vehicle.registration(),
                vehicle.makeModel(),
                vehicle.ownerName(),
                vehicle.ownerPhone(),
                family.name(),
                family.interference(),
                names(family, state.scope().items()),
                state.plan().bookMinutes(),
                state.moreMinutes(),
                worked(worked),
                boxed(state.plan().turnsUntilPaintReturns()),
                family.path().map(p -> PathView.of(p, family.drive())).orElse(null),
                loops(family),
                state.plan().phases().stream()
                        .map(p -> new PhaseView(
                                p.code(),
                                p.title(),
                                p.steps().stream().allMatch(state::isSettled),
                                worked.byPhase().get(p.code()),
                                p.steps().stream()
                                        .map(s -> StepViews.of(s, state))
                                        .toList()))
                        .toList(),
                state.gates().stream()
                        .map(g -> new GateView(
                                g.kind(),
                                g.kind().words(),
                                g.open(),
                                g.kind().overridable(),
                                g.waitsFor().orElse(null),
                                g.overriddenWith().orElse(null),
                                Optional.ofNullable(state.overrides().get(g.kind()))
                                        .map(CardState.Opened::by)
                                        .orElse(null),
                                steps.get(state.plan().gatePositions().getOrDefault(g.kind(), 0))
                                        .code()))
                        .toList(),
                state.next().map(Step::code).orElse(null),
                state.started().isPresent(),
                state.paused()
                        .map(p -> new PauseView(p.why(), p.why().words(), p.words()))
                        .orElse(null),
                state.attempt(),
                state.attempts().stream()
                        .map(a -> new AttemptView(a.number(), a.what(), a.by(), a.at()))
                        .toList(),
                state.hardStop(),
                state.scope().outOfTime(),
                state.noted(CardEvent.OutOfTime.class).stream().anyMatch(CardEvent.OutOfTime::planned),
                person.isManager(),
                people.technicians().stream().map(Person::name).toList(),
                state.findings().stream().map(CardViews::finding).toList(),
                state.noted(CardEvent.SideFinding.class).stream()
                        .map(f -> new SideView(f.words(), f.urgent()))
                        .toList(),
                state.moreWork().values().stream()
                        .map(c -> new ContingencyView(c.step(), c.what(), c.minutes(), c.part(), c.partMinor()))
                        .toList(),
                photos(job, state),
                state.noted(CardEvent.RecheckAsked.class).stream()
                        .map(r -> new RecheckAskedView(r.what(), r.days()))
                        .toList(),
                offers(job, state),
                state.plan().isInspection()
                        ? List.of()
                        : state.withoutALine().stream().map(EvidenceKind::words).toList(),
                lines(family, state.scope().awaiting()),
                lines(family, state.mayGoBack()),
                lines(family, state.scope().items()).stream()
                        .map(i -> new PartBatch(
                                i.code(), i.name(), state.batches().get(i.code())))
                        .toList(),
                job.stage().isOpen() ? inHand.parts(job, state) : List.of(),
                job.stage().isOpen() ? inHand.kits(job, state) : List.of(),
                PartsInHand.tools(state),
                corrections.since(job, state).stream()
                        .map(d -> new CorrectionView(d.step().orElse(null), d.words()))
                        .toList(),
                job.rework().map(r -> new ReworkView(r.of(), r.reason())).orElse(null),
                family.cautions(),
                state.plan().isInspection(),
                jobs.state(job).forecast().readings().last().map(r -> r.km()).orElse(null),
                state.started().map(CardEvent.Started::odometerKm).orElse(null),
                job.actual().map(Job.Actual::minutes).orElse(null),
                done.map(Job.Done::on).orElse(null),
                next.flatMap(Job.Done::nextDueOn).orElse(null),
                next.filter(d -> d.nextDueKm().isPresent())
                        .map(d -> d.nextDueKm().getAsInt())
                        .orElse(null));
    }

    private static List<AwaitedLine> lines(EngineFamily family, Set<String> items) {
        return items.stream()
                .sorted()
                .map(i -> new AwaitedLine(i, family.item(i).map(Item::name).orElse(i)))
                .toList();
    }

    /** Every loop of an engine that has more than one and a drawing of each. */
    private static List<CardLoop> loops(EngineFamily family) {
        List<Loop> all = family.build().map(Build::loops).orElse(List.of());
        if (all.size() < 2 || all.stream().anyMatch(l -> l.drawing().isEmpty())) {
            return List.of();
        }
        return all.stream()
                .map(l ->
                        new CardLoop(l.code(), l.name(), PathView.of(l.drawing().orElseThrow(), l.kind())))
                .toList();
    }

    static List<String> names(EngineFamily family, Set<String> items) {
        return family.items().stream()
                .filter(i -> items.contains(i.code()))
                .map(Item::name)
                .toList();
    }

    private static WorkedView worked(WorkClock clock) {
        return new WorkedView(
                clock.minutes(),
                clock.byPerson(),
                clock.present().stream().sorted().toList(),
                clock.waits().stream()
                        .map(w -> new WaitView(
                                w.why(), w.words(), w.from(), w.minutes().orElse(null)))
                        .toList(),
                clock.uncounted());
    }

    private static BenchFinding finding(CardState.Finding f) {
        EvidenceKind kind = f.kind();
        return new BenchFinding(f.step().orElse(null), kind.words(), kind.advice(), f.words(), f.by(), f.at());
    }

    private List<PhotoView> photos(Job job, CardState state) {
        Map<Long, CardEvent.PhotoTaken> taken = state.noted(CardEvent.PhotoTaken.class).stream()
                .collect(java.util.stream.Collectors.toMap(CardEvent.PhotoTaken::photoId, p -> p, (a, b) -> b));
        return photos.ofJob(job.id()).stream()
                .filter(p -> taken.containsKey(p.id()))
                .map(p -> {
                    CardEvent.PhotoTaken event = Objects.requireNonNull(taken.get(p.id()));
                    return new PhotoView(
                            p.id(), event.step(), event.caption(), p.width(), p.height(), p.takenBy(), p.takenAt());
                })
                .toList();
    }

    /** What the rules ask for by now, most of all because of what was found, and the card does not have. */
    private List<OfferedLine> offers(Job job, CardState state) {
        if (job.stage() != JobStage.UNDER_WAY) {
            return List.of();
        }
        String currency = settings.get().currency();
        return jobs.bundle(job).lines().stream()
                .filter(l -> l.kind() == BundleLine.Kind.ITEM
                        && l.included()
                        && !state.scope().items().contains(l.code()))
                .map(l -> new OfferedLine(l.code(), l.name(), l.marginalMinutes(), words.write(l.reason(), currency)))
                .toList();
    }

    private static @Nullable Integer boxed(OptionalInt value) {
        return value.isPresent() ? value.getAsInt() : null;
    }
}
