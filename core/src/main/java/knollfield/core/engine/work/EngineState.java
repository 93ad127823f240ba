package knollfield.core.engine.work;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;

/**
 * What stands open of an engine in the middle of a job: what a card laid from here has to close, whatever it is for.
 *
 * @param joints stage reached of every joint that was undone, 0 for none
 * @param off codes of the assemblies that are off
 * @param drained codes of the fluids that ran out and are not in again
 * @param fresh codes of what has been renewed
 * @param in codes of the hardware that is set in
 * @param sheared codes of the joints a stub of which is still in
 * @param missing codes of the parts that came off with a piece missing which nobody looked for yet
 * @param forNow codes of what is in or on for now only
 */
public record EngineState(
        Map<String, Integer> joints,
        Set<String> off,
        Set<String> drained,
        Set<String> fresh,
        Set<String> in,
        Map<String, LoopState> loops,
        Set<String> sheared,
        Set<String> missing,
        Set<String> forNow) {

    /** How a loop sits. */
    public enum Stand {
        TENSIONED,
        SLACK,
        OFF,
        LAID
    }

    /**
     * One loop.
     *
     * @param touched something of it was let off, undone or renewed
     * @param held it stays on while its tensioner comes off
     * @param lost found out of time on this job, set since or not
     */
    public record LoopState(
            Stand stand, boolean touched, boolean cameOff, boolean held, boolean proven, boolean lost) {}

    public EngineState {
        joints = Map.copyOf(joints);
        off = Set.copyOf(off);
        drained = Set.copyOf(drained);
        fresh = Set.copyOf(fresh);
        in = Set.copyOf(in);
        loops = Map.copyOf(loops);
        sheared = Set.copyOf(sheared);
        missing = Set.copyOf(missing);
        forNow = Set.copyOf(forNow);
    }

    /** With assemblies and loops off that are on, and come off again. */
    public EngineState with(Set<String> things) {
        Set<String> all = new HashSet<>(off);
        all.addAll(things);
        Map<String, LoopState> other = new HashMap<>(loops);
        other.replaceAll(
                (code, l) -> things.contains(code) ? new LoopState(Stand.OFF, true, true, false, false, l.lost()) : l);
        return new EngineState(joints, all, drained, fresh, in, other, sheared, missing, forNow);
    }

    /** With loops that were found out of time. */
    public EngineState lost(Set<String> codes) {
        Map<String, LoopState> other = new HashMap<>(loops);
        codes.forEach(c -> {
            LoopState l = other.getOrDefault(c, new LoopState(Stand.TENSIONED, false, false, false, true, true));
            other.put(c, new LoopState(l.stand(), l.touched(), l.cameOff(), l.held(), l.proven(), true));
        });
        return new EngineState(joints, off, drained, fresh, in, other, sheared, missing, forNow);
    }

    /** A closed engine. */
    public static EngineState closed() {
        return new EngineState(
                Map.of(), Set.of(), Set.of(), Set.of(), Set.of(), Map.of(), Set.of(), Set.of(), Set.of());
    }
}
