package knollfield.app.data;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** The plan of backups. */
@Repository
class BackupPlanRepository {

    private final JdbcClient jdbc;

    BackupPlanRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    BackupPlan get() {
        return jdbc.sql("""
                        SELECT enabled, at_hour, keep, folder, passphrase, tried_at, failure, version
                        FROM backup_plan WHERE id = 1
                        """)
                .query((rs, row) -> new BackupPlan(
                        rs.getBoolean("enabled"),
                        rs.getInt("at_hour"),
                        rs.getInt("keep"),
                        rs.getString("folder"),
                        Optional.of(rs.getString("passphrase")).filter(p -> !p.isEmpty()),
                        rs.getObject("tried_at", OffsetDateTime.class).toInstant(),
                        Optional.ofNullable(rs.getString("failure")),
                        rs.getInt("version")))
                .single();
    }

    /** False where the version is no longer the current one. */
    boolean update(BackupPlan plan) {
        return jdbc.sql("""
                                UPDATE backup_plan
                                SET enabled = :enabled, at_hour = :hour, keep = :keep, folder = :folder,
                                    passphrase = :passphrase, version = version + 1
                                WHERE id = 1 AND version = :version
                                """)
                        .param("enabled", plan.enabled())
                        .param("hour", plan.hour())
                        .param("keep", plan.keep())
                        .param("folder", plan.folder())
                        .param("passphrase", plan.passphrase().orElse(""))
                        .param("version", plan.version())
                        .update()
                == 1;
    }

    void tried(Instant at, Optional<String> failure) {
        jdbc.sql("UPDATE backup_plan SET tried_at = :at, failure = :failure WHERE id = 1")
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("failure", failure.orElse(null))
                .update();
    }
}
