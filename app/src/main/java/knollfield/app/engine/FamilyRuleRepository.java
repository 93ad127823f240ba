package knollfield.app.engine;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import knollfield.core.matching.FamilyRule;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Matching rules on file. */
@Repository
class FamilyRuleRepository {

    private final JdbcClient jdbc;

    FamilyRuleRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** By family, then as they were made. */
    List<FamilyRules.Stored> all() {
        return jdbc.sql("""
                        SELECT id, family_code, make_model, engine, year_from, year_to, version
                        FROM family_rule
                        ORDER BY family_code, id
                        """).query(FamilyRuleRepository::stored).list();
    }

    void add(FamilyRule rule, String by) {
        jdbc.sql("""
                        INSERT INTO family_rule (family_code, make_model, engine, year_from, year_to, version, changed_by)
                        VALUES (:family, :makeModel, :engine, :from, :to, 1, :by)
                        """)
                .param("family", rule.family())
                .param("makeModel", rule.makeModel())
                .param("engine", rule.engine())
                .param("from", year(rule.yearFrom()))
                .param("to", year(rule.yearTo()))
                .param("by", by)
                .update();
    }

    /** False where the version is no longer the current one. */
    boolean update(long id, FamilyRule rule, int version, String by) {
        return jdbc.sql("""
                        UPDATE family_rule
                        SET family_code = :family, make_model = :makeModel, engine = :engine, year_from = :from,
                            year_to = :to, version = version + 1, changed_by = :by
                        WHERE id = :id AND version = :version
                        """)
                        .param("family", rule.family())
                        .param("makeModel", rule.makeModel())
                        .param("engine", rule.engine())
                        .param("from", year(rule.yearFrom()))
                        .param("to", year(rule.yearTo()))
                        .param("by", by)
                        .param("id", id)
                        .param("version", version)
                        .update()
                == 1;
    }

    /** False where the version is no longer the current one. */
    boolean delete(long id, int version) {
        return jdbc.sql("DELETE FROM family_rule WHERE id = :id AND version = :version")
                        .param("id", id)
                        .param("version", version)
                        .update()
                == 1;
    }

    private static @Nullable Integer year(OptionalInt year) {
        return year.isPresent() ? year.getAsInt() : null;
    }

    private static FamilyRules.Stored stored(ResultSet rs, int row) throws SQLException {
        return new FamilyRules.Stored(
                rs.getLong("id"),
                new FamilyRule(
                        rs.getString("family_code"),
                        rs.getString("make_model"),
                        rs.getString("engine"),
                        year(rs.getObject("year_from", Integer.class)),
                        year(rs.getObject("year_to", Integer.class))),
                rs.getInt("version"));
    }

    private static OptionalInt year(@Nullable Integer year) {
        return Optional.ofNullable(year).map(OptionalInt::of).orElseGet(OptionalInt::empty);
    }
}
