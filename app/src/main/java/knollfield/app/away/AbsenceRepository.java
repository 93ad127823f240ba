package knollfield.app.away;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** Absences; withdrawn ones stay on file. */
@Repository
class AbsenceRepository {

    private final JdbcClient jdbc;

    AbsenceRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Those in force that end on {@code from} or later. */
    List<Absence> endingFrom(LocalDate from) {
        return jdbc.sql("""
                        SELECT id, kind, person_id, bay_id, family_code, from_date, to_date, why, entered_by
                        FROM absence
                        WHERE to_date >= :from AND withdrawn_at IS NULL
                        ORDER BY from_date, id
                        """)
                .param("from", from)
                .query((rs, row) -> new Absence(
                        rs.getLong("id"),
                        Absence.Kind.valueOf(rs.getString("kind")),
                        Optional.ofNullable(rs.getObject("person_id", Long.class)),
                        Optional.ofNullable(rs.getObject("bay_id", Long.class)),
                        Optional.ofNullable(rs.getString("family_code")),
                        rs.getObject("from_date", LocalDate.class),
                        rs.getObject("to_date", LocalDate.class),
                        rs.getString("why"),
                        rs.getString("entered_by")))
                .list();
    }

    long add(Absence a, Instant at) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO absence (kind, person_id, bay_id, family_code, from_date, to_date, why, entered_by,
                            entered_at)
                        VALUES (:kind, :person, :bay, :family, :from, :to, :why, :by, :at)
                        """)
                .param("kind", a.kind().name())
                .param("person", a.technicianId().orElse(null))
                .param("bay", a.bayId().orElse(null))
                .param("family", a.familyCode().orElse(null))
                .param("from", a.from())
                .param("to", a.to())
                .param("why", a.why())
                .param("by", a.enteredBy())
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update(key, "id");
        return Objects.requireNonNull(key.getKeyAs(Long.class));
    }

    /** False where it is not in force. */
    boolean withdraw(long id, Instant at) {
        return jdbc.sql("UPDATE absence SET withdrawn_at = :at WHERE id = :id AND withdrawn_at IS NULL")
                        .param("at", at.atOffset(ZoneOffset.UTC))
                        .param("id", id)
                        .update()
                == 1;
    }
}
