package knollfield.app.outbox;

import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** The one row of the mail server. */
@Repository
class MailServerRepository {

    private final JdbcClient jdbc;

    MailServerRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    MailServer read() {
        return jdbc.sql(
                        "SELECT host, port, security, user_name, password, sender, version, changed_by FROM mail_server")
                .query((rs, row) -> new MailServer(
                        rs.getString("host"),
                        rs.getInt("port"),
                        MailServer.Security.valueOf(rs.getString("security")),
                        rs.getString("user_name"),
                        rs.getString("password"),
                        rs.getString("sender"),
                        rs.getInt("version"),
                        rs.getString("changed_by")))
                .single();
    }

    /** False where the version is no longer the current one. */
    boolean update(MailServer next) {
        return jdbc.sql("""
                        UPDATE mail_server
                        SET host = :host, port = :port, security = :security, user_name = :user, password = :password,
                            sender = :sender, version = version + 1, changed_by = :by
                        WHERE version = :version
                        """)
                        .param("host", next.host())
                        .param("port", next.port())
                        .param("security", next.security().name())
                        .param("user", next.userName())
                        .param("password", next.password())
                        .param("sender", next.sender())
                        .param("by", next.changedBy())
                        .param("version", next.version())
                        .update()
                == 1;
    }
}
