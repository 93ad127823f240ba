package knollfield.app.job;

/**
 * A bay.
 *
 * @param note what it is, such as "two posts, 3 t"; may be empty
 * @param liftClass 1 light, 2 heavy
 * @param active work is promised in it; a retired one stays for the jobs that were done there
 */
public record Bay(long id, String name, String note, int liftClass, boolean active, int version) {}
