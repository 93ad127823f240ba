package knollfield.app.vehicle;

import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Who else speaks for fleets. */
@Repository
class FleetContactRepository {

    private final JdbcClient jdbc;

    FleetContactRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<FleetContact> of(long fleetId) {
        return jdbc.sql("SELECT name, role, phone, email FROM fleet_contact WHERE fleet_id = :id ORDER BY place")
                .param("id", fleetId)
                .query((rs, row) -> new FleetContact(
                        rs.getString("name"), rs.getString("role"), rs.getString("phone"), rs.getString("email")))
                .list();
    }

    void replace(long fleetId, List<FleetContact> contacts) {
        jdbc.sql("DELETE FROM fleet_contact WHERE fleet_id = :id")
                .param("id", fleetId)
                .update();
        for (int i = 0; i < contacts.size(); i++) {
            FleetContact c = contacts.get(i);
            jdbc.sql("""
                            INSERT INTO fleet_contact (fleet_id, place, name, role, phone, email)
                            VALUES (:id, :place, :name, :role, :phone, :email)
                            """)
                    .param("id", fleetId)
                    .param("place", i)
                    .param("name", c.name())
                    .param("role", c.role())
                    .param("phone", c.phone())
                    .param("email", c.email())
                    .update();
        }
    }
}
