package knollfield.app.engine;

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

    EngineFamilyRepository(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /** The newest version of each family, by code. */
    Map<String, VersionedFamily> newest() {
        List<VersionedFamily> all = jdbc.sql("""
                        SELECT f.version, f.body
                        FROM engine_family f
                        WHERE f.version = (SELECT MAX(g.version) FROM engine_family g WHERE g.code = f.code)
                        ORDER BY f.name
                        """)
                .query((rs, row) -> new VersionedFamily(read(rs.getString("body")), rs.getInt("version")))
                .list();
        return all.stream().collect(Collectors.toMap(f -> f.family().code(), f -> f));
    }

    Optional<EngineFamily> find(String code, int version) {
        return jdbc.sql("SELECT body FROM engine_family WHERE code = :code AND version = :version")
                .param("code", code)
                .param("version", version)
                .query((rs, row) -> read(rs.getString("body")))
                .optional();
    }

    void add(EngineFamily family, int version) {
        jdbc.sql("INSERT INTO engine_family (code, version, name, body) VALUES (:code, :version, :name, :body)")
                .param("code", family.code())
                .param("version", version)
                .param("name", family.name())
                .param("body", json.writeValueAsString(family))
                .update();
    }

    void addToolSet(String familyCode, int copies) {
        jdbc.sql("INSERT INTO tool_set (family_code, copies) VALUES (:code, :copies)")
                .param("code", familyCode)
                .param("copies", copies)
                .update();
    }

    /** Copies of the family's tool set in the house; zero where none is on file. */
    int toolSetCopies(String familyCode) {
        return jdbc.sql("SELECT copies FROM tool_set WHERE family_code = :code")
                .param("code", familyCode)
                .query(Integer.class)
                .optional()
                .orElse(0);
    }

    private EngineFamily read(String body) {
        return json.readValue(body, EngineFamily.class);
    }
}
