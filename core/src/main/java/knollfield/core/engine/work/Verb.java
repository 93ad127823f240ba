package knollfield.core.engine.work;

import java.util.Arrays;
import java.util.Optional;

/** What is done. */
public enum Verb {
    SAFE("safe", "make safe"),
    RAISE("raise", "raise"),
    DRAIN("drain", "drain"),
    UNDO("undo", "undo"),
    TAKE_OFF("take-off", "take off"),
    SET_IN("set-in", "set in"),
    FIND("find", "find"),
    /** Recorded, not done by hand: the loop is broken, has jumped, or its references do not come true together. */
    LOST("lost", "found out of time"),
    /** Recorded: a stud or bolt of the joint broke off, its stub is in. */
    SHEARED("sheared", "stud or bolt broken off"),
    REPAIR("repair", "get the stub out, thread whole"),
    /** Recorded: the part came off broken, and not all of it was found. */
    MISSING("missing", "a piece missing"),
    SEARCH("search", "look through for pieces"),
    MARK("mark", "mark"),
    RELEASE("release", "let the tension off"),
    LOOP_OFF("loop-off", "loop off"),
    LOOK("look", "look at"),
    COMPARE("compare", "compare"),
    MOVE_OVER("move-over", "move over"),
    FIT("fit", "fit"),
    FOR_NOW("for-now", "put on for now"),
    LAY("lay", "lay"),
    TENSION("tension", "set the tension"),
    TIGHTEN("tighten", "tighten"),
    OUT("out", "out"),
    TURN("turn", "turn"),
    BRING("bring", "bring"),
    BACK("back", "turn back"),
    CREEP("creep", "creep"),
    PROVE("prove", "prove"),
    COVER("cover", "cover"),
    CLOSE("close", "let down, battery on"),
    MEASURE("measure", "measure"),
    FILL("fill", "fill"),
    START("start", "start"),
    CHECK("check", "check"),
    LABEL("label", "label");

    private final String sign;
    private final String words;

    Verb(String sign, String words) {
        this.sign = sign;
        this.words = words;
    }

    /** Found and recorded where it is found; nothing that hands do. */
    public boolean isRecorded() {
        return this == LOST || this == SHEARED || this == MISSING;
    }

    /** As written in an operation's code. */
    public String sign() {
        return sign;
    }

    public String words() {
        return words;
    }

    public static Optional<Verb> of(String sign) {
        return Arrays.stream(values()).filter(v -> v.sign.equals(sign)).findFirst();
    }
}
