package knollfield.app.engine;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import knollfield.core.engine.EngineFamily;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** Engine families, each a document with versions: a job keeps the version it was built on. */
@Repository
class EngineFamilyRepository {

    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final FamilyJson families;

    EngineFamilyRepository(JdbcClient jdbc, JsonMapper json, FamilyJson families) {
        this.jdbc = jdbc;
        this.json = json;
        this.families = families;
    }

    /** The newest version of each family, by code. */
    Map<String, VersionedFamily> newest() {
        List<VersionedFamily> all = jdbc.sql("""
                        SELECT f.version, f.body, f.changed_by, f.changed_at, f.note
                        FROM engine_family f
                        WHERE f.version = (SELECT MAX(g.version) FROM engine_family g WHERE g.code = f.code)
                        ORDER BY f.name
                        """).query(this::versioned).list();
        return all.stream().collect(Collectors.toMap(f -> f.family().code(), f -> f));
    }

    /** All versions of a family, the newest first. */
    List<VersionedFamily> versions(String code) {
        return jdbc.sql("""
                        SELECT version, body, changed_by, changed_at, note
                        FROM engine_family
                        WHERE code = :code
                        ORDER BY version DESC
                        """).param("code", code).query(this::versioned).list();
    }

    Optional<EngineFamily> find(String code, int version) {
        return jdbc.sql("SELECT body FROM engine_family WHERE code = :code AND version = :version")
                .param("code", code)
                .param("version", version)
                .query((rs, row) -> families.stored(rs.getString("body")))
                .optional();
    }

    void add(EngineFamily family, int version, String by, Instant at, String note) {
        jdbc.sql("""
                        INSERT INTO engine_family (code, version, name, body, changed_by, changed_at, note)
                        VALUES (:code, :version, :name, :body, :by, :at, :note)
                        """)
                .param("code", family.code())
                .param("version", version)
                .param("name", family.name())
                .param("body", json.writeValueAsString(family))
                .param("by", by)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("note", note)
                .update();
    }

    void addToolSet(String familyCode, int copies) {
        for (int number = 1; number <= copies; number++) {
            jdbc.sql("""
                            INSERT INTO tool_copy (family_code, number, state, kept_at, note, version)
                            VALUES (:code, :number, 'GOOD', 'tool store', '', 1)
                            """).param("code", familyCode).param("number", number).update();
        }
    }

    /** Copies of the family's tool set that can be worked with. */
    int toolSetCopies(String familyCode) {
        return jdbc.sql("SELECT COUNT(*) FROM tool_copy WHERE family_code = :code AND state IN ('GOOD', 'WORN')")
                .param("code", familyCode)
                .query(Integer.class)
                .single();
    }

    private VersionedFamily versioned(ResultSet rs, int row) throws SQLException {
        String body = rs.getString("body");
        return new VersionedFamily(
                families.stored(body),
                rs.getInt("version"),
                rs.getString("changed_by"),
                rs.getObject("changed_at", OffsetDateTime.class).toInstant(),
                rs.getString("note"),
                !families.saysHowItIsBuilt(body));
    }
}
