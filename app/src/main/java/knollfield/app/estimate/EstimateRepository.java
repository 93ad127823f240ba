package knollfield.app.estimate;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import knollfield.core.estimate.Consent;
import knollfield.core.estimate.Estimate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Estimates and consents; both are added to and never changed. */
@Repository
class EstimateRepository {

    private final JdbcClient jdbc;
    private final JsonMapper json;

    EstimateRepository(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /** What an estimate's body holds. */
    record Body(Estimate estimate, List<String> plain) {}

    /** A consent with who entered it. */
    record Entered(long id, long jobId, int estimateNumber, Consent consent, String enteredBy) {}

    /** Of a job, the newest first. */
    List<StoredEstimate> ofJob(long jobId) {
        return jdbc.sql("""
                        SELECT id, job_id, number, made_on, valid_until, job_version, made_by, made_at, body
                        FROM estimate
                        WHERE job_id = :job
                        ORDER BY number DESC
                        """).param("job", jobId).query(this::estimate).list();
    }

    long add(StoredEstimate e) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO estimate (job_id, number, made_on, valid_until, job_version, made_by, made_at, body)
                        VALUES (:job, :number, :on, :until, :version, :by, :at, :body)
                        """)
                .param("job", e.jobId())
                .param("number", e.number())
                .param("on", e.madeOn())
                .param("until", e.validUntil())
                .param("version", e.jobVersion())
                .param("by", e.madeBy())
                .param("at", e.madeAt().atOffset(ZoneOffset.UTC))
                .param("body", json.writeValueAsString(new Body(e.estimate(), e.plain())))
                .update(key, "id");
        return Objects.requireNonNull(key.getKeyAs(Long.class));
    }

    private static final String CONSENTS = """
            SELECT c.id, c.job_id, e.number, c.line_code, c.answer, c.up_to_minor, c.said_by, c.said_on, c.how, c.warning,
                   c.signed, c.entered_by
            FROM consent c
            JOIN estimate e ON e.id = c.estimate_id
            """;

    private static Entered entered(ResultSet rs, int row) throws SQLException {
        return new Entered(
                rs.getLong("id"),
                rs.getLong("job_id"),
                rs.getInt("number"),
                new Consent(
                        rs.getString("line_code"),
                        Consent.Answer.valueOf(rs.getString("answer")),
                        rs.getLong("up_to_minor"),
                        rs.getString("said_by"),
                        rs.getObject("said_on", LocalDate.class),
                        Consent.How.valueOf(rs.getString("how")),
                        rs.getString("warning"),
                        rs.getBoolean("signed")),
                rs.getString("entered_by"));
    }

    /** Of a job, oldest first. */
    List<Entered> consents(long jobId) {
        return jdbc.sql(CONSENTS + " WHERE c.job_id = :job ORDER BY c.id")
                .param("job", jobId)
                .query(EstimateRepository::entered)
                .list();
    }

    /** Lines that owners left from one day to another, both included, in the order they were noted. */
    List<Entered> leftBetween(LocalDate from, LocalDate to) {
        return jdbc.sql(CONSENTS + " WHERE c.answer = 'LEFT' AND c.said_on BETWEEN :from AND :to ORDER BY c.id")
                .param("from", from)
                .param("to", to)
                .query(EstimateRepository::entered)
                .list();
    }

    void addConsent(long jobId, long estimateId, Consent c, String by, java.time.Instant at) {
        jdbc.sql("""
                        INSERT INTO consent (job_id, estimate_id, line_code, answer, up_to_minor, said_by, said_on, how,
                            warning, signed, entered_by, entered_at)
                        VALUES (:job, :estimate, :line, :answer, :upTo, :saidBy, :on, :how, :warning, :signed, :by, :at)
                        """)
                .param("job", jobId)
                .param("estimate", estimateId)
                .param("line", c.lineCode())
                .param("answer", c.answer().name())
                .param("upTo", c.upToMinor())
                .param("saidBy", c.saidBy())
                .param("on", c.on())
                .param("how", c.how().name())
                .param("warning", c.warning())
                .param("signed", c.signed())
                .param("by", by)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update();
    }

    private StoredEstimate estimate(ResultSet rs, int row) throws SQLException {
        Body body = json.readValue(rs.getString("body"), Body.class);
        return new StoredEstimate(
                rs.getLong("id"),
                rs.getLong("job_id"),
                rs.getInt("number"),
                rs.getObject("made_on", LocalDate.class),
                rs.getObject("valid_until", LocalDate.class),
                rs.getInt("job_version"),
                rs.getString("made_by"),
                rs.getObject("made_at", OffsetDateTime.class).toInstant(),
                body.estimate(),
                body.plain());
    }

    /** What a job came to when its owner had answered every line; empty where that was not yet. */
    Optional<Long> agreed(long jobId) {
        return jdbc.sql("SELECT total_minor FROM agreed_price WHERE job_id = :job")
                .param("job", jobId)
                .query(Long.class)
                .optional();
    }

    void agree(long jobId, long totalMinor) {
        jdbc.sql("""
                        MERGE INTO agreed_price a
                        USING (VALUES (:job, :total)) AS n (job_id, total_minor) ON a.job_id = n.job_id
                        WHEN MATCHED THEN UPDATE SET total_minor = n.total_minor
                        WHEN NOT MATCHED THEN INSERT (job_id, total_minor) VALUES (n.job_id, n.total_minor)
                        """).param("job", jobId).param("total", totalMinor).update();
    }
}
