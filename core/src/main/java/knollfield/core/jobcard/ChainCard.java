package knollfield.core.jobcard;

import static knollfield.core.jobcard.CardSteps.confirm;
import static knollfield.core.jobcard.CardSteps.lower;
import static knollfield.core.jobcard.CardSteps.tick;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.Handling;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Joint.Stage;

/** Chain jobs, in working order (procedure.md, C0 to C13). */
final class ChainCard {

    private final CardSteps card;

    ChainCard(CardSteps card) {
        this.card = card;
    }

    void write() {
        card.identify("C0");
        card.partsInHand(
                "C1",
                List.of(tick("kit", "New tensioner still reset, its pin in place; guide recess against bolt length")
                        .notes(List.of("Left and right tensioners differ."))));
        card.phase(
                "C2",
                "Make safe, open",
                card.battery(),
                card.raise(),
                confirm("cloth", "Opening covered with clean cloth, magnet ready", GateKind.OPENING_COVERED)
                        .caution("A piece in the sump costs about a day."));
        if (card.opensDrive) {
            whole();
        } else {
            tensionerOnly();
        }
        card.finalTorques("C12");
        if (card.opensDrive && card.opens(Stage.FINAL)) {
            card.phase(
                    "C12m",
                    "Marks after torquing",
                    Step.of("marksfinal", "Marks looked at again after torquing", new Task.TrueMarks(card.references()))
                            .proving());
        }
        card.closeUp("C13", "C13v");
        card.startAndRecord("C14", "C15");
    }

    private void whole() {
        card.allMarksIn("C3", "Crank to its key position; cam lobes free, marks true");
        card.phase(
                "C4",
                "Hold the cams",
                confirm("clamps", "Clamps closed evenly; nothing rocks", GateKind.CAMS_HELD)
                        .caution("Clamps hold the cams, never the torque of a bolt."));
        card.phase(
                "C5",
                "Tensioner, guides, chain off",
                Step.of(
                                "guides",
                                "Guides and arm: lift, look for cracks and missing pieces",
                                new Task.Inspect(
                                        List.of(
                                                "whole",
                                                "worn",
                                                "broken, all pieces found",
                                                "broken, sump and strainer looked at",
                                                "broken, pieces missing"),
                                        Map.of(
                                                "broken, all pieces found", EvidenceKind.GUIDE_BROKEN,
                                                "broken, sump and strainer looked at", EvidenceKind.GUIDE_BROKEN,
                                                "broken, pieces missing", EvidenceKind.GUIDE_BROKEN),
                                        Set.of("broken, pieces missing")))
                        .notes(List.of("A guide that lifts out without its upper bolt is broken."))
                        .gate(GateKind.PIECES_FOUND),
                tick("chainoff", "Tensioner, arm and chain off")
                        .caution("Magnet ready before the tensioner comes out."));
        card.handling().otherBank().ifPresent(b -> bank("C6", b, b.onDegrees(), "otherbank", "%s: chain off"));
        card.compare("C7");
        List<Step> fit = new ArrayList<>(card.beforeTurns(Stage.PUMP_AND_SEALS));
        for (Item item : card.fitted(ItemKind.GUIDE)) {
            fit.add(tick("fit-" + item.code(), "Fit: " + lower(item.name()))
                    .notes(List.of(
                            card.handling().guideBolts() == Handling.BoltsFinal.AT_ONCE
                                    ? "Guide bolts final at once; threads clean, dry, locked."
                                    : "Guide bolts final when all sits; threads clean, dry, locked."))
                    .serving(item.code()));
        }
        fit.add(tick("chainon", "Chain on: marked links on their marks, links counted between them")
                .notes(List.of("Inner chain before outer."))
                .proving());
        fit.addAll(card.torques(Stage.IDLERS_AND_TENSIONER));
        card.phase("C8", "Fit", fit);
        card.phase("C10", "Arm the tensioner", arm().proving());
        card.handling()
                .otherBank()
                .ifPresent(b -> bank("C9", b, b.closingDegrees(), "bankon", "%s: chain on, tensioner armed"));
        card.phase("C10t", "Bolts before the turns", card.beforeTurns(Stage.CRANK_BEFORE_TURNS));
        card.turnTwice("C11");
    }

    private Step arm() {
        return confirm("arm", "Let the tensioner go: click heard, no slack left", GateKind.TENSIONER_SET)
                .caution("A compressed tensioner jumps: point it away.")
                .notes(List.of("Torque first, slack on the tensioner's side, then pin, press about 3 mm, or tap."));
    }

    /** The crank goes on to the other bank's position, and its marks are looked at there. */
    private void bank(String code, Handling.OtherBank bank, int degrees, String step, String work) {
        card.phase(
                code,
                "Other bank",
                Step.of(
                                step,
                                "Crank on by %d°, slowly: marks of the %s".formatted(degrees, lower(bank.name())),
                                new Task.TrueMarks(List.of("crank", "cams of the " + lower(bank.name()))))
                        .caution("Stop at resistance.")
                        .notes(List.of("Will not line up: ease the clamps, rock the cam with a wrench."))
                        .gate(GateKind.OTHER_BANK),
                tick(step + "work", work.formatted(bank.name())));
    }

    private void tensionerOnly() {
        card.phase(
                "C5",
                "Tensioner out",
                tick("tensout", "Old tensioner out slowly; the arm kept against the chain")
                        .caution("Nothing turns while the tensioner is out."));
        card.compare("C7");
        List<Step> fit = new ArrayList<>();
        fit.addAll(card.beforeTurns(Stage.PUMP_AND_SEALS));
        for (Item item : card.fitted(ItemKind.TENSIONER, ItemKind.GUIDE)) {
            fit.add(tick("fit-" + item.code(), "Fit: " + lower(item.name())).serving(item.code()));
        }
        fit.addAll(card.torques(Stage.IDLERS_AND_TENSIONER));
        card.phase("C8", "Fit", fit);
        card.phase("C10", "Arm the tensioner", arm());
        card.phase("C10t", "Bolts before the turns", card.beforeTurns(Stage.CRANK_BEFORE_TURNS));
        card.phase("C11", "Turn over", card.turnover("Turned over by hand: no slack, nothing touches"));
    }
}
