package knollfield.core.route;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.dryrun.DryRun;
import knollfield.core.dryrun.Verdict;
import knollfield.core.dryrun.orders.OrdersFile;
import knollfield.core.engine.BookFault;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.Kinds;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** What is worked out from a book is proven on it. */
class RouteTest {

    static Stream<Kind> kinds() {
        return Kinds.all().stream();
    }

    private static Line line(String kind, String... things) {
        return Router.lay(new Anatomy(Kinds.kind(kind).orElseThrow().build()), new Goal(Set.of(things)));
    }

    private static List<String> codes(Line line) {
        return line.operations().stream().map(Operation::code).toList();
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("kinds")
    void everyItemEveryPairAndTheWholeOfAKindAreProven(Kind kind) {
        Anatomy book = new Anatomy(kind.build());
        List<Build.Renews> items = kind.build().renews();
        Set<Set<String>> jobs = new HashSet<>(Mutations.jobs(kind.build()));
        for (Build.Renews a : items) {
            for (Build.Renews b : items) {
                Set<String> pair = new LinkedHashSet<>(a.things());
                pair.addAll(b.things());
                jobs.add(pair);
            }
        }
        assertThat(jobs).allSatisfy(things -> {
            Goal goal = new Goal(things);
            Verdict verdict = DryRun.prove(book, goal, Router.lay(book, goal).operations());
            assertThat(verdict.breaches()).as("%s %s", kind.code(), things).isEmpty();
        });
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("kinds")
    void everyOperationButTheFirstSaysWhyItStandsThere(Kind kind) {
        Anatomy book = new Anatomy(kind.build());
        for (Set<String> job : Mutations.jobs(kind.build())) {
            Line line = Router.lay(book, new Goal(job));
            assertThat(line.placed())
                    .filteredOn(p -> p.why().isEmpty())
                    .extracting(p -> p.operation().verb())
                    .isSubsetOf(Verb.SAFE, Verb.RAISE, Verb.DRAIN, Verb.COMPARE, Verb.FILL, Verb.MEASURE);
        }
    }

    /** Orders by people who know the work put nothing the other way round than an arrow of ours has it. */
    // Common practice, no source: the orders are written down from the trade, apart from what is tested here.
    @Test
    void nothingStandsTheOtherWayRoundInTheOrdersPeopleKnow() throws IOException {
        try (InputStream in = Objects.requireNonNull(RouteTest.class.getResourceAsStream("/orders.md"))) {
            OrdersFile orders = OrdersFile.read(new String(in.readAllBytes(), StandardCharsets.UTF_8));
            assertThat(orders.engines()).hasSize(12).allSatisfy(e -> {
                Line line = Router.lay(
                        new Anatomy(Kinds.kind(e.code()).orElseThrow().build()), new Goal(e.job()));
                List<Operation> right = e.rightOrder();
                List<String> against = line.arrows().stream()
                        .filter(a -> right.contains(a.first()) && right.contains(a.then()))
                        .filter(a -> right.indexOf(a.first()) > right.indexOf(a.then()))
                        .map(a -> a.law() + " " + a.first() + " before " + a.then())
                        .distinct()
                        .filter(words -> !alsoAllowed(e.code(), words))
                        .toList();
                assertThat(against).as(e.code()).isEmpty();
            });
        }
    }

    /** Where the file itself allows our way: e02 allowed 1, e08 allowed 1; e06 brings the crank by its pulley. */
    private static boolean alsoAllowed(String engine, String words) {
        return switch (engine) {
            case "e02" -> words.startsWith("PROVEN tension:belt:2") || words.startsWith("PROVEN tighten:tens:2");
            case "e06" -> words.equals("MOVEMENTS for-now:pbolt before bring:top");
            case "e08" -> words.startsWith("PROVEN tighten:inw") || words.startsWith("PROVEN tighten:exw");
            default -> false;
        };
    }

    @Test
    void randomBooksAreProvenOrRefusedWithTheirPlace() {
        RandomRoutes.Tally tally = RandomRoutes.of(1, 300);
        assertThat(tally.broken()).isEmpty();
        assertThat(tally.proven()).isGreaterThan(200);
        assertThat(tally.proven() + tally.refused()).isEqualTo(300);
    }

    @Test
    void ofAHundredFaultsInACardNinetyNineAreCaught() {
        Mutations.Tally tally = Mutations.all();
        int faults = tally.leftOut() + tally.swapped();
        assertThat(faults).isGreaterThan(10_000);
        assertThat(tally.letPass()).as("let pass: %s", tally.passed()).isLessThan(faults / 100);
    }

    // Source: crank geometry: 690 - 90 = 600 and 90 + 720 - 690 = 120 degrees of a 720-degree four-stroke cycle.
    @Test
    void theOtherBankIsSixHundredDegreesOnAndAHundredAndTwentyBackOn() {
        Anatomy book = new Anatomy(Kinds.kind("e09").orElseThrow().build());
        var a = book.position("a").orElseThrow();
        var b = book.position("b").orElseThrow();
        assertThat(a.onTo(b)).isEqualTo(600);
        assertThat(b.onTo(a)).isEqualTo(120);
        assertThat(codes(line("e09", "a", "b")))
                .containsSubsequence(
                        "bring:a",
                        "loop-off:a",
                        "bring:b",
                        "loop-off:b",
                        "lay:b",
                        "out:tpb",
                        "bring:a:2",
                        "lay:a",
                        "out:tpa",
                        "turn:engine",
                        "prove:a1",
                        "bring:b:2",
                        "prove:b1");
    }

    // Source: least common multiple by java.math.BigInteger's gcd, apart from the code under test's own loop over runs
    @Test
    void paintOnSeveralLoopsReturnsAtTheLeastCommonMultipleOfTheirTurns() {
        var family = knollfield.core.kinds.KindFamily.of(
                Kinds.kind("e10").orElseThrow(),
                "T-e10",
                "Tested",
                knollfield.core.engine.Interference.YES,
                java.util.Optional.empty(),
                new knollfield.core.engine.RepairEstimate(1, 2, 3),
                5_000);
        Build build = family.build().orElseThrow();
        // 124 links over 24 and 48 teeth: lcm(124, 24, 48) / 24 = 62 turns on each bank; together 62
        assertThat(build.turnsUntilPaintReturns()).hasValue(62);
        assertThat(build.loops()).allSatisfy(l -> assertThat(l.drawing()).isPresent());
    }

    // --- what failed on cards that were lists with conditions

    @Test
    void aDamperOnAFrictionHeldCrankAsksItsTorqueAndProvesTheTiming() {
        assertThat(codes(line("e02", "damper")))
                .containsSubsequence(
                        "set-in:cpin",
                        "set-in:rlock",
                        "undo:crank",
                        "take-off:damper",
                        "compare:crank",
                        "fit:damper",
                        "tighten:crank:1",
                        "tighten:crank:2",
                        "out:cpin",
                        "out:rlock",
                        "turn:engine",
                        "set-in:cpin:2",
                        "prove:cpin",
                        "out:cpin:2");
    }

    @Test
    void everyJointOfAChainJobIsDoneUpAgainAndTheOilIsSaid() {
        List<String> card = codes(line("e08", "chain", "tens", "filter", "oil", "inw", "exw"));
        Set<String> undone = new HashSet<>();
        Set<String> tight = new HashSet<>();
        card.forEach(c -> {
            String[] parts = c.split(":");
            if (parts[0].equals("undo")) {
                undone.add(parts[1]);
            } else if (parts[0].equals("tighten")) {
                tight.add(parts[1]);
            }
        });
        assertThat(tight).containsExactlyInAnyOrderElementsOf(undone).contains("inw", "exw", "pulley");
        assertThat(card).containsSubsequence("drain:oil", "fit:filter", "fill:oil", "start:engine");
    }

    @Test
    void accessoryBeltDamperAndMountAreFittedWhereTheyAreAgreed() {
        assertThat(codes(line("e07", "abelt", "damper", "mount")))
                .contains(
                        "compare:abelt",
                        "fit:abelt",
                        "compare:damper",
                        "fit:damper",
                        "compare:mount",
                        "fit:mount",
                        "tighten:mount:1");
    }

    @Test
    void pinsAreInBeforeAnythingIsLetOff() {
        List<String> card = codes(line("e02", "belt", "tens"));
        assertThat(card.indexOf("set-in:kpin")).isLessThan(card.indexOf("undo:camw"));
        assertThat(card.indexOf("set-in:ppin")).isLessThan(card.indexOf("release:belt"));
    }

    @Test
    void floatingWheelsAreFastBeforeTheTurnsWithThePinsIn() {
        assertThat(codes(line("e02", "belt")))
                .containsSubsequence("tension:belt", "tighten:camw:1", "out:kpin", "turn:engine");
    }

    @Test
    void aChainTensionerJobIsTurnedByHandBeforeTheFirstStart() {
        assertThat(codes(line("e11", "tens")))
                .containsSubsequence(
                        "mark:o1",
                        "set-in:tie1",
                        "undo:tens",
                        "tension:chain",
                        "prove:o1",
                        "out:tie1",
                        "turn:engine",
                        "start:engine");
    }

    @Test
    void aPumpNotExpectedBackOnItsPinIsNoProof() {
        assertThat(codes(line("e02", "belt"))).contains("set-in:ppin").doesNotContain("set-in:ppin:2", "prove:ppin");
    }

    @Test
    void marksNotToBeTrustedAreNeitherFoundNorProof() {
        assertThat(codes(line("e05", "belt"))).doesNotContain("find:printed", "prove:printed");
    }

    @Test
    void twoBanksMayShareOnePosition() {
        assertThat(codes(line("e10", "l", "r")))
                .containsSubsequence("loop-off:r", "loop-off:l", "lay:l", "lay:r", "turn:engine")
                .containsOnlyOnce("bring:six");
    }

    @Test
    void clearancesAreReadWhileTheirCoverIsOff() {
        assertThat(codes(line("e06", "belt"))).containsSubsequence("measure:clearances", "fit:rocker");
    }

    @Test
    void theLabelComesAfterTheCheck() {
        assertThat(codes(line("e01", "belt"))).endsWith("start:engine", "check:engine", "label:car");
    }

    @Test
    void theLastWheelComesLastInTheOrderOfLaying() {
        assertThat(Kinds.kind("e04").orElseThrow().build().loops().get(0).wheels())
                .endsWith("crankw");
    }

    @Test
    void aBookThatContradictsItselfIsRefusedWithItsPlaces() {
        Build e06 = Kinds.kind("e06").orElseThrow().build();
        Build wrong = withOrder(e06, "turn:engine", "lay:belt");
        assertThatThrownBy(() -> Router.lay(new Anatomy(wrong), new Goal(Set.of("belt"))))
                .isInstanceOfSatisfying(
                        Unroutable.class,
                        e -> assertThat(e.circle())
                                .hasSizeGreaterThan(1)
                                .anySatisfy(a -> assertThat(a.words()).contains("because we always did"))
                                .anySatisfy(a -> assertThat(a.law()).isEqualTo(Law.MOVEMENTS)));
    }

    private static Build withOrder(Build b, String first, String then) {
        return new Build(
                b.shafts(),
                b.wheels(),
                b.loops(),
                b.positions(),
                b.hardware(),
                b.references(),
                b.assemblies(),
                b.joints(),
                b.openings(),
                b.fluids(),
                b.looks(),
                b.turners(),
                b.renews(),
                List.of(new knollfield.core.engine.build.OwnOrder(first, then, "we always did")),
                b.cautions(),
                b.turnedBackDegrees(),
                b.clockwise(),
                b.leftMeans(),
                b.dryStart());
    }

    @Test
    void aBookWhoseCodesLeadNowhereIsRefusedFieldByField() {
        Build b = Kinds.kind("e01").orElseThrow().build();
        assertThatThrownBy(() -> new Build(
                        b.shafts(),
                        b.wheels(),
                        b.loops(),
                        List.of(),
                        b.hardware(),
                        b.references(),
                        b.assemblies(),
                        b.joints(),
                        b.openings(),
                        b.fluids(),
                        b.looks(),
                        List.of(),
                        b.renews(),
                        b.orders(),
                        b.cautions(),
                        0,
                        true,
                        "",
                        b.dryStart()))
                .isInstanceOfSatisfying(
                        BookFault.Broken.class,
                        e -> assertThat(e.faults())
                                .extracting(BookFault::pointer)
                                .contains("/loops/0/position", "/references/0/position", "/turners"));
    }

    @Test
    void whatIsReadyIsWhatWaitsForNothing() {
        Line line = line("e01", "belt");
        assertThat(line.ready(Set.of()))
                .contains(Operation.of(Verb.SAFE, "battery"))
                .doesNotContain(Operation.of(Verb.LAY, "belt"));
        assertThat(line.ready(new HashSet<>(line.operations()))).isEmpty();
    }
}
