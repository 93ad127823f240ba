package knollfield.app.settings;

import knollfield.app.shared.Style;
import knollfield.core.units.DistanceUnit;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** The one row of the workshop's details. */
@Repository
class HouseRepository {

    private final JdbcClient jdbc;

    HouseRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    House read() {
        return jdbc.sql("""
                        SELECT address, phone, email, tax_number, outside_address, time_zone, distance_unit, number_style,
                               version, changed_by
                        FROM house
                        """)
                .query((rs, row) -> new House(
                        rs.getString("address"),
                        rs.getString("phone"),
                        rs.getString("email"),
                        rs.getString("tax_number"),
                        rs.getString("outside_address"),
                        rs.getString("time_zone"),
                        DistanceUnit.valueOf(rs.getString("distance_unit")),
                        Style.NumberStyle.valueOf(rs.getString("number_style")),
                        rs.getInt("version"),
                        rs.getString("changed_by")))
                .single();
    }

    /** Whether anything is kept whose amounts would mean something else in a currency of other decimals. */
    boolean hasAmounts() {
        return jdbc.sql("""
                        SELECT EXISTS (SELECT 1 FROM engine_family) OR EXISTS (SELECT 1 FROM part)
                            OR EXISTS (SELECT 1 FROM vehicle)
                        """).query(Boolean.class).single();
    }

    /** False where the version is no longer the current one. */
    boolean update(House next) {
        return jdbc.sql("""
                        UPDATE house
                        SET address = :address, phone = :phone, email = :email, tax_number = :tax,
                            outside_address = :outside, time_zone = :zone,
                            distance_unit = :unit, number_style = :numbers, version = version + 1, changed_by = :by
                        WHERE version = :version
                        """)
                        .param("address", next.address())
                        .param("phone", next.phone())
                        .param("email", next.email())
                        .param("tax", next.taxNumber())
                        .param("outside", next.outsideAddress())
                        .param("zone", next.zone())
                        .param("unit", next.unit().name())
                        .param("numbers", next.numbers().name())
                        .param("by", next.changedBy())
                        .param("version", next.version())
                        .update()
                == 1;
    }
}
