package knollfield.app.job;

/**
 * A bay.
 *
 * @param liftClass 1 light, 2 heavy
 */
public record Bay(long id, String name, String note, int liftClass) {}
