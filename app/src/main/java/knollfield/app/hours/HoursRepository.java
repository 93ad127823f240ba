package knollfield.app.hours;

import knollfield.core.plan.WorkHours;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** The one row that says when the workshop works. */
@Repository
class HoursRepository {

    private final JdbcClient jdbc;

    HoursRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Hours.Opening read() {
        return jdbc.sql("SELECT hours, version, changed_by FROM opening")
                .query((rs, row) -> new Hours.Opening(
                        WorkHours.read(rs.getString("hours")), rs.getInt("version"), rs.getString("changed_by")))
                .single();
    }

    /** False where the version is no longer the current one. */
    boolean update(WorkHours hours, int version, String by) {
        return jdbc.sql("""
                        UPDATE opening SET hours = :hours, version = version + 1, changed_by = :by
                        WHERE version = :version
                        """)
                        .param("hours", hours.write())
                        .param("by", by)
                        .param("version", version)
                        .update()
                == 1;
    }
}
