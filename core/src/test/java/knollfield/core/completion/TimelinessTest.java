package knollfield.core.completion;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import knollfield.core.due.Status;
import knollfield.core.due.VehicleForecast;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.odometer.Projection;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.UsageClass;
import knollfield.core.odometer.UsageRate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TimelinessTest {

    private static final LocalDate DONE_ON = LocalDate.of(2026, 5, 10);

    private static Timeliness of(Status status, LocalDate actBy) {
        return Timeliness.of(stood(status, Optional.of(actBy)));
    }

    private static VehicleForecast stood(Status status, Optional<LocalDate> actBy) {
        UsageRate rate = UsageRate.stated(12_000, new UsageClass("T", "test", 12_000, 4_000));
        return new VehicleForecast(
                DONE_ON,
                status,
                actBy,
                Optional.empty(),
                List.of(),
                ReadingChain.of(List.of(), OdometerAssumptions.defaults()),
                new Projection(DONE_ON, 90_000, rate, List.of()),
                0,
                List.of(),
                List.of());
    }

    @Test
    void onItsActByDayIsInTimeAndTheDayAfterIsNot() {
        assertThat(of(Status.ACT_NOW, DONE_ON)).isEqualTo(Timeliness.BEFORE_ACT_BY);
        assertThat(of(Status.ACT_NOW, DONE_ON.minusDays(1))).isEqualTo(Timeliness.BEFORE_LIMIT);
        assertThat(of(Status.CLEAR, DONE_ON.plusYears(2))).isEqualTo(Timeliness.BEFORE_ACT_BY);
    }

    @Test
    void aLimitPassedAStopAndNoRecordOutweighTheDay() {
        LocalDate ahead = DONE_ON.plusDays(30);
        assertThat(of(Status.OVERDUE, ahead)).isEqualTo(Timeliness.AFTER_LIMIT);
        assertThat(of(Status.STOP, ahead)).isEqualTo(Timeliness.MUST_NOT_RUN);
        assertThat(of(Status.UNKNOWN_HISTORY, DONE_ON)).isEqualTo(Timeliness.NO_RECORD);
        assertThat(Timeliness.of(stood(Status.NO_BOOK, Optional.empty()))).isEqualTo(Timeliness.NO_RECORD);
    }

    @ParameterizedTest
    @CsvSource({
        "BEFORE_ACT_BY, true",
        "BEFORE_LIMIT, true",
        "AFTER_LIMIT, true",
        "MUST_NOT_RUN, false",
        "NO_RECORD, false"
    })
    void onlyWhereThereWasADayToKeepIsItCounted(Timeliness timeliness, boolean counts) {
        assertThat(timeliness.counts()).isEqualTo(counts);
    }
}
