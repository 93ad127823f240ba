package knollfield.core.due;

/** How far a vehicle's job has come. */
public enum JobStage {
    DRAFT,
    PLANNED,
    UNDER_WAY,
    DONE,
    CANCELLED;

    /** True for a job that still takes a place on somebody's list. */
    public boolean isOpen() {
        return this == DRAFT || this == PLANNED || this == UNDER_WAY;
    }
}
