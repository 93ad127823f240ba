package knollfield.core.due;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.core.engine.ItemKind;

/**
 * What can be found, what it does to the due date and what it asks for besides (rules.md section 3; trade practice).
 */
public enum EvidenceKind {
    BELT_FAILED(
            "belt off, teeth missing, cord showing, chain jumped",
            Effect.STOP,
            1,
            "Never crank it. Look inside with a borescope, or leak-down turned by hand; compression only once retimed. "
                    + "A diagnosis estimate is always allowed."),
    GUIDE_BROKEN(
            "guide broken or fractured",
            Effect.STOP,
            1,
            "Whole chain set, and search for the pieces.",
            ItemKind.TENSIONER,
            ItemKind.GUIDE),
    CRACKS("cracks across the ribs or glazing", Effect.ACT_NOW, 3, ""),
    FRAYED_EDGE(
            "frayed edge",
            Effect.ACT_NOW,
            3,
            "Look at tensioner and idler alignment.",
            ItemKind.TENSIONER,
            ItemKind.IDLER),
    OIL_TOP(
            "oil on the belt, wet from the top",
            Effect.ACT_NOW,
            4,
            "Cam seals and cover gasket.",
            ItemKind.CAM_SEAL,
            ItemKind.GASKET),
    OIL_BOTTOM("oil on the belt, wet at the bottom only", Effect.ACT_NOW, 4, "Crank seal.", ItemKind.CRANK_SEAL),
    COOLANT_TRACE(
            "coolant trace at the pump",
            Effect.ACT_NOW,
            3,
            "Water pump and coolant.",
            ItemKind.WATER_PUMP,
            ItemKind.COOLANT),
    WHINE("whine after a belt job", Effect.ACT_NOW, 1, "Too tight: re-tension before further use."),
    SLAP(
            "slap or flutter under the cover",
            Effect.ACT_NOW,
            1,
            "Too loose: check the tension and the tensioner.",
            ItemKind.TENSIONER),
    BEARING_RUMBLE("bearing rumble", Effect.ACT_NOW, 3, "Tensioner and idlers.", ItemKind.TENSIONER, ItemKind.IDLER),
    TENSIONER_OUT(
            "tensioner weeping or pointer outside its window",
            Effect.ACT_NOW,
            3,
            "Tensioner and idlers.",
            ItemKind.TENSIONER,
            ItemKind.IDLER),
    /** Noted before the two above were told apart, and on cards of that time: nobody knows which, so the shorter delay. */
    BEARING(
            "bearing rumble, tensioner weeping or pointer outside its window",
            Effect.ACT_NOW,
            3,
            "Tensioner and idlers.",
            ItemKind.TENSIONER,
            ItemKind.IDLER),
    SWOLLEN(
            "belt in oil swollen over the gauge, debris in the strainer or low oil pressure",
            Effect.ACT_NOW,
            4,
            "Clean the strainer and check the oil pump."),
    CHAIN_RATTLE(
            "chain rattle at cold start",
            Effect.SOON,
            1,
            "Chain tensioner and guides.",
            ItemKind.TENSIONER,
            ItemKind.GUIDE),
    CORRELATION_CODE(
            "cam and crank correlation code (P0016 to P0019)",
            Effect.ACT_NOW_WHERE_TIMING_HURTS,
            1,
            "Marks, phaser and its oil; on a chain measure the slack and look for broken guides."),
    DAMPER_LOOSE("damper ring loose", Effect.ACT_NOW, 1, "Renew the damper.", ItemKind.DAMPER),
    DAMPER_CRACKED("damper rubber cracked", Effect.ADD_THE_PART, 1, "Damper.", ItemKind.DAMPER),
    MOUNT_TORN("engine mount torn", Effect.ADD_THE_PART, 1, "Engine mount.", ItemKind.ENGINE_MOUNT),
    ACCESSORY_TENSIONER_WORN(
            "accessory belt tensioner worn or noisy",
            Effect.ADD_THE_PART,
            1,
            "Accessory tensioner and its belt.",
            ItemKind.ACCESSORY_TENSIONER),
    PIPE_BRITTLE(
            "coolant pipe or hose brittle",
            Effect.ADD_THE_PART,
            1,
            "Renew it while the coolant is out.",
            ItemKind.COOLANT_PIPE),
    OUT_OF_TIME(
            "references were not true as found",
            Effect.ACT_NOW,
            1,
            "Timing from scratch, and find out why it moved.",
            ItemKind.TIMING_BELT,
            ItemKind.TIMING_CHAIN,
            ItemKind.TENSIONER),
    CLEARANCE_OUT("valve clearance outside its limits", Effect.NONE, 1, "Set it."),
    INSPECTED_GOOD("inspected and good", Effect.NONE, 1, "");

    /** What a finding does to the due date. */
    public enum Effect {
        STOP,
        ACT_NOW,
        /** On chains, and where a tooth out lets valves and pistons meet. */
        ACT_NOW_WHERE_TIMING_HURTS,
        /** Within the policy's days and km of a rattle. */
        SOON,
        /** Its part goes into the job; the date stays. */
        ADD_THE_PART,
        NONE
    }

    private final String words;
    private final Effect effect;
    private final int hazardFactor;
    private final String advice;
    private final Set<ItemKind> asksFor;

    EvidenceKind(String words, Effect effect, int hazardFactor, String advice, ItemKind... asksFor) {
        this.words = words;
        this.effect = effect;
        this.hazardFactor = hazardFactor;
        this.advice = advice;
        Set<ItemKind> kinds = EnumSet.noneOf(ItemKind.class);
        kinds.addAll(List.of(asksFor));
        this.asksFor = Set.copyOf(kinds);
    }

    public String words() {
        return words;
    }

    /** What can still be noted; the rest is only read. */
    public static List<EvidenceKind> offered() {
        return Arrays.stream(values()).filter(k -> k != BEARING).toList();
    }

    public Effect effect() {
        return effect;
    }

    /** Multiplies the growth of hazard from the day it was found on; 1 to 4. */
    public int hazardFactor() {
        return hazardFactor;
    }

    /** What else to do about it, as a sentence; may be empty. */
    public String advice() {
        return advice;
    }

    /** Renewable items it asks for beside the belt or chain. */
    public Set<ItemKind> asksFor() {
        return asksFor;
    }

    /**
     * A new belt alone does not end it: something else put it there, or it is another part that is worn. Its cause is what it
     * asks for (rules.md section 3).
     */
    public boolean hasACauseOfItsOwn() {
        return switch (this) {
            case OIL_TOP,
                    OIL_BOTTOM,
                    COOLANT_TRACE,
                    DAMPER_LOOSE,
                    DAMPER_CRACKED,
                    MOUNT_TORN,
                    ACCESSORY_TENSIONER_WORN,
                    PIPE_BRITTLE,
                    OUT_OF_TIME,
                    CLEARANCE_OUT -> true;
            case BELT_FAILED,
                    GUIDE_BROKEN,
                    CRACKS,
                    FRAYED_EDGE,
                    WHINE,
                    SLAP,
                    BEARING_RUMBLE,
                    TENSIONER_OUT,
                    BEARING,
                    SWOLLEN,
                    CHAIN_RATTLE,
                    CORRELATION_CODE,
                    INSPECTED_GOOD -> false;
        };
    }

    /** How long it still holds from the day it was found; empty where nothing is assumed. */
    public Optional<DelayTime> delay() {
        return switch (this) {
            case FRAYED_EDGE, BEARING_RUMBLE, BEARING -> Optional.of(DelayTime.FRAYED_OR_RUMBLING);
            case OIL_TOP, OIL_BOTTOM, COOLANT_TRACE, SWOLLEN, TENSIONER_OUT -> Optional.of(DelayTime.SOAKED);
            case CRACKS -> Optional.of(DelayTime.CRACKED);
            case CHAIN_RATTLE -> Optional.of(DelayTime.RATTLING);
            case BELT_FAILED,
                    GUIDE_BROKEN,
                    WHINE,
                    SLAP,
                    CORRELATION_CODE,
                    DAMPER_LOOSE,
                    DAMPER_CRACKED,
                    MOUNT_TORN,
                    ACCESSORY_TENSIONER_WORN,
                    PIPE_BRITTLE,
                    OUT_OF_TIME,
                    CLEARANCE_OUT,
                    INSPECTED_GOOD -> Optional.empty();
        };
    }

    /** Kinds of item whose wear it speeds up; empty: the belt or chain itself, whichever it is. */
    public Set<ItemKind> wears() {
        return switch (this) {
            case CRACKS, FRAYED_EDGE, OIL_TOP, OIL_BOTTOM, SWOLLEN -> Set.of(ItemKind.TIMING_BELT);
            case CHAIN_RATTLE -> Set.of(ItemKind.TIMING_CHAIN);
            case COOLANT_TRACE -> Set.of(ItemKind.WATER_PUMP);
            case BEARING_RUMBLE, TENSIONER_OUT, BEARING -> Set.of(ItemKind.TENSIONER, ItemKind.IDLER);
            default -> Set.of();
        };
    }
}
