package knollfield.app.job.card;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import knollfield.core.calculator.TurnedAngle;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.work.Operation;
import knollfield.core.jobcard.Answer;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.GateKind;
import knollfield.core.jobcard.Step;
import knollfield.core.jobcard.Task;
import knollfield.core.jobcard.TorqueJudgement;
import knollfield.core.units.TorqueUnit;
import org.jspecify.annotations.Nullable;

/** One step of a card as the bench reads it: flat, with what its kind of task adds. */
final class StepViews {

    private StepViews() {}

    enum TaskKind {
        TICK,
        CONFIRM,
        INSPECT,
        CHOOSE,
        COUNT,
        CHECK,
        MEASURE,
        RUNS,
        MARK_TO_MARK,
        PASSES,
        TIGHTEN,
        TURN,
        MARKS
    }

    record AnswerView(
            String words,
            boolean good,
            String by,
            Instant at,
            @Nullable String hint,
            boolean deviation) {}

    /** What is gone through at a step, line by line. */
    enum InHand {
        PARTS,
        TOOLS
    }

    /** @param finding what it means for the timing drive; null where nothing */
    record ResultView(String words, boolean bad, @Nullable String finding) {}

    /** A joint of a step, a stud or bolt of which can break off. */
    record JointView(String code, String name) {}

    record OptionView(String code, String words, boolean needsReason) {}

    /** @param order of the bolts, numbered around the pattern */
    record PatternView(int bolts, int passes, int done, List<Integer> order) {}

    /** A window in the unit the instrument shows. */
    record WindowOfMeasure(
            Task.Measure.Kind kind,
            String unit,
            double low,
            double high,
            @Nullable Double usual) {}

    /**
     * A torque of the book.
     *
     * @param otherUnits the same in pound-feet and pound-inches, in words
     * @param angleWords the angle as flats of a hexagon
     */
    record BookTorque(
            double nm,
            double lowNm,
            double highNm,
            List<String> otherUnits,
            @Nullable Integer angleDegrees,
            @Nullable String angleWords,
            String origin) {}

    record StepView(
            String code,
            String title,
            @Nullable String caution,
            List<String> notes,
            TaskKind task,
            @Nullable GateKind gate,
            boolean awaitsOwner,
            boolean settled,
            boolean mayDeviate,
            boolean mayDefer,
            List<ResultView> results,
            boolean takesSeveral,
            List<OptionView> options,
            List<String> points,
            @Nullable String right,
            @Nullable String wrong,
            @Nullable String what,
            @Nullable Integer expected,
            @Nullable WindowOfMeasure measure,
            @Nullable PatternView pattern,
            @Nullable Integer bolts,
            @Nullable BookTorque book,
            @Nullable Integer turn,
            @Nullable AnswerView answer,
            @Nullable String why,
            boolean mayBeDoneNow,
            List<String> things,
            List<JointView> joints,
            boolean repairs,
            @Nullable InHand inHand) {}

    static StepView of(Step step, CardState state) {
        Fields f = new Fields(step, state);
        Answer answer = state.answers().get(step.code());
        return new StepView(
                step.code(),
                step.title(),
                step.caution().orElse(null),
                step.notes(),
                f.kind,
                step.gate().orElse(null),
                state.awaitsOwner(step),
                state.isSettled(step),
                state.mayDeviate(step),
                step.mayFollow(),
                f.results,
                f.takesSeveral,
                f.options,
                f.points,
                f.right,
                f.wrong,
                f.what,
                f.expected,
                f.measure,
                f.pattern,
                f.bolts,
                f.book,
                f.turn,
                answer == null
                        ? null
                        : new AnswerView(
                                answer.words(),
                                answer.good(),
                                state.onPaperBy(answer.seq())
                                                .map(worked -> worked + " on paper, typed in by ")
                                                .orElse("")
                                        + answer.by(),
                                answer.at(),
                                answer.hint().orElse(null),
                                answer.deviation()),
                step.why().orElse(null),
                state.mayBeDoneNow(step),
                step.operations().stream().map(Operation::thing).distinct().toList(),
                state.joints(step).entrySet().stream()
                        .map(j -> new JointView(j.getKey(), j.getValue()))
                        .toList(),
                step.repairs(),
                step.goesThroughParts() ? InHand.PARTS : step.goesThroughTools() ? InHand.TOOLS : null);
    }

    /** What a task's kind adds to a step. */
    private static final class Fields {
        private TaskKind kind = TaskKind.TICK;
        private List<ResultView> results = List.of();
        private boolean takesSeveral;
        private List<OptionView> options = List.of();
        private List<String> points = List.of();
        private @Nullable String right;
        private @Nullable String wrong;
        private @Nullable String what;
        private @Nullable Integer expected;
        private @Nullable WindowOfMeasure measure;
        private @Nullable PatternView pattern;
        private @Nullable Integer bolts;
        private @Nullable BookTorque book;
        private @Nullable Integer turn;

        Fields(Step step, CardState state) {
            Task task = step.task();
            if (task instanceof Task.Confirm) {
                kind = TaskKind.CONFIRM;
            } else if (task instanceof Task.Inspect t) {
                kind = TaskKind.INSPECT;
                takesSeveral = t.takesSeveral();
                results = t.results().stream()
                        .map(r -> new ResultView(
                                r,
                                t.bad().contains(r),
                                Optional.ofNullable(t.says().get(r))
                                        .map(e -> e.words())
                                        .orElse(null)))
                        .toList();
            } else if (task instanceof Task.Choose t) {
                kind = TaskKind.CHOOSE;
                options = t.options().stream()
                        .map(o -> new OptionView(o.code(), o.words(), o.needsReason()))
                        .toList();
            } else if (task instanceof Task.Count t) {
                kind = TaskKind.COUNT;
                what = t.what();
                expected = t.expected();
            } else if (task instanceof Task.Check t) {
                kind = TaskKind.CHECK;
                points = t.points();
                right = t.right();
                wrong = t.wrong();
            } else if (task instanceof Task.Measure t) {
                kind = TaskKind.MEASURE;
                measure = new WindowOfMeasure(
                        t.kind(), t.unit(), t.low(), t.high(), t.usual().orElse(null));
            } else if (task instanceof Task.Runs t) {
                kind = TaskKind.RUNS;
                points = t.runs();
                expected = t.total();
            } else if (task instanceof Task.MarkToMark t) {
                kind = TaskKind.MARK_TO_MARK;
                points = t.spans();
                expected = t.total();
                what = t.counted();
            } else {
                tightening(step, task, state);
            }
        }

        private void tightening(Step step, Task task, CardState state) {
            if (task instanceof Task.Passes t) {
                kind = TaskKind.PASSES;
                what = t.joint();
                book = t.spec().map(Fields::book).orElse(null);
                pattern = new PatternView(t.bolts(), t.passes(), state.passesDone(step), t.order());
            } else if (task instanceof Task.Tighten t) {
                kind = TaskKind.TIGHTEN;
                what = t.joint();
                bolts = t.bolts();
                book = t.spec().map(Fields::book).orElse(null);
            } else if (task instanceof Task.Turn t) {
                kind = TaskKind.TURN;
                turn = t.number();
            } else if (task instanceof Task.TrueMarks t) {
                kind = TaskKind.MARKS;
                points = t.references();
                right = "true";
                wrong = "not true";
            }
        }

        private static BookTorque book(TorqueSpec spec) {
            double nm = spec.torque().newtonMetres();
            Integer angle =
                    spec.angleDegrees().isPresent() ? spec.angleDegrees().getAsInt() : null;
            return new BookTorque(
                    nm,
                    nm * (1 - TorqueJudgement.TOLERANCE),
                    nm * (1 + TorqueJudgement.TOLERANCE),
                    List.of(in(spec, TorqueUnit.POUND_FOOT), in(spec, TorqueUnit.POUND_INCH)),
                    angle,
                    angle == null ? null : TurnedAngle.words(angle),
                    spec.origin());
        }

        private static String in(TorqueSpec spec, TorqueUnit unit) {
            double value = spec.torque().in(unit);
            return String.format(Locale.ROOT, value < 20 ? "%.2f %s" : "%.1f %s", value, unit.symbol());
        }
    }
}
