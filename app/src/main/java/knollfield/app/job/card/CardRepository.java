package knollfield.app.job.card;

import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import knollfield.core.jobcard.CardEntry;
import knollfield.core.jobcard.CardEvent;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** The events of job cards, added to and never changed. */
@Repository
class CardRepository {

    private final JdbcClient jdbc;
    private final JsonMapper json;

    CardRepository(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = CardEventNames.in(json);
    }

    List<CardEntry> entries(long jobId) {
        return jdbc.sql("""
                        SELECT seq, at, by_name, by_manager, body
                        FROM card_event
                        WHERE job_id = :job
                        ORDER BY seq
                        """)
                .param("job", jobId)
                .query((rs, row) -> new CardEntry(
                        rs.getLong("seq"),
                        rs.getObject("at", OffsetDateTime.class).toInstant(),
                        rs.getString("by_name"),
                        rs.getBoolean("by_manager"),
                        CardEventNames.read(json, json.readTree(rs.getString("body")))))
                .list();
    }

    /** Whose entry came in with this key before; empty where none did. */
    Optional<String> by(long jobId, String clientKey) {
        return jdbc.sql("SELECT by_name FROM card_event WHERE job_id = :job AND client_key = :key")
                .param("job", jobId)
                .param("key", clientKey)
                .query(String.class)
                .optional();
    }

    void add(long jobId, String clientKey, CardEntry entry) {
        jdbc.sql("""
                        INSERT INTO card_event (job_id, seq, at, by_name, by_manager, client_key, body)
                        VALUES (:job, :seq, :at, :by, :manager, :key, :body)
                        """)
                .param("job", jobId)
                .param("seq", entry.seq())
                .param("at", entry.at().atOffset(ZoneOffset.UTC))
                .param("by", entry.by())
                .param("manager", entry.manager())
                .param("key", clientKey)
                .param("body", json.writerFor(CardEvent.class).writeValueAsString(entry.event()))
                .update();
    }
}
