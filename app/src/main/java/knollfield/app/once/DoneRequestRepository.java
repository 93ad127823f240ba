package knollfield.app.once;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Optional;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Requests that have been done, and what was answered. */
@Repository
public class DoneRequestRepository {

    private static final Duration KEPT = Duration.ofDays(2);

    private final JdbcClient jdbc;

    DoneRequestRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * @param fingerprint of the request that was done
     * @param status zero while it is under way
     */
    record Done(String fingerprint, int status, String contentType, byte[] body) {}

    /** Takes a key for one request; false where somebody has it. */
    @Transactional
    public boolean begin(long personId, String key, String fingerprint) {
        try {
            jdbc.sql("""
                            INSERT INTO done_request (person_id, request_key, fingerprint, at, answer, content_type)
                            VALUES (:person, :key, :fingerprint, :at, 0, '')
                            """)
                    .param("person", personId)
                    .param("key", key)
                    .param("fingerprint", fingerprint)
                    .param("at", Instant.now().atOffset(ZoneOffset.UTC))
                    .update();
            return true;
        } catch (DuplicateKeyException e) {
            return false;
        }
    }

    Optional<Done> find(long personId, String key) {
        return jdbc.sql("""
                        SELECT fingerprint, answer, content_type, body FROM done_request
                        WHERE person_id = :person AND request_key = :key
                        """)
                .param("person", personId)
                .param("key", key)
                .query((rs, row) -> new Done(
                        rs.getString("fingerprint"),
                        rs.getInt("answer"),
                        rs.getString("content_type"),
                        Optional.ofNullable(rs.getBytes("body")).orElse(new byte[0])))
                .optional();
    }

    /** Keeps what was answered. */
    @Transactional
    public void done(long personId, String key, int status, String contentType, byte[] body) {
        jdbc.sql("""
                        UPDATE done_request SET answer = :answer, content_type = :type, body = :body
                        WHERE person_id = :person AND request_key = :key
                        """)
                .param("answer", status)
                .param("type", contentType)
                .param("body", body)
                .param("person", personId)
                .param("key", key)
                .update();
    }

    /** Gives a key back whose request changed nothing. */
    @Transactional
    public void release(long personId, String key) {
        jdbc.sql("DELETE FROM done_request WHERE person_id = :person AND request_key = :key")
                .param("person", personId)
                .param("key", key)
                .update();
    }

    /** Forgets what nobody sends again. */
    @Transactional
    @Scheduled(fixedDelay = 3_600_000, initialDelay = 600_000)
    public void forget() {
        jdbc.sql("DELETE FROM done_request WHERE at < :before")
                .param("before", Instant.now().minus(KEPT).atOffset(ZoneOffset.UTC))
                .update();
    }
}
