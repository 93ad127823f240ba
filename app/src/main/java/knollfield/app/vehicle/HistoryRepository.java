package knollfield.app.vehicle;

import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import knollfield.app.log.Made;
import knollfield.app.shared.Secret;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.BroughtForward;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.units.DistanceUnit;
import org.springframework.jdbc.core.RowMapper;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** What has happened to vehicles: readings, renewals, evidence, trips. */
@Repository
class HistoryRepository {

    private static final String READINGS = """
            SELECT vehicle_id, id, read_on, km, written_value, written_unit, source, marked_wrong, entered_by
            FROM reading
            """;
    private static final String RENEWALS = """
            SELECT vehicle_id, item_code, renewed_on, km, grade, part, batch, proof, better_part, job_id, entered_by
            FROM renewal
            """;
    private static final String EVIDENCE = """
            SELECT vehicle_id, id, kind, found_on, confidence, item_code, source, note, ended_on, ended_why, entered_by
            FROM evidence
            """;
    private static final String TRIPS = "SELECT vehicle_id, id, from_date, to_date, extra_km, cancelled_on FROM trip";
    private static final String REPLACEMENTS = """
            SELECT vehicle_id, id, reading_id, replaced_on, offset_km, entered_by
            FROM odometer_replacement
            WHERE NOT undone
            """;
    private static final String CALLS = """
            SELECT vehicle_id, id, spoken_on, spoke_with, note, ask_again_on, entered_by
            FROM call_note
            """;
    private static final String DECLINES = """
            SELECT vehicle_id, id, declined_on, declined_by, told, until_date, withdrawn_on, entered_by
            FROM standing_decline
            """;
    private static final String FORWARD = "SELECT vehicle_id, to_month, from_day FROM vehicle_forward";

    private final JdbcClient jdbc;
    private final Made made;

    HistoryRepository(JdbcClient jdbc, Made made) {
        this.jdbc = jdbc;
        this.made = made;
    }

    /** A row and the vehicle it belongs to. */
    private record Owned<T>(long vehicleId, T value) {}

    VehicleHistory of(Vehicle vehicle) {
        return new VehicleHistory(
                vehicle,
                one(READINGS, "read_on, id", vehicle.id(), READING),
                one(RENEWALS, "renewed_on, id", vehicle.id(), RENEWAL),
                one(EVIDENCE, "found_on, id", vehicle.id(), FOUND),
                one(TRIPS, "from_date", vehicle.id(), TRIP),
                one(REPLACEMENTS, "replaced_on, id", vehicle.id(), REPLACEMENT),
                one(CALLS, "spoken_on, id", vehicle.id(), CALL),
                one(DECLINES, "declined_on, id", vehicle.id(), DECLINE),
                one(FORWARD, "vehicle_id", vehicle.id(), BROUGHT_FORWARD).stream()
                        .findFirst());
    }

    List<VehicleHistory> of(List<Vehicle> vehicles) {
        Map<Long, List<StoredReading>> readings = all(READINGS, "read_on, id", READING);
        Map<Long, List<Renewal>> renewals = all(RENEWALS, "renewed_on, id", RENEWAL);
        Map<Long, List<StoredEvidence>> evidence = all(EVIDENCE, "found_on, id", FOUND);
        Map<Long, List<StoredTrip>> trips = all(TRIPS, "from_date", TRIP);
        Map<Long, List<OdometerReplacement>> replacements = all(REPLACEMENTS, "replaced_on, id", REPLACEMENT);
        Map<Long, List<CallNote>> calls = all(CALLS, "spoken_on, id", CALL);
        Map<Long, List<StandingDecline>> declines = all(DECLINES, "declined_on, id", DECLINE);
        Map<Long, List<BroughtForward>> forward = all(FORWARD, "vehicle_id", BROUGHT_FORWARD);
        return vehicles.stream()
                .map(v -> new VehicleHistory(
                        v,
                        readings.getOrDefault(v.id(), List.of()),
                        renewals.getOrDefault(v.id(), List.of()),
                        evidence.getOrDefault(v.id(), List.of()),
                        trips.getOrDefault(v.id(), List.of()),
                        replacements.getOrDefault(v.id(), List.of()),
                        calls.getOrDefault(v.id(), List.of()),
                        declines.getOrDefault(v.id(), List.of()),
                        forward.getOrDefault(v.id(), List.of()).stream().findFirst()))
                .toList();
    }

    /** The reading that says the same, and is not marked as wrong; empty where none does. */
    OptionalLong sameReading(long vehicleId, StoredReading r) {
        return jdbc.sql("SELECT id FROM reading WHERE once = :once")
                .param("once", once(vehicleId, r))
                .query(Long.class)
                .optional()
                .map(OptionalLong::of)
                .orElseGet(OptionalLong::empty);
    }

    private static String once(long vehicleId, StoredReading r) {
        return Secret.hash("%d %s %d %s".formatted(vehicleId, r.date(), r.km(), r.source()));
    }

    /** @throws org.springframework.dao.DuplicateKeyException where somebody recorded the same meanwhile */
    long addReading(long vehicleId, StoredReading r, Instant at) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO reading
                            (vehicle_id, read_on, km, written_value, written_unit, source, marked_wrong, entered_by,
                             entered_at, once)
                        VALUES (:vehicle, :date, :km, :value, :unit, :source, FALSE, :by, :at, :once)
                        """)
                .param("vehicle", vehicleId)
                .param("date", r.date())
                .param("km", r.km())
                .param("value", r.writtenValue())
                .param("unit", r.writtenUnit().name())
                .param("source", r.source().name())
                .param("by", r.enteredBy())
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("once", once(vehicleId, r))
                .update(key, "id");
        long id = Objects.requireNonNull(key.getKeyAs(Long.class));
        made.row(Made.Table.READING, id);
        return id;
    }

    boolean markReading(long vehicleId, long readingId, boolean wrong) {
        return jdbc.sql(
                                "UPDATE reading SET marked_wrong = :wrong, once = NULL WHERE id = :id AND vehicle_id = :vehicle")
                        .param("wrong", wrong)
                        .param("id", readingId)
                        .param("vehicle", vehicleId)
                        .update()
                == 1;
    }

    void addRenewal(long vehicleId, Renewal r, Instant at) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO renewal
                            (vehicle_id, item_code, renewed_on, km, grade, part, batch, proof, better_part, job_id, entered_by,
                             entered_at)
                        VALUES (:vehicle, :item, :date, :km, :grade, :part, :batch, :proof, :better, :job, :by, :at)
                        """)
                .param("vehicle", vehicleId)
                .param("item", r.itemCode())
                .param("date", r.date())
                .param("km", r.km())
                .param("grade", r.grade().name())
                .param("part", r.part())
                .param("batch", r.batch())
                .param("proof", r.proof())
                .param("better", r.betterPart())
                .param("job", r.jobId().orElse(null))
                .param("by", r.enteredBy())
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update(key, "id");
        made.row(Made.Table.RENEWAL, Objects.requireNonNull(key.getKeyAs(Long.class)));
    }

    /** True where the same is open already. */
    boolean hasEvidence(long vehicleId, StoredEvidence e) {
        return jdbc.sql("SELECT COUNT(*) FROM evidence WHERE once = :once")
                        .param("once", once(vehicleId, e))
                        .query(Long.class)
                        .single()
                > 0;
    }

    private static String once(long vehicleId, StoredEvidence e) {
        return Secret.hash("%d %s %s %s %s %s %s"
                .formatted(
                        vehicleId,
                        e.evidence().kind(),
                        e.evidence().found(),
                        e.evidence().confidence(),
                        e.evidence().item().orElse(""),
                        e.source(),
                        e.note()));
    }

    /** @throws org.springframework.dao.DuplicateKeyException where somebody noted the same meanwhile */
    void addEvidence(long vehicleId, StoredEvidence e, Instant at) {
        jdbc.sql("""
                        INSERT INTO evidence
                            (vehicle_id, kind, found_on, confidence, item_code, source, note, entered_by, entered_at,
                             once)
                        VALUES (:vehicle, :kind, :found, :confidence, :item, :source, :note, :by, :at, :once)
                        """)
                .param("vehicle", vehicleId)
                .param("kind", e.evidence().kind().name())
                .param("found", e.evidence().found())
                .param("confidence", e.evidence().confidence().name())
                .param("item", e.evidence().item().orElse(null))
                .param("source", e.source())
                .param("note", e.note())
                .param("by", e.enteredBy())
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("once", once(vehicleId, e))
                .update();
    }

    /** Ends one finding, or all open ones where {@code evidenceId} is empty; returns how many ended. */
    int endEvidence(long vehicleId, long evidenceId, LocalDate on, String why) {
        return jdbc.sql("""
                        UPDATE evidence
                        SET ended_on = :on, ended_why = :why, once = NULL
                        WHERE vehicle_id = :vehicle AND ended_on IS NULL AND id = :id
                        """)
                .param("on", on)
                .param("why", why)
                .param("vehicle", vehicleId)
                .param("id", evidenceId)
                .update();
    }

    void addTrip(long vehicleId, KnownTrip trip) {
        jdbc.sql("INSERT INTO trip (vehicle_id, from_date, to_date, extra_km) VALUES (:vehicle, :from, :to, :km)")
                .param("vehicle", vehicleId)
                .param("from", trip.from())
                .param("to", trip.to())
                .param("km", trip.extraKm())
                .update();
    }

    boolean cancelTrip(long vehicleId, long tripId, LocalDate on) {
        return jdbc.sql("""
                                UPDATE trip SET cancelled_on = :on
                                WHERE id = :id AND vehicle_id = :vehicle AND cancelled_on IS NULL
                                """)
                        .param("on", on)
                        .param("id", tripId)
                        .param("vehicle", vehicleId)
                        .update()
                == 1;
    }

    void addReplacement(long vehicleId, OdometerReplacement r, Instant at) {
        jdbc.sql("""
                        INSERT INTO odometer_replacement
                            (vehicle_id, reading_id, replaced_on, offset_km, entered_by, entered_at)
                        VALUES (:vehicle, :reading, :on, :offset, :by, :at)
                        """)
                .param("vehicle", vehicleId)
                .param("reading", r.readingId())
                .param("on", r.replacedOn())
                .param("offset", r.offsetKm())
                .param("by", r.enteredBy())
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update();
    }

    boolean undoReplacement(long vehicleId, long readingId) {
        return jdbc.sql("""
                                UPDATE odometer_replacement SET undone = TRUE
                                WHERE reading_id = :reading AND vehicle_id = :vehicle AND NOT undone
                                """)
                        .param("reading", readingId)
                        .param("vehicle", vehicleId)
                        .update()
                == 1;
    }

    void addCall(long vehicleId, CallNote c, Instant at) {
        jdbc.sql("""
                        INSERT INTO call_note
                            (vehicle_id, spoken_on, spoke_with, note, ask_again_on, entered_by, entered_at)
                        VALUES (:vehicle, :on, :with, :note, :again, :by, :at)
                        """)
                .param("vehicle", vehicleId)
                .param("on", c.spokenOn())
                .param("with", c.spokeWith())
                .param("note", c.note())
                .param("again", c.askAgainOn().orElse(null))
                .param("by", c.enteredBy())
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update();
    }

    void addDecline(long vehicleId, StandingDecline d, Instant at) {
        jdbc.sql("""
                        INSERT INTO standing_decline
                            (vehicle_id, declined_on, declined_by, told, until_date, entered_by, entered_at)
                        VALUES (:vehicle, :on, :who, :told, :until, :by, :at)
                        """)
                .param("vehicle", vehicleId)
                .param("on", d.declinedOn())
                .param("who", d.declinedBy())
                .param("told", d.told())
                .param("until", d.until())
                .param("by", d.enteredBy())
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update();
    }

    void bringForward(long vehicleId, BroughtForward f, String by, Instant at) {
        jdbc.sql("""
                        MERGE INTO vehicle_forward (vehicle_id, to_month, from_day, made_by, made_at)
                        KEY (vehicle_id)
                        VALUES (:vehicle, :month, :from, :by, :at)
                        """)
                .param("vehicle", vehicleId)
                .param("month", f.month().atDay(1))
                .param("from", f.from())
                .param("by", by)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update();
    }

    boolean leaveInItsMonth(long vehicleId) {
        return jdbc.sql("DELETE FROM vehicle_forward WHERE vehicle_id = :vehicle")
                        .param("vehicle", vehicleId)
                        .update()
                == 1;
    }

    boolean withdrawDecline(long vehicleId, long declineId, LocalDate on) {
        return jdbc.sql("""
                                UPDATE standing_decline SET withdrawn_on = :on
                                WHERE id = :id AND vehicle_id = :vehicle AND withdrawn_on IS NULL
                                """)
                        .param("on", on)
                        .param("id", declineId)
                        .param("vehicle", vehicleId)
                        .update()
                == 1;
    }

    private <T> List<T> one(String select, String order, long vehicleId, RowMapper<Owned<T>> mapper) {
        return jdbc
                .sql(select + (select.contains("WHERE") ? " AND" : " WHERE") + " vehicle_id = :vehicle ORDER BY "
                        + order)
                .param("vehicle", vehicleId)
                .query(mapper)
                .list()
                .stream()
                .map(Owned::value)
                .toList();
    }

    private <T> Map<Long, List<T>> all(String select, String order, RowMapper<Owned<T>> mapper) {
        return jdbc.sql(select + " ORDER BY " + order).query(mapper).list().stream()
                .collect(
                        Collectors.groupingBy(Owned::vehicleId, Collectors.mapping(Owned::value, Collectors.toList())));
    }

    private static final RowMapper<Owned<StoredReading>> READING = (rs, row) -> new Owned<>(
            rs.getLong("vehicle_id"),
            new StoredReading(
                    rs.getLong("id"),
                    rs.getObject("read_on", LocalDate.class),
                    rs.getInt("km"),
                    rs.getBigDecimal("written_value"),
                    DistanceUnit.valueOf(rs.getString("written_unit")),
                    ReadingSource.valueOf(rs.getString("source")),
                    rs.getBoolean("marked_wrong"),
                    rs.getString("entered_by")));

    private static final RowMapper<Owned<Renewal>> RENEWAL = (rs, row) -> new Owned<>(
            rs.getLong("vehicle_id"),
            new Renewal(
                    rs.getString("item_code"),
                    rs.getObject("renewed_on", LocalDate.class),
                    rs.getInt("km"),
                    ClockStart.Grade.valueOf(rs.getString("grade")),
                    rs.getString("part"),
                    rs.getString("batch"),
                    rs.getString("proof"),
                    rs.getBoolean("better_part"),
                    Optional.ofNullable(rs.getObject("job_id", Long.class)),
                    rs.getString("entered_by")));

    private static final RowMapper<Owned<StoredEvidence>> FOUND = (rs, row) -> new Owned<>(
            rs.getLong("vehicle_id"),
            new StoredEvidence(
                    rs.getLong("id"),
                    new Evidence(
                            EvidenceKind.valueOf(rs.getString("kind")),
                            rs.getObject("found_on", LocalDate.class),
                            Evidence.Confidence.valueOf(rs.getString("confidence")),
                            Optional.ofNullable(rs.getString("item_code"))),
                    rs.getString("source"),
                    rs.getString("note"),
                    Optional.ofNullable(rs.getObject("ended_on", LocalDate.class)),
                    Optional.ofNullable(rs.getString("ended_why")),
                    rs.getString("entered_by")));

    private static final RowMapper<Owned<StoredTrip>> TRIP = (rs, row) -> new Owned<>(
            rs.getLong("vehicle_id"),
            new StoredTrip(
                    rs.getLong("id"),
                    new KnownTrip(
                            rs.getObject("from_date", LocalDate.class),
                            rs.getObject("to_date", LocalDate.class),
                            rs.getInt("extra_km")),
                    Optional.ofNullable(rs.getObject("cancelled_on", LocalDate.class))));

    private static final RowMapper<Owned<OdometerReplacement>> REPLACEMENT = (rs, row) -> new Owned<>(
            rs.getLong("vehicle_id"),
            new OdometerReplacement(
                    rs.getLong("id"),
                    rs.getLong("reading_id"),
                    rs.getObject("replaced_on", LocalDate.class),
                    rs.getInt("offset_km"),
                    rs.getString("entered_by")));

    private static final RowMapper<Owned<CallNote>> CALL = (rs, row) -> new Owned<>(
            rs.getLong("vehicle_id"),
            new CallNote(
                    rs.getLong("id"),
                    rs.getObject("spoken_on", LocalDate.class),
                    rs.getString("spoke_with"),
                    rs.getString("note"),
                    Optional.ofNullable(rs.getObject("ask_again_on", LocalDate.class)),
                    rs.getString("entered_by")));

    private static final RowMapper<Owned<BroughtForward>> BROUGHT_FORWARD = (rs, row) -> new Owned<>(
            rs.getLong("vehicle_id"),
            new BroughtForward(
                    YearMonth.from(rs.getObject("to_month", LocalDate.class)),
                    rs.getObject("from_day", LocalDate.class)));

    private static final RowMapper<Owned<StandingDecline>> DECLINE = (rs, row) -> new Owned<>(
            rs.getLong("vehicle_id"),
            new StandingDecline(
                    rs.getLong("id"),
                    rs.getObject("declined_on", LocalDate.class),
                    rs.getString("declined_by"),
                    rs.getString("told"),
                    rs.getObject("until_date", LocalDate.class),
                    Optional.ofNullable(rs.getObject("withdrawn_on", LocalDate.class)),
                    rs.getString("entered_by")));
}
