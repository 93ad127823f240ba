package knollfield.app.outbox;

/** Makes the private address that a message carries, when it goes. */
public interface PrivatePages {

    /**
     * An address for the newest estimate of a job; one made before ends.
     *
     * @throws knollfield.app.problem.InvalidInput where there is nothing to answer
     */
    String make(long jobId);
}
