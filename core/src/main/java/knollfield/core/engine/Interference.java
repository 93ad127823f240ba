package knollfield.core.engine;

/** Whether valves and pistons meet when the drive lets go. Unknown works as yes, labelled unconfirmed. */
public enum Interference {
    YES,
    NO,
    UNKNOWN;

    /** True where the engine must be treated as one that is destroyed. */
    public boolean worksAsYes() {
        return this != NO;
    }
}
