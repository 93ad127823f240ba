package knollfield.core.dryrun;

import java.util.HashSet;
import java.util.Set;
import knollfield.core.engine.build.Loop;

/** One loop while a card is run dry. */
final class LoopModel {

    /** How a loop sits. */
    enum Stand {
        /** On its wheels with its tension, as found or as set. */
        TENSIONED,
        /** On its wheels, let off. */
        SLACK,
        OFF,
        /** On its wheels again, not tensioned yet. */
        LAID
    }

    final Loop loop;
    Stand stand = Stand.TENSIONED;
    /** Something of this loop was let off, undone or renewed on this card. */
    boolean touched;
    /** It came off on this card. */
    boolean cameOff;
    /** Laid anew, or put back, on this card. */
    boolean laid;

    boolean renewed;
    /** It stays on while its tensioner comes off. */
    boolean held;
    /** Something moved that must not: wheels and crank no longer agree. */
    boolean lost;
    /** Recorded as found out of time, and not laid since: its shafts are set one by one. */
    boolean scratch;
    /** It was found out of time on this card: what was marked on it before says nothing. */
    boolean wasLost;
    /** Shafts of it that have been set to their marks since. */
    final Set<String> set = new HashSet<>();
    /** Moment of the last thing that can move the timing. */
    int disturbed;
    /** Moment of the last thing after which references are read once more. */
    int lookAgain;
    /** Moment the tension was last set. */
    int tensioned;
    /** How often the tension was set on this card. */
    int settings;
    /** Whole crank turns in the running way since {@link #disturbed}. */
    int turns;
    /** Two turns at least were done, whatever was disturbed since. */
    boolean turned;
    /** Moment of the last turn. */
    int turnedAt;

    LoopModel(Loop loop) {
        this.loop = loop;
    }

    boolean on() {
        return stand != Stand.OFF;
    }

    void disturb(int now) {
        touched = true;
        disturbed = now;
        turns = 0;
    }
}
