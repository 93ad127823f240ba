package knollfield.core.completion;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import org.junit.jupiter.api.Test;

class WorkDoneTest {

    private static WorkDone job(Timeliness timeliness, int book, int taken, long cost, long estimated) {
        return new WorkDone(
                Optional.ofNullable(timeliness),
                book,
                taken == 0 ? Optional.empty() : Optional.of(new WorkDone.Spent(taken, cost)),
                estimated == 0 ? OptionalLong.empty() : OptionalLong.of(estimated));
    }

    @Test
    void eachFigureIsOfTheJobsThatHaveIt() {
        WorkDone.Sums sums = WorkDone.sums(List.of(
                job(Timeliness.BEFORE_ACT_BY, 300, 330, 50_000, 45_000),
                job(Timeliness.AFTER_LIMIT, 200, 220, 30_000, 0),
                job(Timeliness.NO_RECORD, 100, 0, 0, 20_000),
                job(null, 60, 0, 0, 0)));

        assertThat(sums.jobs()).isEqualTo(4);
        assertThat(sums.counted()).isEqualTo(2);
        assertThat(sums.bookMinutes()).isEqualTo(500);
        assertThat(sums.takenMinutes()).isEqualTo(550);
        assertThat(sums.takenMinor()).isEqualTo(80_000);
        assertThat(sums.takenToBook()).contains(1.1);
        assertThat(sums.compared()).isEqualTo(1);
        assertThat(sums.estimatedMinor()).isEqualTo(45_000);
        assertThat(sums.comparedMinor()).isEqualTo(50_000);
        assertThat(sums.renewals()).as("without what had no day to keep").isEqualTo(2);
        assertThat(sums.of(Timeliness.AFTER_LIMIT)).isEqualTo(1);
        assertThat(sums.inTimeShare()).contains(0.5);
    }

    @Test
    void nothingHasNoShare() {
        WorkDone.Sums sums = WorkDone.sums(List.of());
        assertThat(sums.inTimeShare()).isEmpty();
        assertThat(sums.takenToBook()).isEmpty();
    }
}
