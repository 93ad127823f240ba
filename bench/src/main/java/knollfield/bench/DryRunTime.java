package knollfield.bench;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import knollfield.core.dryrun.DryRun;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Operation;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.Kinds;
import knollfield.core.route.Router;

/** How long a dry run of a whole job takes on each kind, beside the time to lay the same card. */
public final class DryRunTime {

    private static final int WARM = 400;
    private static final int COUNTED = 400;

    private DryRunTime() {}

    /** @param args none */
    public static void main(String[] args) {
        System.out.println("| kind | operations | dry run, ms | laying, ms | dry run / laying |");
        System.out.println("| --- | --- | --- | --- | --- |");
        for (Kind kind : Kinds.all()) {
            Anatomy book = new Anatomy(kind.build());
            Set<String> things = new LinkedHashSet<>();
            kind.build().renews().forEach(r -> things.addAll(r.things()));
            Goal goal = new Goal(things);
            List<Operation> card = Router.lay(book, goal).operations();
            double dry = millis(() -> DryRun.prove(book, goal, card).passes());
            double lay = millis(() -> Router.lay(book, goal).placed().isEmpty());
            System.out.printf("| %s | %d | %.3f | %.3f | %.2f |%n", kind.code(), card.size(), dry, lay, dry / lay);
        }
    }

    private static double millis(java.util.function.BooleanSupplier what) {
        int kept = 0;
        for (int i = 0; i < WARM; i++) {
            kept += what.getAsBoolean() ? 1 : 0;
        }
        long from = System.nanoTime();
        for (int i = 0; i < COUNTED; i++) {
            kept += what.getAsBoolean() ? 1 : 0;
        }
        double millis = (System.nanoTime() - from) / 1e6 / COUNTED;
        if (kept < 0) {
            throw new IllegalStateException("never");
        }
        return millis;
    }
}
