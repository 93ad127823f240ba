package knollfield.app.record;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import knollfield.app.documents.RecordSheet;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Records of signed jobs as they were signed. Added to, never changed; a hash tells where one was. */
@Repository
public class JobRecordRepository {

    private final JdbcClient jdbc;
    private final JsonMapper json;

    JobRecordRepository(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /** @param sha256 of the body as stored, hexadecimal */
    record Kept(RecordSheet sheet, String sha256, boolean whole) {}

    Optional<Kept> find(long jobId) {
        return jdbc.sql("SELECT body, sha256 FROM job_record WHERE job_id = :job")
                .param("job", jobId)
                .query((rs, row) -> {
                    String body = rs.getString("body");
                    String hash = rs.getString("sha256");
                    return new Kept(
                            json.readValue(body, RecordSheet.class),
                            hash,
                            sha256(body).equals(hash));
                })
                .optional();
    }

    /** Signed jobs whose record is not kept. */
    List<Long> signedWithout() {
        return jdbc.sql("""
                        SELECT j.id FROM job j
                        WHERE j.stage = 'DONE' AND NOT EXISTS (SELECT 1 FROM job_record r WHERE r.job_id = j.id)
                        ORDER BY j.id
                        """).query(Long.class).list();
    }

    /** Keeps a record without its pictures, which are kept as they were taken. */
    @Transactional
    public void keep(long jobId, RecordSheet sheet, Instant at) {
        RecordSheet words = new RecordSheet(
                sheet.workshop(),
                sheet.letterhead(),
                sheet.job(),
                sheet.registration(),
                sheet.makeModel(),
                sheet.owner(),
                sheet.day(),
                sheet.odometer(),
                sheet.nextDue(),
                sheet.sections(),
                List.of());
        String body = json.writeValueAsString(words);
        jdbc.sql("""
                        INSERT INTO job_record (job_id, body, sha256, signed_at)
                        VALUES (:job, :body, :hash, :at)
                        """)
                .param("job", jobId)
                .param("body", body)
                .param("hash", sha256(body))
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update();
    }

    private static String sha256(String body) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(body.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
