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
            SELECT t.id, t.what, t.job_id, t.vehicle_id, t.made_at, t.made_by, t.promised, t.moved_to, t.words, t.version
            FROM to_tell t JOIN job j ON j.id = t.job_id
            """;

    private final JdbcClient jdbc;

    ToldRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A job that has ended keeps nobody waiting for its end, nor for its price. */
    List<ToTell> open() {
        return jdbc.sql(SELECT + """
                         WHERE t.told_at IS NULL AND (t.what = 'PROMISE' OR j.stage NOT IN ('DONE', 'CANCELLED'))
                         ORDER BY t.promised NULLS LAST, t.id
                        """).query(ToldRepository::line).list();
    }

    Optional<ToTell> openOf(long jobId, ToTell.What what) {
        return jdbc.sql(SELECT + " WHERE t.told_at IS NULL AND t.job_id = :job AND t.what = :what")
                .param("job", jobId)
                .param("what", what.name())
                .query(ToldRepository::line)
                .optional();
    }

    Optional<ToTell> find(long id) {
        return jdbc.sql(SELECT + " WHERE t.id = :id AND t.told_at IS NULL")
                .param("id", id)
                .query(ToldRepository::line)
                .optional();
    }

    private static ToTell line(ResultSet rs, int row) throws SQLException {
        return new ToTell(
                rs.getLong("id"),
                ToTell.What.valueOf(rs.getString("what")),
                rs.getLong("job_id"),
                rs.getLong("vehicle_id"),
                rs.getObject("made_at", OffsetDateTime.class).toInstant(),
                rs.getString("made_by"),
                Optional.ofNullable(rs.getObject("promised", LocalDateTime.class)),
                Optional.ofNullable(rs.getObject("moved_to", LocalDateTime.class)),
                rs.getString("words"),
                rs.getInt("version"));
    }

    void add(
            ToTell.What what,
            long jobId,
            long vehicleId,
            Instant at,
            String by,
            Optional<LocalDateTime> promised,
            Optional<LocalDateTime> movedTo,
            String words) {
        jdbc.sql("""
                        INSERT INTO to_tell (what, job_id, vehicle_id, made_at, made_by, promised, moved_to, words)
                        VALUES (:what, :job, :vehicle, :at, :by, :promised, :moved, :words)
                        """)
                .param("what", what.name())
                .param("job", jobId)
                .param("vehicle", vehicleId)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("by", by)
                .param("promised", promised.orElse(null))
                .param("moved", movedTo.orElse(null))
                .param("words", words)
                .update();
    }

    void words(long id, String words) {
        jdbc.sql("UPDATE to_tell SET words = :words, version = version + 1 WHERE id = :id")
                .param("words", words)
                .param("id", id)
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
