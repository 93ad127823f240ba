package knollfield.core.bundle;

import java.util.ArrayList;
import java.util.List;
import knollfield.core.bundle.BundleLine.Rule;

/**
 * What a person decided about an item, over the rules and the money.
 *
 * @param reason why, in words; may be empty where the item is free
 * @param inspection what was found when the old part was looked at; needed to reuse a required one
 */
public record Decision(boolean in, String reason, String inspection) {

    /**
     * What a decision still needs.
     *
     * @param field {@code reason} or {@code inspection}
     * @param words one sentence
     */
    public record Lack(String field, String words) {}

    public static Decision in(String reason) {
        return new Decision(true, reason, "");
    }

    public static Decision left(String reason) {
        return new Decision(false, reason, "");
    }

    /**
     * What this decision needs before it may stand over what the rules say of {@code line}: a reason where it goes
     * against them, and an inspection where a required part is reused (rules.md section 5).
     */
    public List<Lack> lacks(BundlePlan.Line line) {
        List<Lack> lacks = new ArrayList<>();
        Rule rule = line.line().rule();
        String name = line.line().name();
        if (rule == Rule.REQUIRED && !in) {
            if (reason.isBlank()) {
                lacks.add(new Lack("reason", "%s is required; leaving it needs a reason.".formatted(name)));
            }
            if (line.reusable() && inspection.isBlank()) {
                lacks.add(new Lack("inspection", "Reusing it needs what the inspection found."));
            }
        } else if (rule == Rule.EXCLUDED && in && reason.isBlank()) {
            lacks.add(new Lack("reason", "The rules leave %s out; taking it in needs a reason.".formatted(name)));
        }
        return lacks;
    }
}
