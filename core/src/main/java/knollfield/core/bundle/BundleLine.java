package knollfield.core.bundle;

import java.util.List;
import knollfield.core.engine.Part;
import knollfield.core.explain.Statement;

/**
 * A line of the job.
 *
 * @param code item code, or the joint's code for what its opening asks for
 * @param included part of the job as it stands
 * @param marginalMinutes what the line adds to the job, or would add to it; zero for parts of opened joints
 * @param parts what is fitted
 * @param reason why it is required, offered or left out
 */
public record BundleLine(
        String code,
        String name,
        Kind kind,
        Rule rule,
        boolean included,
        int marginalMinutes,
        List<Part> parts,
        Statement reason) {

    /** Whether the line is work on an item or follows from what is opened. */
    public enum Kind {
        ITEM,
        FOLLOWS
    }

    /** What the rules say of it. */
    public enum Rule {
        REQUIRED,
        OFFERED,
        EXCLUDED
    }

    public BundleLine {
        parts = List.copyOf(parts);
    }

    public long partsMinor() {
        return parts.stream().mapToLong(Part::totalMinor).sum();
    }
}
