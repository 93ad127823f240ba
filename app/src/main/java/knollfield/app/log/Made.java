package knollfield.app.log;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Gathers which rows a piece of work makes, for whoever must be able to take the whole of it back. */
@Component
public class Made {

    /** A table whose rows are told of. */
    public enum Table {
        VEHICLE,
        READING,
        RENEWAL,
        VEHICLE_LOG,
        FLEET,
        OWNER
    }

    public record Row(Table table, long id) {}

    private final ThreadLocal<Optional<List<Row>>> gathering = ThreadLocal.withInitial(Optional::empty);

    /** True while somebody gathers on this thread: they tell of the whole once it is done. */
    public boolean isGathered() {
        return gathering.get().isPresent();
    }

    /** Tells of a row; forgotten unless somebody gathers on this thread. */
    public void row(Table table, long id) {
        gathering.get().ifPresent(rows -> rows.add(new Row(table, id)));
    }

    /** Rows that {@code work} makes on this thread, in the order in which it makes them. */
    public List<Row> by(Runnable work) {
        List<Row> rows = new ArrayList<>();
        gathering.set(Optional.of(rows));
        try {
            work.run();
        } finally {
            gathering.remove();
        }
        return rows;
    }
}
