package knollfield.core.practice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.Drive;
import org.junit.jupiter.api.Test;

class CourseTest {

    private static final EngineSort BELT = new EngineSort(Drive.BELT, CrankFit.KEYED);
    private static final EngineSort CHAIN = new EngineSort(Drive.CHAIN, CrankFit.FRICTION_HELD);
    private static final List<Course.OnFile> ON_FILE =
            List.of(new Course.OnFile(CHAIN, false), new Course.OnFile(BELT, true));

    private static Course.Result answer(EngineSort sort, Skill skill, int points) {
        return new Course.Result(sort, skill, points, 5);
    }

    /** Every skill of the drawn loop and the card, {@code times} over. */
    private static List<Course.Result> round(int times, int points) {
        List<Course.Result> all = new ArrayList<>();
        for (int i = 0; i < times; i++) {
            for (Skill s : Skill.values()) {
                all.add(answer(BELT, s, points));
            }
        }
        return all;
    }

    @Test
    void whoHasNotBegunBeginsWithTheFirstSkillOfTheFirstEngines() {
        Course course = Course.of(List.of(), ON_FILE);
        assertThat(course.standings()).extracting(Course.Standing::sort).containsExactly(BELT, CHAIN);
        assertThat(course.next()).contains(new Course.Next(BELT, Skill.MARKS_IN));
        assertThat(Course.of(List.of(), List.of()).next()).isEmpty();
    }

    @Test
    void readyNeedsEnoughAnswersFourOfFivePointsAndEverySkill() {
        assertThat(Course.of(round(2, 5), ON_FILE).standings().get(0).ready())
                .as("ten answers")
                .isFalse();
        assertThat(Course.of(round(3, 4), ON_FILE).standings().get(0).ready())
                .as("fifteen answers, 80 %")
                .isTrue();
        assertThat(Course.of(round(3, 3), ON_FILE).standings().get(0).ready())
                .as("60 %")
                .isFalse();
        List<Course.Result> oneSkill = Collections.nCopies(15, answer(BELT, Skill.LAY_ON, 5));
        Course.Standing narrow = Course.of(oneSkill, ON_FILE).standings().get(0);
        assertThat(narrow.ready()).isFalse();
        assertThat(narrow.words()).startsWith("not met yet: bring the marks in");
        assertThat(Course.of(round(3, 3), ON_FILE).standings().get(0).words()).isEqualTo("too few right");
        assertThat(Course.of(round(2, 5), ON_FILE).standings().get(0).words()).isEqualTo("2 more");
        assertThat(narrow.missing()).contains(Skill.MARKS_IN, Skill.WHAT_NEXT).doesNotContain(Skill.LAY_ON);
    }

    @Test
    void enginesWithoutADrawingAskForTheCardAlone() {
        List<Course.Result> card = Collections.nCopies(12, answer(CHAIN, Skill.WHAT_NEXT, 5));
        assertThat(Course.of(card, ON_FILE).standings().get(1).ready()).isTrue();
    }

    @Test
    void theNewestAnswersCountAndTheWeakestSkillComesNext() {
        List<Course.Result> better = new ArrayList<>(round(4, 5));
        better.addAll(round(4, 0));
        assertThat(Course.of(better, ON_FILE).standings().get(0).share()).isEqualTo(1);

        List<Course.Result> weak = new ArrayList<>(round(2, 4));
        weak.add(answer(BELT, Skill.TOOTH_OUT, 0));
        assertThat(Course.of(weak, ON_FILE).next()).contains(new Course.Next(BELT, Skill.TOOTH_OUT));
    }

    @Test
    void nothingIsNextWhereAllIsReady() {
        assertThat(Course.of(round(3, 5), List.of(new Course.OnFile(BELT, true)))
                        .next())
                .isEqualTo(Optional.empty());
        assertThatThrownBy(() -> answer(BELT, Skill.DECIDE, 6)).hasMessageContaining("6 of 5");
    }
}
