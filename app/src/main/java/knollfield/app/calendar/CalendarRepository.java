package knollfield.app.calendar;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import knollfield.app.job.Job;
import knollfield.app.security.Person;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** What calendars have been told, and the feeds that tell it. */
@Repository
class CalendarRepository {

    private final JdbcClient jdbc;

    CalendarRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * A job's appointment as calendars last saw it.
     *
     * @param sequence counts its changes (RFC 5545, 3.8.7.4)
     */
    record Entry(
            long jobId,
            int sequence,
            LocalDateTime start,
            LocalDateTime end,
            boolean promised,
            boolean cancelled,
            Instant changedAt) {}

    /** @param fleetId empty for the whole board */
    record Feed(long id, Optional<Long> fleetId, String madeBy, Instant madeAt) {}

    /** Notes an appointment, new or changed. */
    void tell(long jobId, Job.Booking b, Instant at) {
        int changed = jdbc.sql("""
                        UPDATE calendar_entry
                        SET sequence = sequence + 1, start_at = :start, end_at = :end, promised = :promised,
                            cancelled = FALSE, changed_at = :at
                        WHERE job_id = :job
                        """)
                .param("start", b.start())
                .param("end", b.end())
                .param("promised", b.promised())
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("job", jobId)
                .update();
        if (changed == 0) {
            jdbc.sql("""
                            INSERT INTO calendar_entry (job_id, sequence, start_at, end_at, promised, cancelled,
                                changed_at)
                            VALUES (:job, 0, :start, :end, :promised, FALSE, :at)
                            """)
                    .param("job", jobId)
                    .param("start", b.start())
                    .param("end", b.end())
                    .param("promised", b.promised())
                    .param("at", at.atOffset(ZoneOffset.UTC))
                    .update();
        }
    }

    void cancel(long jobId, Instant at) {
        jdbc.sql("""
                        UPDATE calendar_entry
                        SET sequence = sequence + 1, cancelled = TRUE, changed_at = :at
                        WHERE job_id = :job AND NOT cancelled
                        """)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("job", jobId)
                .update();
    }

    /** Appointments that end at {@code from} or later, and those cancelled at {@code cancelledSince} or later. */
    List<Entry> entries(LocalDateTime from, Instant cancelledSince) {
        return jdbc.sql("""
                        SELECT job_id, sequence, start_at, end_at, promised, cancelled, changed_at
                        FROM calendar_entry
                        WHERE (NOT cancelled AND end_at >= :from) OR (cancelled AND changed_at >= :since)
                        ORDER BY start_at, job_id
                        """)
                .param("from", from)
                .param("since", cancelledSince.atOffset(ZoneOffset.UTC))
                .query((rs, row) -> new Entry(
                        rs.getLong("job_id"),
                        rs.getInt("sequence"),
                        rs.getObject("start_at", LocalDateTime.class),
                        rs.getObject("end_at", LocalDateTime.class),
                        rs.getBoolean("promised"),
                        rs.getBoolean("cancelled"),
                        rs.getObject("changed_at", OffsetDateTime.class).toInstant()))
                .list();
    }

    void addFeed(String tokenHash, Optional<Long> fleetId, Person by, Instant at) {
        jdbc.sql("""
                        INSERT INTO calendar_feed (token_hash, fleet_id, made_by, person_id, made_at)
                        VALUES (:hash, :fleet, :by, :person, :at)
                        """)
                .param("hash", tokenHash)
                .param("fleet", fleetId.orElse(null))
                .param("by", by.name())
                .param("person", by.id())
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update();
    }

    /** Feeds in force. */
    List<Feed> feeds() {
        return jdbc.sql("SELECT id, fleet_id, made_by, made_at FROM calendar_feed WHERE revoked_at IS NULL ORDER BY id")
                .query((rs, row) -> new Feed(
                        rs.getLong("id"),
                        Optional.ofNullable(rs.getObject("fleet_id", Long.class)),
                        rs.getString("made_by"),
                        rs.getObject("made_at", OffsetDateTime.class).toInstant()))
                .list();
    }

    /** A feed in force whose maker still may make one. */
    Optional<Feed> feed(String tokenHash) {
        return jdbc.sql("""
                        SELECT f.id, f.fleet_id, f.made_by, f.made_at
                        FROM calendar_feed f JOIN person p ON p.id = f.person_id
                        WHERE f.token_hash = :hash AND f.revoked_at IS NULL AND p.active AND p.role = 'MANAGER'
                        """)
                .param("hash", tokenHash)
                .query((rs, row) -> new Feed(
                        rs.getLong("id"),
                        Optional.ofNullable(rs.getObject("fleet_id", Long.class)),
                        rs.getString("made_by"),
                        rs.getObject("made_at", OffsetDateTime.class).toInstant()))
                .optional();
    }

    /** False where it is not in force. */
    boolean revoke(long id, Instant at) {
        return jdbc.sql("UPDATE calendar_feed SET revoked_at = :at WHERE id = :id AND revoked_at IS NULL")
                        .param("at", at.atOffset(ZoneOffset.UTC))
                        .param("id", id)
                        .update()
                == 1;
    }
}
