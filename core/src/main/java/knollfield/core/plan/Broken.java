package knollfield.core.plan;

import java.util.List;

/**
 * A hard rule that a place would break.
 *
 * @param words the sentence that says so
 * @param inTheWay jobs that stand in the way
 */
public record Broken(Rule rule, String words, List<Long> inTheWay) {

    /** The hard rules; none is ever traded for money (rules.md section 11). */
    public enum Rule {
        IN_THE_PAST,
        TOO_LATE,
        NOT_THERE_YET,
        VEHICLE_AWAY,
        PROMISED,
        DAY_OFF,
        SKILL,
        BAY_CLASS,
        BAY_CLOSED,
        TECHNICIAN_BUSY,
        BAY_BUSY,
        TOOL_SET_BUSY,
        TOOL_SET_OUT,
        FLEET_CAP
    }

    public Broken {
        inTheWay = List.copyOf(inTheWay);
    }

    Broken(Rule rule, String words) {
        this(rule, words, List.of());
    }
}
