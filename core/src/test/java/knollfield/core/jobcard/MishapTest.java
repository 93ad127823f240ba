package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import knollfield.core.completion.Completion;
import knollfield.core.dryrun.DryRun;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.work.EngineState;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.Kinds;
import knollfield.core.route.Router;
import org.junit.jupiter.api.Test;

/**
 * A stud breaks off, a piece is missing, a new part is the wrong one: the card is laid anew from where the engine stands,
 * and what hands then did is run dry.
 */
class MishapTest {

    /** More of them with {@code -Dknollfield.jobs=3000}. */
    private static final int JOBS = Integer.getInteger("knollfield.jobs", 300);

    private static List<EngineFamily> kinds() {
        return Kinds.all().stream().map(Kind::code).map(RoutedCardTest::family).toList();
    }

    private static Set<String> whole(EngineFamily family) {
        return family.items().stream()
                .map(Item::code)
                .filter(i -> !family.build().orElseThrow().things(i).isEmpty())
                .collect(Collectors.toSet());
    }

    private static Hands begun(EngineFamily family, Random random) {
        Set<String> all = whole(family);
        Set<String> some = all.stream().filter(i -> random.nextInt(3) > 0).collect(Collectors.toSet());
        return new Hands(CardGenerator.generate(family, Set.of(), some.isEmpty() ? all : some));
    }

    private static Hands until(Hands hands, int steps) {
        for (int i = 0; i < steps && hands.goesOn(); i++) {
            hands.answer();
        }
        return hands;
    }

    private static void worksToTheEnd(Hands hands, int before) {
        while (hands.goesOn()) {
            hands.answer();
        }
        hands.enter(new CardEvent.Completed(""));
        assertThat(hands.breaches(before)).as("done: %s", hands.did).isEmpty();
    }

    @Test
    void aStudThatBreaksAtAnyJointIsOutBeforeItsPartGoesOnAndEveryLawIsKept() {
        List<String> refused = new ArrayList<>();
        int[] broke = {0};
        assertThat(IntStream.range(0, JOBS).boxed()).allSatisfy(seed -> {
            Random random = new Random(seed);
            EngineFamily family = kinds().get(random.nextInt(kinds().size()));
            Hands hands = until(begun(family, random), random.nextInt(45));
            List<Step> steps = hands.state.plan().steps().stream()
                    .filter(s -> !hands.state.joints(s).isEmpty())
                    .filter(s -> hands.state.answers().containsKey(s.code())
                            || hands.state.next().filter(s::equals).isPresent())
                    .toList();
            if (steps.isEmpty()) {
                return;
            }
            Step step = steps.get(random.nextInt(steps.size()));
            String joint = hands.state.joints(step).keySet().stream()
                    .sorted()
                    .toList()
                    .get(random.nextInt(hands.state.joints(step).size()));
            int before = hands.did.size();
            try {
                hands.tell(new CardEvent.Contingency(step.code(), "stud broke", 40, "stud", 900, Optional.of(joint)));
            } catch (CardNotProven e) {
                assertThat(e.breaches()).isNotEmpty();
                refused.add("%s %s %s after %d: %s".formatted(family.code(), step.code(), joint, before, e.breaches()));
                return;
            }
            broke[0]++;
            assertThat(hands.state.next()).as(step.code()).isPresent();
            worksToTheEnd(hands, before);
            assertThat(hands.did.subList(before, hands.did.size())).contains(Operation.of(Verb.REPAIR, joint));
        });
        System.out.printf(
                "%d studs, %d refused with their law%n%s%n", broke[0], refused.size(), String.join("\n", refused));
        assertThat(broke[0]).isGreaterThan(JOBS / 2);
        assertThat(refused).hasSizeLessThan(JOBS / 50);
    }

    /** An engine with a mount whose bolts are in plain view: kind 7. */
    private static Hands mountOff() {
        EngineFamily family = RoutedCardTest.family("e07");
        Hands hands = new Hands(CardGenerator.generate(family, Set.of(), Set.of("belt", "tens")));
        while (!hands.state.did().contains(Operation.of(Verb.TAKE_OFF, "mount"))) {
            hands.answer();
        }
        return hands;
    }

    private static Step undoing(CardState state, String joint) {
        return state.plan().steps().stream()
                .filter(s -> s.operations().contains(Operation.of(Verb.UNDO, joint)))
                .findFirst()
                .orElseThrow();
    }

    private static CardEvent broken(CardState state, String joint) {
        return new CardEvent.Contingency(
                undoing(state, joint).code(), "stud broke", 40, "stud", 900, Optional.of(joint));
    }

    private static Step step(CardState state, String code) {
        return state.plan().step(code).orElseThrow();
    }

    @Test
    void theStubIsAStepOfItsOwnBetweenOffAndOnAndOneTouchForThePhaseDoesNotTickIt() {
        Hands hands = mountOff();
        hands.tell(broken(hands.state, "mount"));

        List<String> codes = hands.state.plan().steps().stream().map(Step::code).toList();
        Step stub = step(hands.state, "repair:mount");
        assertThat(stub.task()).isInstanceOf(Task.Confirm.class);
        assertThat(stub.caution()).hasValueSatisfying(c -> assertThat(c).contains("Eyes"));
        int on = hands.state.plan().steps().stream()
                .filter(s -> s.operations().contains(Operation.of(Verb.FIT, "mount")))
                .map(s -> codes.indexOf(s.code()))
                .findFirst()
                .orElseThrow();
        assertThat(codes.indexOf("repair:mount")).isLessThan(on);
        assertThat(hands.state.answers())
                .containsKey(undoing(hands.state, "mount").code());
    }

    @Test
    void aStudThatBreaksAfterTheTurnsIsOutAndTheEngineIsTurnedOnNewOnes() {
        int broke = 0;
        List<String> refused = new ArrayList<>();
        for (EngineFamily family : kinds()) {
            for (Set<String> items : jobs(family)) {
                CardState turned = afterTheTurns(family, items).state;
                List<Step> done = turned.plan().steps().stream()
                        .filter(s -> turned.answers().containsKey(s.code()))
                        .toList();
                for (Step step : done) {
                    for (String joint : turned.joints(step).keySet()) {
                        Hands hands = afterTheTurns(family, items);
                        int before = hands.did.size();
                        try {
                            hands.tell(new CardEvent.Contingency(
                                    step.code(), "stud broke", 40, "stud", 900, Optional.of(joint)));
                        } catch (CardNotProven e) {
                            refused.add("%s %s %s: %s".formatted(family.code(), items, joint, e.breaches()));
                            continue;
                        }
                        broke++;
                        worksToTheEnd(hands, before);
                        assertThat(hands.did.subList(before, hands.did.size()))
                                .as("%s %s", family.code(), joint)
                                .contains(Operation.of(Verb.REPAIR, joint));
                    }
                }
            }
        }
        assertThat(broke).isGreaterThan(400);
        // where one bank alone is renewed, a stud on the other is not laid anew: docs/route.md says so
        assertThat(refused.stream().map(r -> r.substring(0, 5))).containsOnly("T-e09", "T-e10");
        assertThat(refused).hasSizeLessThan(20);
    }

    /** All of it, and each thing alone. */
    private static List<Set<String>> jobs(EngineFamily family) {
        Set<String> all = whole(family);
        return Stream.concat(Stream.of(all), all.stream().sorted().map(Set::of)).toList();
    }

    private static Hands afterTheTurns(EngineFamily family, Set<String> items) {
        Hands hands = new Hands(CardGenerator.generate(family, Set.of(), items));
        while (hands.goesOn() && !hands.state.did().contains(Operation.of(Verb.TURN, "engine"))) {
            hands.answer();
        }
        return hands;
    }

    @Test
    void aStudThatBreaksAgainAtTheSameJointIsGotOutAgain() {
        Hands hands = mountOff();
        hands.tell(broken(hands.state, "mount"));
        while (!hands.state.did().contains(Operation.of(Verb.REPAIR, "mount"))) {
            hands.answer();
        }
        int before = hands.did.size();
        hands.tell(broken(hands.state, "mount"));

        assertThat(hands.state.answers()).doesNotContainKey("repair:mount");
        worksToTheEnd(hands, before);
    }

    @Test
    void whatDidNotBreakAfterAllLeavesTheCardAsItWas() {
        Hands hands = mountOff();
        List<String> before =
                hands.state.plan().steps().stream().map(Step::code).toList();
        hands.tell(broken(hands.state, "mount"));
        hands.enter(new CardEvent.Undone("repair:mount"));

        assertThat(hands.state.plan().steps().stream().map(Step::code)).containsExactlyElementsOf(before);
        assertThat(hands.state.did()).noneMatch(o -> o.verb() == Verb.SHEARED);
    }

    @Test
    void aJointThatIsNotOfTheStepDoesNotBreakThere() {
        Hands hands = mountOff();
        assertThatThrownBy(() -> hands.enter(
                        new CardEvent.Contingency("safe:battery", "stud broke", 40, "", 0, Optional.of("mount"))))
                .isInstanceOf(CardRefused.class)
                .hasMessageContaining("no joint");
    }

    @Test
    void aDryRunRefusesAStubThatIsForgottenOrOutOfReachAndAnEngineTurnedOnAMissingPiece() {
        Anatomy book = new Anatomy(RoutedCardTest.family("e08").build().orElseThrow(), Set.of());
        List<Operation> right = lines(book, EngineState.closed(), "guide");

        List<Operation> forgotten = with(right, "undo:guide", "sheared:guide");
        List<Operation> outOfReach = with(with(right, "undo:guide", "sheared:guide"), "sheared:guide", "repair:guide");
        List<Operation> turned = with(right, "take-off:guide", "missing:guide");

        assertThat(laws(book, forgotten)).contains(Law.CLOSED);
        assertThat(DryRun.prove(book, new Goal(Set.of("guide")), forgotten).breaches())
                .anyMatch(b -> b.at().filter(o -> o.is(Verb.TIGHTEN, "guide")).isPresent());
        assertThat(laws(book, outOfReach)).contains(Law.REACH);
        assertThat(laws(book, turned)).contains(Law.MOVEMENTS, Law.BEFORE_IT_HIDES);
        assertThat(laws(book, right)).isEmpty();
    }

    private static List<Operation> lines(Anatomy book, EngineState open, String renewed) {
        return Router.lay(book, new Goal(Set.of(renewed)), open).operations();
    }

    private static List<Operation> with(List<Operation> card, String after, String more) {
        List<Operation> all = new ArrayList<>(card);
        String[] sign = more.split(":");
        int at = card.stream().map(Operation::code).toList().indexOf(after);
        all.add(at + 1, Operation.of(Verb.of(sign[0]).orElseThrow(), sign[1]));
        return all;
    }

    private static List<Law> laws(Anatomy book, List<Operation> card) {
        return DryRun.prove(book, new Goal(Set.of("guide")), card).breaches().stream()
                .flatMap(b -> b.laws().stream())
                .distinct()
                .toList();
    }

    @Test
    void whereAPieceIsMissingTheSumpComesOffAndIsLookedThroughBeforeAnyTurn() {
        int sumps = 0;
        for (EngineFamily family : kinds()) {
            Hands hands = new Hands(CardGenerator.generate(family, Set.of(), whole(family)));
            while (hands.goesOn() && !hands.state.next().orElseThrow().code().startsWith("pieces:")) {
                hands.answer();
            }
            if (!hands.goesOn()) {
                continue;
            }
            Step look = hands.state.next().orElseThrow();
            boolean sump = !new Anatomy(family.build().orElseThrow(), Set.of())
                    .catchesPieces()
                    .isEmpty();
            int before = hands.did.size();
            hands.tell(new CardEvent.Inspected(look.code(), "broken, pieces missing"));
            List<Step> search = hands.state.plan().steps().stream()
                    .filter(s -> s.code().startsWith("search:"))
                    .toList();

            assertThat(!search.isEmpty()).as(family.code()).isEqualTo(sump);
            if (!sump) {
                // nothing on file to look into: the gate waits for a person who did
                assertThat(hands.state.isGood(look)).isFalse();
                continue;
            }
            sumps++;
            assertThat(search.get(0).gate()).contains(GateKind.PIECES_FOUND);
            assertThat(hands.state.gates().stream().filter(g -> g.kind() == GateKind.PIECES_FOUND))
                    .allMatch(g -> !g.open());
            worksToTheEnd(hands, before);
        }
        assertThat(sumps).isPositive();
    }

    @Test
    void aPieceThatWasThereAfterAllLeavesTheSumpOn() {
        EngineFamily family = RoutedCardTest.family("e08");
        Hands hands = new Hands(CardGenerator.generate(family, Set.of(), whole(family)));
        while (!hands.state.next().orElseThrow().code().startsWith("pieces:")) {
            hands.answer();
        }
        String look = hands.state.next().orElseThrow().code();
        hands.tell(new CardEvent.Inspected(look, "broken, pieces missing"));
        hands.enter(new CardEvent.Undone(look));

        assertThat(hands.state.plan().steps()).noneMatch(s -> s.code().startsWith("search:"));
        assertThat(hands.state.answers()).doesNotContainKey(look);
    }

    @Test
    void anOldPartThatGoesBackIsFittedNotComparedAndNotRenewed() {
        List<String> refused = new ArrayList<>();
        int[] back = {0};
        assertThat(IntStream.range(0, JOBS).boxed()).allSatisfy(seed -> {
            Random random = new Random(1_000 + seed);
            EngineFamily family = kinds().get(random.nextInt(kinds().size()));
            Hands hands = until(begun(family, random), random.nextInt(45));
            List<String> may = hands.state.mayGoBack().stream().sorted().toList();
            if (may.isEmpty()) {
                return;
            }
            String item = may.get(random.nextInt(may.size()));
            int before = hands.did.size();
            try {
                hands.tell(new CardEvent.GoesBack(item, "two millimetres too wide"));
            } catch (CardNotProven e) {
                assertThat(e.breaches()).isNotEmpty();
                refused.add("%s %s: %s".formatted(family.code(), item, e.breaches()));
                return;
            }
            back[0]++;
            assertThat(hands.state.scope().items()).doesNotContain(item);
            worksToTheEnd(hands, before);
        });
        System.out.printf("%d parts back, %d refused%n%s%n", back[0], refused.size(), String.join("\n", refused));
        assertThat(back[0]).isGreaterThan(JOBS / 2);
        // a loop that came off and was not marked does not go back; hardly anything else stands in the way
        assertThat(refused.stream().filter(r -> !r.contains("marks made now say nothing")))
                .hasSizeLessThan(JOBS / 100);
    }

    @Test
    void aClearanceAcceptedOutsideItsLimitsIsAFollowUpAndAGoodOneIsNone() {
        EngineFamily family = RoutedCardTest.family("e06");
        for (boolean good : List.of(true, false)) {
            Hands hands = new Hands(CardGenerator.generate(family, Set.of(), whole(family)));
            while (hands.goesOn()) {
                Step step = hands.state.next().orElseThrow();
                if (!good && step.task() instanceof Task.Measure m && m.kind() == Task.Measure.Kind.CLEARANCE) {
                    hands.enter(new CardEvent.Measured(step.code(), m.high() + 0.05));
                    hands.enter(new CardEvent.Deviated(step.code(), "to be set at the next service"));
                } else {
                    hands.answer();
                }
            }
            hands.enter(new CardEvent.Completed(""));
            assertThat(Completion.followUps(hands.state, List.of()))
                    .filteredOn(u -> u.words().contains("over by 0.05"))
                    .hasSize(good ? 0 : 1);
        }
    }

    @Test
    void whatIsNewOnTheEngineAlreadyDoesNotGoBackAndAReasonIsNeeded() {
        EngineFamily family = RoutedCardTest.family("e07");
        Hands hands = new Hands(CardGenerator.generate(family, Set.of(), Set.of("belt", "tens")));
        assertThatThrownBy(() -> hands.enter(new CardEvent.GoesBack("belt", " ")))
                .isInstanceOf(CardRefused.class)
                .hasMessageContaining("words");
        while (!hands.state.did().contains(Operation.of(Verb.FIT, "tens"))) {
            hands.answer();
        }
        assertThat(hands.state.mayGoBack()).doesNotContain("tens");
        assertThatThrownBy(() -> hands.enter(new CardEvent.GoesBack("tens", "too long")))
                .isInstanceOf(CardRefused.class)
                .hasMessageContaining("on already");
    }
}
