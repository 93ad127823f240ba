package knollfield.app.demo;

import java.util.Objects;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** Rows of the demo that no screen of the product writes yet. */
@Repository
class DemoRepository {

    private final JdbcClient jdbc;

    DemoRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long addFleet(String name, int cap, String contact, String phone) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO fleet (name, off_road_cap, contact_name, phone)
                        VALUES (:name, :cap, :contact, :phone)
                        """)
                .param("name", name)
                .param("cap", cap)
                .param("contact", contact)
                .param("phone", phone)
                .update(key, "id");
        return Objects.requireNonNull(key.getKeyAs(Long.class));
    }

    void addBay(String name, String note, int liftClass) {
        jdbc.sql("INSERT INTO bay (name, note, lift_class) VALUES (:name, :note, :lift)")
                .param("name", name)
                .param("note", note)
                .param("lift", liftClass)
                .update();
    }

    long bay(String name) {
        return jdbc.sql("SELECT id FROM bay WHERE name = :name")
                .param("name", name)
                .query(Long.class)
                .single();
    }

    /** Lets a signed job be one of yesterday. */
    void moveToYesterday(long jobId) {
        for (String sql : new String[] {
            """
            UPDATE job
            SET completed_on = DATEADD(DAY, -1, completed_on), next_due_on = DATEADD(DAY, -1, next_due_on)
            WHERE id = :id
            """,
            "UPDATE renewal SET renewed_on = DATEADD(DAY, -1, renewed_on) WHERE job_id = :id",
            "UPDATE card_event SET at = DATEADD(DAY, -1, at) WHERE job_id = :id",
            """
            UPDATE reading
            SET read_on = DATEADD(DAY, -1, read_on)
            WHERE vehicle_id = (SELECT vehicle_id FROM job WHERE id = :id)
              AND read_on = (SELECT DATEADD(DAY, 1, completed_on) FROM job WHERE id = :id)
            """
        }) {
            jdbc.sql(sql).param("id", jobId).update();
        }
    }
}
