package knollfield.core.jobcard;

import java.text.NumberFormat;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.jobcard.CardEvent.Completed;
import knollfield.core.jobcard.CardEvent.Counted;
import knollfield.core.jobcard.CardEvent.GateOverridden;
import knollfield.core.jobcard.CardEvent.HardStop;
import knollfield.core.jobcard.CardEvent.Inspected;
import knollfield.core.jobcard.CardEvent.MarksRead;
import knollfield.core.jobcard.CardEvent.PhaseTicked;
import knollfield.core.jobcard.CardEvent.Started;
import knollfield.core.jobcard.CardEvent.Ticked;
import knollfield.core.jobcard.CardEvent.TorqueEntered;
import knollfield.core.jobcard.CardEvent.Turned;
import knollfield.core.jobcard.CardEvent.Undone;
import knollfield.core.jobcard.CardRefused.Kind;
import knollfield.core.units.TorqueUnit;

/**
 * Where a card stands after its events. Every change goes through {@link #after}, which refuses what the gates do not
 * allow, so that a replayed card and a worked one are the same.
 *
 * @param answers by step code
 * @param overrides a manager's words by gate
 * @param attempt 1 for the first time the timing is set, one more for each time it had to be done again
 * @param hardStop a hard stop happened and the timing has not been proven since
 */
public record CardState(
        CardPlan plan,
        Map<String, Answer> answers,
        Map<GateKind, String> overrides,
        Optional<Started> started,
        Optional<Instant> startedAt,
        Optional<Instant> completedAt,
        int attempt,
        boolean hardStop,
        long seq) {

    public CardState {
        answers = Map.copyOf(answers);
        overrides = Map.copyOf(overrides);
    }

    /** A card nobody has touched. */
    public static CardState fresh(CardPlan plan) {
        return new CardState(
                plan, Map.of(), Map.of(), Optional.empty(), Optional.empty(), Optional.empty(), 1, false, 0);
    }

    /** The state after {@code entries}, in order of their numbers. */
    public static CardState replay(CardPlan plan, List<CardEntry> entries) {
        CardState state = fresh(plan);
        for (CardEntry entry : entries) {
            state = state.after(entry);
        }
        return state;
    }

    /**
     * The state after one more event.
     *
     * @throws CardRefused where the card does not take it
     */
    public CardState after(CardEntry entry) {
        CardEvent event = entry.event();
        if (completedAt.isPresent()) {
            throw new CardRefused(Kind.ALREADY_SIGNED, "This card is signed; nothing more can be entered on it.");
        }
        if (event instanceof Started s) {
            if (started.isPresent()) {
                throw new CardRefused(Kind.WRONG_ANSWER, "The vehicle is already checked in.");
            }
            return new CardState(
                    plan,
                    answers,
                    overrides,
                    Optional.of(s),
                    Optional.of(entry.at()),
                    completedAt,
                    attempt,
                    hardStop,
                    entry.seq());
        }
        if (started.isEmpty()) {
            throw new CardRefused(Kind.NOT_STARTED, "Check the vehicle in first.");
        }
        if (event instanceof PhaseTicked e) {
            return tickPhase(e, entry);
        } else if (event instanceof Ticked e) {
            Step step = answerable(e.step());
            if (!(step.task() instanceof Task.Tick || step.task() instanceof Task.Confirm)) {
                throw wrongAnswer(step);
            }
            return answered(step, "done", true, entry);
        } else if (event instanceof Inspected e) {
            Step step = answerable(e.step());
            if (!(step.task() instanceof Task.Inspect inspect)
                    || !inspect.results().contains(e.result())) {
                throw wrongAnswer(step);
            }
            return answered(step, e.result(), true, entry);
        } else if (event instanceof Counted e) {
            Step step = answerable(e.step());
            if (!(step.task() instanceof Task.Count count) || e.count() < 0) {
                throw wrongAnswer(step);
            }
            return answered(step, e.count() + " of " + count.expected(), e.count() == count.expected(), entry);
        } else if (event instanceof TorqueEntered e) {
            return tighten(e, entry);
        } else if (event instanceof Turned e) {
            Step step = answerable(e.step());
            if (!(step.task() instanceof Task.Turn turn)) {
                throw wrongAnswer(step);
            }
            earlierTurnDone(turn);
            return answered(step, "turn " + turn.number() + " done, no stop", true, entry);
        } else if (event instanceof MarksRead e) {
            return marks(e, entry);
        } else if (event instanceof HardStop) {
            return timingToBeProvenAgain(entry, true);
        } else if (event instanceof Undone e) {
            return undo(e, entry);
        } else if (event instanceof GateOverridden e) {
            return override(e, entry);
        } else if (event instanceof Completed) {
            return complete(entry);
        }
        throw new IllegalStateException("unhandled event " + event);
    }

    /** The gates of this card in working order. */
    public List<GateState> gates() {
        return plan.gatePositions().entrySet().stream()
                .sorted(Map.Entry.comparingByValue())
                .map(e -> gate(e.getKey()))
                .toList();
    }

    /** How one gate stands. */
    public GateState gate(GateKind kind) {
        Optional<String> words = Optional.ofNullable(overrides.get(kind));
        if (words.isPresent()) {
            return new GateState(kind, true, Optional.empty(), words);
        }
        Optional<String> waitsFor =
                plan.feeding(kind).stream().filter(s -> !isGood(s)).findFirst().map(this::whatIsMissing);
        return new GateState(kind, waitsFor.isEmpty(), waitsFor, Optional.empty());
    }

    /** The first step without a good answer; empty when all are done. */
    public Optional<Step> next() {
        return plan.steps().stream().filter(s -> !isSettled(s)).findFirst();
    }

    /** Share of the card's steps that are settled, 0 to 1. */
    public double share() {
        return plan.steps().isEmpty()
                ? 0
                : plan.steps().stream().filter(this::isSettled).count()
                        / (double) plan.steps().size();
    }

    private boolean isGood(Step step) {
        Answer answer = answers.get(step.code());
        return answer != null && answer.good();
    }

    /** Answered well, or answered somehow behind a gate that a manager opened. */
    private boolean isSettled(Step step) {
        return isGood(step) || step.gate().filter(overrides::containsKey).isPresent();
    }

    private CardState tickPhase(PhaseTicked e, CardEntry entry) {
        Phase phase = plan.phase(e.phase())
                .orElseThrow(() -> new CardRefused(Kind.UNKNOWN_STEP, "This card has no phase " + e.phase() + "."));
        CardState state = this;
        for (Step step : phase.steps()) {
            if (step.task() instanceof Task.Tick && !answers.containsKey(step.code())) {
                if (state.gateInTheWayOf(step).isPresent()) {
                    break;
                }
                state = state.answered(step, "done", true, entry);
            }
        }
        if (state == this) {
            Step first = phase.steps().get(0);
            gateInTheWayOf(first).ifPresent(g -> {
                throw shut(g);
            });
            throw new CardRefused(Kind.WRONG_ANSWER, "Nothing plain is left to tick in " + phase.title() + ".");
        }
        return state;
    }

    private CardState tighten(TorqueEntered e, CardEntry entry) {
        Step step = answerable(e.step());
        if (!(step.task() instanceof Task.Tighten tighten)) {
            throw wrongAnswer(step);
        }
        if (!(e.value() > 0) || Double.isInfinite(e.value())) {
            throw new CardRefused(Kind.WRONG_ANSWER, "A torque must be a number above zero.");
        }
        TorqueSpec spec = tighten.spec()
                .orElseThrow(() -> new CardRefused(
                        Kind.WRONG_ANSWER,
                        "The book has no torque on file for %s: enter it there with its origin first."
                                .formatted(tighten.joint())));
        TorqueJudgement judgement = TorqueJudgement.of(spec, e.value(), e.unit());
        if (judgement.guard().isPresent() && !e.unitConfirmed()) {
            TorqueUnit meant = judgement.guard().get();
            throw new CardRefused(
                    Kind.UNIT_GUARD,
                    "%s %s is %s N·m; the book says %s N·m. %s or %s?"
                            .formatted(
                                    number(e.value()),
                                    e.unit().symbol(),
                                    number(judgement.entered().newtonMetres()),
                                    number(spec.torque().newtonMetres()),
                                    meant.symbol(),
                                    e.unit().symbol()),
                    Optional.empty(),
                    Optional.of(judgement));
        }
        boolean angleGood = spec.angleDegrees().isEmpty() || spec.angleDegrees().equals(e.angleDegrees());
        String words = number(e.value()) + " " + e.unit().symbol()
                + (e.unit() == TorqueUnit.NEWTON_METRE
                        ? ""
                        : " = " + number(judgement.entered().newtonMetres()) + " N·m")
                + angleWords(e.angleDegrees());
        return answered(step, words, judgement.inRange() && angleGood, entry);
    }

    private static String angleWords(OptionalInt angle) {
        return angle.isPresent() ? " + " + angle.getAsInt() + "°" : "";
    }

    private void earlierTurnDone(Task.Turn turn) {
        plan.steps().stream()
                .filter(s -> s.task() instanceof Task.Turn t && t.number() < turn.number())
                .filter(s -> !isGood(s))
                .findFirst()
                .ifPresent(s -> {
                    throw new CardRefused(Kind.WRONG_ANSWER, s.title() + " comes first.");
                });
    }

    private CardState marks(MarksRead e, CardEntry entry) {
        Step step = answerable(e.step());
        if (!(step.task() instanceof Task.TrueMarks task) || !task.references().containsAll(e.notTrue())) {
            throw wrongAnswer(step);
        }
        if (e.notTrue().isEmpty()) {
            CardState state = answered(step, "all " + task.references().size() + " true", true, entry);
            boolean proven =
                    step.gate().filter(g -> g == GateKind.REFERENCES_TRUE).isPresent();
            return proven ? state.withHardStop(false) : state;
        }
        if (!step.provesTiming()) {
            return answered(
                    step,
                    "not true: "
                            + String.join(", ", e.notTrue().stream().sorted().toList()),
                    false,
                    entry);
        }
        return timingToBeProvenAgain(entry, hardStop);
    }

    /** Everything that proved the timing is taken back; the attempt counts up. Normal work, not shame. */
    private CardState timingToBeProvenAgain(CardEntry entry, boolean stopped) {
        Map<String, Answer> left = new HashMap<>(answers);
        plan.steps().stream().filter(Step::provesTiming).forEach(s -> left.remove(s.code()));
        return new CardState(plan, left, overrides, started, startedAt, completedAt, attempt + 1, stopped, entry.seq());
    }

    private CardState undo(Undone e, CardEntry entry) {
        Step step = known(e.step());
        if (!answers.containsKey(step.code())) {
            throw new CardRefused(Kind.WRONG_ANSWER, "There is nothing to undo at \"" + step.title() + "\".");
        }
        if (step.gate().isPresent()) {
            int position = plan.gatePositions().getOrDefault(step.gate().get(), -1);
            List<Step> steps = plan.steps();
            for (Step later : steps.subList(position + 1, steps.size())) {
                if (answers.containsKey(later.code())) {
                    throw new CardRefused(
                            Kind.GATE_SHUT,
                            "\"%s\" was done relying on this; undo that first.".formatted(later.title()),
                            step.gate(),
                            Optional.empty());
                }
            }
        }
        Map<String, Answer> left = new HashMap<>(answers);
        left.remove(step.code());
        return new CardState(plan, left, overrides, started, startedAt, completedAt, attempt, hardStop, entry.seq());
    }

    private CardState override(GateOverridden e, CardEntry entry) {
        if (!e.gate().overridable()) {
            throw new CardRefused(
                    Kind.NOT_ALLOWED,
                    "Nobody can override \"" + e.gate().words() + "\".",
                    Optional.of(e.gate()),
                    Optional.empty());
        }
        if (!entry.manager()) {
            throw new CardRefused(
                    Kind.NOT_ALLOWED,
                    "Only the manager can open \"" + e.gate().words() + "\" with words.",
                    Optional.of(e.gate()),
                    Optional.empty());
        }
        if (!plan.gatePositions().containsKey(e.gate())) {
            throw new CardRefused(
                    Kind.UNKNOWN_STEP, "This card has no gate \"" + e.gate().words() + "\".");
        }
        if (e.words().isBlank()) {
            throw new CardRefused(Kind.WRONG_ANSWER, "An opened gate needs words; they are printed on the record.");
        }
        Map<GateKind, String> opened = new EnumMap<>(GateKind.class);
        opened.putAll(overrides);
        opened.put(e.gate(), e.words().strip());
        return new CardState(plan, answers, opened, started, startedAt, completedAt, attempt, hardStop, entry.seq());
    }

    private CardState complete(CardEntry entry) {
        gates().stream().filter(g -> !g.open()).findFirst().ifPresent(g -> {
            throw shut(g);
        });
        List<String> open = new ArrayList<>();
        plan.steps().stream().filter(s -> !isSettled(s)).forEach(s -> open.add(s.title()));
        if (!open.isEmpty()) {
            throw new CardRefused(
                    Kind.STEPS_OPEN,
                    open.size() == 1
                            ? "One step is open: " + open.get(0) + "."
                            : "%d steps are open, first: %s.".formatted(open.size(), open.get(0)));
        }
        if (hardStop) {
            throw new CardRefused(Kind.GATE_SHUT, "After a hard stop the timing must be proven again.");
        }
        return new CardState(
                plan, answers, overrides, started, startedAt, Optional.of(entry.at()), attempt, false, entry.seq());
    }

    private Step known(String code) {
        return plan.step(code)
                .orElseThrow(() -> new CardRefused(Kind.UNKNOWN_STEP, "This card has no step " + code + "."));
    }

    private Step answerable(String code) {
        Step step = known(code);
        gateInTheWayOf(step).ifPresent(g -> {
            throw shut(g);
        });
        return step;
    }

    private Optional<GateState> gateInTheWayOf(Step step) {
        int position = plan.steps().indexOf(step);
        return plan.gatePositions().entrySet().stream()
                .filter(e -> e.getValue() < position)
                .sorted(Map.Entry.comparingByValue())
                .map(e -> gate(e.getKey()))
                .filter(g -> !g.open())
                .findFirst();
    }

    private static CardRefused shut(GateState gate) {
        return new CardRefused(
                Kind.GATE_SHUT,
                "%s: %s.".formatted(gate.kind().words(), gate.waitsFor().orElse("still shut")),
                Optional.of(gate.kind()),
                Optional.empty());
    }

    private static CardRefused wrongAnswer(Step step) {
        return new CardRefused(Kind.WRONG_ANSWER, "That is no answer to \"" + step.title() + "\".");
    }

    private String whatIsMissing(Step step) {
        Answer answer = answers.get(step.code());
        if (step.task() instanceof Task.Count count) {
            if (answer == null) {
                return "count %d %s".formatted(count.expected(), count.what());
            }
            return "%s %s, %d are needed".formatted(answer.words(), count.what(), count.expected());
        }
        if (step.task() instanceof Task.Tighten tighten) {
            return answer == null
                    ? tighten.joint() + " not measured"
                    : tighten.joint() + " out of range: " + answer.words();
        }
        if (step.task() instanceof Task.Turn turn) {
            return "turn %d of 2 not done".formatted(turn.number());
        }
        if (answer != null) {
            return answer.words();
        }
        return step.task() instanceof Task.TrueMarks ? "not looked at yet" : "not confirmed yet";
    }

    private CardState answered(Step step, String words, boolean good, CardEntry entry) {
        Map<String, Answer> all = new HashMap<>(answers);
        all.put(step.code(), new Answer(words, good, entry.by(), entry.at(), entry.seq()));
        return new CardState(plan, all, overrides, started, startedAt, completedAt, attempt, hardStop, entry.seq());
    }

    private CardState withHardStop(boolean value) {
        return new CardState(plan, answers, overrides, started, startedAt, completedAt, attempt, value, seq);
    }

    private static String number(double value) {
        NumberFormat format = NumberFormat.getNumberInstance(Locale.ROOT);
        format.setGroupingUsed(false);
        format.setMaximumFractionDigits(value < 100 ? 2 : 1);
        return format.format(value);
    }
}
