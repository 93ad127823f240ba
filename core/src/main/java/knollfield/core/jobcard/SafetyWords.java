package knollfield.core.jobcard;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.core.engine.Drive;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;

/**
 * Short words of safety that belong to what hands do in a step, from what the book says of the parts.
 *
 * <p>Common practice, no source. The manufacturer's instructions, local codes and licensed practice come before them, as the
 * card says when the work begins.
 */
final class SafetyWords {

    static final String FIRST = "The manufacturer's instructions, local codes and licensed practice come first.";
    static final String RAISED = "Fingers, hoses and hands clear while the engine goes up or down.";
    static final String FLIES = "An old hydraulic tensioner may fly: hold it, eyes covered.";
    static final String REFRIGERANT = "Refrigerant stays closed; pipes and harness are not strained.";
    static final String HIGH_PRESSURE = "High-pressure fuel lines stay closed; never feel for a leak.";
    static final String LONG_BAR = "A long bar slips: stand firm, pull, keep the other hand clear.";
    static final String HAND_TOOLS = "No impact tool on guides or tensioners.";
    static final String BLOWING_OUT = "Eyes covered when faces and threads are blown out.";
    static final String COUNTED_OUT = "Cut ties and cloth counted out before it closes.";
    static final String NO_OIL_YET = "No oil pressure yet: slowly, the chain still has slack.";
    static final String HOT = "Hot engine: wait; never open a hot system.";
    static final String TWO_HOLD = "Two things to hold at once: fetch a helper.";

    /** From this torque on, N·m, people reach for a long bar. */
    private static final double LONG_BAR_NM = 100;

    private final Anatomy book;

    SafetyWords(Anatomy book) {
        this.book = book;
    }

    /** What belongs to doing {@code operations}, each sentence once. */
    List<String> of(List<Operation> operations) {
        Set<String> all = new LinkedHashSet<>();
        operations.forEach(o -> of(o, all));
        return List.copyOf(all);
    }

    private void of(Operation o, Set<String> all) {
        switch (o.verb()) {
            case SAFE -> all.add(FIRST);
            case DRAIN -> all.add(HOT);
            case SET_IN, OUT -> {
                if (book.hardware(o.thing())
                        .filter(h -> h.kind() == Hardware.Kind.SUPPORT)
                        .isPresent()) {
                    all.add(RAISED);
                }
            }
            case UNDO, TIGHTEN -> book.joint(o.thing()).ifPresent(j -> joint(j, o, all));
            case TAKE_OFF -> book.assembly(o.thing()).ifPresent(a -> off(a, all));
            case FIT -> book.assembly(o.thing()).ifPresent(a -> on(a, all));
            case TURN -> {
                if (firstTurnWithoutOil()) {
                    all.add(NO_OIL_YET);
                }
            }
            default -> {}
        }
    }

    private void joint(Joint j, Operation o, Set<String> all) {
        boolean strong = j.stages().stream()
                .anyMatch(s ->
                        s.torque().filter(t -> t.newtonMetres() >= LONG_BAR_NM).isPresent());
        if (strong) {
            all.add(LONG_BAR);
        }
        boolean held = j.heldBy() == Joint.HeldBy.COUNTER_HOLDER || j.heldBy() == Joint.HeldBy.HEXAGON;
        if (held || (strong && j.heldBy() == Joint.HeldBy.BAR_IN_PULLEY)) {
            all.add(TWO_HOLD);
        }
        if (o.verb() == Verb.TIGHTEN && j.holds().stream().anyMatch(this::isGuideOrTensioner)) {
            all.add(HAND_TOOLS);
        }
    }

    private boolean isGuideOrTensioner(String part) {
        return book.assembly(part)
                .map(Assembly::kind)
                .filter(k -> k == Assembly.Kind.TENSIONER || k == Assembly.Kind.GUIDE || k == Assembly.Kind.ARM)
                .isPresent();
    }

    private void off(Assembly a, Set<String> all) {
        if (a.kind() == Assembly.Kind.TENSIONER && isHydraulic(a.code())) {
            all.add(FLIES);
        }
        boolean moves = a.kind() == Assembly.Kind.MOUNT
                || a.kind() == Assembly.Kind.ACCESSORY
                || a.kind() == Assembly.Kind.BRACKET;
        if (moves) {
            all.add(REFRIGERANT);
        }
        boolean highPressure = book.build().shafts().stream().anyMatch(s -> s.role() == Shaft.Role.INJECTION_PUMP);
        if (highPressure && (a.kind() == Assembly.Kind.COVER || a.kind() == Assembly.Kind.FRONT_COVER)) {
            all.add(HIGH_PRESSURE);
        }
    }

    private boolean isHydraulic(String part) {
        return tensioners()
                .filter(t -> t.part().equals(part))
                .anyMatch(t -> t.kind() == TensionerKind.HYDRAULIC_PIN || t.kind() == TensionerKind.CHAIN_RATCHET);
    }

    private Stream<Loop.Tensioner> tensioners() {
        return book.loops().stream().flatMap(l -> l.tensioner().stream());
    }

    private void on(Assembly a, Set<String> all) {
        if (a.kind() == Assembly.Kind.SEAL || a.kind() == Assembly.Kind.PUMP) {
            all.add(BLOWING_OUT);
        }
        if (closes().contains(a.code())) {
            all.add(COUNTED_OUT);
        }
    }

    private Set<String> closes() {
        return book.openings().stream().map(w -> w.openedBy()).collect(Collectors.toSet());
    }

    private boolean firstTurnWithoutOil() {
        return book.loops().stream()
                .anyMatch(l -> l.kind() == Drive.CHAIN
                        && l.tensioner().filter(t -> isHydraulic(t.part())).isPresent());
    }
}
