package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;

/**
 * How far a card is when it is laid anew.
 *
 * @param done what stands done
 * @param known all that the card asked for so far, done or not
 * @param did all that hands have done, in that order, what was done twice twice
 * @param other the card is laid for something else, not for the same once more: what that opens is asked again
 * @param redo what did not prove and is done once more
 * @param byList what did not prove is done once more by the list that fits every engine
 */
public record Progress(
        Set<Operation> done,
        Set<Operation> known,
        List<Operation> did,
        boolean other,
        Optional<Redo> redo,
        boolean byList) {

    /**
     * What did not prove.
     *
     * @param timing codes of the loops that are laid anew
     * @param tension codes of the loops whose tension is set anew
     */
    public record Redo(Set<String> timing, Set<String> tension) {
        public Redo {
            timing = Set.copyOf(timing);
            tension = Set.copyOf(tension);
        }

        /** That its loops are out of time, as it is recorded. */
        List<Operation> lost() {
            return timing.stream()
                    .sorted()
                    .map(loop -> Operation.of(Verb.LOST, loop))
                    .toList();
        }
    }

    public Progress {
        done = Set.copyOf(done);
        known = Set.copyOf(known);
        did = List.copyOf(did);
    }

    /** Nothing is done yet. */
    public static Progress none() {
        return new Progress(Set.of(), Set.of(), List.of(), false, Optional.empty(), false);
    }

    /** Something is asked once more of what is done. */
    boolean reopens() {
        return other || redo.isPresent();
    }

    Progress toRedo(Redo what) {
        return new Progress(done, known, did, other, Optional.of(what), byList);
    }

    /** What did not prove is recorded as out of time. */
    Progress redoing(Redo what) {
        Set<Operation> met = new HashSet<>(done);
        met.addAll(what.lost());
        Set<Operation> asked = new HashSet<>(known);
        asked.addAll(what.lost());
        List<Operation> all = new ArrayList<>(did);
        all.addAll(what.lost());
        return new Progress(met, asked, all, other, Optional.of(what), byList);
    }

    Progress correctedByList() {
        return new Progress(done, known, did, other, Optional.empty(), true);
    }

    /**
     * How far a card is. What takes several steps is done, and to be undone, from the first on; what a manager let pass
     * counts as met.
     */
    static Progress of(CardState state, CardScope scope) {
        CardScope before = state.scope();
        boolean other = !scope.items().equals(before.items())
                || !scope.awaiting().equals(before.awaiting())
                || scope.mishaps() != before.mishaps()
                || scope.paint() != before.paint()
                || scope.outOfTime() != before.outOfTime();
        Set<Operation> done = new HashSet<>();
        Set<Operation> known = new HashSet<>();
        Set<Operation> asNew = new HashSet<>();
        List<Operation> did = new ArrayList<>(state.did());
        for (Step s : state.plan().steps()) {
            Answer answer = state.answers().get(s.code());
            boolean well = answer != null && answer.good();
            boolean passed = s.gate().filter(state.overrides()::containsKey).isPresent();
            // what waited for the owner could not be done so far, and is as new
            boolean waited = s.serves().filter(before.awaiting()::contains).isPresent();
            Set<Operation> seen = waited ? asNew : known;
            for (Operation o : s.operations()) {
                boolean first = seen.add(o);
                if (first && (well || passed)) {
                    done.add(o);
                }
                if (first && passed && !well) {
                    did.add(o);
                }
            }
        }
        Set<Operation> past = new HashSet<>(state.past().keySet());
        past.retainAll(standing(state.did()));
        state.did().stream().filter(o -> o.verb().isRecorded()).forEach(past::add);
        known.addAll(past);
        done.addAll(past);
        return new Progress(
                done, known, did, other, Optional.empty(), state.plan().correctsByList());
    }

    /** What of all that was done nobody has undone since. */
    static Set<Operation> standing(List<Operation> did) {
        Set<Operation> standing = new LinkedHashSet<>();
        for (Operation o : did) {
            // what was counted before the loop was laid says what it said; windows are read after the turns
            Set<Operation> counted = standing.stream()
                    .takeWhile(earlier -> earlier.verb() != Verb.TURN)
                    .filter(earlier -> earlier.verb() == Verb.MEASURE)
                    .collect(Collectors.toSet());
            standing.removeIf(earlier -> undoes(o, earlier) && !counted.contains(earlier));
            standing.remove(o);
            standing.add(o);
        }
        return standing;
    }

    private static boolean undoes(Operation now, Operation earlier) {
        boolean same = now.thing().equals(earlier.thing());
        return switch (now.verb()) {
            case TAKE_OFF -> same && (earlier.verb() == Verb.FIT || earlier.verb() == Verb.FOR_NOW);
            case UNDO -> same && earlier.verb() == Verb.TIGHTEN;
            case LOOP_OFF -> same && earlier.verb() == Verb.LAY;
            case RELEASE -> (same && earlier.verb() == Verb.TENSION) || earlier.verb() == Verb.TURN;
            case SET_IN -> same && earlier.verb() == Verb.OUT && now.round() == earlier.round();
            case OUT -> same && earlier.verb() == Verb.SET_IN && now.round() == earlier.round();
            case SHEARED -> same && (earlier.verb() == Verb.TIGHTEN || earlier.verb() == Verb.REPAIR);
            case MISSING -> earlier.verb() == Verb.SEARCH;
            case LAY -> earlier.verb() == Verb.TURN || earlier.verb() == Verb.PROVE || earlier.verb() == Verb.MEASURE;
            case DRAIN -> same && earlier.verb() == Verb.FILL;
            case SAFE -> earlier.verb() == Verb.CLOSE || earlier.verb() == Verb.START || earlier.verb() == Verb.CHECK;
            default -> false;
        };
    }
}
