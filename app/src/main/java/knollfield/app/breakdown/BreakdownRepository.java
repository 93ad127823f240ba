package knollfield.app.breakdown;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

@Repository
class BreakdownRepository {

    private static final String BREAKDOWNS = """
            SELECT id, vehicle_id, item_code, happened_on, km, what, cost_minor, declined, entered_by, withdrawn_on,
                   withdrawn_why
            FROM breakdown
            """;

    private final JdbcClient jdbc;

    BreakdownRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** All there are, newest first. */
    List<Breakdown> all() {
        return jdbc.sql(BREAKDOWNS + "ORDER BY happened_on DESC, id DESC")
                .query(BreakdownRepository::row)
                .list();
    }

    List<Breakdown> ofVehicle(long vehicleId) {
        return jdbc.sql(BREAKDOWNS + "WHERE vehicle_id = :vehicle ORDER BY happened_on DESC, id DESC")
                .param("vehicle", vehicleId)
                .query(BreakdownRepository::row)
                .list();
    }

    Optional<Breakdown> find(long id) {
        return jdbc.sql(BREAKDOWNS + "WHERE id = :id")
                .param("id", id)
                .query(BreakdownRepository::row)
                .optional();
    }

    long add(Breakdown b, Instant at) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO breakdown
                            (vehicle_id, item_code, happened_on, km, what, cost_minor, declined, entered_by, entered_at)
                        VALUES (:vehicle, :item, :on, :km, :what, :cost, :declined, :by, :at)
                        """)
                .param("vehicle", b.vehicleId())
                .param("item", b.itemCode())
                .param("on", b.on())
                .param("km", b.km())
                .param("what", b.what())
                .param("cost", b.costMinor().isPresent() ? b.costMinor().getAsLong() : null)
                .param("declined", b.declined())
                .param("by", b.enteredBy())
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update(key, "id");
        return Objects.requireNonNull(key.getKeyAs(Long.class));
    }

    /** False where it has been withdrawn already. */
    boolean withdraw(long id, LocalDate on, String why) {
        return jdbc.sql("""
                                UPDATE breakdown SET withdrawn_on = :on, withdrawn_why = :why
                                WHERE id = :id AND withdrawn_on IS NULL
                                """).param("on", on).param("why", why).param("id", id).update() == 1;
    }

    private static Breakdown row(ResultSet r, int n) throws SQLException {
        long cost = r.getLong("cost_minor");
        OptionalLong known = r.wasNull() ? OptionalLong.empty() : OptionalLong.of(cost);
        LocalDate withdrawnOn = r.getObject("withdrawn_on", LocalDate.class);
        return new Breakdown(
                r.getLong("id"),
                r.getLong("vehicle_id"),
                r.getString("item_code"),
                r.getObject("happened_on", LocalDate.class),
                r.getInt("km"),
                r.getString("what"),
                known,
                r.getBoolean("declined"),
                r.getString("entered_by"),
                withdrawnOn == null
                        ? Optional.empty()
                        : Optional.of(new Breakdown.Withdrawn(withdrawnOn, r.getString("withdrawn_why"))));
    }
}
