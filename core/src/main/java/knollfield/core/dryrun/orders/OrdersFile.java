package knollfield.core.dryrun.orders;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import knollfield.core.dryrun.DryRun;
import knollfield.core.dryrun.Verdict;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.work.Goal;
import knollfield.core.engine.work.Operation;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.Kinds;

/**
 * A file of orders about the twelve kinds: for each an order that is right, edits of it that are wrong and the laws they
 * break, and edits that are allowed.
 *
 * @param engines in the order of the file
 */
public record OrdersFile(List<OfEngine> engines) {

    private static final Pattern HEADING = Pattern.compile("##\\s+(\\d+)\\b.*");
    private static final Pattern ENGINE = Pattern.compile("\\*\\*Engine (e\\d\\d)\\.?\\*\\*.*");
    private static final Pattern NUMBERED = Pattern.compile("(\\d+)\\.\\s+(.*)");
    private static final Pattern JOB = Pattern.compile("\\bJob:\\s*(.*?)\\.?\\s*$");
    private static final Pattern IN_THE_JOB = Pattern.compile("\\(([^)]*?) in the job\\)");

    /**
     * What a file says of one engine.
     *
     * @param code of the kind
     * @param job codes of what its job renews; empty where the file does not say
     * @param right the right order in signs; empty where the file does not say
     */
    public record OfEngine(String code, Set<String> job, Optional<String> right, List<Line> lines) {

        /** The right order, operation by operation; empty where the file does not say. */
        public List<Operation> rightOrder() {
            return right.map(Signs::operations).orElse(List.of());
        }
    }

    /**
     * One line to judge.
     *
     * @param right false for an edit that must be refused
     * @param edits empty words for the right order itself
     * @param laws of which one at least must be among the answers; empty for lines that must pass
     * @param alsoInTheJob codes added to the job for this line
     */
    public record Line(
            String name, boolean right, String edits, Set<Integer> laws, Set<String> alsoInTheJob, String words) {}

    /**
     * What the dry run makes of a line.
     *
     * @param asSaid it passes where it must, is refused by one of its laws where it must
     * @param answer what the dry run answers, or what is wrong with the line
     */
    public record Judged(String engine, Line line, boolean asSaid, String answer) {}

    public OrdersFile {
        engines = List.copyOf(engines);
    }

    /** Reads the text of a file. */
    public static OrdersFile read(String text) {
        Map<String, Reading> all = new LinkedHashMap<>();
        Reading now = null;
        for (String raw : joined(text)) {
            String line = raw.strip();
            Matcher heading = HEADING.matcher(line);
            if (heading.matches()) {
                now = all.computeIfAbsent("e%02d".formatted(Integer.parseInt(heading.group(1))), Reading::new);
                continue;
            }
            Matcher engine = ENGINE.matcher(line);
            if (engine.matches()) {
                now = all.computeIfAbsent(engine.group(1), Reading::new);
            }
            if (now != null) {
                now.take(line);
            }
        }
        return new OrdersFile(all.values().stream()
                .map(Reading::done)
                .filter(e -> e.right().isPresent() || !e.lines().isEmpty())
                .toList());
    }

    /** Lines of text with those that go on put together. */
    private static List<String> joined(String text) {
        List<String> lines = new ArrayList<>();
        for (String line : text.split("\\R")) {
            boolean starts = line.isBlank()
                    || line.startsWith("#")
                    || line.startsWith("**")
                    || line.startsWith("- ")
                    || NUMBERED.matcher(line.strip()).matches()
                    || line.strip().matches("(Before|References|Job|Hardware|Belt|Hydraulic|Coolant)\\b.*")
                    || lines.isEmpty()
                    || lines.get(lines.size() - 1).isBlank();
            if (starts) {
                lines.add(line);
            } else {
                lines.set(lines.size() - 1, lines.get(lines.size() - 1) + " " + line.strip());
            }
        }
        return lines;
    }

    private static final class Reading {
        private final String code;
        private final List<Line> lines = new ArrayList<>();
        private Set<String> job = Set.of();
        private Optional<String> right = Optional.empty();
        private boolean inWrong;
        private boolean inAllowed;

        Reading(String code) {
            this.code = code;
        }

        void take(String line) {
            String start = line.replace("*", "").strip();
            if (line.startsWith("**right**")) {
                right = Optional.of(start.substring("right".length()).strip());
                inWrong = false;
                inAllowed = false;
            } else if (line.startsWith("**wrong**")) {
                inWrong = true;
                inAllowed = false;
            } else if (line.startsWith("**allowed**")) {
                inAllowed = true;
                inWrong = false;
            } else if (inWrong || inAllowed) {
                numbered(line);
            } else {
                Matcher m = JOB.matcher(line);
                if (m.find()) {
                    job = job(m.group(1));
                }
            }
        }

        private void numbered(String line) {
            Matcher m = NUMBERED.matcher(line);
            if (!m.matches()) {
                return;
            }
            String name = (inWrong ? "wrong " : "allowed ") + m.group(1);
            String body = m.group(2);
            Set<String> also = new LinkedHashSet<>();
            Matcher inJob = IN_THE_JOB.matcher(body);
            while (inJob.find()) {
                also.addAll(job(inJob.group(1)));
            }
            if (inWrong) {
                String[] halves = body.split("→", 2);
                String after = halves.length > 1 ? halves[1].strip() : "";
                int colon = after.indexOf(':');
                String numbers = colon < 0 ? after : after.substring(0, colon);
                lines.add(new Line(
                        name,
                        false,
                        bare(halves[0]),
                        Arrays.stream(numbers.split("[/,]"))
                                .map(String::strip)
                                .filter(n -> n.matches("\\d+"))
                                .map(Integer::valueOf)
                                .collect(Collectors.toCollection(LinkedHashSet::new)),
                        also,
                        colon < 0 ? "" : after.substring(colon + 1).strip()));
            } else {
                int colon = body.indexOf(": ");
                lines.add(new Line(
                        name,
                        true,
                        bare(colon < 0 ? body : body.substring(colon + 2)),
                        Set.of(),
                        also,
                        colon < 0 ? "" : body.substring(0, colon)));
            }
        }

        OfEngine done() {
            return new OfEngine(code, job, right, List.copyOf(lines));
        }
    }

    private static String bare(String edits) {
        return edits.replaceAll("\\([^)]*\\)", "").strip();
    }

    /** Codes named in a list such as {@code belt (gauge), tens, bolts inw and exw, filter with oil}. */
    private static Set<String> job(String words) {
        return Arrays.stream(bare(words).split(",|\\band\\b|\\bwith\\b"))
                .map(w -> w.replaceAll("\\bbolts?\\b", "").strip())
                .filter(w -> !w.isEmpty())
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /**
     * Judges every line, each engine's right order first.
     *
     * @param rights where right orders and jobs come from that this file does not give
     */
    public List<Judged> judge(Optional<OrdersFile> rights) {
        List<Judged> all = new ArrayList<>();
        for (OfEngine engine : engines) {
            Optional<OfEngine> other = rights.flatMap(r -> r.engines.stream()
                    .filter(e -> e.code().equals(engine.code()))
                    .findFirst());
            Optional<String> right = engine.right().or(() -> other.flatMap(OfEngine::right));
            Set<String> job = !engine.job().isEmpty()
                    ? engine.job()
                    : other.map(OfEngine::job).orElse(Set.of());
            Optional<Kind> kind = Kinds.kind(engine.code());
            if (right.isEmpty() || kind.isEmpty()) {
                engine.lines()
                        .forEach(l -> all.add(new Judged(
                                engine.code(), l, false, "there is no engine or no right order " + engine.code())));
                continue;
            }
            Anatomy book = new Anatomy(kind.get().build());
            List<Line> lines = new ArrayList<>();
            lines.add(new Line("right", true, "", Set.of(), Set.of(), ""));
            lines.addAll(engine.lines());
            lines.forEach(l -> all.add(judge(engine.code(), book, job, right.get(), l)));
        }
        return all;
    }

    private static Judged judge(String engine, Anatomy book, Set<String> job, String right, Line line) {
        try {
            List<Operation> order = Signs.operations(right);
            if (!line.edits().isEmpty()) {
                order = Edit.apply(line.edits(), order);
            }
            Set<String> things = new LinkedHashSet<>(job);
            things.addAll(line.alsoInTheJob());
            Verdict verdict = DryRun.prove(book, new Goal(things), order);
            boolean asSaid = line.right()
                    ? verdict.passes()
                    : verdict.laws().stream().anyMatch(l -> line.laws().contains(l.number()));
            String answer = verdict.passes()
                    ? "passes"
                    : verdict.breaches().stream().map(Object::toString).collect(Collectors.joining("; "));
            return new Judged(engine, line, asSaid, answer);
        } catch (IllegalArgumentException e) {
            return new Judged(engine, line, false, "cannot be read: " + e.getMessage());
        }
    }
}
