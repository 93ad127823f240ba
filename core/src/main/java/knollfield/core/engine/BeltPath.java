package knollfield.core.engine;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The loop of a belt or chain.
 *
 * @param teeth teeth of the belt or links of the chain
 * @param clockwise running direction seen on the bench drawing
 * @param intermediate turns of the sprocket that drives this loop for one crank turn, where it does not sit on the crank
 *     itself; empty: it does
 * @param pulleys in running order, exactly one crank (or the sprocket in its place) and at least one cam
 */
public record BeltPath(int teeth, boolean clockwise, Optional<Ratio> intermediate, List<Pulley> pulleys) {

    public BeltPath {
        pulleys = List.copyOf(pulleys);
        List<BookFault> faults = faults(teeth, intermediate, pulleys);
        if (!faults.isEmpty()) {
            throw new BookFault.Broken(faults);
        }
    }

    /** A loop that the crank drives itself. */
    public BeltPath(int teeth, boolean clockwise, List<Pulley> pulleys) {
        this(teeth, clockwise, Optional.empty(), pulleys);
    }

    /** What forbids such a loop, each with its pointer into the loop; empty where nothing does. */
    public static List<BookFault> faults(int teeth, Optional<Ratio> intermediate, List<Pulley> pulleys) {
        List<BookFault> faults = new ArrayList<>();
        if (teeth < 1) {
            faults.add(new BookFault("/teeth", "a loop needs teeth or links, not %d".formatted(teeth)));
        }
        Set<String> codes = new HashSet<>();
        for (int i = 0; i < pulleys.size(); i++) {
            if (!codes.add(pulleys.get(i).code())) {
                faults.add(new BookFault(
                        "/pulleys/%d/code".formatted(i),
                        "there are two wheels %s".formatted(pulleys.get(i).code())));
            }
        }
        List<Pulley> cranks =
                pulleys.stream().filter(p -> p.role() == Pulley.Role.CRANK).toList();
        if (cranks.size() != 1) {
            faults.add(new BookFault(
                    "/pulleys", "a loop runs over exactly one crank sprocket, not %d".formatted(cranks.size())));
            return faults;
        }
        int crankTeeth = cranks.get(0).teeth();
        if (crankTeeth < 1) {
            faults.add(new BookFault(
                    "/pulleys/%d/teeth".formatted(pulleys.indexOf(cranks.get(0))), "the crank sprocket has no teeth"));
            return faults;
        }
        if (pulleys.stream().noneMatch(p -> p.role() == Pulley.Role.CAM)) {
            faults.add(new BookFault("/pulleys", "a loop runs over at least one cam sprocket"));
        }
        Ratio driver = intermediate.orElse(Ratio.ONE);
        for (int i = 0; i < pulleys.size(); i++) {
            Pulley p = pulleys.get(i);
            // cam turns per crank turn must be one half: driver · Z_driver / Z_cam = 1/2
            if (p.role() == Pulley.Role.CAM
                    && 2 * driver.numerator() * crankTeeth != driver.denominator() * p.teeth()) {
                faults.add(new BookFault("/pulleys/%d/teeth".formatted(i), wrongCam(p, crankTeeth, intermediate)));
            }
        }
        return faults;
    }

    private static String wrongCam(Pulley cam, int crankTeeth, Optional<Ratio> intermediate) {
        if (intermediate.isPresent()) {
            return "%s has %d teeth, but a cam turns once in two crank turns: %d teeth at %d : %d do not give that"
                    .formatted(
                            cam.name(),
                            cam.teeth(),
                            crankTeeth,
                            intermediate.get().numerator(),
                            intermediate.get().denominator());
        }
        return ("%s has %d teeth, but a cam turns once in two crank turns: %d crank teeth need %d, "
                        + "or the intermediate ratio must be stated")
                .formatted(cam.name(), cam.teeth(), crankTeeth, 2 * crankTeeth);
    }

    public int crankTeeth() {
        return pulleys.stream()
                .filter(p -> p.role() == Pulley.Role.CRANK)
                .findFirst()
                .orElseThrow()
                .teeth();
    }

    /** Sprockets whose marks must be true at once. */
    public List<Pulley> marked() {
        return pulleys.stream().filter(Pulley::marked).toList();
    }

    /** Turns of {@code pulley}, a sprocket of this loop, for one crank turn. */
    public Ratio turnsPerCrankTurn(Pulley pulley) {
        return intermediate.orElse(Ratio.ONE).times(new Ratio(crankTeeth(), pulley.teeth()));
    }

    /**
     * Crank turns after which paint marks on the loop, and every sprocket mark, line up again
     * ({@link TimingGeometry#markReturn}).
     */
    public int turnsUntilPaintReturns() {
        List<Ratio> all = new ArrayList<>();
        all.add(intermediate.orElse(Ratio.ONE).times(new Ratio(crankTeeth(), teeth)));
        marked().forEach(p -> all.add(turnsPerCrankTurn(p)));
        return Math.toIntExact(TimingGeometry.markReturn(all));
    }
}
