package knollfield.app.demo;

import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Rows of the demo that no screen of the product writes yet. */
@Repository
class DemoRepository {

    private final JdbcClient jdbc;

    DemoRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long bay(String name) {
        return jdbc.sql("SELECT id FROM bay WHERE name = :name")
                .param("name", name)
                .query(Long.class)
                .single();
    }

    /** Some owners like letters, some mail, some text messages, most the telephone; not everybody has said where they live. */
    void waysToReachOwners() {
        jdbc.sql("""
                        UPDATE owner
                        SET address = CASE WHEN MOD(id, 5) = 0 THEN '' ELSE 'Quay Lane ' || (MOD(id, 90) + 1) || CHAR(10) || 'Skerrow' END,
                            email = CASE WHEN MOD(id, 3) = 0 THEN ''
                                         ELSE LOWER(REPLACE(name, ' ', '.')) || '@skerrow.example' END,
                            prefers = CASE MOD(id, 8) WHEN 1 THEN 'EMAIL' WHEN 2 THEN 'LETTER' WHEN 4 THEN 'MESSAGE' ELSE 'PHONE' END
                        """).update();
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
