package knollfield.app.vehicle;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.due.Condition;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** Vehicles and fleets. */
@Repository
class VehicleRepository {

    private static final String SELECT = """
            SELECT v.id, v.registration, v.vin, v.make_model, v.family_code, v.owner_name, v.owner_phone,
                   v.usage_class, v.first_registered, v.came_with_reading, v.conditions, v.equipment, v.lift_class,
                   v.value_minor, v.version,
                   f.id AS fleet_id, f.name AS fleet_name, f.off_road_cap, f.contact_name, f.phone AS fleet_phone
            FROM vehicle v
            LEFT JOIN fleet f ON f.id = v.fleet_id
            """;

    private final JdbcClient jdbc;

    VehicleRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
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
        return jdbc.sql("SELECT id, name, off_road_cap, contact_name, phone FROM fleet ORDER BY name")
                .query((rs, row) -> new Fleet(
                        rs.getLong("id"),
                        rs.getString("name"),
                        rs.getInt("off_road_cap"),
                        rs.getString("contact_name"),
                        rs.getString("phone")))
                .list();
    }

    long add(Vehicle v) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO vehicle
                            (registration, registration_key, vin, make_model, family_code, owner_name, owner_phone,
                             fleet_id, usage_class, first_registered, came_with_reading, conditions, equipment,
                             lift_class, value_minor, version)
                        VALUES
                            (:registration, :key, :vin, :makeModel, :family, :owner, :phone,
                             :fleet, :usage, :registered, :came, :conditions, :equipment, :lift, :value, 1)
                        """)
                .param("registration", v.registration())
                .param("key", Registration.key(v.registration()))
                .param("vin", v.vin().orElse(null))
                .param("makeModel", v.makeModel())
                .param("family", v.familyCode().orElse(null))
                .param("owner", v.ownerName())
                .param("phone", v.ownerPhone())
                .param("fleet", v.fleet().map(Fleet::id).orElse(null))
                .param("usage", v.usageClass())
                .param("registered", v.firstRegistered())
                .param("came", v.cameWithReading())
                .param("conditions", join(v.conditions()))
                .param(
                        "equipment",
                        String.join(",", v.equipment().stream().sorted().toList()))
                .param("lift", v.liftClass())
                .param("value", v.valueMinor().isPresent() ? v.valueMinor().getAsLong() : null)
                .update(key, "id");
        return Objects.requireNonNull(key.getKeyAs(Long.class));
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
                        rs.getString("fleet_phone")));
        Long value = rs.getObject("value_minor", Long.class);
        return new Vehicle(
                rs.getLong("id"),
                rs.getString("registration"),
                Optional.ofNullable(rs.getString("vin")),
                rs.getString("make_model"),
                Optional.ofNullable(rs.getString("family_code")),
                rs.getString("owner_name"),
                rs.getString("owner_phone"),
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
                rs.getInt("version"));
    }

    private static String join(Set<Condition> conditions) {
        return conditions.stream().sorted().map(Enum::name).collect(Collectors.joining(","));
    }

    private static Set<String> split(String text) {
        return Arrays.stream(text.split(",")).filter(s -> !s.isEmpty()).collect(Collectors.toSet());
    }
}
