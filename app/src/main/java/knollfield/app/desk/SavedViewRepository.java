package knollfield.app.desk;

import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Saved views of the Desk. */
@Repository
class SavedViewRepository {

    private final JdbcClient jdbc;

    SavedViewRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<SavedViews.SavedView> of(long personId) {
        return jdbc.sql("SELECT id, name, query FROM saved_view WHERE person_id = :person ORDER BY name")
                .param("person", personId)
                .query((rs, row) ->
                        new SavedViews.SavedView(rs.getLong("id"), rs.getString("name"), rs.getString("query")))
                .list();
    }

    void add(long personId, String name, String query) {
        jdbc.sql("INSERT INTO saved_view (person_id, name, query) VALUES (:person, :name, :query)")
                .param("person", personId)
                .param("name", name)
                .param("query", query)
                .update();
    }

    void deleteNamed(long personId, String name) {
        jdbc.sql("DELETE FROM saved_view WHERE person_id = :person AND name = :name")
                .param("person", personId)
                .param("name", name)
                .update();
    }

    boolean delete(long personId, long id) {
        return jdbc.sql("DELETE FROM saved_view WHERE person_id = :person AND id = :id")
                        .param("person", personId)
                        .param("id", id)
                        .update()
                == 1;
    }
}
