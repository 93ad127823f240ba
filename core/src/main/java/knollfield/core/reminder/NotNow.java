package knollfield.core.reminder;

/** Why an owner is not written to about a vehicle today. */
public enum NotNow {
    NOTHING_DUE("nothing to act on"),
    NOT_YET("not due for a while"),
    MUST_NOT_RUN("must not run: ring instead"),
    JOB_OPEN("a job is open"),
    DECLINED("declined"),
    ASK_AGAIN("asked to be asked later"),
    NO_OWNER("no owner on file"),
    NOT_WANTED("does not want to be written to"),
    ENOUGH("written to often enough"),
    LATELY("written to lately"),
    OWNER_LATELY("the owner was written to this week");

    private final String words;

    NotNow(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
