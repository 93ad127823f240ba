package knollfield.app.job;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.bundle.Decision;
import knollfield.core.due.JobStage;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Jobs and bays. */
@Repository
public class JobRepository {

    private static final String SELECT = """
            SELECT id, vehicle_id, family_code, family_version, stage, scope, chosen, items, technician_id, bay_id,
                   start_at, end_at, promised, not_before, days, completed_on, completed_km, next_due_on, next_due_km, actual_minutes,
                   actual_parts_minor, rework_of, rework_reason, waits, version
            FROM job
            """;

    private final JdbcClient jdbc;
    private final JsonMapper json;

    JobRepository(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    public Optional<Job> find(long id) {
        return jdbc.sql(SELECT + " WHERE id = :id")
                .param("id", id)
                .query(this::job)
                .optional();
    }

    /** Locks the job's row until the transaction ends, so that events of one card come one after the other. */
    public Optional<Job> findForUpdate(long id) {
        return jdbc.sql(SELECT + " WHERE id = :id FOR UPDATE")
                .param("id", id)
                .query(this::job)
                .optional();
    }

    List<Job> ofVehicle(long vehicleId) {
        return jdbc.sql(SELECT + " WHERE vehicle_id = :vehicle ORDER BY id DESC")
                .param("vehicle", vehicleId)
                .query(this::job)
                .list();
    }

    /** Jobs that are open, and those completed on {@code doneSince} or later. */
    List<Job> openAndDoneSince(LocalDate doneSince) {
        return jdbc.sql(SELECT + """
                                 WHERE stage IN ('DRAFT', 'PLANNED', 'UNDER_WAY') OR completed_on >= :since
                                 ORDER BY start_at, id
                                """).param("since", doneSince).query(this::job).list();
    }

    /** Jobs signed from one day to another, both included, soonest first. */
    List<Job> signedBetween(LocalDate from, LocalDate to) {
        return jdbc.sql(SELECT + """
                                 WHERE stage = 'DONE' AND completed_on BETWEEN :from AND :to
                                 ORDER BY completed_on, id
                                """)
                .param("from", from)
                .param("to", to)
                .query(this::job)
                .list();
    }

    /** Jobs that do one of {@code jobs} again. */
    List<Job> reworksOf(Collection<Long> jobs) {
        return jobs.isEmpty()
                ? List.of()
                : jdbc.sql(SELECT + " WHERE rework_of IN (:jobs) ORDER BY id")
                        .param("jobs", jobs)
                        .query(this::job)
                        .list();
    }

    /** Signed jobs on engines of one family, the newest first. */
    public List<Job> signedOf(String familyCode) {
        return jdbc.sql(SELECT + " WHERE family_code = :code AND stage = 'DONE' ORDER BY id DESC")
                .param("code", familyCode)
                .query(this::job)
                .list();
    }

    /** Jobs that somebody could still work on: waiting, planned or under way. */
    List<Job> open() {
        return jdbc.sql(SELECT + " WHERE stage IN ('DRAFT', 'PLANNED', 'UNDER_WAY') ORDER BY id")
                .query(this::job)
                .list();
    }

    /** Jobs with a place on the board that touches the span. */
    List<Job> booked(LocalDateTime from, LocalDateTime to) {
        return jdbc.sql(SELECT + """
                                 WHERE start_at < :to AND end_at > :from AND stage <> 'CANCELLED'
                                 ORDER BY start_at, id
                                """)
                .param("from", from)
                .param("to", to)
                .query(this::job)
                .list();
    }

    /** One change of the board at a time: two that each fit alone must not be placed on top of each other. */
    void lockBoard() {
        jdbc.sql("SELECT id FROM workshop WHERE id = 1 FOR UPDATE")
                .query(Integer.class)
                .single();
    }

    /** Every bay there is or was. */
    List<Bay> bays() {
        return jdbc.sql("SELECT id, name, note, lift_class, posts, carries_kg, active, version FROM bay ORDER BY name")
                .query((rs, row) -> new Bay(
                        rs.getLong("id"),
                        rs.getString("name"),
                        rs.getString("note"),
                        rs.getInt("lift_class"),
                        rs.getObject("posts", Integer.class),
                        rs.getObject("carries_kg", Integer.class),
                        rs.getBoolean("active"),
                        rs.getInt("version")))
                .list();
    }

    void addBay(Bay bay) {
        jdbc.sql("""
                        INSERT INTO bay (name, note, lift_class, posts, carries_kg)
                        VALUES (:name, :note, :lift, :posts, :carries)
                        """)
                .param("name", bay.name())
                .param("note", bay.note())
                .param("lift", bay.liftClass())
                .param("posts", bay.posts())
                .param("carries", bay.carriesKg())
                .update();
    }

    /** False where the version is no longer the current one. */
    boolean updateBay(Bay bay) {
        return jdbc.sql("""
                        UPDATE bay
                        SET name = :name, note = :note, lift_class = :lift, posts = :posts, carries_kg = :carries,
                            active = :active, version = version + 1
                        WHERE id = :id AND version = :version
                        """)
                        .param("name", bay.name())
                        .param("note", bay.note())
                        .param("lift", bay.liftClass())
                        .param("posts", bay.posts())
                        .param("carries", bay.carriesKg())
                        .param("active", bay.active())
                        .param("id", bay.id())
                        .param("version", bay.version())
                        .update()
                == 1;
    }

    long add(long vehicleId, String familyCode, int familyVersion) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO job (vehicle_id, family_code, family_version, stage, chosen, items, version)
                        VALUES (:vehicle, :family, :familyVersion, 'DRAFT', '', '', 1)
                        """)
                .param("vehicle", vehicleId)
                .param("family", familyCode)
                .param("familyVersion", familyVersion)
                .update(key, "id");
        return Objects.requireNonNull(key.getKeyAs(Long.class));
    }

    /** A job that does {@code of} again, for the same vehicle on the same book. */
    long addRework(Job of, JobScope scope, String reason) {
        long id = add(of.vehicleId(), of.familyCode(), of.familyVersion());
        jdbc.sql("UPDATE job SET scope = :scope, rework_of = :of, rework_reason = :reason WHERE id = :id")
                .param("scope", json.writeValueAsString(scope))
                .param("of", of.id())
                .param("reason", reason)
                .param("id", id)
                .update();
        return id;
    }

    /** Keeps in words what the card says the job waits for; it follows from the card, and so changes no version. */
    public void waits(long jobId, String words) {
        jdbc.sql("UPDATE job SET waits = :waits WHERE id = :id AND waits <> :waits")
                .param("waits", words)
                .param("id", jobId)
                .update();
    }

    /** Writes what may change; false where the version is no longer the current one. */
    public boolean update(Job job) {
        return jdbc.sql("""
                                UPDATE job
                                SET family_version = :familyVersion, stage = :stage, scope = :scope, items = :items, technician_id = :technician,
                                    bay_id = :bay, start_at = :start, end_at = :end, promised = :promised,
                                    not_before = :notBefore, days = :days, completed_on = :doneOn,
                                    completed_km = :doneKm, next_due_on = :nextOn, next_due_km = :nextKm,
                                    actual_minutes = :minutes, actual_parts_minor = :partsMinor,
                                    version = version + 1
                                WHERE id = :id AND version = :version
                                """)
                        .param("familyVersion", job.familyVersion())
                        .param("stage", job.stage().name())
                        .param("scope", json.writeValueAsString(job.scope()))
                        .param("items", join(job.items()))
                        .param(
                                "technician",
                                job.booking().map(Job.Booking::technicianId).orElse(null))
                        .param("bay", job.booking().map(Job.Booking::bayId).orElse(null))
                        .param("start", job.booking().map(Job.Booking::start).orElse(null))
                        .param("end", job.booking().map(Job.Booking::end).orElse(null))
                        .param(
                                "promised",
                                job.booking().map(Job.Booking::promised).orElse(false))
                        .param("notBefore", job.wishes().notBefore().orElse(null))
                        .param(
                                "days",
                                join(job.wishes().days().stream()
                                        .map(DayOfWeek::name)
                                        .collect(Collectors.toSet())))
                        .param("doneOn", job.done().map(Job.Done::on).orElse(null))
                        .param("doneKm", job.done().map(Job.Done::km).orElse(null))
                        .param("nextOn", job.done().flatMap(Job.Done::nextDueOn).orElse(null))
                        .param(
                                "nextKm",
                                job.done()
                                        .map(Job.Done::nextDueKm)
                                        .filter(OptionalInt::isPresent)
                                        .map(OptionalInt::getAsInt)
                                        .orElse(null))
                        .param("minutes", job.actual().map(Job.Actual::minutes).orElse(null))
                        .param(
                                "partsMinor",
                                job.actual().map(Job.Actual::partsMinor).orElse(null))
                        .param("id", job.id())
                        .param("version", job.version())
                        .update()
                == 1;
    }

    private Job job(ResultSet rs, int row) throws SQLException {
        Long technician = rs.getObject("technician_id", Long.class);
        Optional<Job.Booking> booking = technician == null
                ? Optional.empty()
                : Optional.of(new Job.Booking(
                        technician,
                        rs.getLong("bay_id"),
                        rs.getObject("start_at", LocalDateTime.class),
                        rs.getObject("end_at", LocalDateTime.class),
                        rs.getBoolean("promised")));
        LocalDate doneOn = rs.getObject("completed_on", LocalDate.class);
        Optional<Job.Done> done = Optional.empty();
        if (doneOn != null) {
            Integer nextKm = rs.getObject("next_due_km", Integer.class);
            done = Optional.of(new Job.Done(
                    doneOn,
                    rs.getInt("completed_km"),
                    Optional.ofNullable(rs.getObject("next_due_on", LocalDate.class)),
                    nextKm == null ? OptionalInt.empty() : OptionalInt.of(nextKm)));
        }
        Integer minutes = rs.getObject("actual_minutes", Integer.class);
        Long reworkOf = rs.getObject("rework_of", Long.class);
        String reworkReason = rs.getString("rework_reason");
        return new Job(
                rs.getLong("id"),
                rs.getLong("vehicle_id"),
                rs.getString("family_code"),
                rs.getInt("family_version"),
                JobStage.valueOf(rs.getString("stage")),
                scope(rs.getString("scope"), split(rs.getString("chosen"))),
                split(rs.getString("items")),
                booking,
                new Job.Wishes(
                        Optional.ofNullable(rs.getObject("not_before", LocalDate.class)),
                        split(rs.getString("days")).stream()
                                .map(DayOfWeek::valueOf)
                                .collect(Collectors.toUnmodifiableSet())),
                done,
                minutes == null
                        ? Optional.empty()
                        : Optional.of(new Job.Actual(minutes, rs.getLong("actual_parts_minor"))),
                Optional.ofNullable(reworkOf)
                        .map(of -> new Job.Rework(of, Objects.requireNonNullElse(reworkReason, ""))),
                rs.getString("waits"),
                rs.getInt("version"));
    }

    private JobScope scope(@Nullable String body, Set<String> chosen) {
        if (body != null) {
            return json.readValue(body, JobScope.class);
        }
        JobScope scope = JobScope.usual();
        for (String item : chosen) {
            scope = scope.with(item, Decision.in(""));
        }
        return scope;
    }

    /** Jobs of a family whose hours are on file, newest first, at most {@code limit}. */
    List<Job> withActual(String familyCode, int limit) {
        return jdbc.sql(SELECT + """
                                 WHERE family_code = :family AND actual_minutes IS NOT NULL AND items <> ''
                                 ORDER BY completed_on DESC, id DESC
                                 FETCH FIRST :limit ROWS ONLY
                                """)
                .param("family", familyCode)
                .param("limit", limit)
                .query(this::job)
                .list();
    }

    private static String join(Set<String> codes) {
        return codes.stream().sorted().collect(Collectors.joining(","));
    }

    private static Set<String> split(String text) {
        return Arrays.stream(text.split(",")).filter(s -> !s.isEmpty()).collect(Collectors.toUnmodifiableSet());
    }
}
