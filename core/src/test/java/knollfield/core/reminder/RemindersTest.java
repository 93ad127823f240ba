package knollfield.core.reminder;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class RemindersTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 30);
    private static final ReminderRule RULE = new ReminderRule(6, 3, 2);

    private static Reminders.Vehicle vehicle(long id, int actByIn, Integer... sentDaysAgo) {
        return new Reminders.Vehicle(
                id,
                Optional.of(id / 10),
                true,
                Optional.of(TODAY.plusDays(actByIn)),
                Optional.empty(),
                List.of(sentDaysAgo).stream().map(TODAY::minusDays).toList());
    }

    private static Reminders.Plan plan(Reminders.Vehicle... vehicles) {
        return Reminders.of(RULE, TODAY, List.of(vehicles), Map.of());
    }

    @ParameterizedTest(name = "act by in {0} days, last written to {1} days ago: {2}")
    @CsvSource({
        "42, , FIRST",
        "43, , NOT_YET",
        "-400, , FIRST",
        "10, 21, SECOND",
        "10, 20, LATELY",
    })
    void itIsSixWeeksBeforeAndAgainAfterThree(int actBy, Integer ago, String expected) {
        Reminders.Plan plan = plan(ago == null ? vehicle(10, actBy) : vehicle(10, actBy, ago));
        String said = plan.letters().isEmpty()
                ? plan.notNow().get(10L).name()
                : plan.letters().get(0).lines().get(0).nth() == 1 ? "FIRST" : "SECOND";
        assertThat(said).isEqualTo(expected);
    }

    @Test
    void whatStandsInTheWayIsSaid() {
        assertThat(plan(vehicle(10, 5, 60, 30)).notNow()).containsEntry(10L, NotNow.ENOUGH);
        for (NotNow obstacle : List.of(NotNow.MUST_NOT_RUN, NotNow.JOB_OPEN, NotNow.DECLINED, NotNow.ASK_AGAIN)) {
            assertThat(plan(new Reminders.Vehicle(
                                    10, Optional.of(1L), true, Optional.of(TODAY), Optional.of(obstacle), List.of()))
                            .notNow())
                    .containsEntry(10L, obstacle);
        }
        assertThat(plan(new Reminders.Vehicle(
                                10, Optional.of(1L), false, Optional.of(TODAY), Optional.empty(), List.of()))
                        .notNow())
                .containsEntry(10L, NotNow.NOT_WANTED);
        assertThat(plan(new Reminders.Vehicle(
                                10, Optional.empty(), true, Optional.of(TODAY), Optional.empty(), List.of()))
                        .notNow())
                .containsEntry(10L, NotNow.NO_OWNER);
        assertThat(plan(new Reminders.Vehicle(10, Optional.of(1L), true, Optional.empty(), Optional.empty(), List.of()))
                        .notNow())
                .containsEntry(10L, NotNow.NOTHING_DUE);
    }

    @Test
    void anOwnerHasOneLetterWithTheSoonestFirst() {
        Reminders.Plan plan = plan(vehicle(11, 20), vehicle(12, 5), vehicle(31, 8));
        assertThat(plan.letters()).extracting(Reminders.Letter::owner).containsExactly(1L, 3L);
        assertThat(plan.letters().get(0).lines())
                .extracting(Reminders.Line::vehicle)
                .containsExactly(12L, 11L);
        assertThat(Reminders.of(RULE, TODAY, List.of(vehicle(12, 5)), Map.of(1L, TODAY.minusDays(6)))
                        .notNow())
                .containsEntry(12L, NotNow.OWNER_LATELY);
        assertThat(Reminders.of(RULE, TODAY, List.of(vehicle(12, 5)), Map.of(1L, TODAY.minusDays(7)))
                        .letters())
                .hasSize(1);
    }

    @Test
    void aRuleOutsideItsBoundsIsRefused() {
        assertThatThrownBy(() -> new ReminderRule(6, 0, 2)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new ReminderRule(53, 1, 2)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new ReminderRule(6, 1, 0)).isInstanceOf(IllegalArgumentException.class);
    }

    /** A vehicle that lives through a year: jobs come and go, owners decline and change their mind, drives are renewed. */
    private static final class Living {
        final long id;
        final Optional<Long> owner;
        final boolean mayWrite;
        LocalDate actBy;
        LocalDate obstacleUntil = LocalDate.MIN;
        NotNow obstacle = NotNow.JOB_OPEN;
        final List<LocalDate> sent = new ArrayList<>();

        Living(long id, Random random) {
            this.id = id;
            this.owner = random.nextInt(20) == 0 ? Optional.empty() : Optional.of((long) random.nextInt(25));
            this.mayWrite = owner.isPresent() && owner.get() % 9 != 4;
            this.actBy = TODAY.plusDays(random.nextInt(500) - 100);
        }

        boolean free(LocalDate day) {
            return !day.isBefore(obstacleUntil);
        }

        void live(LocalDate day, Random random) {
            if (free(day) && random.nextInt(90) == 0) {
                obstacle = random.nextBoolean() ? NotNow.JOB_OPEN : NotNow.DECLINED;
                obstacleUntil = day.plusDays(1 + random.nextInt(60));
                if (obstacle == NotNow.JOB_OPEN && random.nextBoolean()) {
                    actBy = day.plusDays(300 + random.nextInt(900));
                    sent.clear();
                }
            } else if (random.nextInt(40) == 0) {
                actBy = actBy.plusDays(random.nextInt(41) - 20);
            }
        }

        Reminders.Vehicle now(LocalDate day) {
            return new Reminders.Vehicle(
                    id,
                    owner,
                    mayWrite,
                    Optional.of(actBy),
                    free(day) ? Optional.empty() : Optional.of(obstacle),
                    sent);
        }
    }

    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
    void overAYearTheRuleIsKept(long seed) {
        Random random = new Random(seed);
        ReminderRule rule = new ReminderRule(random.nextInt(12), 1 + random.nextInt(6), 1 + random.nextInt(4));
        List<Living> fleet = new ArrayList<>();
        for (long id = 0; id < 80; id++) {
            fleet.add(new Living(id, random));
        }
        Map<Long, LocalDate> written = new HashMap<>();
        Map<Long, LocalDate> waitingSince = new HashMap<>();
        int letters = 0;
        for (LocalDate day = TODAY; day.isBefore(TODAY.plusYears(1)); day = day.plusDays(1)) {
            LocalDate today = day;
            fleet.forEach(v -> v.live(today, random));
            Reminders.Plan plan = Reminders.of(
                    rule, today, fleet.stream().map(v -> v.now(today)).toList(), written);
            assertThat(plan.letters().stream().mapToInt(l -> l.lines().size()).sum()
                            + plan.notNow().size())
                    .as("each vehicle once")
                    .isEqualTo(fleet.size());
            for (Reminders.Letter letter : plan.letters()) {
                letters++;
                LocalDate before = written.put(letter.owner(), today);
                assertThat(before == null || ChronoUnit.DAYS.between(before, today) >= 7)
                        .as("nobody twice in a week")
                        .isTrue();
                for (Reminders.Line line : letter.lines()) {
                    Living v = fleet.get((int) line.vehicle());
                    assertThat(v.owner).hasValue(letter.owner());
                    assertThat(v.mayWrite).as("wants to be written to").isTrue();
                    assertThat(v.free(today)).as("no job, no decline").isTrue();
                    assertThat(today.plusWeeks(rule.weeksBefore())).isAfterOrEqualTo(v.actBy);
                    assertThat(v.sent)
                            .as("again only after a while")
                            .allMatch(d -> !d.plusWeeks(rule.weeksBetween()).isAfter(today));
                    v.sent.add(today);
                    assertThat(v.sent).hasSizeLessThanOrEqualTo(rule.most());
                    assertThat(line.nth()).isEqualTo(v.sent.size());
                }
            }
            for (Living v : fleet) {
                boolean waits = v.mayWrite
                        && v.free(today)
                        && v.sent.isEmpty()
                        && !today.plusWeeks(rule.weeksBefore()).isBefore(v.actBy);
                if (waits) {
                    LocalDate since = waitingSince.computeIfAbsent(v.id, k -> today);
                    assertThat(ChronoUnit.DAYS.between(since, today))
                            .as("whoever is due is written to within the week")
                            .isLessThan(7);
                } else {
                    waitingSince.remove(v.id);
                }
            }
        }
        assertThat(letters).isGreaterThan(20);
    }
}
