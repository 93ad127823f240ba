package knollfield.core.engine.work;

import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The state an engine is in, in the middle of a job or before it: what was found off or undone counts as undone.
 *
 * @param position code of the crank position it stands at; empty: anywhere
 * @param joints stage reached of every joint that was undone, 0 for none
 * @param off codes of the assemblies that are off
 * @param forNow codes of what is on for now
 * @param fresh codes of what has been renewed
 * @param in codes of the hardware that is set in
 * @param openings open ways into the engine, true once covered
 * @param outOfTime codes of the loops found out of time
 */
public record EngineState(
        boolean batteryOff,
        boolean raised,
        boolean started,
        Optional<String> position,
        Map<String, Integer> joints,
        Set<String> off,
        Set<String> forNow,
        Set<String> compared,
        Set<String> fresh,
        Set<String> movedOver,
        Set<String> in,
        Set<String> drained,
        Set<String> filled,
        Set<String> found,
        Set<String> marked,
        Map<String, Boolean> openings,
        Map<String, LoopState> loops,
        Set<String> outOfTime) {

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
     * @param settings how often its tension was set
     * @param turns whole crank turns by hand since the last thing that can move the timing
     */
    public record LoopState(
            Stand stand,
            boolean touched,
            boolean cameOff,
            boolean renewed,
            boolean held,
            int settings,
            int turns,
            boolean proven) {}

    public EngineState {
        joints = Map.copyOf(joints);
        off = Set.copyOf(off);
        forNow = Set.copyOf(forNow);
        compared = Set.copyOf(compared);
        fresh = Set.copyOf(fresh);
        movedOver = Set.copyOf(movedOver);
        in = Set.copyOf(in);
        drained = Set.copyOf(drained);
        filled = Set.copyOf(filled);
        found = Set.copyOf(found);
        marked = Set.copyOf(marked);
        openings = Map.copyOf(openings);
        loops = Map.copyOf(loops);
        outOfTime = Set.copyOf(outOfTime);
    }

    /** A closed engine in a vehicle on its wheels. */
    public static EngineState closed() {
        return new EngineState(
                false,
                false,
                false,
                Optional.empty(),
                Map.of(),
                Set.of(),
                Set.of(),
                Set.of(),
                Set.of(),
                Set.of(),
                Set.of(),
                Set.of(),
                Set.of(),
                Set.of(),
                Set.of(),
                Map.of(),
                Map.of(),
                Set.of());
    }
}
