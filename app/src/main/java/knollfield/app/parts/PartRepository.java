package knollfield.app.parts;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import knollfield.core.bundle.FitCheck;
import knollfield.core.bundle.Grade;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.json.JsonMapper;

/** The catalogue's rows. */
@Repository
class PartRepository {

    private static final String SELECT = """
            SELECT number, name, family_code, item_code, grade, price_minor, expected_km, lead_days, replaces,
                   teeth, width_mm, length_mm, thickness_mm, side, version
            FROM part
            """;

    /** The maker's own first, the plain one last. */
    private static final String BY_GRADE = "CASE grade WHEN 'ORIGINAL' THEN 1 WHEN 'EQUAL' THEN 2 ELSE 3 END";

    private final JdbcClient jdbc;
    private final JsonMapper json;

    PartRepository(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    List<CatalogPart> all() {
        return jdbc.sql(SELECT + " ORDER BY family_code, item_code, " + BY_GRADE + ", number")
                .query(PartRepository::part)
                .list();
    }

    List<CatalogPart> ofFamily(String familyCode) {
        return jdbc.sql(SELECT + " WHERE family_code = :family ORDER BY item_code, " + BY_GRADE + ", number")
                .param("family", familyCode)
                .query(PartRepository::part)
                .list();
    }

    Optional<CatalogPart> find(String number) {
        return jdbc.sql(SELECT + " WHERE number = :number")
                .param("number", number)
                .query(PartRepository::part)
                .optional();
    }

    void add(CatalogPart part) {
        bind(jdbc.sql("""
                                INSERT INTO part (number, name, family_code, item_code, grade, price_minor, expected_km,
                                    lead_days, replaces, teeth, width_mm, length_mm, thickness_mm, side, version)
                                VALUES (:number, :name, :family, :item, :grade, :price, :km, :lead, :replaces, :teeth,
                                    :width, :length, :thickness, :side, 1)
                                """), part).update();
    }

    /** False where the version is no longer the current one. */
    boolean update(CatalogPart part) {
        return bind(jdbc.sql("""
                                        UPDATE part
                                        SET name = :name, family_code = :family, item_code = :item, grade = :grade,
                                            price_minor = :price, expected_km = :km, lead_days = :lead,
                                            replaces = :replaces, teeth = :teeth, width_mm = :width,
                                            length_mm = :length, thickness_mm = :thickness, side = :side,
                                            version = version + 1
                                        WHERE number = :number AND version = :version
                                        """), part).param("version", part.version()).update() == 1;
    }

    /** False where the version is no longer the current one. */
    boolean delete(String number, int version) {
        return jdbc.sql("DELETE FROM part WHERE number = :number AND version = :version")
                        .param("number", number)
                        .param("version", version)
                        .update()
                == 1;
    }

    /** True where a part is on the shelf, on order, or chosen for a job. */
    boolean isUsed(String number) {
        return jdbc.sql("""
                                SELECT (SELECT COUNT(*) FROM stock WHERE part_number = :number)
                                     + (SELECT COUNT(*) FROM part_order WHERE part_number = :number)
                                     + (SELECT COUNT(*) FROM job WHERE LOCATE(:quoted, scope) > 0)
                                """)
                        .param("number", number)
                        .param("quoted", json.writeValueAsString(number))
                        .query(Integer.class)
                        .single()
                > 0;
    }

    private static JdbcClient.StatementSpec bind(JdbcClient.StatementSpec sql, CatalogPart p) {
        return sql.param("number", p.number())
                .param("name", p.name())
                .param("family", p.familyCode())
                .param("item", p.itemCode())
                .param("grade", p.grade().name())
                .param("price", p.priceMinor())
                .param("km", p.expectedKm().isPresent() ? p.expectedKm().getAsInt() : null)
                .param("lead", p.leadDays())
                .param("replaces", p.replaces().orElse(null))
                .param("teeth", p.fit().teeth().isPresent() ? p.fit().teeth().getAsInt() : null)
                .param("width", orNull(p.fit().widthMm()))
                .param("length", orNull(p.fit().lengthMm()))
                .param("thickness", orNull(p.fit().thicknessMm()))
                .param("side", p.fit().side().orElse(null));
    }

    private static @Nullable Double orNull(OptionalDouble value) {
        return value.isPresent() ? value.getAsDouble() : null;
    }

    private static CatalogPart part(ResultSet rs, int row) throws SQLException {
        Integer km = rs.getObject("expected_km", Integer.class);
        Integer teeth = rs.getObject("teeth", Integer.class);
        return new CatalogPart(
                rs.getString("number"),
                rs.getString("name"),
                rs.getString("family_code"),
                rs.getString("item_code"),
                Grade.Kind.valueOf(rs.getString("grade")),
                rs.getLong("price_minor"),
                km == null ? OptionalInt.empty() : OptionalInt.of(km),
                rs.getInt("lead_days"),
                Optional.ofNullable(rs.getString("replaces")),
                new FitCheck.Data(
                        teeth == null ? OptionalInt.empty() : OptionalInt.of(teeth),
                        millimetres(rs, "width_mm"),
                        millimetres(rs, "length_mm"),
                        millimetres(rs, "thickness_mm"),
                        Optional.ofNullable(rs.getString("side"))),
                rs.getInt("version"));
    }

    private static OptionalDouble millimetres(ResultSet rs, String column) throws SQLException {
        Double value = rs.getObject(column, Double.class);
        return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
    }
}
