package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.grow.GrownBuild;

/**
 * The card of an inspection: a drive is listened to and looked at, nothing is opened, and somebody decides what follows.
 * Which looks there are follows from the drive; the slack is judged by the book's figure, where it has one.
 *
 * <p>Common practice, no source: noise cold and warm, codes, slack, guides by borescope, what is wet and how high, the belt
 * through its window.
 */
final class InspectionCard {

    /** Code of the step at which is decided what follows. */
    static final String END = "end";

    /** Starts the codes of the steps that measure slack. */
    static final String SLACK = "slack-";

    private static final String NOT_SEEN = "cannot be seen without opening";
    private static final String MOVING = "Engine runs: hands, hair and sleeves away from belts and fan.";
    private static final String STANDS = "Engine off, key out, before anything is put in or held against a belt.";

    private final EngineFamily family;
    private final List<Loop> loops;

    private InspectionCard(EngineFamily family) {
        this.family = GrownBuild.grown(family);
        this.loops = this.family.build().map(b -> b.loops()).orElse(List.of());
    }

    /** @param minutes of one technician, above zero */
    static CardPlan of(CardBasis basis, int minutes) {
        InspectionCard card = new InspectionCard(basis.family());
        return new CardPlan(basis, card.phases(), minutes, OptionalInt.empty(), CardPlan.Layout.INSPECTION);
    }

    private boolean has(Drive drive) {
        return family.drive() == drive || loops.stream().anyMatch(l -> l.kind() == drive);
    }

    private boolean hasBelt() {
        return has(Drive.BELT) || has(Drive.BELT_IN_OIL);
    }

    private List<Phase> phases() {
        return List.of(
                new Phase("I1", "Read and listen", listen()),
                new Phase("I2", "Look, nothing opened", looks()),
                new Phase("I3", "What follows", List.of(end())));
    }

    private List<Step> listen() {
        Map<String, EvidenceKind> cold = new LinkedHashMap<>();
        Map<String, EvidenceKind> warm = new LinkedHashMap<>();
        if (has(Drive.CHAIN)) {
            cold.put("chain rattle, a second or more", EvidenceKind.CHAIN_RATTLE);
            warm.put("chain rattle that stays", EvidenceKind.CHAIN_RATTLE);
        }
        if (hasBelt()) {
            cold.put("slap or flutter", EvidenceKind.SLAP);
            warm.put("slap or flutter", EvidenceKind.SLAP);
            warm.put("whine that rises with the speed", EvidenceKind.WHINE);
            warm.put("bearing rumble", EvidenceKind.BEARING_RUMBLE);
        }
        return List.of(
                look(
                                "codes",
                                "Fault codes of cam and crank",
                                "none",
                                Map.of("cam and crank do not agree (P0016 to P0019)", EvidenceKind.CORRELATION_CODE))
                        .notes(List.of(SafetyWords.FIRST)),
                look("cold", "First start cold: noise in the first seconds", "quiet", cold)
                        .caution(MOVING)
                        .notes(List.of(
                                "Cold means a night without a start. A chain that has jumped is never started.")),
                look("warm", "Warm, idling and at about 2,000 a minute", "quiet", warm)
                        .caution(MOVING));
    }

    private List<Step> looks() {
        List<Step> steps = new ArrayList<>();
        Map<String, EvidenceKind> wet = new LinkedHashMap<>();
        if (has(Drive.BELT)) {
            wet.put("oil from the top", EvidenceKind.OIL_TOP);
            wet.put("oil at the bottom only", EvidenceKind.OIL_BOTTOM);
        }
        if (family.items().stream().anyMatch(i -> i.kind() == ItemKind.WATER_PUMP)) {
            wet.put("coolant track at the pump", EvidenceKind.COOLANT_TRACE);
        }
        steps.add(unseen("wet", "Oil and coolant: what is wet, and how high", "dry", wet)
                .caution(SafetyWords.HOT)
                .notes(List.of("Oil runs down: the highest wet place is where it comes from.")));
        if (hasBelt()) {
            Map<String, EvidenceKind> belt = new LinkedHashMap<>();
            belt.put("cracks or glazing", EvidenceKind.CRACKS);
            belt.put("frayed edge", EvidenceKind.FRAYED_EDGE);
            if (has(Drive.BELT_IN_OIL)) {
                belt.put("swollen over the gauge", EvidenceKind.SWOLLEN);
            }
            belt.put("teeth missing or cord showing", EvidenceKind.BELT_FAILED);
            steps.add(unseen("window", "Belt through its window, turned by hand", "as new", belt)
                    .caution(STANDS)
                    .notes(List.of("The running way only, a whole turn of the belt.")));
        }
        if (has(Drive.CHAIN)) {
            steps.add(unseen(
                            "guides",
                            "Guides and chain by borescope, through the filler",
                            "whole",
                            Map.of("guide broken or cracked", EvidenceKind.GUIDE_BROKEN))
                    .caution(STANDS)
                    .notes(List.of("Count what is let in and what comes out again.")));
        }
        steps.addAll(slack());
        return steps;
    }

    /** Slack of each chain against the book's figure; where it has none, a look. */
    private List<Step> slack() {
        if (!has(Drive.CHAIN)) {
            return List.of();
        }
        List<Step> measured = family.build().stream()
                .flatMap(b -> b.looks().stream())
                .filter(l -> l.kind() == Look.Kind.WINDOW && l.hasFigure())
                .filter(l -> l.loop()
                        .filter(code -> loops.stream().anyMatch(x -> x.code().equals(code) && x.kind() == Drive.CHAIN))
                        .isPresent())
                .map(this::measured)
                .toList();
        return measured.isEmpty()
                ? List.of(unseen(
                                SLACK + "felt",
                                "Chain slack, felt or seen",
                                "no slack",
                                Map.of("chain slack", EvidenceKind.CHAIN_RATTLE))
                        .notes(List.of("The book has no figure for it.")))
                : measured;
    }

    /** A figure where it can be measured as the engine stands; else whoever looks says how it compares with the figure. */
    private Step measured(Look look) {
        if (look.off().isEmpty()) {
            return Step.of(
                            SLACK + look.code(),
                            look.name(),
                            new Task.Measure(
                                    look.unit(),
                                    look.low().orElse(0.0),
                                    look.high().orElse(Task.Measure.NO_LIMIT),
                                    Optional.empty(),
                                    Task.Measure.Kind.GAP))
                    .caution(STANDS);
        }
        List<String> off = family.build().orElseThrow().assemblies().stream()
                .filter(a -> look.off().contains(a.code()))
                .map(a -> CardSteps.lower(a.name()))
                .toList();
        String figure = Stream.of(
                        look.low().map(l -> "at least " + CardSteps.number(l)),
                        look.high().map(h -> "at most " + CardSteps.number(h)))
                .flatMap(Optional::stream)
                .collect(Collectors.joining(", "));
        return unseen(
                        SLACK + look.code(),
                        "%s, by the book %s %s".formatted(look.name(), figure, look.unit()),
                        "within it",
                        Map.of("outside it", EvidenceKind.CHAIN_RATTLE))
                .caution(STANDS)
                .notes(List.of("The book measures it with %s off; through an opening it is an estimate."
                        .formatted(off.isEmpty() ? "the cover" : String.join(", ", off))));
    }

    private static Step end() {
        return Step.of(
                        END,
                        "What follows from it",
                        new Task.Choose(InspectionEnd.options(), Task.Choose.Changes.ENDING))
                .notes(List.of(
                        "The reason stands on the record. What was found stays on the vehicle until it is put right."));
    }

    private static Step look(String code, String title, String good, Map<String, EvidenceKind> says) {
        return Step.of(code, title, new Task.Inspect(results(good, says), says, Set.of()));
    }

    /** A look that may show nothing because the place is closed. */
    private static Step unseen(String code, String title, String good, Map<String, EvidenceKind> says) {
        List<String> all =
                Stream.concat(results(good, says).stream(), Stream.of(NOT_SEEN)).toList();
        return Step.of(code, title, new Task.Inspect(all, says, Set.of()));
    }

    private static List<String> results(String good, Map<String, EvidenceKind> says) {
        return Stream.concat(Stream.of(good), says.keySet().stream()).toList();
    }
}
