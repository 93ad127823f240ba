package knollfield.app.job;

/**
 * A bay.
 *
 * @param liftClass 1 light, 2 heavy
 */
record Bay(long id, String name, String note, int liftClass) {}
