package knollfield.app.letters;

import java.util.List;
import knollfield.core.reminder.ReminderRule;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** The workshop's own words, and its rule for reminders. */
@Repository
class LetterWordsRepository {

    private final JdbcClient jdbc;

    LetterWordsRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @param language tag (BCP 47); empty: the workshop's usual one */
    record Own(LetterText text, String language, LetterText.Template template, int version, String changedBy) {}

    List<Own> all() {
        return jdbc.sql(
                        "SELECT kind, language, subject, body, version, changed_by FROM letter_words ORDER BY kind, language")
                .query((rs, row) -> new Own(
                        LetterText.valueOf(rs.getString("kind")),
                        rs.getString("language"),
                        new LetterText.Template(rs.getString("subject"), rs.getString("body")),
                        rs.getInt("version"),
                        rs.getString("changed_by")))
                .list();
    }

    /** False where it is there already. */
    boolean add(LetterText text, String language, LetterText.Template t, String by) {
        return jdbc.sql("""
                        INSERT INTO letter_words (kind, language, subject, body, changed_by)
                        SELECT :kind, :language, :subject, :body, :by
                        WHERE NOT EXISTS (SELECT 1 FROM letter_words WHERE kind = :kind AND language = :language)
                        """)
                        .param("kind", text.name())
                        .param("language", language)
                        .param("subject", t.subject())
                        .param("body", t.body())
                        .param("by", by)
                        .update()
                == 1;
    }

    /** False where the version is no longer the current one. */
    boolean change(LetterText text, String language, LetterText.Template t, int version, String by) {
        return jdbc.sql("""
                        UPDATE letter_words
                        SET subject = :subject, body = :body, version = version + 1, changed_by = :by
                        WHERE kind = :kind AND language = :language AND version = :version
                        """)
                        .param("kind", text.name())
                        .param("language", language)
                        .param("subject", t.subject())
                        .param("body", t.body())
                        .param("by", by)
                        .param("version", version)
                        .update()
                == 1;
    }

    boolean remove(LetterText text, String language, int version) {
        return jdbc.sql("DELETE FROM letter_words WHERE kind = :kind AND language = :language AND version = :version")
                        .param("kind", text.name())
                        .param("language", language)
                        .param("version", version)
                        .update()
                == 1;
    }

    record Rule(ReminderRule rule, int version, String changedBy) {}

    Rule rule() {
        return rule("SELECT weeks_before, weeks_between, most, version, changed_by FROM letter_rule");
    }

    /** The rule, held until the transaction ends: whoever sends reminders does so alone. */
    Rule lockedRule() {
        return rule("SELECT weeks_before, weeks_between, most, version, changed_by FROM letter_rule FOR UPDATE");
    }

    private Rule rule(String sql) {
        return jdbc.sql(sql)
                .query((rs, row) -> new Rule(
                        new ReminderRule(rs.getInt("weeks_before"), rs.getInt("weeks_between"), rs.getInt("most")),
                        rs.getInt("version"),
                        rs.getString("changed_by")))
                .single();
    }

    /** False where the version is no longer the current one. */
    boolean change(ReminderRule rule, int version, String by) {
        return jdbc.sql("""
                        UPDATE letter_rule
                        SET weeks_before = :before, weeks_between = :between, most = :most, version = version + 1,
                            changed_by = :by
                        WHERE version = :version
                        """)
                        .param("before", rule.weeksBefore())
                        .param("between", rule.weeksBetween())
                        .param("most", rule.most())
                        .param("by", by)
                        .param("version", version)
                        .update()
                == 1;
    }
}
