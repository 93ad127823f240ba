package knollfield.core.practice;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * How far somebody has come in practice, what to practise next, and for which engines they are ready.
 *
 * <p>The numbers are planning assumptions: who gets four points of five in the newest twenty answers, with at least twelve,
 * and has met every skill, is ready to be let work under somebody's eyes. It says nothing of anybody's hands.
 *
 * @param standings one for each sort of engine on file, in their order
 * @param next what to practise next; empty where there is no engine, or all of them are ready
 */
public record Course(List<Standing> standings, Optional<Next> next) {

    /** So many of the newest answers count. */
    public static final int NEWEST = 20;

    /** Fewer answers than this say nothing yet. */
    public static final int LEAST = 12;

    /** Share of the points from which on somebody is ready. */
    public static final double READY_SHARE = 0.8;

    /**
     * One answer.
     *
     * @param points 0 to {@code most}
     * @param most above zero
     */
    public record Result(EngineSort sort, Skill skill, int points, int most) {
        public Result {
            if (most < 1 || points < 0 || points > most) {
                throw new IllegalArgumentException("%d of %d points".formatted(points, most));
            }
        }
    }

    /**
     * An engine sort on file.
     *
     * @param drawn at least one family of it has a drawing, so that every skill can be practised on it
     */
    public record OnFile(EngineSort sort, boolean drawn) {}

    /**
     * How far somebody is with one sort of engine.
     *
     * @param answers that count, 0 to {@link #NEWEST}
     * @param share of their points, 0 to 1; 0 where there are none
     * @param missing skills not met yet, of those that can be practised on it
     */
    public record Standing(
            EngineSort sort, int answers, double share, SortedSet<Skill> missing, Optional<Skill> weakest) {

        public boolean ready() {
            return answers >= LEAST && share >= READY_SHARE && missing.isEmpty();
        }

        /** Such as "3 more; not met yet: lay the belt on". */
        public String words() {
            if (ready() || answers == 0) {
                return ready() ? "ready" : "not begun";
            }
            List<String> wants = new ArrayList<>();
            if (answers < LEAST) {
                wants.add((LEAST - answers) + " more");
            }
            if (!missing.isEmpty()) {
                wants.add("not met yet: "
                        + missing.stream()
                                .map(s -> s.words().toLowerCase(Locale.ROOT))
                                .collect(Collectors.joining(", ")));
            }
            return wants.isEmpty() ? "too few right" : String.join("; ", wants);
        }
    }

    /** What to practise next. */
    public record Next(EngineSort sort, Skill skill) {}

    public Course {
        standings = List.copyOf(standings);
    }

    /**
     * The course of one person.
     *
     * @param results newest first
     */
    public static Course of(List<Result> results, Collection<OnFile> onFile) {
        List<Standing> standings = onFile.stream()
                .sorted(Comparator.comparing(OnFile::sort))
                .map(f -> standing(f, results))
                .toList();
        Optional<Next> next = standings.stream()
                .filter(s -> !s.ready())
                // the engine one is nearest to being ready for comes first: a course is finished piece by piece
                .max(Comparator.comparingInt(Standing::answers)
                        .thenComparing(
                                Comparator.comparingDouble(Standing::share).reversed())
                        .thenComparing(Standing::sort, Comparator.reverseOrder()))
                .map(s -> new Next(
                        s.sort(),
                        s.missing().isEmpty()
                                ? s.weakest().orElse(Skill.WHAT_NEXT)
                                : s.missing().first()));
        return new Course(standings, next);
    }

    private static Standing standing(OnFile onFile, List<Result> results) {
        List<Result> counted = results.stream()
                .filter(r -> r.sort().equals(onFile.sort()))
                .limit(NEWEST)
                .toList();
        Set<Skill> met = counted.stream().map(Result::skill).collect(Collectors.toSet());
        SortedSet<Skill> missing = new TreeSet<>(Stream.of(Skill.values())
                .filter(s -> (onFile.drawn() || !s.needsADrawing()) && !met.contains(s))
                .toList());
        Map<Skill, List<Result>> bySkill = counted.stream().collect(Collectors.groupingBy(Result::skill));
        Optional<Skill> weakest = bySkill.entrySet().stream()
                .min(Comparator.<Map.Entry<Skill, List<Result>>>comparingDouble(e -> share(e.getValue()))
                        .thenComparing(Map.Entry::getKey))
                .map(Map.Entry::getKey);
        return new Standing(onFile.sort(), counted.size(), share(counted), missing, weakest);
    }

    /** Each answer counts the same, whatever its most. */
    private static double share(List<Result> results) {
        return results.stream()
                .mapToDouble(r -> (double) r.points() / r.most())
                .average()
                .orElse(0);
    }
}
