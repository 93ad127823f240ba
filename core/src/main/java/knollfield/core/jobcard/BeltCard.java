package knollfield.core.jobcard;

import static knollfield.core.jobcard.CardSteps.confirm;
import static knollfield.core.jobcard.CardSteps.lower;
import static knollfield.core.jobcard.CardSteps.tick;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Joint.Stage;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.ReferenceMethod;
import knollfield.core.engine.TimingGeometry;

/** Belt jobs, in working order (procedure.md, B0 to B27). */
final class BeltCard {

    private final CardSteps card;

    BeltCard(CardSteps card) {
        this.card = card;
    }

    void write() {
        card.identify("B1");
        card.partsInHand("B2", List.of());
        card.phase("B3", "Make safe, raise", card.battery(), card.raise());
        if (card.wet()) {
            card.phase(
                    "B4",
                    "Drain",
                    Step.of(
                                    "drain",
                                    "Coolant out, caught and measured",
                                    new Task.Measure(
                                            "L",
                                            0.1,
                                            60,
                                            Optional.of(card.family.coolantLitres()),
                                            Task.Measure.Kind.COOLANT_OUT))
                            .caution("Hot coolant scalds; it poisons animals.")
                            .notes(List.of("Block plug too, where there is one; hose back on at once.")));
        }
        card.phase(
                "B5",
                "Clear the way",
                tick("clear", "Accessories and belt aside; each bolt back in its own hole")
                        .notes(List.of(
                                "Accessory belt that goes back: mark its direction. A stretch-fit one is renewed.")));
        boolean friction = card.family.crankFit() == CrankFit.FRICTION_HELD && card.opensDrive;
        // a friction-held sprocket turns once its bolt is slack: time and lock first, undo second
        if (!friction) {
            crankBolt();
        }
        if (card.family.mountInTheWay()) {
            card.phase(
                    "B7",
                    "Engine support",
                    confirm("spreader", "Engine carried on a load spreader under the sump", GateKind.ENGINE_CARRIED)
                            .caution("Engine on a load spreader before any mount bolt is undone.")
                            .notes(List.of("Look at the mount's rubber under flex.")));
        }
        card.phase("B8", "Covers", tick("covers", "Covers off in their order; bolts counted and sorted by length"));
        firstLook();
        if (card.opensDrive) {
            card.allMarksIn("B10", "Turn the running way until all marks are true");
            card.phase("B12", "Hold cams and pump", card.camsHeld());
            if (friction) {
                crankBolt();
            }
            releaseAndOff();
        } else {
            card.phase(
                    "B13",
                    "Release",
                    tick("release", release() + "; the belt held on its wheels")
                            .caution("A compressed tensioner can hit: keep fingers out of its way."));
        }
        card.compare("B16");
        sealsAndPump();
        idlersAndTensioner();
        if (card.opensDrive) {
            layOn();
            seatAndTension();
            crankBeforeTurns();
            card.turnTwice("B22");
        } else {
            List<Step> set = new ArrayList<>(List.of(card.tensionerSet()));
            set.addAll(card.beforeTurns(Stage.CRANK_BEFORE_TURNS));
            set.add(card.turnover("Two turns by hand: tensioner follows, nothing touches"));
            card.tensionAfterTurns().ifPresent(set::add);
            card.phase("B20", "Tension", set);
        }
        card.finalTorques("B23");
        card.closeUp("B24", "B25");
        card.startAndRecord("B26", "B27");
    }

    private void crankBolt() {
        if (!card.opens(Stage.FINAL) && !card.opens(Stage.CRANK_BEFORE_TURNS)) {
            return;
        }
        String hold = card.family.crankFit() == CrankFit.KEYED
                ? "Hold, break loose, pull the pulley"
                : "Engine locked and timed; now undo the crank bolt, pull the pulley";
        card.phase(
                "B6",
                "Crank bolt and pulley",
                tick("crankoff", hold).caution("Never with the starter; a timing pin never takes the bolt's torque."),
                Step.of(
                        "pulley",
                        "Pulley rubber and keyway",
                        new Task.Inspect(
                                List.of("good", "rubber cracked", "ring loose", "keyway worn"),
                                Map.of(
                                        "rubber cracked",
                                        EvidenceKind.DAMPER_CRACKED,
                                        "ring loose",
                                        EvidenceKind.DAMPER_LOOSE),
                                Set.of())));
    }

    private void firstLook() {
        card.phase("B9", "First look", look(Map.of()));
    }

    /**
     * What is looked at once the covers are off.
     *
     * @param beside what else can be seen on this engine
     */
    static Step look(Map<String, EvidenceKind> beside) {
        Map<String, EvidenceKind> says = new LinkedHashMap<>();
        says.put("cracks or glazing", EvidenceKind.CRACKS);
        says.put("frayed edge", EvidenceKind.FRAYED_EDGE);
        says.put("oil from the top", EvidenceKind.OIL_TOP);
        says.put("oil at the bottom", EvidenceKind.OIL_BOTTOM);
        says.put("coolant track", EvidenceKind.COOLANT_TRACE);
        says.put("pointer out or weeping", EvidenceKind.TENSIONER_OUT);
        says.putAll(beside);
        says.put("belt off or teeth missing", EvidenceKind.BELT_FAILED);
        return firstLook("Belt, oil, coolant tracks, dust, tensioner", says);
    }

    static Step firstLook(String title, Map<String, EvidenceKind> says) {
        List<String> results =
                Stream.concat(Stream.of("as expected"), says.keySet().stream()).toList();
        return Step.of("look", title, new Task.Inspect(results, says, Set.of()))
                .notes(List.of("A photo helps the owner decide."));
    }

    private String release() {
        return switch (card.family.tensioner()) {
            case SPRING_PIN -> "Swing the tensioner back against its spring and pin it";
            case HYDRAULIC_PIN -> "Compress the plunger slowly, pin it, check it is fully back";
            case ECCENTRIC_POINTER -> "Slacken the eccentric and swing it back";
            case TORQUE_TOOL, TEETH_ON, TWIST, FREQUENCY -> "Slacken the tensioner and swing it back";
            case CHAIN_RATCHET -> "Press the ratchet back and pin it";
        };
    }

    private void releaseAndOff() {
        String off = TimingGeometry.layingOn(card.family.path().orElseThrow()).stream()
                .reduce((a, b) -> b)
                .map(p -> lower(p.name()))
                .orElseThrow();
        List<Step> steps = new ArrayList<>();
        steps.add(tick("release", release()).caution("A compressed tensioner can hit: keep fingers out of its way."));
        steps.add(tick("beltoff", "Belt off, %s first; crank and cams stay".formatted(off))
                .notes(
                        card.renewsDrive()
                                ? List.of("Where the tensioner will not come back the belt may be cut.")
                                : List.of("It goes back: mark its running direction.")));
        steps.add(tick("strip", "Strip what is renewed; small washers and spacers onto the list")
                .caution("Never lever on crank trigger teeth."));
        card.phase("B13", "Release, belt off, strip", steps);
    }

    private void sealsAndPump() {
        List<Step> steps = new ArrayList<>();
        for (Item item :
                card.fitted(ItemKind.CAM_SEAL, ItemKind.CRANK_SEAL, ItemKind.WATER_PUMP, ItemKind.THERMOSTAT)) {
            boolean seal = item.kind() == ItemKind.CAM_SEAL || item.kind() == ItemKind.CRANK_SEAL;
            steps.add(tick("fit-" + item.code(), "Fit: " + lower(item.name()))
                    .notes(List.of(
                            seal
                                    ? "Seal the right way, lip not rolled."
                                    : "O-ring seated; bolts by hand first, crosswise."))
                    .serving(item.code()));
        }
        steps.addAll(card.torques(Stage.PUMP_AND_SEALS));
        card.phase("B17", "Seals and pump", steps);
    }

    private void idlersAndTensioner() {
        List<Step> steps = new ArrayList<>();
        for (Item item : card.fitted(ItemKind.IDLER, ItemKind.TENSIONER)) {
            steps.add(tick("fit-" + item.code(), "Fit: " + lower(item.name()))
                    .notes(List.of("Threads by hand: any resistance, back out. Tab in its recess, right face out."))
                    .serving(item.code()));
        }
        if (!card.family.moveOver().isEmpty() && card.opensDrive) {
            steps.add(Step.of(
                            "moveover",
                            "Small parts moved over from the old",
                            new Task.Check(card.family.moveOver(), "moved over", "not there yet"))
                    .caution("A missing washer or spacer shows up as a belt that runs off.")
                    .gate(GateKind.MOVED_OVER));
        }
        steps.addAll(card.torques(Stage.IDLERS_AND_TENSIONER));
        card.phase("B18", "Idlers, tensioner", steps);
    }

    private void layOn() {
        List<Step> steps = new ArrayList<>();
        steps.add(
                Step.of("marksagain", "Marks true again before the belt goes on", new Task.TrueMarks(card.references()))
                        .proving());
        steps.add(tick("belton", "Belt on in order: " + layingOrder())
                .notes(Stream.concat(
                                card.handling().slackStrategy().stream(),
                                Stream.of(
                                        card.handling().printedMarks()
                                                ? "Printed marks on the belt: count between them."
                                                : "Clips or ties hold the teeth.",
                                        "Does not reach? Half a tooth at the crank is enough: "
                                                + (card.handling()
                                                                .turningBackDegrees()
                                                                .isPresent()
                                                        ? "back a little, engage, bring forward."
                                                        : "refit; this engine is never turned back.")))
                        .toList())
                .proving());
        if (card.reference == ReferenceMethod.PAINT) {
            steps.add(Step.of(
                            "runs",
                            "Teeth on each run, old belt against new",
                            new Task.Runs(
                                    TimingGeometry.toothedRuns(
                                            card.family.path().orElseThrow()),
                                    card.family.path().orElseThrow().teeth()))
                    .proving());
        }
        steps.add(confirm(
                        "slack",
                        "Every tooth felt seated, all slack at the tensioner, none on the tight run",
                        GateKind.SLACK_AT_TENSIONER)
                .caution("Half a tooth out at the crank is enough to bend valves.")
                .proving());
        card.phase("B19", "Lay the belt on", steps);
    }

    private String layingOrder() {
        return String.join(
                ", ",
                TimingGeometry.layingOn(card.family.path().orElseThrow()).stream()
                        .map(p -> p.role() == Pulley.Role.CRANK ? "crank" : lower(p.name()))
                        .toList());
    }

    private void seatAndTension() {
        if (card.family.pinOutBeforeTurns() || !card.family.tensioner().hasPin()) {
            card.phase("B20", "Tension", card.tensionerSet().proving());
        }
    }

    private void crankBeforeTurns() {
        List<Step> steps = new ArrayList<>();
        List<String> oneTime = card.oneTimeOf(Stage.CRANK_BEFORE_TURNS);
        if (card.scope.attempt() > 1 && !oneTime.isEmpty()) {
            steps.add(Step.of(
                            "newagain",
                            "Undone once more: another new one",
                            new Task.Check(oneTime, "new", "old one goes back"))
                    .caution("Stretched bolts break later, under load.")
                    .gate(GateKind.ONE_TIME_AGAIN)
                    .proving());
        }
        card.torques(Stage.CRANK_BEFORE_TURNS).forEach(s -> {
            List<String> notes = new ArrayList<>(s.notes());
            notes.add("Prove the crank against its pin once more before the final angle.");
            steps.add(s.notes(notes));
        });
        card.phase("B21", "Crank bolt before the turns", steps);
    }
}
