package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.bundle.Labour;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Joint;
import knollfield.core.engine.Joint.Stage;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.ReferenceMethod;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.TimingGeometry;
import org.jspecify.annotations.Nullable;

/**
 * Makes a job card from the family's book, the vehicle's equipment and the items of the job (procedure.md). A step is
 * there only where this job has it.
 */
public final class CardGenerator {

    private static final String EYES = "Rings and watch off; eye protection on.";
    private static final String NEVER_FORCE = "Never force a stop: stop, and back to the locking position.";

    private final EngineFamily family;
    private final Set<String> items;
    private final Labour labour;
    private final List<Joint> opened;
    private final List<Phase> phases = new ArrayList<>();

    private CardGenerator(EngineFamily family, Set<String> equipment, Set<String> items) {
        this.family = family;
        this.items = items;
        this.labour = Labour.of(family, equipment, items);
        this.opened = labour.opened(family);
    }

    /**
     * The card for renewing {@code items}.
     *
     * @throws IllegalArgumentException for an item code the family does not know, or none
     */
    public static CardPlan generate(EngineFamily family, Set<String> equipment, Set<String> items) {
        if (items.isEmpty()) {
            throw new IllegalArgumentException("a card needs at least one item to renew");
        }
        CardGenerator g = new CardGenerator(family, equipment, items);
        if (family.drive() == Drive.CHAIN) {
            g.chain();
        } else {
            g.belt();
        }
        return new CardPlan(g.phases, g.labour.minutes(), family.path().turnsUntilPaintReturns());
    }

    private void belt() {
        boolean friction = family.crankFit() == CrankFit.FRICTION_HELD;
        partsInHand();
        makeSafe("B3");
        if (wet()) {
            phase(
                    "B4",
                    "Drain",
                    tick(
                            "drain",
                            "Catch the coolant, enter the volume out",
                            "Hot coolant scalds; it poisons animals."));
        }
        phase("B5", "Clear the way", tick("clear", "Accessories and belt aside; each bolt back in its own hole"));
        // a friction-held sprocket turns once its bolt is slack: time and lock first, undo second
        if (!friction) {
            crankBolt();
        }
        if (family.mountInTheWay()) {
            phase(
                    "B7",
                    "Engine support",
                    confirm(
                            "spreader",
                            "Engine carried on a load spreader under the sump",
                            "Engine on a load spreader before any mount bolt is undone.",
                            GateKind.ENGINE_CARRIED));
        }
        phase("B8", "Covers", tick("covers", "Covers off in their order; bolts sorted by length"));
        phase(
                "B9",
                "First look",
                inspect(
                        "look",
                        "Belt, oil, coolant tracks, dust, tensioner",
                        List.of("as expected", "worn", "oil on the belt", "coolant track", "pointer out")));
        allMarksIn("B10", "Turn the running way until all marks are true");
        if (friction) {
            crankBolt();
        }
        releaseAndOff();
        cleanAndCompare("B16", "belt");
        sealsAndPump();
        idlersAndTensioner();
        layOn();
        seatAndTension();
        List<Step> crank = torques(Stage.CRANK_BEFORE_TURNS);
        if (!crank.isEmpty()) {
            phases.add(new Phase("B21", "Crank bolt before the turns", crank));
        }
        turnTwice("B22");
        finalTorques("B23");
        closeUp("B24");
        startAndRecord("B26", "B27");
    }

    private void chain() {
        partsInHand();
        makeSafe("C2");
        phase(
                "C3",
                "Set the crank",
                tick(
                        "cloth",
                        "Opening covered with clean cloth, magnet ready",
                        "A piece in the sump costs about a day."));
        allMarksIn("C3m", "Crank to its key position; cam lobes free, marks true");
        phase(
                "C4",
                "Hold the cams",
                confirm(
                        "hold",
                        "Clamps closed evenly; nothing rocks",
                        "Clamps hold the cams, never the torque of a bolt.",
                        GateKind.SLACK_AT_TENSIONER));
        phase(
                "C5",
                "Tensioner, guides, chain off",
                inspect(
                        "guides",
                        "Guides: lift, look for cracks and missing pieces",
                        List.of("whole", "worn", "broken, all pieces found", "broken, strainer looked at")),
                tick("chainoff", "Tensioner, arm and chain off"));
        cleanAndCompare("C7", "chain");
        List<Step> fit = new ArrayList<>();
        fit.add(proving(tick("chainon", "Chain on: marked links on their marks, links counted between them")));
        fit.addAll(torques(Stage.IDLERS_AND_TENSIONER));
        phases.add(new Phase("C8", "Fit", fit));
        phase(
                "C10",
                "Arm the tensioner",
                proving(confirm(
                        "arm",
                        "Release the tensioner: click heard, no slack left",
                        "A compressed tensioner jumps: point it away.",
                        GateKind.TENSIONER_SET)));
        turnTwice("C11");
        finalTorques("C12");
        closeUp("C13");
        startAndRecord("C14", "C15");
    }

    private void partsInHand() {
        List<Step> steps = new ArrayList<>();
        steps.add(tick("parts", "Parts and tool set here, checked piece by piece"));
        boolean oneTime = opened.stream().anyMatch(j -> !j.oneTimeParts().isEmpty());
        if (oneTime) {
            steps.add(confirm(
                    "onetime",
                    "One-time fasteners and gaskets of every opened joint lie ready, new",
                    "Stretched bolts break later, under load.",
                    GateKind.ONE_TIME_NEW));
        }
        phases.add(new Phase("B2", "Parts and tools in hand", steps));
    }

    private void makeSafe(String code) {
        phase(
                code,
                "Make safe, raise",
                confirm("battery", "Battery earth off", EYES, GateKind.BATTERY_OFF),
                tick("raise", "Raise, wheel and shields off, on stands", "Never under a vehicle on a jack alone."));
    }

    private void crankBolt() {
        String hold = family.crankFit() == CrankFit.KEYED
                ? "Hold, break loose, pull the pulley"
                : "Engine locked and timed; now undo the crank bolt, pull the pulley";
        phase(
                "B6",
                "Crank bolt and pulley",
                tick("crankoff", hold, "Never with the starter; a timing pin never takes the bolt's torque."),
                inspect("pulley", "Pulley rubber and keyway", List.of("good", "rubber cracked", "keyway worn")));
    }

    private void allMarksIn(String code, String title) {
        List<Step> steps = new ArrayList<>();
        steps.add(new Step(
                "marksin",
                title,
                Optional.of(NEVER_FORCE),
                new Task.TrueMarks(references()),
                Optional.of(GateKind.REFERENCE_FOUND),
                false));
        if (family.reference() == ReferenceMethod.PINS) {
            steps.add(new Step(
                    "pinsin",
                    "Fit and count the timing pins",
                    Optional.of("A timing pin never takes the torque of a bolt."),
                    new Task.Count("pins in", family.pins().size()),
                    Optional.empty(),
                    false));
        }
        steps.add(tick("paint", "Own paint marks on belt, sprockets and casing"));
        phases.add(new Phase(code, "All marks in", steps));
    }

    private void releaseAndOff() {
        String release = switch (family.tensioner()) {
            case SPRING_PIN -> "Swing the tensioner back against its spring and pin it";
            case HYDRAULIC_PIN -> "Compress the plunger slowly and pin it, or take it off";
            case ECCENTRIC_POINTER -> "Slacken the eccentric and swing it back";
            case CHAIN_RATCHET -> "Press the ratchet back and pin it";
        };
        phase(
                "B13",
                "Release, belt off",
                tick("release", release, "A compressed tensioner can hit: keep fingers out of its way."),
                tick("beltoff", "Belt off, last pulley first; crank and cams stay"));
        phase("B15", "Strip", tick("strip", "Strip what is renewed; never lever on crank trigger teeth"));
    }

    private void cleanAndCompare(String code, String drive) {
        phase(
                code,
                "Clean, compare",
                confirm(
                        "compare",
                        "New %s and parts against the old: number, width, length, %s, thickness, side"
                                .formatted(drive, drive.equals("belt") ? "teeth" : "links"),
                        "A belt one tooth too long shows only when it is all on.",
                        GateKind.FIT_CHECK));
    }

    private void sealsAndPump() {
        List<Step> steps = new ArrayList<>();
        for (Item item : fitted(ItemKind.CAM_SEAL, ItemKind.CRANK_SEAL, ItemKind.WATER_PUMP, ItemKind.THERMOSTAT)) {
            steps.add(tick("fit-" + item.code(), "Fit: " + lower(item.name())));
        }
        steps.addAll(torques(Stage.PUMP_AND_SEALS));
        if (!steps.isEmpty()) {
            phases.add(new Phase("B17", "Seals and pump", steps));
        }
    }

    private void idlersAndTensioner() {
        List<Step> steps = new ArrayList<>();
        for (Item item : fitted(ItemKind.IDLER, ItemKind.TENSIONER)) {
            steps.add(tick("fit-" + item.code(), "Fit: " + lower(item.name()) + "; threads by hand first"));
        }
        if (!family.moveOver().isEmpty()) {
            steps.add(new Step(
                    "moveover",
                    "Small parts moved over: " + String.join(", ", family.moveOver()),
                    Optional.empty(),
                    new Task.Count("parts moved over", family.moveOver().size()),
                    Optional.of(GateKind.MOVED_OVER),
                    false));
        }
        steps.addAll(torques(Stage.IDLERS_AND_TENSIONER));
        if (!steps.isEmpty()) {
            phases.add(new Phase("B18", "Idlers, tensioner", steps));
        }
    }

    private void layOn() {
        phase(
                "B19",
                "Lay the belt on",
                proving(new Step(
                        "marksagain",
                        "Marks true again before the belt goes on",
                        Optional.empty(),
                        new Task.TrueMarks(references()),
                        Optional.empty(),
                        true)),
                proving(tick("belton", "Belt on in order: " + layingOrder())),
                proving(confirm(
                        "slack",
                        "All slack at the tensioner, none on the tight run",
                        "Half a tooth out at the crank is enough to bend valves.",
                        GateKind.SLACK_AT_TENSIONER)));
    }

    private void seatAndTension() {
        List<Step> steps = new ArrayList<>();
        steps.add(proving(tick("seat", "Feel every tooth seated")));
        if (family.pinOutBeforeTurns() || family.tensioner() == TensionerKind.ECCENTRIC_POINTER) {
            steps.add(proving(tensionerSet()));
        }
        phases.add(new Phase("B20", "Seat and tension", steps));
    }

    private Step tensionerSet() {
        String title = family.tensioner() == TensionerKind.ECCENTRIC_POINTER
                ? "Pointer set in its window, bolt held at torque"
                : "Pull the tensioner's own pin";
        return confirm("tensionerset", title, "The plunger comes out hard: fingers clear.", GateKind.TENSIONER_SET);
    }

    private void turnTwice(String code) {
        List<Step> steps = new ArrayList<>();
        if (family.reference() == ReferenceMethod.PINS) {
            steps.add(proving(new Step(
                    "pinsout",
                    "Every timing pin out and counted: " + String.join(", ", family.pins()),
                    Optional.of("Turning against a pin breaks it, or the engine."),
                    new Task.Count("pins out", family.pins().size()),
                    Optional.of(GateKind.PINS_OUT),
                    true)));
        }
        steps.add(turn(1));
        boolean pinAfterFirst = family.drive().isBelt()
                && !family.pinOutBeforeTurns()
                && family.tensioner() != TensionerKind.ECCENTRIC_POINTER;
        if (pinAfterFirst) {
            steps.add(proving(tensionerSet()));
        }
        steps.add(turn(2));
        steps.add(proving(new Step(
                "marksafter",
                "References after two turns",
                Optional.empty(),
                new Task.TrueMarks(references()),
                Optional.of(GateKind.REFERENCES_TRUE),
                true)));
        phases.add(new Phase(code, "Turn twice", steps));
    }

    private static Step turn(int number) {
        return new Step(
                "turn" + number,
                "Crank turn %d by hand, running way".formatted(number),
                Optional.of(NEVER_FORCE),
                new Task.Turn(number),
                Optional.of(GateKind.TWO_TURNS),
                true);
    }

    private void finalTorques(String code) {
        List<Step> steps = torques(Stage.FINAL);
        if (!steps.isEmpty()) {
            phases.add(new Phase(code, "Final torques", steps));
        }
    }

    private void closeUp(String code) {
        List<Step> steps = new ArrayList<>();
        steps.add(tick("close", "Belt guide, covers, mount, accessories; bolts in as out"));
        steps.addAll(torques(Stage.CLOSE_UP));
        if (family.blankingPlugs() > 0) {
            steps.add(new Step(
                    "plugs",
                    "Blanking plugs back",
                    Optional.empty(),
                    new Task.Count("plugs back", family.blankingPlugs()),
                    Optional.of(GateKind.PLUGS_BACK),
                    false));
        }
        steps.add(confirm(
                "wheel",
                "Wheel fasteners to torque, support away, battery on",
                "A loose wheel kills: torque wrench, crosswise.",
                GateKind.WHEEL_AND_SUPPORT));
        phases.add(new Phase(code, "Close up", steps));
    }

    private void startAndRecord(String startCode, String recordCode) {
        List<Step> start = new ArrayList<>();
        start.add(new Step(
                "start",
                "First start: listen, leaks, codes",
                Optional.of("Hands and hair clear of belts."),
                new Task.Confirm(),
                Optional.of(GateKind.FIRST_START),
                false));
        if (wet()) {
            start.add(confirm(
                    "level",
                    "Coolant filled, bled, level read cold",
                    "Never open a hot system.",
                    GateKind.COOLANT_LEVEL));
        }
        phases.add(new Phase(startCode, wet() ? "First start, fill, bleed" : "First start", start));
        phase(
                recordCode,
                "Record",
                confirm("label", "Label written and protected; old parts shown", null, GateKind.LABEL));
    }

    private List<Step> torques(Stage stage) {
        List<Step> steps = new ArrayList<>();
        for (Joint joint : opened) {
            if (joint.stage() != stage) {
                continue;
            }
            if (joint.critical()) {
                steps.add(new Step(
                        "torque-" + joint.code(),
                        joint.name() + " to torque",
                        Optional.empty(),
                        new Task.Tighten(joint.name(), joint.bolts(), joint.torque()),
                        Optional.of(GateKind.CRITICAL_TORQUES),
                        false));
            } else {
                steps.add(tick(
                        "torque-" + joint.code(),
                        joint.name()
                                + joint.torque()
                                        .map(t ->
                                                ", %s N·m".formatted(t.torque().newtonMetres()))
                                        .orElse(", torque not on file")));
            }
        }
        return steps;
    }

    private List<Item> fitted(ItemKind... kinds) {
        List<ItemKind> wanted = List.of(kinds);
        return family.items().stream()
                .filter(i -> items.contains(i.code()) && wanted.contains(i.kind()))
                .toList();
    }

    private List<String> references() {
        List<String> marks = family.path().marked().stream()
                .map(p -> p.role() == Pulley.Role.CRANK ? "crank" : lower(p.name()))
                .toList();
        return marks.isEmpty() ? List.of("own marks") : marks;
    }

    private String layingOrder() {
        return String.join(
                ", ",
                TimingGeometry.layingOn(family.path()).stream()
                        .map(p -> lower(p.name()))
                        .toList());
    }

    private boolean wet() {
        return opened.stream().anyMatch(Joint::holdsCoolant)
                && items.stream().flatMap(c -> family.item(c).stream()).anyMatch(i -> i.kind() == ItemKind.COOLANT);
    }

    private void phase(String code, String title, Step... steps) {
        phases.add(new Phase(code, title, Stream.of(steps).toList()));
    }

    private static Step proving(Step s) {
        return new Step(s.code(), s.title(), s.caution(), s.task(), s.gate(), true);
    }

    private static Step tick(String code, String title) {
        return new Step(code, title, Optional.empty(), new Task.Tick(), Optional.empty(), false);
    }

    private static Step tick(String code, String title, String caution) {
        return new Step(code, title, Optional.of(caution), new Task.Tick(), Optional.empty(), false);
    }

    private static Step confirm(String code, String title, @Nullable String caution, GateKind gate) {
        return new Step(code, title, Optional.ofNullable(caution), new Task.Confirm(), Optional.of(gate), false);
    }

    private static Step inspect(String code, String title, List<String> results) {
        return new Step(code, title, Optional.empty(), new Task.Inspect(results), Optional.empty(), false);
    }

    private static String lower(String name) {
        return name.isEmpty() ? name : name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }
}
