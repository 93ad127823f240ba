package knollfield.core.due;

import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import knollfield.core.clock.ClockStart;
import knollfield.core.due.Evidence.Confidence;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;

/**
 * What one finding does to one vehicle (rules.md section 3). Judged once, here: the due date moves by it, and reason, Desk,
 * dossier and record only print it.
 *
 * @param sentence the finding and what it calls for
 */
public record FindingEffect(Evidence evidence, Call call, Statement sentence) {

    /** What a finding calls for, gravest first. */
    public enum Call {
        STOP("do not run the engine"),
        ACT_NOW("act now"),
        ACT_SOON("act soon"),
        /** The part goes into the job; the date of the drive stays. */
        ADD_THE_PART("the part goes into the next job; the date of the drive stays"),
        /** It says nothing of this engine. */
        NOT_THIS_ENGINE("does not move the date of this engine"),
        /** Its limits say when to inspect it, and that was done. */
        INSPECTED("its inspection clock starts again from that day"),
        NOTED("noted; it moves no date"),
        SET_ASIDE("set aside, because a later measurement was good"),
        SIMULATED("a stand-in said it, so that it moves nothing");

        private final String words;

        Call(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** True where it brings the day forward by which to act. */
        public boolean movesTheDate() {
            return this == STOP || this == ACT_NOW || this == ACT_SOON;
        }
    }

    /**
     * Judges everything that is open on a vehicle, in the order given.
     *
     * @param family empty where it is not known: whatever would hurt some engine is taken to hurt this one
     * @param starts when the clocks of its items began, by code
     */
    public static List<FindingEffect> of(
            List<Evidence> open, Optional<EngineFamily> family, Map<String, ClockStart> starts, Policy policy) {
        List<FindingEffect> all = new ArrayList<>(open.size());
        for (Evidence e : open) {
            Call call = call(e, open, family, starts, policy);
            all.add(new FindingEffect(e, call, sentence(e, call, policy)));
        }
        return all;
    }

    private static Call call(
            Evidence e,
            List<Evidence> open,
            Optional<EngineFamily> family,
            Map<String, ClockStart> starts,
            Policy policy) {
        if (e.confidence() == Confidence.SIMULATED) {
            return Call.SIMULATED;
        }
        if (isSetAside(e, open)) {
            return Call.SET_ASIDE;
        }
        if (e.kind() == EvidenceKind.SLAP && rightAfterBeltJob(e, family, starts, policy)) {
            return Call.STOP;
        }
        return switch (e.kind().effect()) {
            case STOP -> Call.STOP;
            case ACT_NOW -> Call.ACT_NOW;
            case ACT_NOW_WHERE_TIMING_HURTS ->
                family.filter(f -> f.drive() != Drive.CHAIN && f.interference() == Interference.NO)
                                .isPresent()
                        ? Call.NOT_THIS_ENGINE
                        : Call.ACT_NOW;
            case SOON -> Call.ACT_SOON;
            case ADD_THE_PART -> Call.ADD_THE_PART;
            case NONE -> startsAnInspectionClock(e, family) ? Call.INSPECTED : Call.NOTED;
        };
    }

    private static boolean startsAnInspectionClock(Evidence e, Optional<EngineFamily> family) {
        return e.kind() == EvidenceKind.INSPECTED_GOOD
                && e.item().isEmpty()
                && family.stream()
                        .flatMap(f -> f.items().stream())
                        .anyMatch(i -> i.kind().isInspected() && i.schedule().isPresent());
    }

    private static boolean rightAfterBeltJob(
            Evidence e, Optional<EngineFamily> family, Map<String, ClockStart> starts, Policy policy) {
        return family.map(f -> starts.get(f.driveItem().code()))
                .filter(s -> s.grade() == ClockStart.Grade.DOCUMENTED || s.grade() == ClockStart.Grade.STATED)
                .map(s -> ChronoUnit.DAYS.between(s.date(), e.found()))
                .filter(days -> days >= 0 && days <= policy.found().slapStopDays())
                .isPresent();
    }

    /**
     * Whether what was only seen or said is set aside by a later measurement of the same thing that is good. What stops
     * an engine is never set aside, nor is a part that is torn.
     */
    public static boolean isSetAside(Evidence evidence, List<Evidence> all) {
        if (evidence.confidence() == Confidence.MEASURED
                || evidence.kind().effect() == EvidenceKind.Effect.STOP
                || evidence.kind().effect() == EvidenceKind.Effect.ADD_THE_PART
                || evidence.kind().effect() == EvidenceKind.Effect.NONE) {
            return false;
        }
        for (Evidence other : all) {
            if (other.kind() == EvidenceKind.INSPECTED_GOOD
                    && other.confidence() == Confidence.MEASURED
                    && other.item().equals(evidence.item())
                    && !other.found().isBefore(evidence.found())) {
                return true;
            }
        }
        return false;
    }

    private static Statement sentence(Evidence e, Call call, Policy policy) {
        Fact what = Fact.Words.atStart(e.kind().words());
        Fact how = new Fact.Words(e.confidence().words());
        Fact day = new Fact.Day(e.found());
        if (call == Call.ACT_SOON) {
            return Statement.of(
                    "{0}, {1} on {2}: act within {3} days or {4}, whichever comes first.",
                    what,
                    how,
                    day,
                    new Fact.Count(policy.found().rattleDays()),
                    new Fact.Km(policy.found().rattleKm()));
        }
        return Statement.of("{0}, {1} on {2}: {3}.", what, how, day, new Fact.Words(call.words()));
    }
}
