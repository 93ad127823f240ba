package knollfield.app.stores;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Stock, orders and copies of tool sets. */
@Repository
class StoresRepository {

    private final JdbcClient jdbc;

    StoresRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Pieces in the house and the row's version. */
    record Shelf(int pieces, int version) {}

    Map<String, Shelf> stock() {
        Map<String, Shelf> stock = new HashMap<>();
        jdbc.sql("SELECT part_number, pieces, version FROM stock").query(rs -> {
            stock.put(rs.getString("part_number"), new Shelf(rs.getInt("pieces"), rs.getInt("version")));
        });
        return stock;
    }

    /** False where the version is no longer the current one; 0 for a part that has no row yet. */
    boolean setStock(String part, int pieces, int version) {
        if (version == 0) {
            boolean none = jdbc.sql("SELECT COUNT(*) FROM stock WHERE part_number = :part")
                            .param("part", part)
                            .query(Integer.class)
                            .single()
                    == 0;
            return none
                    && jdbc.sql("INSERT INTO stock (part_number, pieces, version) VALUES (:part, :pieces, 1)")
                                    .param("part", part)
                                    .param("pieces", pieces)
                                    .update()
                            == 1;
        }
        return jdbc.sql("""
                                UPDATE stock
                                SET pieces = :pieces, version = version + 1
                                WHERE part_number = :part AND version = :version
                                """)
                        .param("pieces", pieces)
                        .param("part", part)
                        .param("version", version)
                        .update()
                == 1;
    }

    /** Takes one piece where there is one. */
    void use(String part) {
        jdbc.sql("UPDATE stock SET pieces = pieces - 1, version = version + 1 WHERE part_number = :part AND pieces > 0")
                .param("part", part)
                .update();
    }

    void addOrder(PartOrder o) {
        jdbc.sql("""
                        INSERT INTO part_order (part_number, pieces, price_minor, ordered_on, arrives_on, ordered_by,
                            version)
                        VALUES (:part, :pieces, :price, :on, :arrives, :by, 1)
                        """)
                .param("part", o.part())
                .param("pieces", o.pieces())
                .param("price", o.priceMinor())
                .param("on", o.orderedOn())
                .param("arrives", o.arrives())
                .param("by", o.orderedBy())
                .update();
    }

    /** Open orders, and those that arrived or were cancelled on {@code since} or later; the next to come first. */
    List<PartOrder> orders(LocalDate since) {
        return jdbc.sql(ORDERS + """
                                 WHERE (arrived_on IS NULL AND cancelled_on IS NULL)
                                    OR arrived_on >= :since OR cancelled_on >= :since
                                 ORDER BY arrives_on, id
                                """)
                .param("since", since)
                .query(StoresRepository::order)
                .list();
    }

    Optional<PartOrder> order(long id) {
        return jdbc.sql(ORDERS + " WHERE id = :id")
                .param("id", id)
                .query(StoresRepository::order)
                .optional();
    }

    private static final String ORDERS = """
            SELECT id, part_number, pieces, price_minor, ordered_on, arrives_on, arrived_on, cancelled_on, ordered_by,
                   version
            FROM part_order
            """;

    private static PartOrder order(ResultSet rs, int row) throws SQLException {
        return new PartOrder(
                rs.getLong("id"),
                rs.getString("part_number"),
                rs.getInt("pieces"),
                rs.getLong("price_minor"),
                rs.getObject("ordered_on", LocalDate.class),
                rs.getObject("arrives_on", LocalDate.class),
                Optional.ofNullable(rs.getObject("arrived_on", LocalDate.class)),
                Optional.ofNullable(rs.getObject("cancelled_on", LocalDate.class)),
                rs.getString("ordered_by"),
                rs.getInt("version"));
    }

    /** False where the version is no longer the current one, or the order is closed. */
    boolean closeOrder(long id, Optional<LocalDate> arrived, Optional<LocalDate> cancelled, int version) {
        return jdbc.sql("""
                                UPDATE part_order
                                SET arrived_on = :arrived, cancelled_on = :cancelled, version = version + 1
                                WHERE id = :id AND version = :version AND arrived_on IS NULL AND cancelled_on IS NULL
                                """)
                        .param("arrived", arrived.orElse(null))
                        .param("cancelled", cancelled.orElse(null))
                        .param("id", id)
                        .param("version", version)
                        .update()
                == 1;
    }

    List<ToolCopy> copies() {
        return jdbc.sql("""
                        SELECT id, family_code, number, state, kept_at, note, version
                        FROM tool_copy
                        ORDER BY family_code, number
                        """).query(StoresRepository::copy).list();
    }

    Optional<ToolCopy> copy(long id) {
        return copies().stream().filter(c -> c.id() == id).findFirst();
    }

    private static ToolCopy copy(ResultSet rs, int row) throws SQLException {
        return new ToolCopy(
                rs.getLong("id"),
                rs.getString("family_code"),
                rs.getInt("number"),
                ToolCopy.State.valueOf(rs.getString("state")),
                rs.getString("kept_at"),
                rs.getString("note"),
                rs.getInt("version"));
    }

    void addCopy(String familyCode, int number) {
        jdbc.sql("""
                        INSERT INTO tool_copy (family_code, number, state, kept_at, note, version)
                        VALUES (:family, :number, 'GOOD', 'tool store', '', 1)
                        """).param("family", familyCode).param("number", number).update();
    }

    /** False where the version is no longer the current one. */
    boolean update(ToolCopy c) {
        return jdbc.sql("""
                                UPDATE tool_copy
                                SET state = :state, kept_at = :at, note = :note, version = version + 1
                                WHERE id = :id AND version = :version
                                """)
                        .param("state", c.state().name())
                        .param("at", c.keptAt())
                        .param("note", c.note())
                        .param("id", c.id())
                        .param("version", c.version())
                        .update()
                == 1;
    }
}
