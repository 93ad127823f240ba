package knollfield.app.vehicle;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.log.Made;
import knollfield.app.settings.Timings;
import knollfield.core.due.Condition;
import knollfield.core.due.Policy;
import knollfield.core.due.UseState;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** Vehicles and fleets. */
@Repository
class VehicleRepository {

    private static final String SELECT = """
            SELECT v.id, v.registration, v.vin, v.make_model, v.engine, v.family_code, v.owner_id,
                   o.name AS owner_name, p.number AS owner_phone,
                   v.usage_class, v.first_registered, v.came_with_reading, v.conditions, v.equipment, v.lift_class,
                   v.value_minor, v.use_state, v.state_since, v.idle_hours_year, v.own_policy, v.own_share, v.own_km,
                   v.own_months, v.own_reason, v.belt_date_code, v.version,
                   f.id AS fleet_id, f.name AS fleet_name, f.off_road_cap, f.contact_name, f.phone AS fleet_phone,
                   f.days AS fleet_days, f.version AS fleet_version
            FROM vehicle v
            LEFT JOIN fleet f ON f.id = v.fleet_id
            LEFT JOIN owner o ON o.id = v.owner_id
            LEFT JOIN owner_phone p ON p.owner_id = v.owner_id AND p.place = 0
            """;

    private final JdbcClient jdbc;
    private final Made made;

    VehicleRepository(JdbcClient jdbc, Made made) {
        this.jdbc = jdbc;
        this.made = made;
    }

    Optional<Vehicle> find(long id) {
        return jdbc.sql(SELECT + " WHERE v.id = :id")
                .param("id", id)
                .query(VehicleRepository::vehicle)
                .optional();
    }

    Optional<Vehicle> findByKey(String registrationKey) {
        return jdbc.sql(SELECT + " WHERE v.registration_key = :key")
                .param("key", registrationKey)
                .query(VehicleRepository::vehicle)
                .optional();
    }

    List<Vehicle> all() {
        return jdbc.sql(SELECT + " ORDER BY v.id")
                .query(VehicleRepository::vehicle)
                .list();
    }

    List<Fleet> fleets() {
        return jdbc.sql("""
                        SELECT id, name, off_road_cap, contact_name, phone, days, version
                        FROM fleet
                        WHERE active
                        ORDER BY name
                        """)
                .query((rs, row) -> new Fleet(
                        rs.getLong("id"),
                        rs.getString("name"),
                        rs.getInt("off_road_cap"),
                        rs.getString("contact_name"),
                        rs.getString("phone"),
                        days(rs.getString("days")),
                        rs.getInt("version")))
                .list();
    }

    OnFile onFile() {
        return jdbc.sql("""
                        SELECT COUNT(*) AS vehicles,
                               COUNT(CASE WHEN v.family_code IS NULL THEN 1 END) AS without_family,
                               COUNT(CASE WHEN NOT EXISTS (
                                   SELECT 1 FROM reading r WHERE r.vehicle_id = v.id AND NOT r.marked_wrong
                               ) THEN 1 END) AS without_reading
                        FROM vehicle v
                        WHERE v.use_state NOT IN ('SOLD', 'SCRAPPED', 'MISTAKE')
                        """)
                .query((rs, row) ->
                        new OnFile(rs.getInt("vehicles"), rs.getInt("without_family"), rs.getInt("without_reading")))
                .single();
    }

    /** Makes a fleet, or takes one of that name back that was given up. */
    void addFleet(Fleet f) {
        int back = jdbc.sql("""
                        UPDATE fleet
                        SET active = TRUE, off_road_cap = :cap, contact_name = :contact, phone = :phone, days = :days,
                            version = version + 1
                        WHERE name = :name AND NOT active
                        """).params(fields(f)).update();
        if (back == 0) {
            KeyHolder key = new GeneratedKeyHolder();
            jdbc.sql("""
                            INSERT INTO fleet (name, off_road_cap, contact_name, phone, days, version)
                            VALUES (:name, :cap, :contact, :phone, :days, 1)
                            """).params(fields(f)).update(key, "id");
            made.row(Made.Table.FLEET, Objects.requireNonNull(key.getKeyAs(Long.class)));
        }
    }

    /** False where the version is no longer the current one. */
    boolean updateFleet(Fleet f, boolean active) {
        return jdbc.sql("""
                                UPDATE fleet
                                SET name = :name, off_road_cap = :cap, contact_name = :contact, phone = :phone,
                                    days = :days, active = :active, version = version + 1
                                WHERE id = :id AND version = :version
                                """)
                        .params(fields(f))
                        .param("active", active)
                        .param("id", f.id())
                        .param("version", f.version())
                        .update()
                == 1;
    }

    private static Map<String, Object> fields(Fleet f) {
        return Map.of(
                "name",
                f.name(),
                "cap",
                f.offRoadCap(),
                "contact",
                f.contactName(),
                "phone",
                f.phone(),
                "days",
                f.days().stream().sorted().map(Enum::name).collect(Collectors.joining(",")));
    }

    /** How many vehicles a fleet has, and how many people sign in for it. */
    int users(long fleetId) {
        return jdbc.sql("""
                        SELECT (SELECT COUNT(*) FROM vehicle WHERE fleet_id = :id)
                             + (SELECT COUNT(*) FROM person WHERE fleet_id = :id AND active)
                        """).param("id", fleetId).query(Integer.class).single();
    }

    private static Set<DayOfWeek> days(String text) {
        return Arrays.stream(text.split(","))
                .filter(d -> !d.isEmpty())
                .map(DayOfWeek::valueOf)
                .collect(Collectors.toUnmodifiableSet());
    }

    /** @param owner number of its owner's record; empty where nobody is stated */
    long add(Vehicle v, Optional<Long> owner) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO vehicle
                            (registration, registration_key, vin, make_model, engine, family_code, owner_id,
                             fleet_id, usage_class, first_registered, came_with_reading, conditions, equipment,
                             lift_class, value_minor, version)
                        VALUES
                            (:registration, :key, :vin, :makeModel, :engine, :family, :owner,
                             :fleet, :usage, :registered, :came, :conditions, :equipment, :lift, :value, 1)
                        """).params(fields(v, owner)).update(key, "id");
        long id = Objects.requireNonNull(key.getKeyAs(Long.class));
        made.row(Made.Table.VEHICLE, id);
        return id;
    }

    /** False where the version is no longer the current one. */
    boolean updateConditions(long id, int version, Set<Condition> conditions) {
        return jdbc.sql("""
                                UPDATE vehicle
                                SET conditions = :conditions, version = version + 1
                                WHERE id = :id AND version = :version
                                """)
                        .param("conditions", join(conditions))
                        .param("id", id)
                        .param("version", version)
                        .update()
                == 1;
    }

    /** Counts the version up; false where it is no longer the current one. */
    boolean touch(long id, int version) {
        return jdbc.sql("UPDATE vehicle SET version = version + 1 WHERE id = :id AND version = :version")
                        .param("id", id)
                        .param("version", version)
                        .update()
                == 1;
    }

    private static Vehicle vehicle(ResultSet rs, int row) throws SQLException {
        Long fleetId = rs.getObject("fleet_id", Long.class);
        Optional<Fleet> fleet = fleetId == null
                ? Optional.empty()
                : Optional.of(new Fleet(
                        fleetId,
                        rs.getString("fleet_name"),
                        rs.getInt("off_road_cap"),
                        rs.getString("contact_name"),
                        rs.getString("fleet_phone"),
                        days(rs.getString("fleet_days")),
                        rs.getInt("fleet_version")));
        Long value = rs.getObject("value_minor", Long.class);
        return new Vehicle(
                rs.getLong("id"),
                rs.getString("registration"),
                Optional.ofNullable(rs.getString("vin")),
                rs.getString("make_model"),
                rs.getString("engine"),
                Optional.ofNullable(rs.getString("family_code")),
                Optional.ofNullable(rs.getObject("owner_id", Long.class)),
                Objects.requireNonNullElse(rs.getString("owner_name"), Owner.NOT_STATED),
                Objects.requireNonNullElse(rs.getString("owner_phone"), Owner.NOT_STATED),
                fleet,
                rs.getString("usage_class"),
                rs.getObject("first_registered", LocalDate.class),
                rs.getBoolean("came_with_reading"),
                split(rs.getString("conditions")).stream()
                        .map(Condition::valueOf)
                        .collect(Collectors.toSet()),
                split(rs.getString("equipment")),
                rs.getInt("lift_class"),
                value == null ? OptionalLong.empty() : OptionalLong.of(value),
                new UseState(
                        UseState.Kind.valueOf(rs.getString("use_state")),
                        Optional.ofNullable(rs.getObject("state_since", LocalDate.class))),
                rs.getInt("idle_hours_year"),
                own(rs),
                Optional.ofNullable(rs.getObject("belt_date_code", LocalDate.class)),
                rs.getInt("version"));
    }

    private static Optional<Policy.Own> own(ResultSet rs) throws SQLException {
        String kind = rs.getString("own_policy");
        if (kind == null) {
            return Optional.empty();
        }
        return Optional.of(new Policy.Own(
                Timings.of(
                        Timings.Kind.valueOf(kind),
                        rs.getDouble("own_share"),
                        rs.getObject("own_km", Integer.class),
                        rs.getObject("own_months", Integer.class)),
                rs.getString("own_reason")));
    }

    /**
     * Replaces everything of a vehicle that people edit; {@code v.version()} is the one it was read with. False where
     * that is no longer the current one.
     *
     * @param owner number of its owner's record; empty where nobody is stated
     */
    boolean update(Vehicle v, Optional<Long> owner) {
        return jdbc.sql("""
                                UPDATE vehicle
                                SET registration = :registration, registration_key = :key, vin = :vin,
                                    make_model = :makeModel, engine = :engine, family_code = :family, owner_id = :owner,
                                    fleet_id = :fleet, usage_class = :usage,
                                    first_registered = :registered, came_with_reading = :came,
                                    conditions = :conditions, equipment = :equipment, lift_class = :lift,
                                    value_minor = :value, use_state = :state, state_since = :since,
                                    idle_hours_year = :idle, own_policy = :ownKind, own_share = :ownShare,
                                    own_km = :ownKm, own_months = :ownMonths, own_reason = :ownReason,
                                    belt_date_code = :dateCode, version = version + 1
                                WHERE id = :id AND version = :version
                                """)
                        .params(fields(v, owner))
                        .param("state", v.state().kind().name())
                        .param("since", v.state().since().orElse(null))
                        .param("idle", v.idleHoursPerYear())
                        .param(
                                "ownKind",
                                v.own().map(o -> Timings.kind(o.timing())).orElse(null))
                        .param(
                                "ownShare",
                                v.own().map(o -> Timings.share(o.timing())).orElse(null))
                        .param("ownKm", v.own().map(o -> Timings.km(o.timing())).orElse(null))
                        .param(
                                "ownMonths",
                                v.own().map(o -> Timings.months(o.timing())).orElse(null))
                        .param("ownReason", v.own().map(Policy.Own::reason).orElse(null))
                        .param("dateCode", v.beltDateCode().orElse(null))
                        .param("id", v.id())
                        .param("version", v.version())
                        .update()
                == 1;
    }

    private static Map<String, @Nullable Object> fields(Vehicle v, Optional<Long> owner) {
        Map<String, @Nullable Object> fields = new HashMap<>();
        fields.put("registration", v.registration());
        fields.put("key", Registration.key(v.registration()));
        fields.put("vin", v.vin().orElse(null));
        fields.put("makeModel", v.makeModel());
        fields.put("engine", v.engine());
        fields.put("family", v.familyCode().orElse(null));
        fields.put("owner", owner.orElse(null));
        fields.put("fleet", v.fleet().map(Fleet::id).orElse(null));
        fields.put("usage", v.usageClass());
        fields.put("registered", v.firstRegistered());
        fields.put("came", v.cameWithReading());
        fields.put("conditions", join(v.conditions()));
        fields.put("equipment", String.join(",", v.equipment().stream().sorted().toList()));
        fields.put("lift", v.liftClass());
        fields.put("value", v.valueMinor().isPresent() ? v.valueMinor().getAsLong() : null);
        return fields;
    }

    private static String join(Set<Condition> conditions) {
        return conditions.stream().sorted().map(Enum::name).collect(Collectors.joining(","));
    }

    private static Set<String> split(String text) {
        return Arrays.stream(text.split(",")).filter(s -> !s.isEmpty()).collect(Collectors.toSet());
    }
}
