package knollfield.app.practice;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.engine.EngineFamily;
import knollfield.core.practice.Course;
import knollfield.core.practice.EngineSort;
import knollfield.core.practice.Marks;
import knollfield.core.practice.Skill;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Keeps scores of practice for those who wish it, and says what to practise next. */
@Service
class Courses {

    private final PracticeRepository results;
    private final EngineBook book;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    Courses(PracticeRepository results, EngineBook book, CurrentPerson current, WorkshopClock clock) {
        this.results = results;
        this.book = book;
        this.current = current;
        this.clock = clock;
    }

    /** Somebody's course. */
    record OfPerson(String name, Course course) {}

    boolean keeps() {
        return results.keeps(current.get().id());
    }

    Course own() {
        return of(current.get().id());
    }

    /** Courses of all who keep their scores, by name. */
    List<OfPerson> everybody() {
        return results.keepers().stream()
                .map(k -> new OfPerson(k.name(), of(k.id())))
                .toList();
    }

    /** A family on file of {@code sort} on which {@code skill} can be practised. */
    Optional<EngineFamily> family(EngineSort sort, Skill skill) {
        return families().stream()
                .filter(f -> EngineSort.of(f).equals(sort))
                .filter(f -> f.path().isPresent() || !skill.needsADrawing())
                .findFirst();
    }

    private List<EngineFamily> families() {
        return book.all().stream().map(VersionedFamily::family).toList();
    }

    private Course of(long person) {
        TreeMap<EngineSort, List<EngineFamily>> sorts =
                families().stream().collect(Collectors.groupingBy(EngineSort::of, TreeMap::new, Collectors.toList()));
        List<Course.Result> all = new ArrayList<>();
        sorts.forEach((sort, families) -> results.newest(
                        person, families.stream().map(EngineFamily::code).toList())
                .forEach(r -> all.add(new Course.Result(sort, r.skill(), r.points(), r.most()))));
        return Course.of(
                all,
                sorts.entrySet().stream()
                        .map(s -> new Course.OnFile(
                                s.getKey(),
                                s.getValue().stream().anyMatch(f -> f.path().isPresent())))
                        .toList());
    }

    /** From now on own answers are kept, or no more; what is kept stays until it is forgotten. */
    @Transactional
    public void keep(boolean keeps) {
        results.keep(current.get().id(), keeps);
    }

    /** Takes away all own answers. */
    @Transactional
    public void forget() {
        results.forget(current.get().id());
    }

    /** Notes a round on the loop, where whoever did it wishes so. */
    @Transactional
    public void note(String family, long seed, Marks marks) {
        marks.parts().forEach(p -> note(family, seed, p.skill(), p.points(), Marks.MOST));
    }

    /** Notes an answer, where whoever gave it wishes so. */
    @Transactional
    public void note(String family, long seed, Skill skill, int points, int most) {
        long person = current.get().id();
        if (results.keeps(person)) {
            results.add(person, family, skill, seed, points, most, clock.instant());
        }
    }
}
