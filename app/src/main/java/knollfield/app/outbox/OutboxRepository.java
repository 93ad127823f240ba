package knollfield.app.outbox;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** Messages on their way out. */
@Repository
class OutboxRepository {

    private static final String SELECT = """
            SELECT m.id, m.kind, m.channel, m.job_id, m.to_name, m.to_place, m.subject, m.body, m.state, m.via, m.tries, m.failure,
                   m.made_at, m.made_by, m.changed_at, m.version,
                   (SELECT LISTAGG(v.vehicle_id, ',') WITHIN GROUP (ORDER BY v.vehicle_id)
                    FROM outbox_vehicle v WHERE v.message_id = m.id) AS vehicles
            FROM outbox_message m
            """;

    private final JdbcClient jdbc;

    OutboxRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long add(Message.Draft d, Instant at, String by) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO outbox_message (kind, channel, owner_id, job_id, to_name, to_place, subject, body, state,
                            next_try_at, made_at, made_by, changed_at)
                        VALUES (:kind, :channel, :owner, :job, :name, :place, :subject, :body, 'WAITING', :at, :at, :by, :at)
                        """)
                .param("kind", d.kind().name())
                .param("channel", d.channel().name())
                .param("owner", d.ownerId())
                .param("job", d.jobId().orElse(null))
                .param("name", d.toName())
                .param("place", d.toPlace())
                .param("subject", d.subject())
                .param("body", d.body())
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("by", by)
                .update(key, "id");
        long id = Objects.requireNonNull(key.getKey()).longValue();
        for (long vehicle : d.vehicles()) {
            jdbc.sql("INSERT INTO outbox_vehicle (message_id, vehicle_id) VALUES (:id, :vehicle)")
                    .param("id", id)
                    .param("vehicle", vehicle)
                    .update();
        }
        return id;
    }

    Optional<Message> find(long id) {
        return jdbc.sql(SELECT + " WHERE m.id = :id")
                .param("id", id)
                .query(OutboxRepository::message)
                .optional();
    }

    /** What is not at its end, oldest first. */
    List<Message> open() {
        return jdbc.sql(SELECT + " WHERE m.state NOT IN ('SENT', 'TAKEN_BACK') ORDER BY m.id")
                .query(OutboxRepository::message)
                .list();
    }

    /** What has gone or was taken back, newest first. */
    List<Message> ended(int most) {
        return jdbc.sql(SELECT + """
                        WHERE m.state IN ('SENT', 'TAKEN_BACK')
                        ORDER BY m.changed_at DESC, m.id DESC
                        FETCH FIRST :most ROWS ONLY
                        """)
                .param("most", most)
                .query(OutboxRepository::message)
                .list();
    }

    /** Messages that a machine hands over and whose time has come, oldest first. */
    List<Long> due(Instant now) {
        return jdbc.sql("""
                        SELECT id FROM outbox_message
                        WHERE state = 'WAITING' AND channel <> 'LETTER' AND next_try_at <= :now
                        ORDER BY id
                        """)
                .param("now", now.atOffset(ZoneOffset.UTC))
                .query(Long.class)
                .list();
    }

    /** False where it no longer waits. */
    boolean claim(long id, String via, Instant at) {
        return jdbc.sql("""
                        UPDATE outbox_message
                        SET state = 'SENDING', via = :via, tries = tries + 1, changed_at = :at, version = version + 1
                        WHERE id = :id AND state = 'WAITING'
                        """)
                        .param("via", via)
                        .param("at", at.atOffset(ZoneOffset.UTC))
                        .param("id", id)
                        .update()
                == 1;
    }

    /** False where it was in none of the states {@code from}. */
    boolean move(long id, List<Message.State> from, Message.State to, String failure, Instant nextTry, Instant at) {
        return jdbc.sql("""
                        UPDATE outbox_message
                        SET state = :to, failure = :failure, next_try_at = :next, changed_at = :at, version = version + 1
                        WHERE id = :id AND state IN (:from)
                        """)
                        .param("to", to.name())
                        .param("failure", failure.length() <= 400 ? failure : failure.substring(0, 400))
                        .param("next", nextTry.atOffset(ZoneOffset.UTC))
                        .param("at", at.atOffset(ZoneOffset.UTC))
                        .param("id", id)
                        .param("from", from.stream().map(Enum::name).toList())
                        .update()
                == 1;
    }

    /** Those that were being handed over when the server stopped. */
    List<Message> interrupted() {
        return jdbc.sql(SELECT + " WHERE m.state = 'SENDING' ORDER BY m.id")
                .query(OutboxRepository::message)
                .list();
    }

    /** A day on which somebody was written to. */
    record Written(long vehicleId, Optional<Long> ownerId, Instant at) {}

    /** Reminders that were not taken back, by vehicle. */
    List<Written> reminders() {
        return jdbc.sql("""
                        SELECT v.vehicle_id, m.owner_id, m.made_at
                        FROM outbox_message m JOIN outbox_vehicle v ON v.message_id = m.id
                        WHERE m.kind = 'REMINDER' AND m.state <> 'TAKEN_BACK'
                        """)
                .query((rs, row) -> new Written(
                        rs.getLong("vehicle_id"),
                        Optional.ofNullable(rs.getObject("owner_id", Long.class)),
                        rs.getObject("made_at", OffsetDateTime.class).toInstant()))
                .list();
    }

    /** How many there are in each state that calls for somebody. */
    Map<String, Integer> counts() {
        Map<String, Integer> counts = new HashMap<>();
        jdbc.sql("""
                        SELECT what, COUNT(*) AS many
                        FROM (SELECT CASE WHEN state = 'WAITING' AND channel = 'LETTER' THEN 'PRINT' ELSE state END AS what
                              FROM outbox_message
                              WHERE state NOT IN ('SENT', 'TAKEN_BACK')) AS open_ones
                        GROUP BY what
                        """).query(rs -> {
            counts.put(rs.getString("what"), rs.getInt("many"));
        });
        return counts;
    }

    private static Message message(ResultSet rs, int row) throws SQLException {
        String vehicles = Objects.requireNonNullElse(rs.getString("vehicles"), "");
        return new Message(
                rs.getLong("id"),
                MessageKind.valueOf(rs.getString("kind")),
                Channel.valueOf(rs.getString("channel")),
                Optional.ofNullable(rs.getObject("job_id", Long.class)),
                rs.getString("to_name"),
                rs.getString("to_place"),
                rs.getString("subject"),
                rs.getString("body"),
                Message.State.valueOf(rs.getString("state")),
                rs.getString("via"),
                rs.getInt("tries"),
                rs.getString("failure"),
                rs.getObject("made_at", OffsetDateTime.class).toInstant(),
                rs.getString("made_by"),
                rs.getObject("changed_at", OffsetDateTime.class).toInstant(),
                vehicles.isEmpty()
                        ? List.of()
                        : java.util.Arrays.stream(vehicles.split(","))
                                .map(Long::valueOf)
                                .toList(),
                rs.getInt("version"));
    }
}
