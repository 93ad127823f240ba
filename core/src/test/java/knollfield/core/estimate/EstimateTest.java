package knollfield.core.estimate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.Families;
import knollfield.core.bundle.Bundle;
import knollfield.core.bundle.BundleRules;
import knollfield.core.bundle.Labour;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.TensionerKind;
import knollfield.core.estimate.Consent.Answer;
import knollfield.core.estimate.Consent.How;
import knollfield.core.estimate.Consent.State;
import org.junit.jupiter.api.Test;

class EstimateTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
    private static final EngineFamily FAMILY = Families.belt(TensionerKind.SPRING_PIN, true);

    private static Bundle bundle(String... chosen) {
        return BundleRules.bundle(
                FAMILY, new BundleRules.Vehicle(Set.of(), Map.of(), List.of(), TODAY, 138_000), Set.of(chosen));
    }

    private static EstimateRates rates(double factor) {
        return new EstimateRates(6_000, factor, 0.9, 1.25, 800, 0, 0.2);
    }

    @Test
    void linesAddUpToTheBundleAndTheTotalToTheMinorUnit() {
        Estimate e = Estimate.of(bundle(), Set.of(), rates(1));

        // Common practice, no source: labour at the rate, parts as listed, then tax: 371.00 + 150.00 + 8.00, 20 %
        assertThat(e.netMinor()).isEqualTo(37_100 + 15_000 + 800);
        assertThat(e.taxMinor()).isEqualTo(10_580);
        assertThat(e.totalMinor()).isEqualTo(63_480);
        assertThat(e.lines()).extracting(Estimate.Line::code).contains(Estimate.SHARED, "belt", "pump", "crank");
    }

    @Test
    void lowLikelyHighStandInOrderAndTotalsReconcileWhateverTheFigures() {
        Random random = new Random(11);
        for (int i = 0; i < 300; i++) {
            EstimateRates rates = new EstimateRates(
                    random.nextInt(20_000),
                    0.5 + random.nextDouble(),
                    0.5 + random.nextDouble() / 2,
                    1 + random.nextDouble(),
                    random.nextInt(3_000),
                    random.nextInt(3_000),
                    random.nextDouble() / 2);
            Estimate e = Estimate.of(random.nextBoolean() ? bundle() : bundle("camseal"), Set.of(), rates);

            assertThat(e.lines().stream().mapToLong(Estimate.Line::likelyMinor).sum() + e.taxMinor())
                    .isEqualTo(e.totalMinor());
            assertThat(e.lowTotalMinor()).isLessThanOrEqualTo(e.totalMinor());
            assertThat(e.totalMinor()).isLessThanOrEqualTo(e.highTotalMinor());
            assertThat(e.lines()).allSatisfy(l -> assertThat(l.likelyMinor()).isBetween(l.lowMinor(), l.highMinor()));
        }
    }

    @Test
    void theRangeOfATotalIsTheRangeOfItsLabourWithTax() {
        Estimate e = Estimate.of(bundle(), Set.of(), rates(1));

        // Common practice, no source: 90 % and 125 % of 371.00 of labour, 158.00 of parts as they are, 20 % tax
        assertThat(e.lowTotalMinor()).isEqualTo(Math.round((33_390 + 15_800) * 1.2));
        assertThat(e.highTotalMinor()).isEqualTo(Math.round((46_375 + 15_800) * 1.2));
        Estimate slow = Estimate.of(bundle(), Set.of(), rates(1.5));
        assertThat(slow.minutes()).as("371 minutes, each line rounded").isBetween(555, 559);
    }

    @Test
    void whatCostsNothingHasNoLine() {
        Estimate without = Estimate.of(bundle(), Set.of(), new EstimateRates(6_000, 1, 0.9, 1.25, 0, 0, 0.2));
        assertThat(without.lines())
                .extracting(Estimate.Line::kind)
                .doesNotContain(Estimate.Kind.CONSUMABLES, Estimate.Kind.TOOL_HIRE);
        Estimate with = Estimate.of(bundle(), Set.of(), new EstimateRates(6_000, 1, 0.9, 1.25, 800, 1_500, 0.2));
        assertThat(with.netMinor() - without.netMinor()).isEqualTo(2_300);
        assertThat(with.lines()).extracting(Estimate.Line::code).contains(Estimate.CONSUMABLES, Estimate.TOOL_HIRE);

        Bundle beltAlone = new Bundle(
                bundle().lines().stream().filter(l -> l.code().equals("belt")).toList(),
                Labour.of(FAMILY, Set.of(), Set.of("belt")));
        assertThat(Estimate.of(beltAlone, Set.of(), rates(1)).lines())
                .as("nothing is shared by one item")
                .extracting(Estimate.Line::code)
                .containsExactly("belt", Estimate.CONSUMABLES);
    }

    @Test
    void whatCameUpAtTheBenchIsPricedByItsOwnMinutesAndParts() {
        Estimate.More thread = new Estimate.More(3, "Thread repaired", 25, 1_850);
        Estimate plain = Estimate.of(bundle(), Set.of(), rates(1.5));
        Estimate more = Estimate.of(bundle(), Set.of(), rates(1.5), List.of(thread));

        // Common practice, no source: 25 minutes at 60.00 an hour and 18.50 of parts, by no factor
        assertThat(more.netMinor() - plain.netMinor()).isEqualTo(2_500 + 1_850);
        Estimate.Line line = more.lines().get(more.lines().size() - 1);
        assertThat(line.kind()).isEqualTo(Estimate.Kind.MORE_WORK);
        assertThat(line.code()).isEqualTo(Estimate.MORE + 3);
        assertThat(List.of(line.lowMinor(), line.likelyMinor(), line.highMinor()))
                .containsOnly(4_350L);
    }

    @Test
    void anInspectionCostsItsMinutesByNoFactor() {
        Estimate e = Estimate.ofInspection(40, rates(1.5), List.of(new Estimate.More(1, "Cover clip", 5, 300)));

        // Common practice, no source: 40 and 5 minutes at 60.00 an hour, 3.00 of parts, 20 % tax
        assertThat(e.netMinor()).isEqualTo(4_000 + 500 + 300);
        assertThat(e.taxMinor()).isEqualTo(960);
        assertThat(e.lowTotalMinor()).isEqualTo(5_760);
        assertThat(e.highTotalMinor()).isEqualTo(5_760);
        assertThat(e.minutes()).isEqualTo(45);
        assertThat(Consent.standing(e, List.of(), Set.of()))
                .extracting(l -> l.line().code())
                .containsExactly(Estimate.INSPECTION, Estimate.MORE + 1);
    }

    @Test
    void whatTheRulesAskForIsAnsweredFirstAndTheLastAnswerIsTheNewest() {
        Estimate e = Estimate.of(bundle("camseal", "coolant"), Set.of(), rates(1));
        List<Boolean> required = Consent.standing(e, List.of(), Set.of()).stream()
                .map(l -> l.line().required())
                .toList();
        assertThat(required).contains(true, false).isSortedAccordingTo(Comparator.reverseOrder());

        Consent first = said("pump", Answer.LEFT, 0);
        Consent last = said("pump", Answer.AGREED, 90_000);
        List<Consent.OfLine> standing = Consent.standing(e, List.of(first, last), Set.of("pump"));
        assertThat(standing)
                .filteredOn(l -> l.line().code().equals("pump"))
                .singleElement()
                .satisfies(l -> assertThat(l.newest()).contains(last));
        assertThat(standing)
                .filteredOn(l -> l.line().code().equals("belt"))
                .singleElement()
                .satisfies(l -> assertThat(l.newest()).isEmpty());
    }

    @Test
    void anOwnersPartIsMarked() {
        Estimate e = Estimate.of(bundle(), Set.of("pump"), rates(1));

        assertThat(e.lines())
                .filteredOn(Estimate.Line::ownerSupplied)
                .extracting(Estimate.Line::code)
                .containsExactly("pump");
    }

    // By rules.md section 6, (600 + sum of actual)/(600 + sum of book), worked by hand
    @Test
    void theWorkshopsOwnTimeScalesTheBook() {
        assertThat(TimeFactor.of(List.of())).isEqualTo(1);
        double factor = TimeFactor.of(List.of(new TimeFactor.Past(300, 360), new TimeFactor.Past(300, 330)));
        assertThat(factor).isCloseTo(1_290.0 / 1_200, within(1e-12));
        assertThat(TimeFactor.of(List.of(new TimeFactor.Past(300, 0), new TimeFactor.Past(0, 300))))
                .isEqualTo(1);

        Estimate slow = Estimate.of(bundle(), Set.of(), rates(factor));
        assertThat(slow.netMinor()).isCloseTo(Math.round(37_100 * factor) + 15_800, within(6L));
    }

    @Test
    void impossibleRatesAreRefused() {
        assertThatThrownBy(() -> rates(0)).hasMessageContaining("time factor");
        assertThatThrownBy(() -> new EstimateRates(-1, 1, 1, 1, 0, 0, 0)).hasMessageContaining("zero or more");
    }

    private static Consent said(String line, Answer answer, long upTo) {
        return new Consent(line, answer, upTo, "Owner", TODAY, How.PHONE, "told", false);
    }

    @Test
    void aLaterFindingOpensTheAddedLineOnly() {
        Estimate first = Estimate.of(bundle(), Set.of(), rates(1));
        List<Consent> said = new ArrayList<>();
        for (Estimate.Line l : first.lines()) {
            if (l.kind() == Estimate.Kind.ITEM) {
                said.add(said(l.code(), Answer.AGREED, l.highMinor()));
            }
        }
        assertThat(Consent.standing(first, said, Set.of())).noneMatch(Consent.OfLine::isOpen);

        Estimate second = Estimate.of(bundle("camseal"), Set.of(), rates(1));
        assertThat(Consent.standing(second, said, Set.of()))
                .filteredOn(Consent.OfLine::isOpen)
                .extracting(l -> l.line().code())
                .containsExactly("camseal");
    }

    @Test
    void theNewestAnswerCountsAndADearerLineIsOpenAgain() {
        Estimate e = Estimate.of(bundle(), Set.of(), rates(1));
        List<Consent> said = List.of(
                said("pump", Answer.LEFT, 0), said("pump", Answer.AGREED, 1_000_000), said("belt", Answer.AGREED, 1));

        Map<String, Consent.State> standing = states(e, said, Set.of("pump", "belt"));
        assertThat(standing).containsEntry("pump", State.AGREED).containsEntry("belt", State.DEARER);
        assertThat(Consent.left(said, Set.of())).as("agreed in the end").isEmpty();
    }

    @Test
    void aLineIsDearerFromTheFirstMinorUnitBeyondWhatWasAgreedAtWorst() {
        Estimate e = Estimate.of(bundle(), Set.of(), rates(1));
        long likely = e.lines().stream()
                .filter(l -> l.code().equals("pump"))
                .findFirst()
                .orElseThrow()
                .likelyMinor();

        assertThat(states(e, List.of(said("pump", Answer.AGREED, likely)), Set.of("pump")))
                .containsEntry("pump", State.AGREED);
        assertThat(states(e, List.of(said("pump", Answer.AGREED, likely - 1)), Set.of("pump")))
                .containsEntry("pump", State.DEARER);
    }

    private static Map<String, Consent.State> states(Estimate e, List<Consent> said, Set<String> inJob) {
        return Consent.standing(e, said, inJob).stream()
                .collect(Collectors.toMap(l -> l.line().code(), Consent.OfLine::state));
    }

    @Test
    void whatWasLeftAndIsDoneAllTheSameIsAskedAboutAgain() {
        Estimate e = Estimate.of(bundle(), Set.of(), rates(1));
        List<Consent> said = List.of(said("pump", Answer.AGREED, 1_000_000), said("pump", Answer.LEFT, 0));

        assertThat(states(e, said, Set.of("belt")))
                .containsEntry("pump", State.LEFT)
                .containsEntry("belt", State.NOT_ASKED);
        assertThat(Consent.left(said, Set.of("belt"))).containsExactly("pump");
        assertThat(states(e, said, Set.of("belt", "pump"))).containsEntry("pump", State.LEFT_YET_IN);
        assertThat(Consent.left(said, Set.of("belt", "pump"))).isEmpty();
        assertThat(Consent.standing(e, said, Set.of()))
                .filteredOn(l -> l.line().code().equals("pump"))
                .singleElement()
                .satisfies(l -> assertThat(l.said()).isEqualTo(said));
    }

    private static List<Consent.Field> lacks(
            String line, boolean purpose, Answer answer, String warning, boolean signed) {
        return lacks(line, purpose, answer, warning, signed, true, false);
    }

    private static List<Consent.Field> lacks(
            String line,
            boolean purpose,
            Answer answer,
            String warning,
            boolean signed,
            boolean goesOut,
            boolean refused) {
        Estimate e = Estimate.of(bundle("camseal"), Set.of(), rates(1));
        Estimate.Line found = e.lines().stream()
                .filter(l -> l.code().equals(line))
                .findFirst()
                .orElseThrow();
        return Consent.lacks(found, purpose, answer, warning, signed, goesOut, refused).stream()
                .map(Consent.Lack::field)
                .toList();
    }

    @Test
    void leavingNeedsAWarningARequiredLineASignatureAndThePurposeIsNeverLeft() {
        assertThat(lacks("pump", false, Answer.AGREED, "", false)).isEmpty();
        assertThat(lacks("camseal", false, Answer.LEFT, "", false)).containsExactly(Consent.Field.WARNING);
        assertThat(lacks("camseal", false, Answer.LEFT, "told", false)).isEmpty();
        assertThat(lacks("pump", false, Answer.LEFT, "told", false)).containsExactly(Consent.Field.SIGNED);
        assertThat(lacks("pump", false, Answer.LEFT, "told", true)).isEmpty();
        assertThat(lacks("belt", true, Answer.LEFT, "told", true)).containsExactly(Consent.Field.LINE);
        // a refused job needs no signature, and what is too late to leave neither; the warning is given all the same
        assertThat(lacks("belt", true, Answer.LEFT, "told", false, true, true)).isEmpty();
        assertThat(lacks("pump", false, Answer.LEFT, "told", false, false, false))
                .isEmpty();
        assertThat(lacks("pump", false, Answer.LEFT, "", false, false, true)).containsExactly(Consent.Field.WARNING);
    }

    @Test
    void whatItCostStandsAgainstWhatWasEstimated() {
        Estimate e = Estimate.of(bundle(), Set.of(), rates(1));

        // Common practice, no source: 400 minutes at 60.00 an hour and 160.00 of parts against 371.00 + 150.00 + 8.00
        Outcome o = Outcome.of(e, 400, 16_000, 6_000);
        assertThat(o.costMinor()).isEqualTo(56_000);
        assertThat(o.differenceMinor()).isEqualTo(56_000 - 52_900);
        assertThat(o.estimatedMinutes()).isEqualTo(371);
        assertThat(e.labourMinor()).isEqualTo(37_100);
        assertThat(e.partsMinor()).isEqualTo(15_800);
    }
}
