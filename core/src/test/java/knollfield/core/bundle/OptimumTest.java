package knollfield.core.bundle;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import knollfield.core.bundle.Optimum.Candidate;
import knollfield.core.bundle.Optimum.Question;
import org.junit.jupiter.api.Test;
import org.ojalgo.optimisation.Expression;
import org.ojalgo.optimisation.ExpressionsBasedModel;
import org.ojalgo.optimisation.Variable;

/** The optimum is the optimum, by two routes that share no code with it. */
class OptimumTest {

    /** A family as it might be: shared steps below, own parts above, some left to a later job. */
    private static Question random(Random random, int candidates) {
        int shared = 3 + random.nextInt(12);
        List<Long> prices = new ArrayList<>();
        for (int i = 0; i < shared + candidates; i++) {
            prices.add((long) random.nextInt(20_000) * 60);
        }
        List<Candidate> list = new ArrayList<>();
        for (int c = 0; c < candidates; c++) {
            Set<Integer> atoms = new HashSet<>(Set.of(shared + c));
            for (int s = 0; s < shared; s++) {
                if (random.nextInt(3) == 0) {
                    atoms.add(s);
                }
            }
            long leaving = random.nextInt(40_000) * 60L - 60_000;
            list.add(new Candidate("c" + c, atoms, leaving, random.nextBoolean()));
        }
        Set<Integer> required = new HashSet<>();
        Set<Integer> later = new HashSet<>();
        for (int s = 0; s < shared; s++) {
            if (random.nextInt(3) == 0) {
                required.add(s);
            }
            if (random.nextInt(8) == 0) {
                later.add(s);
            }
        }
        return new Question(prices, required, later, list);
    }

    private static long bruteForce(Question q) {
        long best = Long.MAX_VALUE;
        int n = q.candidates().size();
        for (int subset = 0; subset < 1 << n; subset++) {
            Set<Integer> now = new HashSet<>(q.required());
            Set<Integer> then = new HashSet<>(q.laterInAnyCase());
            long cost = 0;
            for (int c = 0; c < n; c++) {
                Candidate candidate = q.candidates().get(c);
                if ((subset >> c & 1) == 1) {
                    now.addAll(candidate.atoms());
                } else {
                    cost += candidate.leaving();
                    if (candidate.later()) {
                        then.addAll(candidate.atoms());
                    }
                }
            }
            for (int atom : now) {
                cost += q.prices().get(atom);
            }
            for (int atom : then) {
                cost += q.prices().get(atom);
            }
            best = Math.min(best, cost);
        }
        return best;
    }

    @Test
    void equalsBruteForceOnAThousandRandomFamilies() {
        Random random = new Random(2026);
        for (int i = 0; i < 1_000; i++) {
            Question q = random(random, random.nextInt(13));
            Optimum.Answer answer = Optimum.of(q);

            assertThat(answer.cost()).as("family " + i).isEqualTo(bruteForce(q)).isEqualTo(q.cost(answer.in()));
        }
    }

    // Source: an independent mixed-integer model of the same question, solved by ojAlgo (org.ojalgo:ojalgo)
    @Test
    void agreesWithAnIntegerProgrammeOnFiftyLargerFamilies() {
        Random random = new Random(50);
        for (int i = 0; i < 50; i++) {
            Question q = random(random, 17 + random.nextInt(8));
            Optimum.Answer answer = Optimum.of(q);

            assertThat(answer.cost()).as("family " + i).isEqualTo(q.cost(answer.in()));
            assertThat((double) answer.cost())
                    .as("family " + i)
                    .isCloseTo(programme(q), org.assertj.core.api.Assertions.within(30.0));
        }
    }

    /** x: in; y: atom paid now; z: atom paid later. Minimise prices·(y + z) + leaving·(1 − x). */
    private static double programme(Question q) {
        ExpressionsBasedModel model = new ExpressionsBasedModel();
        List<Variable> y = new ArrayList<>();
        List<Variable> z = new ArrayList<>();
        // in thousands, so that the solver's tolerance is far below a minor unit
        double scale = 60_000;
        for (int a = 0; a < q.prices().size(); a++) {
            double price = q.prices().get(a) / scale;
            y.add(model.addVariable("y" + a)
                    .lower(q.required().contains(a) ? 1 : 0)
                    .upper(1)
                    .weight(price));
            z.add(model.addVariable("z" + a)
                    .lower(q.laterInAnyCase().contains(a) ? 1 : 0)
                    .upper(1)
                    .weight(price));
        }
        double constant = 0;
        for (int c = 0; c < q.candidates().size(); c++) {
            Candidate candidate = q.candidates().get(c);
            constant += candidate.leaving() / scale;
            Variable x = model.addVariable("x" + c).binary().weight(-candidate.leaving() / scale);
            for (int atom : candidate.atoms()) {
                Expression now = model.addExpression("n" + c + "." + atom).lower(0);
                now.set(y.get(atom), 1).set(x, -1);
                if (candidate.later()) {
                    Expression later = model.addExpression("l" + c + "." + atom).lower(1);
                    later.set(z.get(atom), 1).set(x, 1);
                }
            }
        }
        return (model.minimise().getValue() + constant) * scale;
    }

    @Test
    void amongEqualsMoreGoesIn() {
        Question q = new Question(
                List.of(600L, 0L), Set.of(0), Set.of(), List.of(new Candidate("free", Set.of(0, 1), 0, false)));

        assertThat(Optimum.of(q).in()).containsExactly("free");
    }

    @Test
    void whatIsLeftTogetherSharesTheLaterJob() {
        // opening costs 100 now for nobody and 100 later once for both; each alone would pay to be left
        List<Candidate> both =
                List.of(new Candidate("a", Set.of(0, 1), 0, true), new Candidate("b", Set.of(0, 2), 0, true));
        Question q = new Question(List.of(100L, 10L, 20L), Set.of(), Set.of(), both);

        assertThat(q.cost(Set.of())).isEqualTo(130);
        assertThat(q.cost(Set.of("a"))).isEqualTo(110 + 120);
        assertThat(Optimum.of(q).cost()).isEqualTo(130);
    }

    @Test
    void refusesWhatIsNoJob() {
        assertThatThrownBy(() -> new Question(List.of(-1L), Set.of(), Set.of(), List.of()))
                .hasMessageContaining("zero or more");
        List<Candidate> many = new ArrayList<>();
        for (int i = 0; i <= Optimum.MOST; i++) {
            many.add(new Candidate("c" + i, Set.of(), 1, false));
        }
        assertThatThrownBy(() -> new Question(List.of(), Set.of(), Set.of(), many))
                .hasMessageContaining((Optimum.MOST + 1) + " free");
    }
}
