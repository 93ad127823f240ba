package knollfield.core.due;

/** What can be found, and what it does to the due date (rules.md section 3; trade practice). */
public enum EvidenceKind {
    BELT_FAILED("belt off, teeth missing, cord showing, chain jumped", Effect.STOP, 1),
    GUIDE_BROKEN("guide broken or fractured", Effect.STOP, 1),
    CRACKS("cracks across the ribs, glazing or frayed edge", Effect.ACT_NOW, 3),
    OIL_TOP("oil on the belt, wet from the top", Effect.ACT_NOW, 4),
    OIL_BOTTOM("oil on the belt, wet at the bottom only", Effect.ACT_NOW, 4),
    COOLANT_TRACE("coolant trace at the pump", Effect.ACT_NOW, 3),
    WHINE("whine after a belt job", Effect.ACT_NOW, 1),
    SLAP("slap or flutter under the cover", Effect.ACT_NOW, 1),
    BEARING("bearing rumble, tensioner weeping or pointer outside its window", Effect.ACT_NOW, 3),
    SWOLLEN("belt in oil swollen, debris in the strainer or low oil pressure", Effect.ACT_NOW, 4),
    CHAIN_RATTLE("chain rattle at cold start", Effect.WITHIN_30_DAYS, 1),
    CORRELATION_CODE("cam and crank correlation code", Effect.ACT_NOW_ON_CHAIN, 1),
    DAMPER_LOOSE("damper ring loose", Effect.ACT_NOW, 1),
    DAMPER_CRACKED("damper rubber cracked or mount torn", Effect.NONE, 1),
    INSPECTED_GOOD("inspected and good", Effect.NONE, 1);

    /** What a finding does to the due date. */
    public enum Effect {
        STOP,
        ACT_NOW,
        ACT_NOW_ON_CHAIN,
        WITHIN_30_DAYS,
        NONE
    }

    private final String words;
    private final Effect effect;
    private final int hazardFactor;

    EvidenceKind(String words, Effect effect, int hazardFactor) {
        this.words = words;
        this.effect = effect;
        this.hazardFactor = hazardFactor;
    }

    public String words() {
        return words;
    }

    public Effect effect() {
        return effect;
    }

    /** Multiplies the growth of hazard from the day it was found on; 1 to 4. */
    public int hazardFactor() {
        return hazardFactor;
    }
}
