package knollfield.app.own;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Private addresses of owners, by the hash of their secret. */
@Repository
class OwnerLinkRepository {

    private static final String SELECT = """
            SELECT id, job_id, estimate_number, made_at, made_by, valid_until, used_at, revoked_at
            FROM owner_link
            """;

    private final JdbcClient jdbc;

    OwnerLinkRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void add(String hash, long jobId, int estimateNumber, Instant at, String by, LocalDate validUntil) {
        jdbc.sql("""
                        INSERT INTO owner_link (token_hash, job_id, estimate_number, made_at, made_by, valid_until, owner_id)
                        VALUES (:hash, :job, :number, :at, :by, :until,
                            (SELECT v.owner_id FROM job j JOIN vehicle v ON v.id = j.vehicle_id WHERE j.id = :job))
                        """)
                .param("hash", hash)
                .param("job", jobId)
                .param("number", estimateNumber)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("by", by)
                .param("until", validUntil)
                .update();
    }

    /** One whose vehicle is still its owner's, or of whoever that record was merged into. */
    Optional<OwnerLink> find(String hash) {
        return jdbc.sql(SELECT + """
                         WHERE token_hash = :hash AND (owner_id IS NULL OR EXISTS (
                            SELECT 1 FROM job j
                            JOIN vehicle v ON v.id = j.vehicle_id
                            JOIN owner o ON o.id = owner_link.owner_id
                            WHERE j.id = owner_link.job_id AND v.owner_id = COALESCE(o.merged_into, o.id)))
                        """)
                .param("hash", hash)
                .query(OwnerLinkRepository::link)
                .optional();
    }

    /** Newest first. */
    List<OwnerLink> ofJob(long jobId) {
        return jdbc.sql(SELECT + " WHERE job_id = :job ORDER BY id DESC")
                .param("job", jobId)
                .query(OwnerLinkRepository::link)
                .list();
    }

    /** Takes those of a job back that are neither answered nor taken back; how many they were. */
    int revoke(long jobId, Instant at) {
        return jdbc.sql("""
                        UPDATE owner_link SET revoked_at = :at
                        WHERE job_id = :job AND used_at IS NULL AND revoked_at IS NULL
                        """)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("job", jobId)
                .update();
    }

    /** False where it was answered or taken back meanwhile. */
    boolean use(long id, Instant at) {
        return jdbc.sql("""
                        UPDATE owner_link SET used_at = :at
                        WHERE id = :id AND used_at IS NULL AND revoked_at IS NULL
                        """)
                        .param("at", at.atOffset(ZoneOffset.UTC))
                        .param("id", id)
                        .update()
                == 1;
    }

    private static OwnerLink link(ResultSet rs, int row) throws SQLException {
        return new OwnerLink(
                rs.getLong("id"),
                rs.getLong("job_id"),
                rs.getInt("estimate_number"),
                rs.getObject("made_at", OffsetDateTime.class).toInstant(),
                rs.getString("made_by"),
                rs.getObject("valid_until", LocalDate.class),
                Optional.ofNullable(rs.getObject("used_at", OffsetDateTime.class))
                        .map(OffsetDateTime::toInstant),
                Optional.ofNullable(rs.getObject("revoked_at", OffsetDateTime.class))
                        .map(OffsetDateTime::toInstant));
    }
}
