package knollfield.core.dryrun.orders;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import knollfield.core.engine.work.Operation;

/** Edits of an order: leave out, move, replace, insert, parted by semicolons. */
final class Edit {

    private static final Pattern LEAVE_OUT = Pattern.compile("leave out (.+)");
    private static final Pattern MOVE = Pattern.compile("move (.+) (before|after) (\\S+)");
    private static final Pattern REPLACE = Pattern.compile("replace (.+) by (.+)");
    private static final Pattern INSERT = Pattern.compile("insert (.+) (before|after) (\\S+)");

    private Edit() {}

    /**
     * {@code order} after all of {@code edits}.
     *
     * @throws IllegalArgumentException where an edit is none, or names what the order does not have
     */
    static List<Operation> apply(String edits, List<Operation> order) {
        List<Operation> result = new ArrayList<>(order);
        for (String edit : edits.split(";")) {
            one(edit.strip(), result);
        }
        return result;
    }

    private static void one(String edit, List<Operation> order) {
        Matcher m = LEAVE_OUT.matcher(edit);
        if (m.matches()) {
            take(Signs.operations(m.group(1)), order);
            return;
        }
        m = MOVE.matcher(edit);
        if (m.matches()) {
            List<Operation> moved = take(Signs.operations(m.group(1)), order);
            put(moved, m.group(2), m.group(3), order);
            return;
        }
        m = INSERT.matcher(edit);
        if (m.matches()) {
            put(Signs.operations(m.group(1)), m.group(2), m.group(3), order);
            return;
        }
        m = REPLACE.matcher(edit);
        if (m.matches()) {
            replace(Signs.operations(m.group(1)), Signs.operations(m.group(2)), order);
            return;
        }
        throw new IllegalArgumentException("\"%s\" is no edit".formatted(edit));
    }

    private static List<Operation> take(List<Operation> which, List<Operation> order) {
        for (Operation o : which) {
            order.remove(place(o, order));
        }
        return which;
    }

    private static void put(List<Operation> which, String side, String sign, List<Operation> order) {
        List<Operation> at = Signs.operations(sign);
        int place = side.equals("before") ? place(at.get(0), order) : place(at.get(at.size() - 1), order) + 1;
        order.addAll(place, which);
    }

    private static void replace(List<Operation> old, List<Operation> now, List<Operation> order) {
        if (old.size() == now.size()) {
            for (int i = 0; i < old.size(); i++) {
                order.set(place(old.get(i), order), now.get(i));
            }
            return;
        }
        int first = place(old.get(0), order);
        take(old, order);
        order.addAll(Math.min(first, order.size()), now);
    }

    private static int place(Operation o, List<Operation> order) {
        int at = order.indexOf(o);
        if (at < 0) {
            throw new IllegalArgumentException("the order has no " + o.code());
        }
        return at;
    }
}
