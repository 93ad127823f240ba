package knollfield.app.settings;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import knollfield.core.bundle.School;
import knollfield.core.due.Policy;
import knollfield.core.odometer.UsageClass;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.WearModel;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** The one row of workshop figures, and the usage classes. */
@Repository
class WorkshopRepository {

    private final JdbcClient jdbc;

    WorkshopRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Workshop get() {
        return jdbc.sql("""
                        SELECT name, currency, policy_kind, early_share, fixed_km, fixed_months, risk_interference,
                               risk_other, horizon_days, unknown_rule, stated_counts, labour_rate_minor,
                               recovery_minor, day_off_road_minor, days_off_road, share_failed_at_limits, wear_shape,
                               school, seals, version, changed_by, changed_at
                        FROM workshop
                        WHERE id = 1
                        """)
                .query((rs, row) -> workshop(rs, new Assumptions(assumptions())))
                .single();
    }

    Map<String, UsageClass> usageClasses() {
        return jdbc
                .sql("SELECT code, name, mean_km_year, sd_km_year FROM usage_class ORDER BY name")
                .query((rs, row) -> new UsageClass(
                        rs.getString("code"),
                        rs.getString("name"),
                        rs.getDouble("mean_km_year"),
                        rs.getDouble("sd_km_year")))
                .list()
                .stream()
                .collect(Collectors.toMap(UsageClass::code, c -> c));
    }

    List<UsageClasses.Listed> listedClasses() {
        return jdbc.sql("""
                        SELECT code, name, mean_km_year, sd_km_year, version,
                               (SELECT COUNT(*) FROM vehicle v WHERE v.usage_class = c.code) AS vehicles
                        FROM usage_class c
                        ORDER BY name
                        """)
                .query((rs, row) -> new UsageClasses.Listed(
                        rs.getString("code"),
                        rs.getString("name"),
                        rs.getDouble("mean_km_year"),
                        rs.getDouble("sd_km_year"),
                        rs.getInt("vehicles"),
                        rs.getInt("version")))
                .list();
    }

    void addClass(String code, String name, double meanKm, double sdKm) {
        jdbc.sql("INSERT INTO usage_class (code, name, mean_km_year, sd_km_year) VALUES (:code, :name, :mean, :sd)")
                .param("code", code)
                .param("name", name)
                .param("mean", meanKm)
                .param("sd", sdKm)
                .update();
    }

    /** False where the version is no longer the current one. */
    boolean updateClass(String code, String name, double meanKm, double sdKm, int version) {
        return jdbc.sql("""
                        UPDATE usage_class
                        SET name = :name, mean_km_year = :mean, sd_km_year = :sd, version = version + 1
                        WHERE code = :code AND version = :version
                        """)
                        .param("code", code)
                        .param("name", name)
                        .param("mean", meanKm)
                        .param("sd", sdKm)
                        .param("version", version)
                        .update()
                == 1;
    }

    /** False where the version is no longer the current one. */
    boolean deleteClass(String code, int version) {
        return jdbc.sql("DELETE FROM usage_class WHERE code = :code AND version = :version")
                        .param("code", code)
                        .param("version", version)
                        .update()
                == 1;
    }

    boolean update(Workshop w) {
        Policy p = w.policy();
        return jdbc.sql("""
                                UPDATE workshop
                                SET name = :name, currency = :currency, policy_kind = :kind, early_share = :share, fixed_km = :fixedKm,
                                    fixed_months = :fixedMonths, risk_interference = :risk, risk_other = :riskOther,
                                    horizon_days = :horizon, unknown_rule = :unknown, stated_counts = :stated,
                                    labour_rate_minor = :rate,
                                    recovery_minor = :recovery, day_off_road_minor = :day, days_off_road = :days,
                                    share_failed_at_limits = :failed, wear_shape = :shape, school = :school, seals = :seals, version = version + 1,
                                    changed_by = :by, changed_at = :at
                                WHERE id = 1 AND version = :version
                                """)
                        .param("name", w.name())
                        .param("currency", w.currency())
                        .param("kind", Timings.kind(p.timing()))
                        .param("share", p.share())
                        .param("fixedKm", Timings.km(p.timing()))
                        .param("fixedMonths", Timings.months(p.timing()))
                        .param("risk", p.riskInterference())
                        .param("riskOther", p.riskOther())
                        .param("horizon", p.horizonDays())
                        .param("unknown", p.unknownRule().name())
                        .param("stated", p.statedCounts())
                        .param("rate", w.labourRateMinor())
                        .param("recovery", w.costs().recoveryMinor())
                        .param("day", w.costs().dayOffRoadMinor())
                        .param("days", w.costs().daysOffRoad())
                        .param("failed", w.wear().shareFailedAtLimits())
                        .param("shape", w.wear().shape())
                        .param("school", w.school().name())
                        .param("seals", w.seals().name())
                        .param("by", w.changedBy())
                        .param("at", w.changedAt().atOffset(ZoneOffset.UTC))
                        .param("version", w.version())
                        .update()
                == 1;
    }

    private Map<String, Double> assumptions() {
        return jdbc
                .sql("SELECT name, amount FROM assumption")
                .query((rs, row) -> Map.entry(rs.getString("name"), rs.getDouble("amount")))
                .list()
                .stream()
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
    }

    /** Who changed which assumption last, and when. */
    Map<String, WorkshopSettings.Changed> assumptionChanges() {
        return jdbc
                .sql("SELECT name, changed_by, changed_at FROM assumption")
                .query((rs, row) -> Map.entry(
                        rs.getString("name"),
                        new WorkshopSettings.Changed(
                                rs.getString("changed_by"),
                                rs.getObject("changed_at", OffsetDateTime.class).toInstant())))
                .list()
                .stream()
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
    }

    void forgetAssumption(String name) {
        jdbc.sql("DELETE FROM assumption WHERE name = :name")
                .param("name", name)
                .update();
    }

    void setAssumption(String name, double amount, String by, Instant at) {
        int updated = jdbc.sql("""
                        UPDATE assumption SET amount = :amount, changed_by = :by, changed_at = :at
                        WHERE name = :name
                        """)
                .param("name", name)
                .param("amount", amount)
                .param("by", by)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update();
        if (updated == 0) {
            jdbc.sql("""
                            INSERT INTO assumption (name, amount, changed_by, changed_at)
                            VALUES (:name, :amount, :by, :at)
                            """)
                    .param("name", name)
                    .param("amount", amount)
                    .param("by", by)
                    .param("at", at.atOffset(ZoneOffset.UTC))
                    .update();
        }
    }

    void addChange(String what, String before, String after, String by, Instant at) {
        jdbc.sql("""
                        INSERT INTO setup_change (at, by_name, what, before_text, after_text)
                        VALUES (:at, :by, :what, :before, :after)
                        """)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("by", by)
                .param("what", what)
                .param("before", before)
                .param("after", after)
                .update();
    }

    /** Newest first, at most {@code most}. */
    List<WorkshopSettings.Change> changes(int most) {
        return jdbc.sql("""
                        SELECT at, by_name, what, before_text, after_text
                        FROM setup_change
                        ORDER BY id DESC
                        FETCH FIRST :most ROWS ONLY
                        """)
                .param("most", most)
                .query((rs, row) -> new WorkshopSettings.Change(
                        rs.getObject("at", OffsetDateTime.class).toInstant(),
                        rs.getString("by_name"),
                        rs.getString("what"),
                        rs.getString("before_text"),
                        rs.getString("after_text")))
                .list();
    }

    private static Workshop workshop(ResultSet rs, Assumptions assumptions) throws SQLException {
        Policy.Timing timing = Timings.of(
                Timings.Kind.valueOf(rs.getString("policy_kind")),
                rs.getDouble("early_share"),
                rs.getObject("fixed_km", Integer.class),
                rs.getObject("fixed_months", Integer.class));
        Policy policy = new Policy(
                timing,
                rs.getDouble("risk_interference"),
                rs.getDouble("risk_other"),
                rs.getInt("horizon_days"),
                Policy.UnknownRule.valueOf(rs.getString("unknown_rule")),
                rs.getBoolean("stated_counts"),
                assumptions.found());
        return new Workshop(
                rs.getString("name"),
                rs.getString("currency"),
                policy,
                rs.getLong("labour_rate_minor"),
                new Consequence.Costs(
                        rs.getLong("recovery_minor"), rs.getLong("day_off_road_minor"), rs.getInt("days_off_road")),
                new WearModel(rs.getDouble("share_failed_at_limits"), rs.getDouble("wear_shape")),
                School.valueOf(rs.getString("school")),
                School.Seals.valueOf(rs.getString("seals")),
                assumptions,
                rs.getInt("version"),
                rs.getString("changed_by"),
                rs.getObject("changed_at", OffsetDateTime.class).toInstant());
    }
}
