package knollfield.app.practice;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import knollfield.core.practice.Course;
import knollfield.core.practice.Skill;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Scores of practice, of those who wish to keep theirs. */
@Repository
class PracticeRepository {

    private final JdbcClient jdbc;

    PracticeRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @param points 0 to {@code most} */
    record Stored(String familyCode, Skill skill, int points, int most) {}

    record Keeper(long id, String name) {}

    boolean keeps(long person) {
        return jdbc.sql("SELECT keeps_practice FROM person WHERE id = :id")
                .param("id", person)
                .query(Boolean.class)
                .single();
    }

    void keep(long person, boolean keeps) {
        jdbc.sql("UPDATE person SET keeps_practice = :keeps WHERE id = :id")
                .param("keeps", keeps)
                .param("id", person)
                .update();
    }

    /** Everybody who keeps their scores and is still here, by name. */
    List<Keeper> keepers() {
        return jdbc.sql("SELECT id, name FROM person WHERE keeps_practice AND active ORDER BY name, id")
                .query(Keeper.class)
                .list();
    }

    /** The newest answers of one person on one of {@code families}, newest first. */
    List<Stored> newest(long person, List<String> families) {
        return families.isEmpty()
                ? List.of()
                : jdbc.sql("""
                        SELECT family_code, skill, points, most FROM practice_result
                        WHERE person_id = :person AND family_code IN (:families)
                        ORDER BY answered_at DESC, id DESC
                        FETCH FIRST :most ROWS ONLY
                        """)
                        .param("person", person)
                        .param("families", families)
                        .param("most", Course.NEWEST)
                        .query(Stored.class)
                        .list();
    }

    /** Keeps an answer, unless the same question was answered before. */
    void add(long person, String familyCode, Skill skill, long seed, int points, int most, Instant at) {
        jdbc.sql("""
                        INSERT INTO practice_result (person_id, family_code, skill, seed, points, most, answered_at)
                        SELECT :person, :family, :skill, :seed, :points, :most, :at
                        WHERE NOT EXISTS (
                            SELECT 1 FROM practice_result
                            WHERE person_id = :person AND family_code = :family AND skill = :skill AND seed = :seed)
                        """)
                .param("person", person)
                .param("family", familyCode)
                .param("skill", skill.name())
                .param("seed", seed)
                .param("points", points)
                .param("most", most)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update();
    }

    void forget(long person) {
        jdbc.sql("DELETE FROM practice_result WHERE person_id = :person")
                .param("person", person)
                .update();
    }
}
