package knollfield.core.outlook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import knollfield.core.Families;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.DueEngine;
import knollfield.core.due.Policy;
import knollfield.core.due.Policy.Timing;
import knollfield.core.due.VehicleFacts;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.TensionerKind;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import knollfield.core.outlook.OneVehicle.Setting;
import knollfield.core.risk.AgeReplacement;
import knollfield.core.risk.DriveHazard;
import knollfield.core.risk.FreshSet;
import knollfield.core.risk.WearModel;
import knollfield.core.risk.WearModels;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What a year under a policy holds for one vehicle. */
class OutlookTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final EngineFamily BELT = Families.belt(TensionerKind.SPRING_PIN, true);
    private static final Policy BOOK = Policy.defaults().with(new Timing.Book());

    private static FreshSet drive(double kmPerYear) {
        return FreshSet.at(kmPerYear).with(WearModel.defaults(), 1, Limit.of(120_000, 72));
    }

    /** Source: the cost a year of Barlow and Hunter (1960), reckoned by its own formula. */
    @ParameterizedTest
    @ValueSource(doubles = {1, 3.5, 6, 9})
    void withoutVisitsItIsAgeReplacement(double age) {
        Renewing r = Renewing.of(drive(30_000), age, age, 0);

        assertThat(640 * r.planned() + 3_470 * r.failures())
                .isCloseTo(AgeReplacement.costPerUnit(drive(30_000), 640, 3_470, age), within(1e-6));
        assertThat(r.atVisits()).isZero();
    }

    /** From memory: what happens is counted, life after life; a seeded simulation of 200,000. */
    @Test
    void withVisitsItIsWhatALongRunOfLivesHolds() {
        Random random = new Random(7);
        FreshSet set = drive(45_000);
        double years = 0;
        int[] ends = new int[3];
        int lives = 200_000;
        for (int i = 0; i < lives; i++) {
            double level = -Math.log(1 - random.nextDouble());
            double low = 0;
            double high = 100;
            while (high - low > 1e-6) {
                double middle = (low + high) / 2;
                if (set.cumulative(middle) < level) {
                    low = middle;
                } else {
                    high = middle;
                }
            }
            double visit = 2 - Math.log(1 - random.nextDouble()) / 1.5;
            double end = Math.min(3, Math.min(low, visit));
            years += end;
            ends[end == low ? 0 : end == visit ? 2 : 1]++;
        }
        Renewing r = Renewing.of(set, 3, 2, 1.5);

        assertThat(r.failures()).isCloseTo(ends[0] / years, within(3e-4));
        assertThat(r.planned()).isCloseTo(ends[1] / years, within(1e-3));
        assertThat(r.atVisits()).isCloseTo(ends[2] / years, within(1e-3));
    }

    private static OneVehicle vehicle(int kmPerYear, int yearsOld) {
        List<Reading> readings = new ArrayList<>();
        for (int half = 2 * Math.min(4, yearsOld); half >= 0; half--) {
            LocalDate day = TODAY.minusMonths(6L * half + 3);
            readings.add(
                    new Reading(half + 1, day, kmPerYear * yearsOld - kmPerYear * half / 2, ReadingSource.WORKSHOP));
        }
        VehicleFacts facts = new VehicleFacts(
                TODAY.minusYears(yearsOld),
                true,
                readings,
                Map.of("belt", ClockStart.atFirstRegistration(TODAY.minusYears(yearsOld))),
                Set.of(),
                List.of(),
                new UsageClass("T", "test", kmPerYear, kmPerYear / 4.0),
                List.of());
        VehicleForecast f = DueEngine.forecast(facts, Optional.of(BELT), BOOK, OdometerAssumptions.defaults(), TODAY);
        FreshSet fresh = DriveHazard.of(f, facts.firstRegistered(), List.of(), WearModels.all(WearModel.defaults()))
                .orElseThrow()
                .fresh(Set.of("belt"));
        return new OneVehicle(
                facts, BELT, f, OdometerAssumptions.defaults(), fresh, Set.of("belt"), 64_000, 347_000, 150);
    }

    private static Setting setting(Timing timing, long stranding, double visits) {
        return new Setting(BOOK.with(timing), stranding, 9_000, visits);
    }

    private static Outlook outlook(OneVehicle v, Setting s) {
        return v.under(s).orElseThrow();
    }

    /** Whether its history is long enough to reach back to when the drive would have been fitted must not matter. */
    @ParameterizedTest(name = "{0} km a year, {1} years old")
    @CsvSource({"8000, 12", "8000, 5", "8000, 2"})
    void whatIsBoundByAgeIsRenewedWhenItsMonthsAreUp(int kmPerYear, int yearsOld) {
        OneVehicle v = vehicle(kmPerYear, yearsOld);

        double book = v.actedOn(BOOK, v.fresh().yearsToFirstLimit()).years();
        assertThat(book)
                .isCloseTo(
                        BELT.item("belt")
                                        .orElseThrow()
                                        .schedule()
                                        .orElseThrow()
                                        .normal()
                                        .months()
                                        .orElseThrow()
                                / 12.0,
                        within(0.01));
        double early = v.actedOn(BOOK.with(new Timing.Early(0.9)), v.fresh().yearsToFirstLimit())
                .years();
        assertThat(early / book).isCloseTo(0.9, within(0.01));
        assertThat(v.actedOn(BOOK, v.fresh().yearsToFirstLimit()).pastTheBook()).isLessThan(0.01);
    }

    @Test
    void whatIsBoundByDistanceIsRenewedAtTheChanceOfPassingIt() {
        OneVehicle v = vehicle(60_000, 3);
        OneVehicle.ActedOn acted = v.actedOn(BOOK, v.fresh().yearsToFirstLimit());

        assertThat(acted.pastTheBook()).isBetween(0.08, 0.13);
        assertThat(acted.years()).isLessThan(v.fresh().yearsToFirstLimit());
        OneVehicle.ActedOn late = v.actedOn(
                BOOK.with(new Timing.Fixed(Limit.of(500_000, 240))), v.fresh().yearsToFirstLimit());
        assertThat(late.years()).isCloseTo(acted.years(), within(0.01));
    }

    @Test
    void aDearerStrandingNeverLetsMoreBreakDownAndAVisitSavesMoney() {
        OneVehicle v = vehicle(32_000, 6);
        double before = Double.POSITIVE_INFINITY;
        for (long stranding : new long[] {0, 250_000, 1_000_000, 2_000_000, 8_000_000}) {
            Outlook o = outlook(v, setting(new Timing.Careful(), stranding, 0));
            assertThat(o.breakdowns()).isLessThanOrEqualTo(before);
            before = o.breakdowns();
        }
        Outlook book = outlook(v, setting(new Timing.Book(), 0, 2));
        Outlook careful = outlook(v, setting(new Timing.Careful(), 1_000_000, 0));
        Outlook visited = outlook(v, setting(new Timing.Careful(), 1_000_000, 2));
        assertThat(careful.breakdowns()).isLessThanOrEqualTo(book.breakdowns());
        assertThat(visited.breakdowns()).isLessThan(careful.breakdowns());
        assertThat(visited.costMinor()).isLessThan(careful.costMinor());
        assertThat(visited.atVisits()).isPositive().isLessThan(visited.jobs());
        assertThat(careful.hours()).isCloseTo(2.5 * (careful.jobs() + careful.breakdowns()), within(1e-9));
        assertThat(Outlook.sum(List.of(book, book)).times(2).jobs()).isCloseTo(4 * book.jobs(), within(1e-12));
    }
}
