package knollfield.app.practice;

import java.util.List;
import knollfield.app.security.CurrentPerson;
import knollfield.core.practice.Course;
import knollfield.core.practice.Skill;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** How far somebody has come in practice, and what comes next. */
@RestController
@RequestMapping("/api/practice-course")
class CourseController {

    private final Courses courses;
    private final CurrentPerson current;

    CourseController(Courses courses, CurrentPerson current) {
        this.courses = courses;
        this.current = current;
    }

    /**
     * @param percent of the points, 0 to 100; null without an answer
     * @param words how it stands, or what is wanting
     */
    record SortView(String sort, int answers, @Nullable Integer percent, boolean ready, String words) {}

    /** @param family code of one to do it on */
    record NextUp(String family, String familyName, String sort, Skill skill, String skillWords) {}

    record PersonCourse(String name, List<SortView> sorts) {}

    /**
     * @param next null where nothing is left, or no engine is on file
     * @param people those who keep their scores; for managers alone
     */
    record CourseView(
            boolean keeps,
            int least,
            int readyPercent,
            List<SortView> sorts,
            @Nullable NextUp next,
            @Nullable List<PersonCourse> people) {}

    record KeepIn(boolean keeps) {}

    @GetMapping
    CourseView course() {
        Course own = courses.own();
        return new CourseView(
                courses.keeps(),
                Course.LEAST,
                (int) Math.round(100 * Course.READY_SHARE),
                sorts(own),
                own.next()
                        .flatMap(n -> courses.family(n.sort(), n.skill())
                                .map(f -> new NextUp(
                                        f.code(),
                                        f.name(),
                                        n.sort().words(),
                                        n.skill(),
                                        n.skill().words())))
                        .orElse(null),
                current.get().isManager()
                        ? courses.everybody().stream()
                                .map(p -> new PersonCourse(p.name(), sorts(p.course())))
                                .toList()
                        : null);
    }

    /** Own answers are kept from now on, or no more. */
    @PutMapping
    CourseView keep(@RequestBody KeepIn body) {
        courses.keep(body.keeps());
        return course();
    }

    /** Takes away all own answers. */
    @DeleteMapping
    CourseView forget() {
        courses.forget();
        return course();
    }

    private static List<SortView> sorts(Course course) {
        return course.standings().stream()
                .map(s -> new SortView(
                        s.sort().words(),
                        s.answers(),
                        s.answers() == 0 ? null : (int) Math.round(100 * s.share()),
                        s.ready(),
                        s.words()))
                .toList();
    }
}
