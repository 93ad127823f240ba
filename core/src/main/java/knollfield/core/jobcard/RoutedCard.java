package knollfield.core.jobcard;

import static knollfield.core.jobcard.CardSteps.lower;
import static knollfield.core.jobcard.CardSteps.tick;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.core.bundle.Labour;
import knollfield.core.dryrun.DryRun;
import knollfield.core.dryrun.Verdict;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Caution;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.grow.PaintedBuild;
import knollfield.core.engine.work.Breach;
import knollfield.core.engine.work.EngineState;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.route.Arrow;
import knollfield.core.route.Line;
import knollfield.core.route.Placed;
import knollfield.core.route.Router;
import knollfield.core.route.Stretch;
import knollfield.core.route.Unroutable;

/**
 * A card worked out from how the engine is built, and proven on it before anybody sees it. Plain operations that stand
 * together are one step; what a gate rests on is a step of its own (docs/route.md).
 */
final class RoutedCard {

    private final CardBasis basis;
    private final CardPlan.Layout layout;
    private final EngineFamily family;
    private final Anatomy book;
    private final Set<String> goal;
    private final RoutedWords words;
    private final Line line;
    private final Set<Operation> done;
    private final Set<Operation> again;
    private final Set<Operation> forOwner;
    private final RoutedSteps steps;
    private final boolean chain;
    private final List<Phase> phases = new ArrayList<>();
    /** What did not prove is done once more by a list of steps. */
    private final boolean byList;

    private final Map<Stretch, Integer> times = new HashMap<>();

    private RoutedCard(CardBasis basis, CardPlan.Layout layout, Progress progress, boolean byList) {
        this.basis = basis;
        this.byList = byList;
        this.layout = layout;
        this.family = basis.family().settled(basis.scope().variants());
        Build own = family.build()
                .orElseThrow(() -> new CardNotProven(List.of(new Breach(
                        List.of(Law.REACH),
                        Optional.empty(),
                        "accessSteps",
                        "its steps contradict each other, so that how the engine is built cannot be told"))));
        // paint made before says nothing once the engine is out of time
        boolean paint = basis.scope().paint() && !basis.scope().outOfTime();
        Build build = paint ? PaintedBuild.of(own) : own;
        this.book = new Anatomy(build, basis.equipment());
        this.goal = goal(family, build, basis.scope().items());
        this.words = new RoutedWords(book, family);
        this.chain = build.loops().stream().anyMatch(l -> l.kind() == Drive.CHAIN);
        this.line = proven(progress);
        this.again = Reopened.of(book, line, progress, now(progress));
        this.done = progress.done();
        this.forOwner = forOwner(progress);
        this.steps = new RoutedSteps(
                family,
                book,
                words,
                goal,
                line.operations(),
                basis.scope(),
                basis.scope().outOfTime() ? cameOutAgain(progress.did()) : List.of(),
                this::asked,
                this::awaited);
    }

    /**
     * @param progress how far it is already
     * @throws CardNotProven where the book gives no card that keeps every law
     */
    static CardPlan of(CardBasis basis, CardPlan.Layout layout, Progress progress) {
        boolean byList = layout != CardPlan.Layout.ROUTED || progress.byList();
        if (progress.redo().isEmpty()) {
            return new RoutedCard(basis, layout, progress, byList).plan();
        }
        try {
            return new RoutedCard(
                            basis,
                            layout,
                            progress.redo().map(progress::redoing).orElse(progress),
                            false)
                    .plan();
        } catch (CardNotProven e) {
            // nobody is left alone with an engine that did not prove: the list that fits every engine
            return new RoutedCard(basis, layout, progress.correctedByList(), true).plan();
        }
    }

    /** Things of the book that {@code items} renew. */
    static Set<String> goal(EngineFamily family, Build build, Set<String> items) {
        Set<String> things = new LinkedHashSet<>();
        for (String item : items) {
            if (family.item(item).isEmpty()) {
                throw new IllegalArgumentException("family %s has no item %s".formatted(family.code(), item));
            }
            List<String> renewed = build.things(item);
            if (renewed.isEmpty()) {
                throw new CardNotProven(List.of(new Breach(
                        List.of(Law.DONE),
                        Optional.empty(),
                        item,
                        "the book does not say what renewing %s takes"
                                .formatted(lower(family.item(item).orElseThrow().name())))));
            }
            things.addAll(renewed);
        }
        return things;
    }

    private CardPlan plan() {
        identify();
        inHand();
        List<Placed> placed = line.placed();
        boolean corrected = false;
        boolean asked = false;
        Stretch previous = Stretch.RECORD;
        int i = 0;
        while (i < placed.size()) {
            Stretch stretch = placed.get(i).stretch();
            List<Placed> run = new ArrayList<>();
            while (i < placed.size() && placed.get(i).stretch() == stretch) {
                run.add(placed.get(i++));
            }
            // what is found is recorded where it is found, no step of the card
            run.removeIf(p -> p.operation().verb().isRecorded());
            boolean proves = run.stream().anyMatch(p -> RoutedSteps.isRedone(p.operation()));
            if (byList && basis.scope().attempt() > 1 && proves && !corrected) {
                phases.add(new Phase(chain ? "C11x" : "B22x", "Correction", steps.correction(line.operations())));
                corrected = true;
            }
            List<Step> made = new ArrayList<>(
                    stretch == Stretch.SCRATCH ? steps.fromScratch(run, line.operations()) : steps.of(run));
            if (stretch == Stretch.COMPARE && basis.scope().rework() && !asked) {
                made.add(0, CardSteps.refit());
                asked = true;
            }
            if (isOneWith(previous, stretch) && !made.isEmpty()) {
                Phase first = phases.remove(phases.size() - 1);
                phases.add(new Phase(
                        first.code(), first.title() + ", " + lower(stretch.title()), joined(first.steps(), made)));
            } else if (!made.isEmpty()) {
                boolean correction =
                        stretch == Stretch.SCRATCH && !basis.scope().outOfTime();
                phases.add(new Phase(code(stretch), correction ? "Correction" : stretch.title(), made));
            }
            previous = made.isEmpty() ? previous : stretch;
            if (stretch == Stretch.OPEN && times.getOrDefault(Stretch.OPEN, 0) == 1) {
                firstLook();
            }
        }
        int minutes =
                Labour.of(family, basis.equipment(), basis.scope().items()).minutes();
        List<Phase> laid = withNeeds();
        List<Breach> unsaid = Said.missing(book, laid);
        if (!unsaid.isEmpty()) {
            throw new CardNotProven(unsaid);
        }
        Set<String> askedAgain = laid.stream()
                .flatMap(p -> p.steps().stream())
                .filter(s -> s.operations().stream().anyMatch(again::contains))
                .map(Step::code)
                .collect(Collectors.toSet());
        return CardPlan.kept(basis, laid, minutes, paintReturns(family), layout, askedAgain);
    }

    /** What goes from hand to hand is one phase. */
    private static boolean isOneWith(Stretch before, Stretch stretch) {
        return (before == Stretch.RELEASE && stretch == Stretch.STRIP)
                || (before == Stretch.SAFE && stretch == Stretch.CLEAR);
    }

    private static List<Step> joined(List<Step> first, List<Step> then) {
        List<Step> all = new ArrayList<>(first);
        all.addAll(then);
        return all;
    }

    /** The phases, each step with the steps it must come after. */
    private List<Phase> withNeeds() {
        Map<Operation, String> stepOf = new HashMap<>();
        phases.forEach(p -> p.steps().forEach(s -> s.operations().forEach(o -> stepOf.putIfAbsent(o, s.code()))));
        Map<String, Set<String>> needs = new HashMap<>();
        // a second step of the same operation comes after the first
        phases.stream()
                .flatMap(p -> p.steps().stream())
                .forEach(s -> s.operations().stream()
                        .map(stepOf::get)
                        .filter(first -> first != null && !first.equals(s.code()))
                        .forEach(first -> needs.computeIfAbsent(s.code(), c -> new LinkedHashSet<>())
                                .add(first)));
        for (Arrow a : line.arrows()) {
            String first = stepOf.get(a.first());
            String then = stepOf.get(a.then());
            if (first != null && then != null && !first.equals(then)) {
                needs.computeIfAbsent(then, c -> new LinkedHashSet<>()).add(first);
            }
        }
        return phases.stream()
                .map(p -> new Phase(
                        p.code(),
                        p.title(),
                        p.steps().stream()
                                .map(s -> s.after(List.copyOf(needs.getOrDefault(s.code(), Set.of()))))
                                .toList()))
                .toList();
    }

    /** Over all loops where they are drawn, else of the family's own path; empty where no drawing is on file. */
    static OptionalInt paintReturns(EngineFamily family) {
        return family.build()
                .map(Build::turnsUntilPaintReturns)
                .filter(OptionalInt::isPresent)
                .orElseGet(() -> family.path()
                        .map(p -> OptionalInt.of(p.turnsUntilPaintReturns()))
                        .orElse(OptionalInt.empty()));
    }

    /** Where an operation stands: open, done, or done and asked once more. */
    enum Asked {
        OPEN,
        DONE,
        AGAIN
    }

    /** What is done only for an item the owner has not agreed to yet. */
    private Set<Operation> forOwner(Progress progress) {
        Set<String> agreed = new LinkedHashSet<>(basis.scope().items());
        agreed.removeAll(basis.scope().awaiting());
        if (basis.scope().awaiting().isEmpty() || agreed.isEmpty()) {
            return Set.of();
        }
        Goal without = new Goal(goal(family, family.build().orElseThrow(), agreed));
        Line agreedLine = Router.lay(book, without, now(progress));
        Set<Operation> here = new HashSet<>(line.operations());
        Set<Operation> only = new LinkedHashSet<>(line.operations());
        only.removeAll(new HashSet<>(agreedLine.operations()));
        // what would come after something else if the owner said no cannot be done before they speak either
        agreedLine.arrows().stream()
                .filter(arrow -> !here.contains(arrow.first()))
                .map(Arrow::then)
                .forEach(only::add);
        only.addAll(again);
        return only;
    }

    /** Code of the awaited item that {@code o} serves; empty for what is done anyway. */
    private Optional<String> awaited(Operation o) {
        if (!forOwner.contains(o)) {
            return Optional.empty();
        }
        Set<String> awaiting = basis.scope().awaiting();
        return words.itemOf(o.thing())
                .map(Item::code)
                .filter(awaiting::contains)
                .or(() -> awaiting.stream().sorted().findFirst());
    }

    private Asked asked(Operation o) {
        return again.contains(o) ? Asked.AGAIN : done.contains(o) ? Asked.DONE : Asked.OPEN;
    }

    private Line proven(Progress progress) {
        Goal wanted = new Goal(goal);
        if (progress.done().isEmpty()) {
            Line line = proven(wanted, EngineState.closed());
            Set<String> off = thingsOf(line.operations(), Verb.LOOP_OFF);
            return basis.scope().outOfTime()
                    ? proven(wanted, EngineState.closed().lost(off))
                    : line;
        }
        EngineState open = now(progress);
        Line line = proven(wanted, open);
        Set<String> goesBack = new HashSet<>();
        Set<String> more = Reopened.goesBack(book, line, progress, open);
        more.retainAll(goal);
        while (goesBack.addAll(more)) {
            Set<String> stillNew = new LinkedHashSet<>(goal);
            stillNew.removeAll(goesBack);
            line = proven(new Goal(stillNew), open.with(goesBack));
            more = Reopened.goesBack(book, line, progress, open);
            more.retainAll(goal);
        }
        if (progress.reopens()) {
            goesOn(wanted, line, progress, open);
        }
        return line;
    }

    private static Set<String> thingsOf(List<Operation> operations, Verb verb) {
        return operations.stream()
                .filter(o -> o.verb() == verb)
                .map(Operation::thing)
                .collect(Collectors.toSet());
    }

    /**
     * That loops are out of time, as it is recorded: all that come off on the card of {@code state} and are still on. The
     * crank is moved to set one of them, so that what was found true of the others says nothing any more.
     */
    static List<Operation> foundOutOfTime(CardState state) {
        if (state.plan().layout() != CardPlan.Layout.ROUTED) {
            return List.of();
        }
        Set<Operation> done = new HashSet<>(state.did());
        return state.plan().steps().stream()
                .flatMap(s -> s.operations().stream())
                .filter(o -> o.verb() == Verb.LOOP_OFF && !done.contains(o))
                .map(o -> Operation.of(Verb.LOST, o.thing()))
                .distinct()
                .toList();
    }

    /** What a step found is of no loop of {@code lost}, so that it stays found. */
    static boolean staysFound(CardState state, Step step, List<Operation> lost) {
        if (lost.isEmpty()) {
            return false;
        }
        Anatomy book = anatomy(state);
        return step.operations().stream()
                .flatMap(o -> Stream.concat(
                        book.reference(o.thing()).stream().flatMap(r -> r.loops().stream()),
                        book.hardware(o.thing()).stream().flatMap(h -> h.loops().stream())))
                .noneMatch(l -> lost.contains(Operation.of(Verb.LOST, l)));
    }

    /** What holds {@code lost} loops and is in already comes out again before anything is moved. */
    static List<Operation> outAgain(CardState state, List<Operation> lost) {
        if (lost.isEmpty()) {
            return List.of();
        }
        Anatomy book = anatomy(state);
        Set<String> in = DryRun.upTo(book, new Goal(Set.of()), state.did()).in();
        return book.hardware().stream()
                .filter(h -> in.contains(h.code()) && h.waitsForMarks())
                .filter(h -> lost.stream().anyMatch(o -> h.loops().contains(o.thing())))
                .map(h -> Operation.of(Verb.OUT, h.code()))
                .toList();
    }

    /** What {@link #outAgain} recorded, by the codes of the hardware. */
    private static List<String> cameOutAgain(List<Operation> did) {
        return did.stream()
                .takeWhile(o -> o.verb() != Verb.LOST)
                .filter(o -> o.verb() == Verb.OUT)
                .map(Operation::thing)
                .distinct()
                .toList();
    }

    /** What a hard stop asks to be done once more: every loop something was done to. */
    static Optional<Progress.Redo> touchedSoFar(CardState state) {
        return state.plan().layout() == CardPlan.Layout.ROUTED ? redo(touched(state), Set.of()) : Optional.empty();
    }

    private static Set<String> touched(CardState state) {
        return DryRun.upTo(anatomy(state), new Goal(Set.of()), state.did()).loops().entrySet().stream()
                .filter(l -> l.getValue().touched())
                .map(Map.Entry::getKey)
                .collect(Collectors.toSet());
    }

    /** What references that are not true ask to be done once more: the loops of {@code step} that were touched. */
    static Optional<Progress.Redo> timing(CardState state, Step step) {
        if (state.plan().layout() != CardPlan.Layout.ROUTED) {
            return Optional.empty();
        }
        Anatomy book = anatomy(state);
        Set<String> touched = touched(state);
        Set<String> loops = step.operations().stream()
                .flatMap(o -> Stream.concat(
                        book.reference(o.thing()).stream().flatMap(r -> r.loops().stream()),
                        book.hardware(o.thing()).stream().flatMap(h -> h.loops().stream())))
                .filter(touched::contains)
                .collect(Collectors.toSet());
        // a loop that comes off to reach one of them cannot be found again by turning
        book.loops().stream()
                .map(Loop::code)
                .filter(outer ->
                        loops.stream().anyMatch(inner -> book.before(inner).contains(outer)))
                .toList()
                .forEach(loops::add);
        return redo(loops, Set.of());
    }

    /** What a window that is missed asks to be done once more: the tension, and where none is set by hand the loop. */
    static Optional<Progress.Redo> tension(CardState state, Step step) {
        if (state.plan().layout() != CardPlan.Layout.ROUTED) {
            return Optional.empty();
        }
        Anatomy book = anatomy(state);
        Map<Boolean, Set<String>> bySetting = step.operations().stream()
                .flatMap(o -> book.look(o.thing()).stream())
                .flatMap(l -> l.loop().stream())
                .flatMap(l -> book.loop(l).stream())
                .collect(Collectors.partitioningBy(
                        l -> l.tensioner()
                                .filter(t -> t.letGo() == Loop.LetGo.SET)
                                .isPresent(),
                        Collectors.mapping(Loop::code, Collectors.toSet())));
        return redo(bySetting.getOrDefault(false, Set.of()), bySetting.getOrDefault(true, Set.of()));
    }

    private static Optional<Progress.Redo> redo(Set<String> timing, Set<String> tension) {
        return timing.isEmpty() && tension.isEmpty()
                ? Optional.empty()
                : Optional.of(new Progress.Redo(timing, tension));
    }

    /** An answer after which pieces are looked for where they fall. */
    static boolean searches(Step step, Task.Inspect inspect, String result) {
        return result.equals(RoutedSteps.PIECES_MISSING)
                && step.code().startsWith(RoutedSteps.PIECES)
                && !inspect.bad().contains(result);
    }

    /** That a piece of what {@code step} looked at is missing. */
    static Operation missing(Step step) {
        return Operation.of(Verb.MISSING, step.code().substring(RoutedSteps.PIECES.length()));
    }

    /** Code of the joint whose stub {@code step} gets out. */
    static Optional<String> repaired(Step step) {
        return step.operations().stream()
                .filter(o -> o.verb() == Verb.REPAIR)
                .map(Operation::thing)
                .findFirst();
    }

    /** Joints that {@code step} undoes or does up, name by code. */
    static Map<String, String> joints(CardState state, Step step) {
        Anatomy book = anatomy(state);
        Map<String, String> joints = new LinkedHashMap<>();
        step.operations().stream()
                .filter(o -> o.verb() == Verb.UNDO || o.verb() == Verb.TIGHTEN)
                .flatMap(o -> book.joint(o.thing()).stream())
                .forEach(j -> joints.put(j.code(), j.name()));
        return joints;
    }

    /** Items the owner has agreed to, nothing of which is new on the engine yet. */
    static Set<String> mayGoBack(CardState state) {
        CardBasis basis = state.plan().basis();
        Anatomy book = anatomy(state);
        Build build = book.build();
        Set<String> wanted = basis.scope().items().stream()
                .flatMap(i -> build.things(i).stream())
                .collect(Collectors.toSet());
        Set<String> fresh = DryRun.upTo(book, new Goal(wanted), state.did()).fresh();
        return basis.scope().items().stream()
                .filter(i -> !basis.scope().awaiting().contains(i))
                .filter(i -> build.things(i).stream().noneMatch(fresh::contains))
                .collect(Collectors.toSet());
    }

    private static Anatomy anatomy(CardState state) {
        return state.plan().anatomy();
    }

    /** The engine as a card of {@code basis} has it. */
    static Anatomy anatomy(CardBasis basis) {
        Build own = basis.family().settled(basis.scope().variants()).build().orElseThrow();
        return new Anatomy(basis.scope().paint() ? PaintedBuild.of(own) : own, basis.equipment());
    }

    /** How the engine stands after all that was done. */
    private EngineState now(Progress progress) {
        return DryRun.upTo(book, new Goal(goal), progress.did());
    }

    /** What is left keeps every law on the engine as it stands, after all that was done in the order it was done. */
    private void goesOn(Goal wanted, Line line, Progress progress, EngineState now) {
        Set<Operation> once = Reopened.of(book, line, progress, now);
        List<Operation> left = line.operations().stream()
                .filter(o -> !progress.done().contains(o) || once.contains(o))
                .toList();
        Verdict rest = DryRun.goesOn(book, wanted, progress.did(), left);
        if (!rest.passes()) {
            throw new CardNotProven(rest.breaches());
        }
    }

    private Line proven(Goal wanted, EngineState open) {
        Line laid;
        try {
            laid = Router.lay(book, wanted, open);
        } catch (Unroutable e) {
            throw new CardNotProven(e.circle().stream()
                    .map(a -> new Breach(List.of(a.law()), Optional.of(a.then()), a.thing(), circleWords(a)))
                    .toList());
        }
        Verdict verdict = DryRun.prove(book, wanted, laid.operations());
        if (!verdict.passes()) {
            throw new CardNotProven(verdict.breaches());
        }
        return laid;
    }

    private String circleWords(Arrow a) {
        return "%s before %s, because %s"
                .formatted(
                        lower(words.plain(List.of(a.first()))),
                        lower(words.plain(List.of(a.then()))),
                        lower(a.words()));
    }

    /** The place of a stretch as procedure.md numbers it; done a second time it says so. */
    private String code(Stretch stretch) {
        int time = times.merge(stretch, 1, Integer::sum);
        String code = switch (stretch) {
            case SAFE -> chain ? "C2" : "B3";
            case DRAIN -> chain ? "C2d" : "B4";
            case CLEAR -> chain ? "C2c" : "B5";
            case OPEN -> chain ? "C2o" : "B8";
            case MARKS -> chain ? "C3" : "B10";
            case RELEASE -> chain ? "C5" : "B13";
            case STRIP -> chain ? "C5s" : "B15";
            case COMPARE -> chain ? "C7" : "B16";
            case FIT -> chain ? "C8" : "B18";
            case SCRATCH -> chain ? "C3s" : "B10s";
            case LAY -> chain ? "C9" : "B19";
            case TENSION -> chain ? "C10" : "B20";
            case TURN -> chain ? "C11" : "B22";
            case PROVE -> chain ? "C11p" : "B22p";
            case CLOSE -> chain ? "C13" : "B24";
            case FILL -> chain ? "C13f" : "B26";
            case START -> chain ? "C14" : "B26s";
            case RECORD -> chain ? "C15" : "B27";
        };
        return time == 1 ? code : code + "-" + time;
    }

    private void identify() {
        CardSteps common = new CardSteps(basis, CardPlan.Layout.LISTED);
        common.identify(chain ? "C0" : "B1");
        phases.addAll(common.phasesSoFar());
    }

    private void inHand() {
        List<Step> made = new ArrayList<>();
        made.add(tick("parts", "Parts here, checked against the job"));
        List<String> tools = line.operations().stream()
                .filter(o -> o.verb() == Verb.SET_IN && o.round() == 1)
                .filter(o -> book.hardware(o.thing())
                        .filter(h -> h.kind() != Hardware.Kind.TENSIONER_PIN)
                        .isPresent())
                .map(o -> lower(words.name(o.thing())))
                .toList();
        if (!tools.isEmpty()) {
            List<String> pieces = Stream.concat(
                            tools.stream(),
                            family.tools().pieces().stream()
                                    .map(p -> "%d × %s: %s".formatted(p.count(), p.name(), p.use())))
                    .toList();
            boolean pins = family.build().orElseThrow().hardware().stream().anyMatch(Hardware::slidesIn);
            made.add(
                    pins
                            ? Step.of("tools", "Tools, piece by piece", CardSteps.PIECES_OR_PAINT)
                                    .notes(pieces)
                                    .gate(GateKind.TOOLS_HERE)
                            : Step.of(
                                            "tools",
                                            "Tools, piece by piece",
                                            new Task.Check(tools, "here, whole", "missing or broken"))
                                    .notes(pieces.subList(tools.size(), pieces.size()))
                                    .gate(GateKind.TOOLS_HERE));
        }
        List<String> fasteners = line.operations().stream()
                .filter(o -> o.verb() == Verb.COMPARE)
                .filter(o -> book.joints().stream()
                        .anyMatch(j -> j.fasteners().filter(o.thing()::equals).isPresent()))
                .map(o -> steps.fasteners(o.thing()))
                .toList();
        if (!fasteners.isEmpty()) {
            made.add(Step.of(
                            "onetime",
                            "One-time fasteners: new ones lie ready",
                            new Task.Check(fasteners, "new", "old one goes back"))
                    .caution("Stretched bolts break later, under load.")
                    .gate(GateKind.ONE_TIME_NEW));
        }
        phases.add(new Phase(chain ? "C1" : "B2", "Parts and tools in hand", made));
    }

    /** Once the covers are off the drive is looked at, before anything is let off. */
    private void firstLook() {
        boolean opens = line.operations().stream()
                .anyMatch(o -> o.verb() == Verb.LOOP_OFF || o.verb() == Verb.RELEASE || o.verb() == Verb.SET_IN);
        if (!opens) {
            return;
        }
        Step look = chain ? chainLook() : BeltCard.look(beside());
        phases.add(new Phase(chain ? "C4" : "B9", "First look", List.of(look)));
    }

    private Step chainLook() {
        Map<String, EvidenceKind> says = new LinkedHashMap<>();
        says.put("chain slack", EvidenceKind.CHAIN_RATTLE);
        says.put("guide broken", EvidenceKind.GUIDE_BROKEN);
        says.putAll(beside());
        says.put("chain jumped", EvidenceKind.BELT_FAILED);
        return BeltCard.firstLook("Chain, guides, oil: first look", says);
    }

    /** What is in sight beside the drive, as far as this engine has it. */
    private Map<String, EvidenceKind> beside() {
        Map<String, EvidenceKind> says = new LinkedHashMap<>();
        Set<Assembly.Kind> parts = family.build().orElseThrow().assemblies().stream()
                .map(Assembly::kind)
                .collect(Collectors.toSet());
        if (parts.contains(Assembly.Kind.PULLEY)) {
            says.put("damper rubber cracked", EvidenceKind.DAMPER_CRACKED);
            says.put("damper ring loose", EvidenceKind.DAMPER_LOOSE);
        }
        if (parts.contains(Assembly.Kind.MOUNT)) {
            says.put("engine mount torn", EvidenceKind.MOUNT_TORN);
        }
        if (parts.contains(Assembly.Kind.ACCESSORY_DRIVE)) {
            says.put("accessory belt tensioner worn", EvidenceKind.ACCESSORY_TENSIONER_WORN);
        }
        if (family.items().stream().anyMatch(i -> i.kind() == ItemKind.COOLANT)) {
            says.put("coolant pipe brittle", EvidenceKind.PIPE_BRITTLE);
        }
        return says;
    }

    /** Cautions of the book that belong to one of {@code things}. */
    static String cautions(Build build, List<String> things) {
        return build.cautions().stream()
                .filter(c -> things.contains(c.thing()))
                .map(Caution::words)
                .distinct()
                .collect(Collectors.joining(" "));
    }

    static List<String> things(List<Operation> run) {
        return run.stream().map(Operation::thing).distinct().toList();
    }
}
