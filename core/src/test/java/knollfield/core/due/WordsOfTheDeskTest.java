package knollfield.core.due;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.Reason.Topic;
import knollfield.core.engine.CrankFit;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.TensionerKind;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** What core says in sentences: standing, next step, reasons. */
class WordsOfTheDeskTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final UsageClass USAGE = new UsageClass("T", "test", 12_000, 4_000);
    private static final EngineFamily BELT = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final Policy EARLY = Policy.defaults().with(new Policy.Timing.Early(0.95));

    private static VehicleFacts renewed(int monthsAgo, int usedKm, List<Evidence> evidence, List<KnownTrip> trips) {
        ClockStart start = new ClockStart(TODAY.minusMonths(monthsAgo), 40_000, ClockStart.Grade.DOCUMENTED);
        return new VehicleFacts(
                TODAY.minusYears(9),
                true,
                List.of(
                        new Reading(1, TODAY.minusMonths(monthsAgo), 40_000, ReadingSource.WORKSHOP),
                        new Reading(2, TODAY, 40_000 + usedKm, ReadingSource.WORKSHOP)),
                Map.of("belt", start, "tensioner", start, "pump", start, "chain", start),
                Set.of(),
                evidence,
                USAGE,
                trips);
    }

    private static VehicleFacts nobodyKnows() {
        return new VehicleFacts(
                TODAY.minusYears(9),
                true,
                List.of(new Reading(1, TODAY, 140_000, ReadingSource.CUSTOMER)),
                Map.of(),
                Set.of(),
                List.of(),
                USAGE,
                List.of());
    }

    private static String standing(VehicleFacts facts, Optional<EngineFamily> family) {
        VehicleForecast f = DueEngine.forecast(facts, family, EARLY, TODAY);
        return plain(Standing.of(f, family));
    }

    private static String plain(Statement statement) {
        String text = statement.template();
        for (int i = 0; i < statement.facts().size(); i++) {
            Fact fact = statement.facts().get(i);
            String figure = fact instanceof Fact.Words w
                    ? w.words()
                    : fact instanceof Fact.Day d
                            ? d.date().toString()
                            : fact instanceof Fact.Count c ? Long.toString(c.count()) : "#";
            text = text.replace("{" + i + "}", figure);
        }
        return text;
    }

    @Test
    void everyStandingIsOneSentenceThatAnswersACall() {
        assertThat(standing(
                        renewed(20, 20_000, List.of(new Evidence(EvidenceKind.BELT_FAILED, TODAY)), List.of()),
                        Optional.of(BELT)))
                .isEqualTo("Do not run the engine: belt off, teeth missing, cord showing, chain jumped.");
        assertThat(standing(renewed(73, 30_000, List.of(), List.of()), Optional.of(BELT)))
                .isEqualTo("Past the limit of its timing belt for 31 days; an interference engine.");
        assertThat(standing(nobodyKnows(), Optional.of(BELT)))
                .isEqualTo(
                        "Nobody knows when its timing belt was renewed; an interference engine: ask the owner, or do it now.");
        assertThat(standing(
                        renewed(20, 20_000, List.of(new Evidence(EvidenceKind.OIL_TOP, TODAY)), List.of()),
                        Optional.of(BELT)))
                .isEqualTo("What was found calls for it: oil on the belt, wet from the top; an interference engine.");
        assertThat(standing(renewed(20, 20_000, List.of(), List.of()), Optional.empty()))
                .isEqualTo("No engine family is on file; find out which engine it has.");
        assertThat(standing(renewed(20, 20_000, List.of(), List.of()), Optional.of(BELT)))
                .startsWith("Nothing to do until 20")
                .endsWith("; an interference engine.");
        assertThat(standing(renewed(69, 30_000, List.of(), List.of()), Optional.of(BELT)))
                .isEqualTo("Its timing belt should have been seen to by 2026-11-07; an interference engine.");
        assertThat(standing(renewed(66, 30_000, List.of(), List.of()), Optional.of(BELT)))
                .isEqualTo("See to its timing belt by 2027-02-04; an interference engine.");
    }

    @ParameterizedTest
    @EnumSource(Interference.class)
    void theEngineIsNamedForWhatItIs(Interference interference) {
        EngineFamily family = Families.belt(TensionerKind.SPRING_PIN, true, CrankFit.KEYED, interference);
        String words = standing(renewed(66, 30_000, List.of(), List.of()), Optional.of(family));

        assertThat(words)
                .endsWith(
                        switch (interference) {
                            case YES -> "; an interference engine.";
                            case NO -> "; not an interference engine.";
                            case UNKNOWN -> "; interference unconfirmed.";
                        });
    }

    @ParameterizedTest(name = "{0} with job {1}: {2}")
    @CsvSource({
        "STOP,, RING",
        "OVERDUE,, RING",
        "ACT_NOW,, RING",
        "COMING,, RING",
        "UNKNOWN_HISTORY,, ASK_OWNER",
        "NO_BOOK,, ASK_OWNER",
        "CLEAR,, NONE",
        "OVERDUE, DRAFT, PROMISE",
        "CLEAR, PLANNED, START",
        "STOP, UNDER_WAY, SIGN",
        "OVERDUE, DONE, RING",
        "COMING, CANCELLED, RING"
    })
    void theNextStepFollowsFromStandingAndJob(Status status, JobStage job, NextStep step) {
        assertThat(NextStep.of(status, Optional.ofNullable(job), false)).isEqualTo(step);
    }

    @Test
    void reasonsComeInTheOrderOneWouldSayThemAndEveryFigureIsThere() {
        LocalDate from = TODAY.plusDays(40);
        VehicleFacts facts = renewed(
                20,
                60_000,
                List.of(new Evidence(EvidenceKind.CRACKS, TODAY.minusDays(2))),
                List.of(new KnownTrip(from, from.plusDays(10), 4_000)));
        List<Reason> reasons = DueEngine.forecast(facts, Optional.of(BELT), Policy.defaults(), TODAY)
                .reasons();

        assertThat(reasons)
                .extracting(Reason::topic)
                .containsExactly(
                        Topic.EVIDENCE,
                        Topic.DECIDES,
                        Topic.DISTANCE,
                        Topic.AGE,
                        Topic.HISTORY,
                        Topic.SCHEDULE,
                        Topic.SCHEDULE,
                        Topic.USAGE,
                        Topic.TRIP,
                        Topic.DECIDES);
        assertThat(reasons).allSatisfy(r -> {
            for (int i = 0; i < r.statement().facts().size(); i++) {
                assertThat(r.statement().template()).contains("{" + i + "}");
            }
            assertThat(r.statement().template())
                    .doesNotContain("{" + r.statement().facts().size() + "}");
        });
    }

    @Test
    void aChainWithoutAnIntervalSaysThatItIsInspected() {
        EngineFamily chain = Families.chain();
        VehicleForecast f = DueEngine.forecast(
                renewed(20, 20_000, List.of(), List.of()), Optional.of(chain), Policy.defaults(), TODAY);

        assertThat(f.item("chain").orElseThrow().inspection()).isTrue();
        assertThat(f.item("guides").orElseThrow().status()).isEqualTo(Status.NO_BOOK);
        assertThat(f.status()).isEqualTo(Status.CLEAR);
    }

    @Test
    void anItemOfUnknownHistoryDoesNotHideABeltThatIsDocumented() {
        ClockStart start = new ClockStart(TODAY.minusMonths(12), 130_000, ClockStart.Grade.DOCUMENTED);
        VehicleFacts facts = new VehicleFacts(
                TODAY.minusYears(9),
                true,
                List.of(new Reading(1, TODAY, 140_000, ReadingSource.WORKSHOP)),
                Map.of("belt", start, "tensioner", start),
                Set.of(),
                List.of(),
                USAGE,
                List.of());
        VehicleForecast f = DueEngine.forecast(facts, Optional.of(BELT), Policy.defaults(), TODAY);

        assertThat(f.item("pump").orElseThrow().status()).isEqualTo(Status.UNKNOWN_HISTORY);
        assertThat(f.status()).isEqualTo(Status.CLEAR);
    }

    @Test
    void anOldPumpDecidesForTheVehicle() {
        ClockStart young = new ClockStart(TODAY.minusMonths(12), 130_000, ClockStart.Grade.DOCUMENTED);
        ClockStart old = new ClockStart(TODAY.minusMonths(80), 60_000, ClockStart.Grade.DOCUMENTED);
        VehicleFacts facts = new VehicleFacts(
                TODAY.minusYears(9),
                true,
                List.of(new Reading(1, TODAY, 140_000, ReadingSource.WORKSHOP)),
                Map.of("belt", young, "tensioner", young, "pump", old),
                Set.of(),
                List.of(),
                USAGE,
                List.of());
        VehicleForecast f = DueEngine.forecast(facts, Optional.of(BELT), Policy.defaults(), TODAY);

        assertThat(f.status()).isEqualTo(Status.OVERDUE);
        assertThat(f.deciding().orElseThrow().item().code()).isEqualTo("pump");
    }

    @ParameterizedTest
    @EnumSource(EvidenceKind.class)
    void evidenceNeverMakesAVehicleLookBetter(EvidenceKind kind) {
        for (int months = 2; months < 90; months += 8) {
            VehicleFacts before = renewed(months, 1_200 * months, List.of(), List.of());
            VehicleFacts after = renewed(months, 1_200 * months, List.of(new Evidence(kind, TODAY)), List.of());
            for (EngineFamily family : List.of(BELT, Families.chain())) {
                if (kind == EvidenceKind.INSPECTED_GOOD && family.drive() == Drive.CHAIN) {
                    continue; // a good inspection is what restarts an inspection clock
                }
                VehicleForecast f = DueEngine.forecast(before, Optional.of(family), Policy.defaults(), TODAY);
                VehicleForecast g = DueEngine.forecast(after, Optional.of(family), Policy.defaults(), TODAY);
                assertThat(g.status()).isLessThanOrEqualTo(f.status());
                if (f.actBy().isPresent()) {
                    assertThat(g.actBy().orElseThrow())
                            .isBeforeOrEqualTo(f.actBy().get());
                }
            }
        }
    }
}
