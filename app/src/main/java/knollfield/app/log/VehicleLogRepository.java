package knollfield.app.log;

import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Objects;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** The log's lines. */
@Repository
class VehicleLogRepository {

    private final JdbcClient jdbc;
    private final Made made;

    VehicleLogRepository(JdbcClient jdbc, Made made) {
        this.jdbc = jdbc;
        this.made = made;
    }

    void add(long vehicleId, VehicleLog.Line line) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO vehicle_log (vehicle_id, at, by_name, what, before_text, after_text)
                        VALUES (:vehicle, :at, :by, :what, :before, :after)
                        """)
                .param("vehicle", vehicleId)
                .param("at", line.at().atOffset(ZoneOffset.UTC))
                .param("by", line.by())
                .param("what", line.what())
                .param("before", line.before())
                .param("after", line.after())
                .update(key, "id");
        made.row(Made.Table.VEHICLE_LOG, Objects.requireNonNull(key.getKeyAs(Long.class)));
    }

    List<VehicleLog.Line> newest(long vehicleId, int most) {
        return jdbc.sql("""
                        SELECT at, by_name, what, before_text, after_text
                        FROM vehicle_log
                        WHERE vehicle_id = :vehicle
                        ORDER BY id DESC
                        FETCH FIRST :most ROWS ONLY
                        """)
                .param("vehicle", vehicleId)
                .param("most", most)
                .query((rs, row) -> new VehicleLog.Line(
                        rs.getObject("at", OffsetDateTime.class).toInstant(),
                        rs.getString("by_name"),
                        rs.getString("what"),
                        rs.getString("before_text"),
                        rs.getString("after_text")))
                .list();
    }
}
