package knollfield.app.feed;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Feeds in force, by the hash of their key, and what they sent that was not taken. */
@Repository
class FeedRepository {

    private static final int REFUSED_KEPT = 100;

    private static final String SELECT = """
            SELECT id, fleet_id, name, silent_days, stand_in, made_at, made_by, last_heard
            FROM reading_feed
            WHERE ended_at IS NULL
            """;

    private final JdbcClient jdbc;

    FeedRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Feed> all() {
        return jdbc.sql(SELECT + " ORDER BY id").query(FeedRepository::feed).list();
    }

    Optional<Feed> byKey(String hash) {
        return jdbc.sql(SELECT + " AND key_hash = :hash")
                .param("hash", hash)
                .query(FeedRepository::feed)
                .optional();
    }

    void add(long fleetId, String name, String hash, int silentDays, boolean standIn, Instant at, String by) {
        jdbc.sql("""
                        INSERT INTO reading_feed (fleet_id, name, key_hash, silent_days, stand_in, made_at, made_by)
                        VALUES (:fleet, :name, :hash, :days, :standIn, :at, :by)
                        """)
                .param("fleet", fleetId)
                .param("name", name)
                .param("hash", hash)
                .param("days", silentDays)
                .param("standIn", standIn)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("by", by)
                .update();
    }

    /** False where it is not in force. */
    boolean end(long id, Instant at) {
        return jdbc.sql("UPDATE reading_feed SET ended_at = :at WHERE id = :id AND ended_at IS NULL")
                        .param("at", at.atOffset(ZoneOffset.UTC))
                        .param("id", id)
                        .update()
                == 1;
    }

    void heard(long id, Instant at) {
        jdbc.sql("UPDATE reading_feed SET last_heard = :at WHERE id = :id")
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("id", id)
                .update();
    }

    void refused(long feedId, Feed.Refused r) {
        jdbc.sql("""
                        INSERT INTO reading_refused (feed_id, at, vehicle, what, why)
                        VALUES (:feed, :at, :vehicle, :what, :why)
                        """)
                .param("feed", feedId)
                .param("at", r.at().atOffset(ZoneOffset.UTC))
                .param("vehicle", cut(r.vehicle(), 60))
                .param("what", cut(r.what(), 120))
                .param("why", cut(r.why(), 400))
                .update();
    }

    /** Forgets all but the newest few of a feed. */
    void prune(long feedId) {
        jdbc.sql("""
                        DELETE FROM reading_refused
                        WHERE feed_id = :feed AND id NOT IN (
                            SELECT id FROM reading_refused WHERE feed_id = :feed ORDER BY id DESC FETCH FIRST :most ROWS ONLY)
                        """).param("feed", feedId).param("most", REFUSED_KEPT).update();
    }

    /** Newest first. */
    List<Feed.Refused> refused(long feedId) {
        return jdbc.sql("SELECT at, vehicle, what, why FROM reading_refused WHERE feed_id = :feed ORDER BY id DESC")
                .param("feed", feedId)
                .query((rs, row) -> new Feed.Refused(
                        rs.getObject("at", OffsetDateTime.class).toInstant(),
                        rs.getString("vehicle"),
                        rs.getString("what"),
                        rs.getString("why")))
                .list();
    }

    private static String cut(String text, int most) {
        return text.length() <= most ? text : text.substring(0, most - 1) + "…";
    }

    private static Feed feed(ResultSet rs, int row) throws SQLException {
        return new Feed(
                rs.getLong("id"),
                rs.getLong("fleet_id"),
                rs.getString("name"),
                rs.getInt("silent_days"),
                rs.getBoolean("stand_in"),
                rs.getObject("made_at", OffsetDateTime.class).toInstant(),
                rs.getString("made_by"),
                Optional.ofNullable(rs.getObject("last_heard", OffsetDateTime.class))
                        .map(OffsetDateTime::toInstant));
    }
}
