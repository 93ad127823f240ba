package knollfield.app.job;

import org.jspecify.annotations.Nullable;

/**
 * A bay.
 *
 * @param note what it is, such as "two posts, 3 t"; may be empty
 * @param liftClass 1 light, 2 heavy
 * @param posts of its lift, 0 where it has none; null where nobody has said
 * @param carriesKg what its lift carries, kg; null where nobody has said
 * @param active work is promised in it; a retired one stays for the jobs that were done there
 */
public record Bay(
        long id,
        String name,
        String note,
        int liftClass,
        @Nullable Integer posts,
        @Nullable Integer carriesKg,
        boolean active,
        int version) {}
