package knollfield.core.engine.work;

/**
 * One thing done once. Verb, thing, stage and round are its identity on every card, never its position.
 *
 * @param thing code of what it is done to
 * @param stage how far a joint is done up, 1 or more; 0 for every other verb
 * @param round 1 for the first time, one more for each time it is done again
 */
public record Operation(Verb verb, String thing, int stage, int round) {

    public Operation {
        if ((verb == Verb.TIGHTEN) != (stage > 0) || round < 1) {
            throw new IllegalArgumentException(
                    "there is no operation %s:%s, stage %d, round %d".formatted(verb.sign(), thing, stage, round));
        }
    }

    /** Done for the first time; not for tightening. */
    public static Operation of(Verb verb, String thing) {
        return new Operation(verb, thing, 0, 1);
    }

    public static Operation of(Verb verb, String thing, int round) {
        return new Operation(verb, thing, 0, round);
    }

    public static Operation tighten(String joint, int stage) {
        return new Operation(Verb.TIGHTEN, joint, stage, 1);
    }

    /** Written out, such as {@code tighten:crank:2} or {@code prove:cam-mark}. */
    public String code() {
        return verb.sign() + ":" + thing + (stage > 0 ? ":" + stage : "") + (round > 1 ? ":" + round : "");
    }

    public boolean is(Verb v, String t) {
        return verb == v && thing.equals(t);
    }

    @Override
    public String toString() {
        return code();
    }
}
