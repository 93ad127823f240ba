package knollfield.core.route;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;

/** Operations and the arrows between them, drawn out into a line. */
final class Web {

    private static final class Node {
        final Operation operation;
        final Stretch stretch;
        final int rank;
        final Set<Operation> then = new LinkedHashSet<>();
        final Set<Operation> needs = new LinkedHashSet<>();
        /** What it would rather come after, where nothing speaks against it. */
        final Set<Operation> rather = new LinkedHashSet<>();
        /** The earliest stretch of all that waits for it. */
        Stretch urgency;

        Node(Operation operation, Stretch stretch, int rank) {
            this.operation = operation;
            this.stretch = stretch;
            this.urgency = stretch;
            this.rank = rank;
        }
    }

    private final Map<Operation, Node> nodes = new LinkedHashMap<>();
    private final List<Arrow> arrows = new ArrayList<>();
    private final Map<Operation, Operation> atOnce = new HashMap<>();

    /** Adds an operation; the first place given to it stands. */
    void add(Operation operation, Stretch stretch) {
        nodes.computeIfAbsent(operation, o -> new Node(o, stretch, nodes.size()));
    }

    boolean has(Operation operation) {
        return nodes.containsKey(operation);
    }

    Collection<Operation> all() {
        return nodes.keySet();
    }

    /** {@code first} before {@code then}; nothing where one of them is not on this card. */
    void arrow(Operation first, Operation then, Law law, String thing, String words) {
        Node a = nodes.get(first);
        Node b = nodes.get(then);
        if (a == null || b == null || first.equals(then)) {
            return;
        }
        arrows.add(new Arrow(first, then, law, thing, words));
        a.then.add(then);
        b.needs.add(first);
    }

    /** {@code first} rather before {@code then}: how people work, which nothing in the book or the laws asks for. */
    void rather(Operation first, Operation then) {
        Node b = nodes.get(then);
        if (b != null && nodes.containsKey(first) && !first.equals(then)) {
            b.rather.add(first);
        }
    }

    /** {@code then} follows on {@code first} with nothing between. */
    void atOnce(Operation first, Operation then, Law law, String thing, String words) {
        arrow(first, then, law, thing, words);
        if (nodes.containsKey(first) && nodes.containsKey(then)) {
            atOnce.put(first, then);
        }
    }

    /** @throws Unroutable where arrows run in a circle */
    Line line() {
        urgencies();
        Map<Operation, Integer> waits = new HashMap<>();
        Comparator<Node> order = Comparator.<Node, Stretch>comparing(n -> n.urgency)
                .thenComparing(n -> n.stretch)
                .thenComparingInt(n -> n.rank);
        TreeSet<Node> ready = new TreeSet<>(order);
        nodes.values().forEach(n -> {
            waits.put(n.operation, n.needs.size());
            if (n.needs.isEmpty()) {
                ready.add(n);
            }
        });
        Map<Operation, Integer> place = new LinkedHashMap<>();
        while (!ready.isEmpty()) {
            Node next = ready.stream()
                    .filter(n -> place.keySet().containsAll(n.rather))
                    .findFirst()
                    .orElseGet(ready::first);
            take(next, place, waits, ready);
            Operation follows = atOnce.get(next.operation);
            if (follows != null && waits.getOrDefault(follows, 1) == 0 && !place.containsKey(follows)) {
                take(java.util.Objects.requireNonNull(nodes.get(follows)), place, waits, ready);
            }
        }
        if (place.size() < nodes.size()) {
            throw new Unroutable(circle(place.keySet()));
        }
        Map<Operation, Arrow> last = new HashMap<>();
        for (Arrow a : arrows) {
            last.merge(
                    a.then(), a, (x, y) -> place.getOrDefault(y.first(), 0) > place.getOrDefault(x.first(), 0) ? y : x);
        }
        return new Line(
                place.keySet().stream()
                        .map(o -> new Placed(
                                o,
                                java.util.Objects.requireNonNull(nodes.get(o)).stretch,
                                Optional.ofNullable(last.get(o))))
                        .toList(),
                arrows);
    }

    private void take(Node next, Map<Operation, Integer> place, Map<Operation, Integer> waits, TreeSet<Node> ready) {
        ready.remove(next);
        place.put(next.operation, place.size());
        for (Operation then : next.then) {
            if (waits.merge(then, -1, Integer::sum) == 0) {
                ready.add(java.util.Objects.requireNonNull(nodes.get(then)));
            }
        }
    }

    /** What an earlier stretch waits for is as urgent as that stretch. */
    private void urgencies() {
        boolean changed = true;
        while (changed) {
            changed = false;
            for (Node n : nodes.values()) {
                for (Operation then : n.then) {
                    Stretch s = java.util.Objects.requireNonNull(nodes.get(then)).urgency;
                    if (s.compareTo(n.urgency) < 0) {
                        n.urgency = s;
                        changed = true;
                    }
                }
            }
        }
    }

    private List<Arrow> circle(Set<Operation> placed) {
        Set<Operation> left = new LinkedHashSet<>(nodes.keySet());
        left.removeAll(placed);
        Operation at = left.iterator().next();
        List<Arrow> path = new ArrayList<>();
        Set<Operation> seen = new HashSet<>();
        while (seen.add(at)) {
            Operation now = at;
            Optional<Arrow> back = arrows.stream()
                    .filter(a -> a.then().equals(now) && left.contains(a.first()))
                    .findFirst();
            if (back.isEmpty()) {
                break;
            }
            path.add(0, back.get());
            at = back.get().first();
        }
        Operation start = at;
        int from = 0;
        for (int i = 0; i < path.size(); i++) {
            if (path.get(i).first().equals(start)) {
                from = i;
                break;
            }
        }
        List<Arrow> round = new ArrayList<>();
        for (int i = from; i < path.size(); i++) {
            round.add(path.get(i));
            if (path.get(i).then().equals(start)) {
                break;
            }
        }
        return round;
    }
}
