package knollfield.core.bundle;

/**
 * What a person decided about an item, over the rules and the money.
 *
 * @param reason why, in words; may be empty where the item is free
 * @param inspection what was found when the old part was looked at; needed to reuse a required one
 */
public record Decision(boolean in, String reason, String inspection) {

    public static Decision in(String reason) {
        return new Decision(true, reason, "");
    }

    public static Decision left(String reason) {
        return new Decision(false, reason, "");
    }
}
