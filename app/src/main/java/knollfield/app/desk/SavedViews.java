package knollfield.app.desk;

import java.util.List;
import knollfield.app.problem.Checks;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Filters of the Desk that a person has given a name; each person has their own. */
@Service
class SavedViews {

    private static final int MOST = 30;

    private final SavedViewRepository repository;
    private final CurrentPerson current;

    SavedViews(SavedViewRepository repository, CurrentPerson current) {
        this.repository = repository;
        this.current = current;
    }

    /** @param query the filters as they stand in the Desk's address, without a question mark */
    record SavedView(long id, String name, String query) {}

    List<SavedView> mine() {
        return repository.of(current.get().id());
    }

    /** Keeps a view; one of the same name is replaced. */
    @Transactional
    void save(String name, String query) {
        long person = current.get().id();
        new Checks()
                .text(name, 60, "/name", "The name")
                .that(query.length() <= 400, "/query", "These filters are too many to keep.")
                .orThrow();
        repository.deleteNamed(person, name.strip());
        if (repository.of(person).size() >= MOST) {
            throw new InvalidInput("/name", "%d views are kept at most; remove one first.".formatted(MOST));
        }
        repository.add(person, name.strip(), query);
    }

    @Transactional
    void remove(long id) {
        if (!repository.delete(current.get().id(), id)) {
            throw new NotFound("There is no such view.");
        }
    }

    /** Saved views over HTTP; each change answers with all that are left. */
    @RestController
    @RequestMapping("/api/desk/views")
    static class Controller {

        private final SavedViews views;

        Controller(SavedViews views) {
            this.views = views;
        }

        record NewView(String name, String query) {}

        @GetMapping
        List<SavedView> list() {
            return views.mine();
        }

        @PostMapping
        List<SavedView> save(@RequestBody NewView view) {
            views.save(view.name(), view.query());
            return views.mine();
        }

        @DeleteMapping("/{id}")
        List<SavedView> remove(@PathVariable long id) {
            views.remove(id);
            return views.mine();
        }
    }
}
