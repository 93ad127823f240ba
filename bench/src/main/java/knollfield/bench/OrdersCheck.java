package knollfield.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import knollfield.core.dryrun.orders.OrdersFile;
import knollfield.core.dryrun.orders.OrdersFile.Judged;

/** Reads a file of orders about the twelve kinds of engine and prints what the dry run makes of each line. */
public final class OrdersCheck {

    private OrdersCheck() {}

    /** @param args the file to judge, and the file whose right orders stand in where it gives none */
    public static void main(String[] args) throws IOException {
        OrdersFile file = OrdersFile.read(Files.readString(Path.of(args[0])));
        OrdersFile rights = OrdersFile.read(Files.readString(Path.of(args[1])));
        List<Judged> judged = file.judge(Optional.of(rights));
        for (Judged j : judged) {
            System.out.printf(
                    "%-4s %s %-10s %s%n       %s%n",
                    j.asSaid() ? "ok" : "NOT",
                    j.engine(),
                    j.line().name(),
                    j.line().right()
                            ? j.line().edits()
                            : j.line().edits() + " -> " + j.line().laws(),
                    j.answer());
        }
        long asSaid = judged.stream().filter(Judged::asSaid).count();
        System.out.printf("%d of %d lines as said%n", asSaid, judged.size());
        System.exit(asSaid == judged.size() && !judged.isEmpty() ? 0 : 1);
    }
}
