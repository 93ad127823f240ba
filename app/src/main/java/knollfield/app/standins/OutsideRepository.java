package knollfield.app.standins;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.util.Arrays;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** The one row that says what is connected. */
@Repository
class OutsideRepository {

    private final JdbcClient jdbc;

    OutsideRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Outside.State read() {
        return jdbc.sql("""
                        SELECT fault_codes_stand_in, belt_meter_stand_in, parts_stand_in, delivery_name, delivery_days,
                               cut_off, version
                        FROM outside
                        """)
                .query((rs, row) -> new Outside.State(
                        rs.getBoolean("fault_codes_stand_in"),
                        rs.getBoolean("belt_meter_stand_in"),
                        rs.getBoolean("parts_stand_in"),
                        rs.getString("delivery_name"),
                        Arrays.stream(rs.getString("delivery_days").split(","))
                                .filter(d -> !d.isEmpty())
                                .map(DayOfWeek::valueOf)
                                .collect(Collectors.toUnmodifiableSet()),
                        Optional.ofNullable(rs.getObject("cut_off", LocalTime.class)),
                        rs.getInt("version")))
                .single();
    }

    /** False where the version is no longer the current one. */
    boolean update(Outside.State next, String by) {
        return jdbc.sql("""
                        UPDATE outside
                        SET fault_codes_stand_in = :codes, belt_meter_stand_in = :meter, parts_stand_in = :parts,
                            delivery_name = :name, delivery_days = :days, cut_off = :cutOff, version = version + 1, changed_by = :by
                        WHERE version = :version
                        """)
                        .param("codes", next.faultCodes())
                        .param("meter", next.beltMeter())
                        .param("parts", next.parts())
                        .param("name", next.deliveryName().strip())
                        .param(
                                "days",
                                next.deliveryDays().stream()
                                        .sorted()
                                        .map(Enum::name)
                                        .collect(Collectors.joining(",")))
                        .param("cutOff", next.cutOff().orElse(null))
                        .param("by", by)
                        .param("version", next.version())
                        .update()
                == 1;
    }
}
