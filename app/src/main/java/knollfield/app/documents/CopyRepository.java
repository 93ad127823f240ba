package knollfield.app.documents;

import java.time.Instant;
import java.time.ZoneOffset;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** How often each paper was printed. */
@Repository
class CopyRepository {

    private final JdbcClient jdbc;

    CopyRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Counts one more; the number of the copy. */
    int next(String paper, Instant at, String by) {
        jdbc.sql("""
                        MERGE INTO paper_copy p
                        USING (VALUES (:paper)) AS n (paper) ON p.paper = n.paper
                        WHEN MATCHED THEN UPDATE SET copies = p.copies + 1, last_at = :at, last_by = :by
                        WHEN NOT MATCHED THEN INSERT (paper, copies, last_at, last_by) VALUES (n.paper, 1, :at, :by)
                        """)
                .param("paper", paper)
                .param("at", at.atOffset(ZoneOffset.UTC))
                .param("by", by)
                .update();
        return jdbc.sql("SELECT copies FROM paper_copy WHERE paper = :paper")
                .param("paper", paper)
                .query(Integer.class)
                .single();
    }
}
