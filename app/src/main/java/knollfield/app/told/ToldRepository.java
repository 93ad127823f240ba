package knollfield.app.told;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Lines of owners to be told. */
@Repository
class ToldRepository {

    private static final String SELECT = """
            SELECT id, job_id, vehicle_id, made_at, made_by, promised, moved_to, version
            FROM to_tell
            """;

    private final JdbcClient jdbc;

    ToldRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<ToTell> open() {
        return jdbc.sql(SELECT + " WHERE told_at IS NULL ORDER BY promised, id")
                .query(ToldRepository::line)
                .list();
    }

    Optional<ToTell> openOf(long jobId) {
        return jdbc.sql(SELECT + " WHERE told_at IS NULL AND job_id = :job")
                .param("job", jobId)
                .query(ToldRepository::line)
                .optional();
    }

    Optional<ToTell> find(long id) {
        return jdbc.sql(SELECT + " WHERE id = :id AND told_at IS NULL")
                .param("id", id)
                .query(ToldRepository::line)
                .optional();
    }

    private static ToTell line(ResultSet rs, int row) throws SQLException {
        return new ToTell(
                rs.getLong("id"),
                rs.getLong("job_id"),
                rs.getLong("vehicle_id"),
                rs.getObject("made_at", OffsetDateTime.class).toInstant(),
                rs.getString("made_by"),
                rs.getObject("promised", LocalDateTime.class),
                Optional.ofNullable(rs.getObject("moved_to", LocalDateTime.class)),
                rs.getInt("version"));
    }

    void add(
            long jobId,
            long vehicleId,
            Instant at,
            String by,
            LocalDateTime promised,
            Optional<LocalDateTime> movedTo) {
        jdbc.sql("""
                        INSERT INTO to_tell (job_id, vehicle_id, made_at, made_by, promised, moved_to)
                        VALUES (:job, :vehicle, :at, :by, :promised, :moved)
                        """)
                .param("job", jobId)
                .param("vehicle", vehicleId)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("by", by)
                .param("promised", promised)
                .param("moved", movedTo.orElse(null))
                .update();
    }

    void movedTo(long id, Optional<LocalDateTime> time) {
        jdbc.sql("UPDATE to_tell SET moved_to = :time, version = version + 1 WHERE id = :id")
                .param("time", time.orElse(null))
                .param("id", id)
                .update();
    }

    void forget(long id) {
        jdbc.sql("DELETE FROM to_tell WHERE id = :id").param("id", id).update();
    }

    /** False where somebody has told meanwhile, or the time has changed again. */
    boolean told(long id, int version, Instant at, String by, String how, String note) {
        return jdbc.sql("""
                                UPDATE to_tell
                                SET told_at = :at, told_by = :by, how = :how, note = :note, version = version + 1
                                WHERE id = :id AND version = :version AND told_at IS NULL
                                """)
                        .param("at", at.atOffset(ZoneOffset.UTC))
                        .param("by", by)
                        .param("how", how)
                        .param("note", note)
                        .param("id", id)
                        .param("version", version)
                        .update()
                == 1;
    }
}
