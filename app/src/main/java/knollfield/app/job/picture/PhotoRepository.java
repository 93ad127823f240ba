package knollfield.app.job.picture;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;

/** Pictures of jobs; they lie in the database so that one backup holds all. */
@Repository
public class PhotoRepository {

    private final JdbcClient jdbc;

    PhotoRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    public long add(long jobId, ShrunkPicture picture, String by, Instant at) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                        INSERT INTO photo (job_id, width, height, bytes, taken_by, taken_at)
                        VALUES (:job, :width, :height, :bytes, :by, :at)
                        """)
                .param("job", jobId)
                .param("width", picture.width())
                .param("height", picture.height())
                .param("bytes", picture.jpeg())
                .param("by", by)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .update(key, "id");
        return Objects.requireNonNull(key.getKeyAs(Long.class));
    }

    public List<Photo> ofJob(long jobId) {
        return jdbc.sql("""
                        SELECT id, width, height, taken_by, taken_at
                        FROM photo
                        WHERE job_id = :job
                        ORDER BY id
                        """)
                .param("job", jobId)
                .query((rs, row) -> new Photo(
                        rs.getLong("id"),
                        rs.getInt("width"),
                        rs.getInt("height"),
                        rs.getString("taken_by"),
                        rs.getObject("taken_at", OffsetDateTime.class).toInstant()))
                .list();
    }

    public Optional<byte[]> bytes(long jobId, long id) {
        return jdbc.sql("SELECT bytes FROM photo WHERE job_id = :job AND id = :id")
                .param("job", jobId)
                .param("id", id)
                .query((rs, row) -> rs.getBytes("bytes"))
                .optional();
    }
}
