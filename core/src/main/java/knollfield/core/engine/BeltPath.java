package knollfield.core.engine;

import java.util.List;

/**
 * The loop of a belt or chain.
 *
 * @param teeth teeth of the belt or links of the chain
 * @param clockwise running direction seen on the bench drawing
 * @param pulleys in running order, exactly one crank and at least one cam
 */
public record BeltPath(int teeth, boolean clockwise, List<Pulley> pulleys) {

    public BeltPath {
        pulleys = List.copyOf(pulleys);
        if (teeth < 1) {
            throw new IllegalArgumentException("a loop needs teeth or links, not %d".formatted(teeth));
        }
        long cranks =
                pulleys.stream().filter(p -> p.role() == Pulley.Role.CRANK).count();
        if (cranks != 1) {
            throw new IllegalArgumentException("a loop runs over exactly one crank sprocket, not %d".formatted(cranks));
        }
        int crankTeeth = crankTeeth(pulleys);
        List<Pulley> cams =
                pulleys.stream().filter(p -> p.role() == Pulley.Role.CAM).toList();
        if (cams.isEmpty()) {
            throw new IllegalArgumentException("a loop runs over at least one cam sprocket");
        }
        for (Pulley cam : cams) {
            if (cam.teeth() != 2 * crankTeeth) {
                throw new IllegalArgumentException(
                        "%s has %d teeth, but a cam turns once in two crank turns: %d crank teeth need %d"
                                .formatted(cam.name(), cam.teeth(), crankTeeth, 2 * crankTeeth));
            }
        }
    }

    public int crankTeeth() {
        return crankTeeth(pulleys);
    }

    /** Sprockets whose marks must be true at once. */
    public List<Pulley> marked() {
        return pulleys.stream().filter(Pulley::marked).toList();
    }

    /**
     * Crank turns after which paint marks on the belt, and every sprocket mark, line up again: the smallest whole k for
     * which k·Z_crank/n is whole for each n of the belt's teeth and the marked sprockets' teeth (rules.md section 7).
     */
    public int turnsUntilPaintReturns() {
        int crank = crankTeeth();
        int k = teeth / gcd(teeth, crank);
        for (Pulley p : marked()) {
            k = lcm(k, p.teeth() / gcd(p.teeth(), crank));
        }
        return k;
    }

    private static int crankTeeth(List<Pulley> pulleys) {
        return pulleys.stream()
                .filter(p -> p.role() == Pulley.Role.CRANK)
                .findFirst()
                .orElseThrow()
                .teeth();
    }

    private static int gcd(int a, int b) {
        return b == 0 ? a : gcd(b, a % b);
    }

    private static int lcm(int a, int b) {
        return a / gcd(a, b) * b;
    }
}
