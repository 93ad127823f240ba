package knollfield.app.board;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.app.job.Job;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Changes of the board that can be taken back, and vehicles that did not come. */
@Repository
class BoardRepository {

    private final JdbcClient jdbc;
    private final JsonMapper json;

    BoardRepository(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /**
     * One job's place before and after a change; null where it had none.
     *
     * @param was what was so about its place before; null in changes of before this was noted
     */
    record Moved(
            long jobId,
            Job.@Nullable Booking before,
            Job.@Nullable Booking after,
            @Nullable Was was) {

        Moved(long jobId, Job.@Nullable Booking before, Job.@Nullable Booking after) {
            this(jobId, before, after, null);
        }

        Moved with(Was noted) {
            return new Moved(jobId, before, after, noted);
        }
    }

    /**
     * How a place stood when a job left it.
     *
     * @param broken rules it broke
     * @param beside bookings of other jobs at that time
     */
    record Was(Set<String> broken, Map<Long, Job.Booking> beside) {}

    /** What a change's body holds. */
    record Body(List<Moved> moved) {}

    /** A change of the board. */
    record Change(long id, Instant at, String by, String what, List<Moved> moved) {}

    /** A vehicle that did not come. */
    record NoShow(LocalDateTime start, String note, String enteredBy) {}

    void add(long personId, String by, Instant at, String what, List<Moved> moved) {
        jdbc.sql("""
                        INSERT INTO board_change (at, person_id, by_name, what, body, undone)
                        VALUES (:at, :person, :by, :what, :body, FALSE)
                        """)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("person", personId)
                .param("by", by)
                .param("what", what.length() > 200 ? what.substring(0, 200) : what)
                .param("body", json.writeValueAsString(new Body(moved)))
                .update();
    }

    /** The person's last change that has not been taken back, made at {@code since} or later. */
    Optional<Change> last(long personId, Instant since) {
        return jdbc.sql("""
                        SELECT id, at, by_name, what, body
                        FROM board_change
                        WHERE person_id = :person AND NOT undone AND at >= :since
                        ORDER BY id DESC
                        FETCH FIRST ROW ONLY
                        """)
                .param("person", personId)
                .param("since", since.atOffset(ZoneOffset.UTC))
                .query((rs, row) -> new Change(
                        rs.getLong("id"),
                        rs.getObject("at", OffsetDateTime.class).toInstant(),
                        rs.getString("by_name"),
                        rs.getString("what"),
                        json.readValue(rs.getString("body"), Body.class).moved()))
                .optional();
    }

    void undone(long changeId) {
        jdbc.sql("UPDATE board_change SET undone = TRUE WHERE id = :id")
                .param("id", changeId)
                .update();
    }

    void addNoShow(long jobId, Job.Booking b, String note, String by, Instant at) {
        jdbc.sql("""
                        INSERT INTO no_show (job_id, technician_id, bay_id, start_at, end_at, note, entered_by,
                            entered_at)
                        VALUES (:job, :technician, :bay, :start, :end, :note, :by, :at)
                        """)
                .param("job", jobId)
                .param("technician", b.technicianId())
                .param("bay", b.bayId())
                .param("start", b.start())
                .param("end", b.end())
                .param("note", note)
                .param("by", by)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update();
    }

    void takeBackNoShow(long jobId, LocalDateTime start) {
        jdbc.sql("UPDATE no_show SET taken_back = TRUE WHERE job_id = :job AND start_at = :start")
                .param("job", jobId)
                .param("start", start)
                .update();
    }

    /** Of a job, the newest first. */
    List<NoShow> noShows(long jobId) {
        return jdbc.sql("""
                        SELECT start_at, note, entered_by
                        FROM no_show
                        WHERE job_id = :job AND NOT taken_back
                        ORDER BY start_at DESC
                        """)
                .param("job", jobId)
                .query((rs, row) -> new NoShow(
                        rs.getObject("start_at", LocalDateTime.class),
                        rs.getString("note"),
                        rs.getString("entered_by")))
                .list();
    }
}
