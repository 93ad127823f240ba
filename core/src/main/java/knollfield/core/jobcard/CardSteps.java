package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.bundle.Labour;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.Assembly;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Handling;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Joint;
import knollfield.core.engine.Joint.Stage;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.ReferenceMethod;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.Variant;

/** Phases that belt and chain cards have in common, and what both ask of the book. */
final class CardSteps {

    static final String EYES = "Rings and watch off; eye protection on.";
    static final String NEVER_FORCE = "Never force a stop: stop, and back to the locking position.";

    /** A pattern of at least so many bolts is tightened in passes. */
    private static final int PATTERN = 4;

    final EngineFamily family;
    final CardScope scope;
    final Labour labour;
    /** The loop itself comes off, so that the timing must be found and proven again. */
    final boolean opensDrive;
    /** Where not every pin is here, own paint proves the timing. */
    static final Task PIECES_OR_PAINT = new Task.Choose(
            List.of(
                    new Task.Choose.Option("here", "every piece is here, whole", false),
                    new Task.Choose.Option("paint", "not all: own paint marks instead", true)),
            Task.Choose.Changes.REFERENCE);

    /** How the timing is proven on this card. */
    final ReferenceMethod reference;

    private final CardBasis basis;
    private final List<Joint> opened;
    private final List<Phase> phases = new ArrayList<>();

    /** Every joint that is opened is done up on the card, and every item fitted; cards begun before did not see to it. */
    private final boolean closes;

    private final CardPlan.Layout layout;

    /** @param layout one of the two that list */
    CardSteps(CardBasis basis, CardPlan.Layout layout) {
        this.layout = layout;
        this.closes = layout == CardPlan.Layout.LISTED;
        this.basis = basis;
        this.scope = basis.scope();
        this.family = basis.family().settled(scope.variants());
        this.labour = Labour.of(family, basis.equipment(), scope.items());
        this.opened = labour.opened(family);
        this.opensDrive = labour.steps().stream()
                .map(s -> s.step().code())
                .toList()
                .containsAll(family.driveItem().accessSteps());
        this.reference = scope.paint() ? ReferenceMethod.PAINT : family.reference();
    }

    CardPlan plan() {
        return new CardPlan(basis, phases, labour.minutes(), RoutedCard.paintReturns(family), layout);
    }

    /** What no phase before has fitted or done up. */
    private List<Step> leftOpen() {
        if (!closes) {
            return List.of();
        }
        Set<String> there = new HashSet<>();
        phases.forEach(p -> p.steps().forEach(s -> there.add(s.code())));
        List<Step> left = new ArrayList<>();
        for (Item item : family.items()) {
            boolean part = switch (item.kind()) {
                case TIMING_BELT, TIMING_CHAIN, COOLANT, FASTENER, GASKET -> false;
                default -> true;
            };
            if (part && scope.items().contains(item.code()) && !there.contains("fit-" + item.code())) {
                left.add(tick(
                                "fit-" + item.code(),
                                (item.kind() == ItemKind.OIL ? "Old out, new in, level read: " : "Fit: ")
                                        + lower(item.name()))
                        .serving(item.code()));
            }
        }
        for (Stage stage : Stage.values()) {
            if (stage != Stage.CLOSE_UP) {
                torques(stage).stream().filter(s -> !there.contains(s.code())).forEach(left::add);
            }
        }
        return left;
    }

    List<Phase> phasesSoFar() {
        return List.copyOf(phases);
    }

    Handling handling() {
        return family.handling();
    }

    boolean renewsDrive() {
        return scope.items().contains(family.driveItem().code());
    }

    /** Adds a phase; one without steps is left out. */
    void phase(String code, String title, List<Step> steps) {
        if (!steps.isEmpty()) {
            phases.add(new Phase(code, title, steps));
        }
    }

    void phase(String code, String title, Step... steps) {
        phase(code, title, Stream.of(steps).toList());
    }

    /** Points in which vehicles of the family differ and nobody has settled yet. */
    void identify(String code) {
        List<Step> steps = new ArrayList<>();
        for (Variant v : family.variants()) {
            if (!basis.settledBefore().contains(v.code())) {
                steps.add(Step.of(
                                "variant-" + v.code(),
                                "Settle: " + lower(v.name()),
                                new Task.Choose(
                                        v.choices().stream()
                                                .map(c -> new Task.Choose.Option(c.code(), c.name(), false))
                                                .toList(),
                                        Task.Choose.Changes.VARIANT))
                        .notes(List.of(v.howToTell()))
                        .gate(GateKind.VARIANT_SETTLED));
            }
        }
        phase(code, "Identify", steps);
    }

    void partsInHand(String code, List<Step> kit) {
        List<Step> steps = new ArrayList<>(kit);
        Step parts = tick("parts", "Parts here, checked against the job");
        if (family.reference() == ReferenceMethod.PINS && opensDrive) {
            steps.add(parts);
            steps.add(Step.of("tools", "Locking tools, piece by piece", PIECES_OR_PAINT)
                    .notes(pieces())
                    .gate(GateKind.TOOLS_HERE));
        } else {
            steps.add(parts.notes(pieces()));
        }
        List<String> fasteners = opened.stream()
                .filter(j -> !j.oneTimeParts().isEmpty())
                .flatMap(j -> j.oneTimeParts().stream())
                .map(p -> p.quantity() > 1 ? p.quantity() + " × " + lower(p.name()) : lower(p.name()))
                .distinct()
                .toList();
        if (!fasteners.isEmpty()) {
            steps.add(Step.of(
                            "onetime",
                            "One-time fasteners and gaskets: new ones lie ready",
                            new Task.Check(fasteners, "new", "old one goes back"))
                    .caution("Stretched bolts break later, under load.")
                    .gate(GateKind.ONE_TIME_NEW));
        }
        phase(code, "Parts and tools in hand", steps);
    }

    private List<String> pieces() {
        return family.tools().pieces().stream()
                .map(p -> "%d × %s: %s".formatted(p.count(), p.name(), p.use()))
                .toList();
    }

    Step battery() {
        return confirm("battery", "Battery earth off", GateKind.BATTERY_OFF).caution(EYES);
    }

    Step raise() {
        return tick("raise", "Raise, wheel and shields off, on stands")
                .caution("Never under a vehicle on a jack alone.");
    }

    /** The marks as they must be before the loop comes off, or the branch for an engine found out of time. */
    void allMarksIn(String code, String title) {
        List<Step> steps = new ArrayList<>();
        if (scope.outOfTime()) {
            String position = handling().safePosition();
            steps.add(confirm("safepos", "Crank to its safe position before any cam turns", GateKind.SAFE_POSITION)
                    .notes(
                            position.isBlank()
                                    ? List.of("The book names none: ask before anything turns.")
                                    : List.of(position))
                    .caution("Never cranked: creep by feel, and stop at any contact."));
            steps.add(tick("camsin", "Each cam to its mark by feel, one after the other, then the crank")
                    .caution("Valves may stand open: stop at any contact."));
        }
        List<String> notes = new ArrayList<>();
        handling().unreliableMarks().forEach(m -> notes.add("Do not trust " + m + "."));
        notes.add(turningBack());
        if (reference != ReferenceMethod.PAINT) {
            notes.add("Own paint marks on belt, wheels and casing are welcome.");
        }
        steps.add(Step.of("marksin", scope.outOfTime() ? "All marks true" : title, new Task.TrueMarks(references()))
                .caution(NEVER_FORCE)
                .notes(notes)
                .gate(GateKind.REFERENCE_FOUND));
        if (reference == ReferenceMethod.PINS) {
            Step pins = Step.of(
                            "pinsin",
                            "Fit and count the timing pins",
                            new Task.Count("pins in", family.pins().size()))
                    .caution("A timing pin never takes the torque of a bolt.");
            // nothing is let off until the pins are counted in
            steps.add(closes ? pins.gate(GateKind.REFERENCE_FOUND) : pins);
        }
        if (reference == ReferenceMethod.PAINT) {
            steps.add(tick("paint", "Own paint marks on teeth, belt, wheels and casing; several at the crank"));
        }
        if (scope.outOfTime() && !closes) {
            steps.add(valves());
        }
        phase(code, scope.outOfTime() ? "Timing from scratch" : "All marks in", steps);
    }

    private static Step valves() {
        return Step.of(
                        "valves",
                        "Valves, now that it is timed: compression or leak-down",
                        new Task.Inspect(List.of("all hold", "a cylinder leaks"), Map.of(), Set.of("a cylinder leaks")))
                .notes(List.of("A belt that broke or jumped counts as valves touched until this shows otherwise."));
    }

    private String turningBack() {
        return handling().turningBackDegrees().isPresent()
                ? "Turning back: up to %d°."
                        .formatted(handling().turningBackDegrees().getAsInt())
                : "Turning back: never.";
    }

    /** Cams that would spring or roll are held before slack is let in. */
    List<Step> camsHeld() {
        if (handling().cams() == Handling.Cams.STAY || handling().camsHeldBy().isEmpty()) {
            return List.of();
        }
        return List.of(confirm("hold", "Cams held; nothing rocks", GateKind.CAMS_HELD)
                .caution("What holds a cam never takes the torque of a bolt.")
                .notes(List.of("Held by " + handling().camsHeldBy().get() + ".")));
    }

    /** Every new part against the old. */
    void compare(String code) {
        List<Step> steps = new ArrayList<>();
        if (scope.rework()) {
            steps.add(refit());
        }
        List<String> points = new ArrayList<>();
        for (Item item : family.items()) {
            if (scope.items().contains(item.code()) && isFitted(item.kind())) {
                points.add(
                        item.kind().isTheDrive()
                                ? "%s: number, %d %s, width, length"
                                        .formatted(
                                                lower(item.name()),
                                                family.path().orElseThrow().teeth(),
                                                family.drive().isBelt() ? "teeth" : "links")
                                : item.kind() == ItemKind.TENSIONER
                                        ? lower(item.name()) + ": number, side, thickness against bolt length"
                                        : lower(item.name()) + ": number, side");
            }
        }
        if (!points.isEmpty()) {
            steps.add(Step.of("compare", "New parts against the old", new Task.Check(points, "as the old", "differs"))
                    .caution(
                            family.drive().isBelt()
                                    ? "A belt one tooth too long shows only when it is all on."
                                    : "Left and right tensioners differ.")
                    .gate(GateKind.FIT_CHECK));
        }
        phase(code, "Clean, compare", steps);
    }

    /** Work done again after a signature: new parts, or the same ones back. */
    static Step refit() {
        return Step.of(
                "refit",
                "What goes in",
                new Task.Choose(
                        List.of(
                                new Task.Choose.Option("new", "new parts", false),
                                new Task.Choose.Option("same", "the same parts as before", true)),
                        Task.Choose.Changes.REFITTED));
    }

    private static boolean isFitted(ItemKind kind) {
        return kind != ItemKind.COOLANT && kind != ItemKind.OIL && kind != ItemKind.FASTENER;
    }

    /** Out with the pins, two turns, and the look at what they show. */
    void turnTwice(String code) {
        List<Step> steps = new ArrayList<>();
        if (reference == ReferenceMethod.PINS) {
            steps.add(Step.of(
                            "pinsout",
                            "Every timing pin out and counted: " + String.join(", ", family.pins()),
                            new Task.Count("pins out", family.pins().size()))
                    .caution("Turning against a pin breaks it, or the engine.")
                    .gate(GateKind.PINS_OUT)
                    .proving());
        } else {
            steps.add(confirm("pinsout", "Every clip, tie and holder out: as many as went in", GateKind.PINS_OUT)
                    .caution("Turning against a holder breaks it, or the engine.")
                    .proving());
        }
        if (scope.attempt() > CardState.ATTEMPTS_ALONE) {
            steps.add(confirm("secondeyes", "Somebody else has looked at it", GateKind.SECOND_EYES)
                    .notes(List.of("Entered by whoever looked, not by who set it."))
                    .proving());
        }
        steps.add(turn(1));
        if (family.drive().isBelt() && family.tensioner().hasPin() && !family.pinOutBeforeTurns()) {
            steps.add(tensionerSet().proving());
        }
        steps.add(turn(2));
        steps.add(Step.of("marksafter", "References after two turns", new Task.TrueMarks(references()))
                .notes(
                        reference == ReferenceMethod.PAINT
                                ? List.of("Paint on the belt is back after %d turns, not now; look at the wheels."
                                        .formatted(family.path().orElseThrow().turnsUntilPaintReturns()))
                                : List.of())
                .gate(GateKind.REFERENCES_TRUE)
                .proving());
        tensionAfterTurns().ifPresent(steps::add);
        phase(code, "Turn twice", steps);
    }

    private static Step turn(int number) {
        return Step.of("turn" + number, "Crank turn %d by hand, running way".formatted(number), new Task.Turn(number))
                .caution(NEVER_FORCE)
                .notes(number == 1 ? List.of("With the plugs out it turns easier.") : List.of())
                .gate(GateKind.TWO_TURNS)
                .proving();
    }

    Optional<Step> tensionAfterTurns() {
        if (handling().acceptance().isPresent()) {
            Handling.Acceptance a = handling().acceptance().get();
            Task.Measure.Kind kind = switch (a.quantity()) {
                case POINTER_MM -> Task.Measure.Kind.POINTER;
                case TWIST_DEGREES -> Task.Measure.Kind.TWIST;
                case FREQUENCY_HZ -> Task.Measure.Kind.FREQUENCY;
                case TOOL_TORQUE_NM -> Task.Measure.Kind.TOOL_TORQUE;
            };
            String title = switch (a.quantity()) {
                case POINTER_MM -> "Pointer in its window";
                case TWIST_DEGREES -> "Twist of the longest free run";
                case FREQUENCY_HZ -> "Frequency of the free run, engine cold";
                case TOOL_TORQUE_NM -> "Tensioner set again with its torque tool";
            };
            return Optional.of(Step.of(
                            "window",
                            title,
                            new Task.Measure(a.quantity().unit(), a.low(), a.high(), Optional.empty(), kind))
                    .notes(
                            a.quantity() == Handling.Quantity.TOOL_TORQUE_NM
                                    ? List.of("Never a click wrench.")
                                    : List.of())
                    .gate(GateKind.TENSION_IN_WINDOW)
                    .proving());
        }
        boolean windowed = family.tensioner() == TensionerKind.ECCENTRIC_POINTER
                || family.tensioner() == TensionerKind.TWIST
                || family.tensioner() == TensionerKind.FREQUENCY;
        if (!windowed) {
            return Optional.empty();
        }
        String words = handling().tensionerWindow();
        return Optional.of(confirm(
                        "window",
                        "Tension as the book has it" + (words.isBlank() ? "" : ": " + words),
                        GateKind.TENSION_IN_WINDOW)
                .proving());
    }

    /** The tensioner lets go, or is set, by its kind. */
    Step tensionerSet() {
        String title = switch (family.tensioner()) {
            case SPRING_PIN, HYDRAULIC_PIN -> "Pull the tensioner's own pin";
            case ECCENTRIC_POINTER -> "Pointer set in its window, bolt held at torque";
            case TORQUE_TOOL -> "Tensioner set with the torque tool in its square, then held";
            case TEETH_ON -> "Turned on by the book's teeth, then the tensioner tightened";
            case TWIST -> "Tensioner set by the twist of the longest run";
            case FREQUENCY -> "Tensioner set by the frequency of its free run";
            case CHAIN_RATCHET -> "Tensioner let go: click heard, no slack left";
        };
        String setting = handling().tensionerSetting();
        Step step = confirm("tensionerset", title, GateKind.TENSIONER_SET)
                .notes(setting.isBlank() ? List.of() : List.of(upper(setting) + "."));
        return switch (family.tensioner()) {
            case SPRING_PIN, HYDRAULIC_PIN, CHAIN_RATCHET -> step.caution("The plunger comes out hard: fingers clear.");
            case TORQUE_TOOL -> step.caution("Never a click wrench.");
            default -> step;
        };
    }

    void finalTorques(String code) {
        phase(code, "Final torques", torques(Stage.FINAL));
    }

    /** Joints of one stage: critical ones measured, patterns in passes, the rest plain. */
    List<Step> torques(Stage stage) {
        List<Step> steps = new ArrayList<>();
        for (Joint joint : opened) {
            if (joint.stage() != stage) {
                continue;
            }
            Optional<TorqueSpec> spec =
                    Optional.ofNullable(scope.filed().get(joint.code())).or(joint::torque);
            String code = "torque-" + joint.code();
            if (joint.critical()) {
                boolean first = stage == Stage.CRANK_BEFORE_TURNS;
                Step step = Step.of(
                                code,
                                joint.name() + " to torque",
                                new Task.Tighten(joint.name(), joint.code(), joint.bolts(), spec))
                        .notes(notes(joint))
                        .gate(first ? GateKind.CRANK_TORQUED : GateKind.CRITICAL_TORQUES);
                steps.add(first ? step.proving() : step);
            } else if (joint.bolts() >= PATTERN && stage == Stage.PUMP_AND_SEALS) {
                steps.add(Step.of(
                                code,
                                joint.name() + ", crosswise in passes",
                                new Task.Passes(joint.name(), joint.bolts(), 2, spec, Optional.empty()))
                        .notes(notes(joint)));
            } else {
                steps.add(tick(
                                code,
                                joint.name()
                                        + spec.map(s -> ", " + words(s)).orElse(", torque not on file: by feel, noted"))
                        .notes(notes(joint)));
            }
        }
        return steps;
    }

    static String words(TorqueSpec spec) {
        return number(spec.torque().newtonMetres()) + " N·m"
                + (spec.angleDegrees().isPresent() ? " + " + spec.angleDegrees().getAsInt() + "°" : "");
    }

    static String number(double value) {
        java.text.NumberFormat format = java.text.NumberFormat.getNumberInstance(Locale.ROOT);
        format.setGroupingUsed(false);
        format.setMaximumFractionDigits(value < 100 ? 2 : 1);
        return format.format(value);
    }

    /** What the book says of a joint beside its torque. */
    private static List<String> notes(Joint joint) {
        Assembly a = joint.assembly();
        List<String> notes = new ArrayList<>();
        if (joint.stage() == Stage.FINAL || joint.stage() == Stage.CRANK_BEFORE_TURNS) {
            notes.add("Sprocket held, so that no bolt loads a pin.");
        }
        if (a.reversedThread()) {
            notes.add("Left-hand thread.");
        }
        a.socket().ifPresent(s -> notes.add("Socket: " + s + "."));
        lengths(a).ifPresent(l -> notes.add("Bolts: " + l + "."));
        notes.addAll(faceAndThread(a));
        return notes;
    }

    /** Such as "3 of 25 mm, 2 of 40 mm"; empty where all bolts are alike. */
    static Optional<String> lengths(Assembly a) {
        return a.lengths().size() < 2
                ? Optional.empty()
                : Optional.of(String.join(
                        ", ", a.lengths().stream().map(CardSteps::length).toList()));
    }

    static String length(Assembly.Bolts b) {
        return "%d of %s mm".formatted(b.count(), number(b.lengthMm()));
    }

    /** Faces and threads of a joint, in words. */
    static List<String> faceAndThread(Assembly a) {
        List<String> notes = new ArrayList<>();
        switch (a.face()) {
            case DRY -> notes.add("Faces dry, no sealant.");
            case GASKET -> notes.add("New gasket; one that will not come clean: sealant, noted.");
            case SEALANT -> notes.add("Sealant on the face.");
            case NO_SEAL -> {
                // nothing to say
            }
        }
        if (a.threadlock()) {
            notes.add("Threadlock on clean, dry threads.");
        }
        if (a.handToolsOnly()) {
            notes.add("Hand tools only.");
        }
        return notes;
    }

    private void closeUp(String code) {
        List<Step> steps = new ArrayList<>(leftOpen());
        steps.add(tick(
                "close",
                family.drive().isBelt()
                        ? "Belt guide the right way round, covers, mount, accessories"
                        : "Covers, gaskets, accessories"));
        for (Joint joint : opened) {
            if (joint.stage() == Stage.CLOSE_UP && joint.assembly().lengths().size() > 1) {
                steps.add(Step.of(
                                "back-" + joint.code(),
                                joint.name() + ": as many back as came out",
                                new Task.Count("bolts back", joint.bolts()))
                        .notes(notes(joint)));
            }
        }
        steps.addAll(torques(Stage.CLOSE_UP));
        if (family.blankingPlugs() > 0 && opensDrive) {
            steps.add(Step.of("plugs", "Blanking plugs back", new Task.Count("plugs back", family.blankingPlugs()))
                    .gate(GateKind.PLUGS_BACK));
        }
        steps.add(confirm("wheel", "Wheel fasteners to torque, support away, battery on", GateKind.WHEEL_AND_SUPPORT)
                .caution("A loose wheel kills: torque wrench, crosswise."));
        phase(code, "Close up", steps);
    }

    /** Covers on, with the clearances before they hide; after it on cards begun before that was so. */
    void closeUp(String code, String clearanceCode) {
        if (closes) {
            clearances(clearanceCode);
        }
        closeUp(code);
        if (!closes) {
            clearances(clearanceCode);
        } else if (scope.outOfTime()) {
            // nothing is cranked until every bolt is final and the timing proven
            phase(clearanceCode + "v", "Valves", valves());
        }
    }

    /** Joints to be done up before the engine is turned; at closing up on cards begun before that was so. */
    List<Step> beforeTurns(Stage stage) {
        return closes ? torques(stage) : List.of();
    }

    /** The turns of an engine whose drive stays on: nothing starts before them. */
    Step turnover(String title) {
        Step step = tick("turnover", title).caution(NEVER_FORCE);
        return closes ? step.gate(GateKind.TWO_TURNS) : step;
    }

    private void clearances(String code) {
        phase(
                code,
                "Valve clearances",
                handling().clearances().stream()
                        .map(c -> Step.of(
                                "clearance-"
                                        + c.valve().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-"),
                                c.valve() + ": clearance, engine cold",
                                new Task.Measure(
                                        "mm", c.lowMm(), c.highMm(), Optional.empty(), Task.Measure.Kind.CLEARANCE)))
                        .toList());
    }

    void startAndRecord(String startCode, String recordCode) {
        List<Step> start = new ArrayList<>();
        if (wet()) {
            start.add(Step.of(
                            "fill",
                            "Coolant in, bled",
                            new Task.Measure(
                                    "L", 0.1, 60, Optional.of(family.coolantLitres()), Task.Measure.Kind.COOLANT_IN))
                    .notes(List.of("A dry start before that: seconds, or not at all.")));
        }
        start.add(Step.of(
                        "start",
                        "First start and road test: noise, leaks, codes",
                        new Task.Inspect(
                                List.of("quiet, dry, no codes", "whine", "flap", "leak", "a code is back"),
                                Map.of("whine", EvidenceKind.WHINE, "flap", EvidenceKind.SLAP),
                                Set.of("whine", "flap", "leak", "a code is back")))
                .caution("Hands and hair clear of belts.")
                .notes(List.of("Whine is too tight, flap too loose. Codes cleared must stay clear."))
                .gate(GateKind.FIRST_START));
        if (wet()) {
            start.add(confirm("level", "Coolant level read cold", GateKind.COOLANT_LEVEL)
                    .caution("Never open a hot system."));
        }
        phase(startCode, wet() ? "First start, fill, bleed" : "First start", start);
        phase(recordCode, "Record", confirm("label", "Label written and protected; old parts shown", GateKind.LABEL));
    }

    List<Item> fitted(ItemKind... kinds) {
        List<ItemKind> wanted = List.of(kinds);
        return family.items().stream()
                .filter(i -> scope.items().contains(i.code()) && wanted.contains(i.kind()))
                .toList();
    }

    List<String> references() {
        List<String> marks = family.path().orElseThrow().marked().stream()
                .map(p -> p.role() == Pulley.Role.CRANK ? "crank" : lower(p.name()))
                .toList();
        return marks.isEmpty() ? List.of("own marks") : marks;
    }

    boolean wet() {
        return opened.stream().anyMatch(Joint::holdsCoolant)
                && !fitted(ItemKind.COOLANT).isEmpty();
    }

    boolean opens(Stage stage) {
        return opened.stream().anyMatch(j -> j.stage() == stage);
    }

    /** One-time fasteners of a stage, which a loop that undoes them needs new once more. */
    List<String> oneTimeOf(Stage stage) {
        return opened.stream()
                .filter(j -> j.stage() == stage)
                .flatMap(j -> j.oneTimeParts().stream())
                .map(p -> lower(p.name()))
                .toList();
    }

    static Step tick(String code, String title) {
        return Step.of(code, title, new Task.Tick());
    }

    static Step confirm(String code, String title, GateKind gate) {
        return Step.of(code, title, new Task.Confirm()).gate(gate);
    }

    static String lower(String name) {
        return name.isEmpty() ? name : name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }

    private static String upper(String words) {
        return words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
    }
}
