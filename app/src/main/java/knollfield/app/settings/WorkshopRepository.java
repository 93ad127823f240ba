package knollfield.app.settings;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Map;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import knollfield.core.due.Policy;
import knollfield.core.engine.Limit;
import knollfield.core.odometer.UsageClass;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.WearModel;
import org.jspecify.annotations.Nullable;
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
                               risk_other, horizon_days, unknown_rule, labour_rate_minor, recovery_minor,
                               day_off_road_minor, days_off_road, share_failed_at_limits, wear_shape, version,
                               changed_by, changed_at
                        FROM workshop
                        WHERE id = 1
                        """).query(WorkshopRepository::workshop).single();
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

    boolean update(Workshop w) {
        Policy p = w.policy();
        @Nullable Limit fixed = p.timing() instanceof Policy.Timing.Fixed f ? f.limit() : null;
        return jdbc.sql("""
                                UPDATE workshop
                                SET name = :name, policy_kind = :kind, early_share = :share, fixed_km = :fixedKm,
                                    fixed_months = :fixedMonths, risk_interference = :risk, risk_other = :riskOther,
                                    horizon_days = :horizon, unknown_rule = :unknown, labour_rate_minor = :rate,
                                    recovery_minor = :recovery, day_off_road_minor = :day, days_off_road = :days,
                                    share_failed_at_limits = :failed, wear_shape = :shape, version = version + 1,
                                    changed_by = :by, changed_at = :at
                                WHERE id = 1 AND version = :version
                                """)
                        .param("name", w.name())
                        .param("kind", kind(p.timing()))
                        .param("share", p.share())
                        .param("fixedKm", fixed == null ? null : boxed(fixed.km()))
                        .param("fixedMonths", fixed == null ? null : boxed(fixed.months()))
                        .param("risk", p.riskInterference())
                        .param("riskOther", p.riskOther())
                        .param("horizon", p.horizonDays())
                        .param("unknown", p.unknownRule().name())
                        .param("rate", w.labourRateMinor())
                        .param("recovery", w.costs().recoveryMinor())
                        .param("day", w.costs().dayOffRoadMinor())
                        .param("days", w.costs().daysOffRoad())
                        .param("failed", w.wear().shareFailedAtLimits())
                        .param("shape", w.wear().shape())
                        .param("by", w.changedBy())
                        .param("at", w.changedAt().atOffset(ZoneOffset.UTC))
                        .param("version", w.version())
                        .update()
                == 1;
    }

    private static String kind(Policy.Timing timing) {
        if (timing instanceof Policy.Timing.Book) {
            return "BOOK";
        }
        return timing instanceof Policy.Timing.Early ? "EARLY" : "FIXED";
    }

    private static @Nullable Integer boxed(OptionalInt value) {
        return value.isPresent() ? value.getAsInt() : null;
    }

    private static Workshop workshop(ResultSet rs, int row) throws SQLException {
        Policy.Timing timing = switch (rs.getString("policy_kind")) {
            case "BOOK" -> new Policy.Timing.Book();
            case "FIXED" -> new Policy.Timing.Fixed(new Limit(optional(rs, "fixed_km"), optional(rs, "fixed_months")));
            default -> new Policy.Timing.Early(rs.getDouble("early_share"));
        };
        Policy policy = new Policy(
                timing,
                rs.getDouble("risk_interference"),
                rs.getDouble("risk_other"),
                rs.getInt("horizon_days"),
                Policy.UnknownRule.valueOf(rs.getString("unknown_rule")));
        return new Workshop(
                rs.getString("name"),
                rs.getString("currency"),
                policy,
                rs.getLong("labour_rate_minor"),
                new Consequence.Costs(
                        rs.getLong("recovery_minor"), rs.getLong("day_off_road_minor"), rs.getInt("days_off_road")),
                new WearModel(rs.getDouble("share_failed_at_limits"), rs.getDouble("wear_shape")),
                rs.getInt("version"),
                rs.getString("changed_by"),
                rs.getObject("changed_at", OffsetDateTime.class).toInstant());
    }

    private static OptionalInt optional(ResultSet rs, String column) throws SQLException {
        int value = rs.getInt(column);
        return rs.wasNull() ? OptionalInt.empty() : OptionalInt.of(value);
    }
}
