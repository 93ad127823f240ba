package knollfield.core.jobcard;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.Families;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Handling;
import knollfield.core.engine.Handling.Acceptance;
import knollfield.core.engine.Handling.Quantity;
import knollfield.core.engine.Interference;
import knollfield.core.engine.ReferenceMethod;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.Variant;
import knollfield.core.units.Torque;

/** Engine families whose cards have every kind of step. */
final class Books {

    static final Set<String> USUAL = Set.of("belt", "tensioner", "pump", "coolant");

    private static final Optional<TorqueSpec> CRANK =
            Optional.of(new TorqueSpec(new Torque(130), OptionalInt.of(90), "the test's own book"));

    private Books() {}

    static Handling handling(Optional<Acceptance> acceptance, List<Handling.Clearance> clearances) {
        return new Handling(
                OptionalInt.of(10),
                "a quarter turn before the top",
                List.of("the arrow on the cover"),
                Handling.Cams.SPRING,
                Optional.of("a wrench on the hexagon"),
                Handling.CamSprockets.KEYED,
                Handling.PumpTiming.NO_TIMED_PUMP,
                "as seated",
                Optional.empty(),
                Handling.BoltsFinal.AFTER_THE_TURNS,
                Handling.BoltsFinal.AT_ONCE,
                Optional.empty(),
                true,
                "turn it until the pointer stands",
                "pointer in its window",
                0,
                acceptance,
                Optional.empty(),
                clearances);
    }

    /** Friction-held crank, eccentric tensioner with a pointer from 0 to 5 mm past centre. */
    static EngineFamily friction() {
        return family(
                TensionerKind.ECCENTRIC_POINTER,
                CrankFit.FRICTION_HELD,
                ReferenceMethod.PINS,
                Optional.of(new Acceptance(Quantity.POINTER_MM, 0, 5, Optional.empty())),
                CRANK);
    }

    static EngineFamily family(
            TensionerKind kind,
            CrankFit fit,
            ReferenceMethod reference,
            Optional<Acceptance> acceptance,
            Optional<TorqueSpec> crank) {
        return Families.belt(
                kind, true, fit, Interference.YES, reference, handling(acceptance, List.of()), List.of(), crank);
    }

    static EngineFamily marks(TensionerKind kind) {
        return family(kind, CrankFit.KEYED, ReferenceMethod.MARKS, Optional.empty(), CRANK);
    }

    static EngineFamily torqueNotOnFile() {
        return family(
                TensionerKind.SPRING_PIN, CrankFit.KEYED, ReferenceMethod.MARKS, Optional.empty(), Optional.empty());
    }

    /** The crank bolt comes in two sizes. */
    static EngineFamily withVariant() {
        return Families.belt(
                TensionerKind.SPRING_PIN,
                true,
                CrankFit.KEYED,
                Interference.YES,
                ReferenceMethod.PINS,
                handling(Optional.empty(), List.of(new Handling.Clearance("Inlet valves", 0.152, 0.178))),
                List.of(new Variant(
                        "bolt",
                        "Crank bolt",
                        "Measure the head.",
                        List.of(
                                new Variant.Choice("small", "17 mm head", Map.of("crank", spec(40)), Map.of()),
                                new Variant.Choice("large", "19 mm head", Map.of("crank", spec(60)), Map.of())))),
                CRANK);
    }

    private static TorqueSpec spec(double newtonMetres) {
        return new TorqueSpec(new Torque(newtonMetres), OptionalInt.of(90), "the test's own book");
    }

    /** A chain on each of two banks. */
    static EngineFamily twoBanks() {
        Handling h = handling(Optional.empty(), List.of());
        return Families.chain(
                new Handling(
                        h.turningBackDegrees(),
                        h.safePosition(),
                        h.unreliableMarks(),
                        h.cams(),
                        h.camsHeldBy(),
                        h.camSprockets(),
                        h.pumpTiming(),
                        h.leftMeans(),
                        h.slackStrategy(),
                        h.sprocketBolts(),
                        h.guideBolts(),
                        h.lastWheel(),
                        false,
                        h.tensionerSetting(),
                        h.tensionerWindow(),
                        5,
                        Optional.empty(),
                        Optional.of(new Handling.OtherBank("Right bank", 600, 120)),
                        List.of()),
                "front");
    }

    /** The card of a first job with nothing settled yet. */
    static CardPlan card(EngineFamily family, Set<String> items) {
        return listed(new CardBasis(family, Set.of(), Set.of(), CardScope.of(items)));
    }

    /** The listed card with every variant settled, as cards begun before were laid. */
    static CardPlan listed(EngineFamily family, Set<String> equipment, Set<String> items) {
        Set<String> all = family.variants().stream().map(Variant::code).collect(Collectors.toSet());
        return listed(new CardBasis(family, equipment, all, CardScope.of(items)));
    }

    static CardPlan listed(CardBasis basis) {
        return CardGenerator.laid(basis, CardPlan.Layout.LISTED, Progress.none());
    }

    /** A card with every gate there is on belt jobs. */
    static CardPlan everyBeltGate() {
        return card(
                Families.belt(
                        TensionerKind.ECCENTRIC_POINTER,
                        true,
                        CrankFit.FRICTION_HELD,
                        Interference.YES,
                        ReferenceMethod.PINS,
                        handling(Optional.of(new Acceptance(Quantity.POINTER_MM, 0, 5, Optional.empty())), List.of()),
                        withVariant().variants(),
                        CRANK),
                USUAL);
    }
}
