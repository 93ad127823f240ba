package knollfield.app.aftercare;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Rechecks and follow-ups. */
@Repository
class AftercareRepository {

    private final JdbcClient jdbc;

    AftercareRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void addRecheck(long vehicleId, long jobId, String what, LocalDate due) {
        jdbc.sql("""
                        INSERT INTO recheck (vehicle_id, job_id, what, due_on)
                        VALUES (:vehicle, :job, :what, :due)
                        """)
                .param("vehicle", vehicleId)
                .param("job", jobId)
                .param("what", what)
                .param("due", due)
                .update();
    }

    void addFollowUp(long vehicleId, @Nullable Long jobId, String what, boolean urgent, LocalDate on, String by) {
        jdbc.sql("""
                        INSERT INTO follow_up (vehicle_id, job_id, what, urgent, noted_on, noted_by)
                        VALUES (:vehicle, :job, :what, :urgent, :on, :by)
                        """)
                .param("vehicle", vehicleId)
                .param("job", jobId)
                .param("what", what)
                .param("urgent", urgent)
                .param("on", on)
                .param("by", by)
                .update();
    }

    List<StoredRecheck> rechecks(long vehicleId) {
        return jdbc.sql("""
                        SELECT id, vehicle_id, job_id, what, due_on, done_on, done_by, result, version
                        FROM recheck
                        WHERE vehicle_id = :vehicle
                        ORDER BY due_on, id
                        """)
                .param("vehicle", vehicleId)
                .query(AftercareRepository::recheck)
                .list();
    }

    /** Open ones that are due on {@code day} or before. */
    List<StoredRecheck> due(LocalDate day) {
        return jdbc.sql("""
                        SELECT id, vehicle_id, job_id, what, due_on, done_on, done_by, result, version
                        FROM recheck
                        WHERE done_on IS NULL AND due_on <= :day
                        ORDER BY due_on, id
                        """)
                .param("day", day)
                .query(AftercareRepository::recheck)
                .list();
    }

    /** Due from one day to another, both included. */
    List<StoredRecheck> dueBetween(LocalDate from, LocalDate to) {
        return jdbc.sql("""
                        SELECT id, vehicle_id, job_id, what, due_on, done_on, done_by, result, version
                        FROM recheck
                        WHERE due_on BETWEEN :from AND :to
                        ORDER BY due_on, id
                        """)
                .param("from", from)
                .param("to", to)
                .query(AftercareRepository::recheck)
                .list();
    }

    List<FollowUp> followUps(long vehicleId) {
        return jdbc.sql("""
                        SELECT id, vehicle_id, job_id, what, urgent, noted_on, noted_by, closed_on, closed_by, result, version
                        FROM follow_up
                        WHERE vehicle_id = :vehicle
                        ORDER BY urgent DESC, noted_on, id
                        """)
                .param("vehicle", vehicleId)
                .query((rs, row) -> new FollowUp(
                        rs.getLong("id"),
                        rs.getLong("vehicle_id"),
                        Optional.ofNullable(rs.getObject("job_id", Long.class)),
                        rs.getString("what"),
                        rs.getBoolean("urgent"),
                        rs.getObject("noted_on", LocalDate.class),
                        rs.getString("noted_by"),
                        closed(rs, "closed_on", "closed_by"),
                        rs.getInt("version")))
                .list();
    }

    /** False where it is not open, or not as it was read. */
    boolean closeRecheck(long id, long vehicleId, LocalDate on, String by, String result, int version) {
        return jdbc.sql("""
                                UPDATE recheck
                                SET done_on = :on, done_by = :by, result = :result, version = version + 1
                                WHERE id = :id AND vehicle_id = :vehicle AND done_on IS NULL AND version = :version
                                """)
                        .param("on", on)
                        .param("by", by)
                        .param("result", result)
                        .param("id", id)
                        .param("vehicle", vehicleId)
                        .param("version", version)
                        .update()
                == 1;
    }

    /** False where it is not open, or not as it was read. */
    boolean closeFollowUp(long id, long vehicleId, LocalDate on, String by, String result, int version) {
        return jdbc.sql("""
                                UPDATE follow_up
                                SET closed_on = :on, closed_by = :by, result = :result, version = version + 1
                                WHERE id = :id AND vehicle_id = :vehicle AND closed_on IS NULL AND version = :version
                                """)
                        .param("on", on)
                        .param("by", by)
                        .param("result", result)
                        .param("id", id)
                        .param("vehicle", vehicleId)
                        .param("version", version)
                        .update()
                == 1;
    }

    private static StoredRecheck recheck(ResultSet rs, int row) throws SQLException {
        return new StoredRecheck(
                rs.getLong("id"),
                rs.getLong("vehicle_id"),
                rs.getLong("job_id"),
                rs.getString("what"),
                rs.getObject("due_on", LocalDate.class),
                closed(rs, "done_on", "done_by"),
                rs.getInt("version"));
    }

    private static Optional<Closed> closed(ResultSet rs, String on, String by) throws SQLException {
        LocalDate day = rs.getObject(on, LocalDate.class);
        return day == null
                ? Optional.empty()
                : Optional.of(new Closed(
                        day,
                        Objects.requireNonNullElse(rs.getString(by), ""),
                        Objects.requireNonNullElse(rs.getString("result"), "")));
    }
}
