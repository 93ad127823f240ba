package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.jobcard.CardEvent.Checked;
import knollfield.core.jobcard.CardEvent.Chosen;
import knollfield.core.jobcard.CardEvent.Completed;
import knollfield.core.jobcard.CardEvent.Counted;
import knollfield.core.jobcard.CardEvent.Deferred;
import knollfield.core.jobcard.CardEvent.Deviated;
import knollfield.core.jobcard.CardEvent.GoesBack;
import knollfield.core.jobcard.CardEvent.HardStop;
import knollfield.core.jobcard.CardEvent.Inspected;
import knollfield.core.jobcard.CardEvent.MarksCounted;
import knollfield.core.jobcard.CardEvent.MarksRead;
import knollfield.core.jobcard.CardEvent.Measured;
import knollfield.core.jobcard.CardEvent.OutOfTime;
import knollfield.core.jobcard.CardEvent.Passed;
import knollfield.core.jobcard.CardEvent.PhaseTicked;
import knollfield.core.jobcard.CardEvent.RunsCounted;
import knollfield.core.jobcard.CardEvent.Started;
import knollfield.core.jobcard.CardEvent.Ticked;
import knollfield.core.jobcard.CardEvent.TorqueEntered;
import knollfield.core.jobcard.CardEvent.TorqueFiled;
import knollfield.core.jobcard.CardEvent.Turned;
import knollfield.core.jobcard.CardEvent.Undone;
import knollfield.core.jobcard.CardRefused.Kind;
import knollfield.core.units.TorqueUnit;

/** One event set against a card: refused with its reason, or the card as it stands afterwards. */
final class CardChange {

    /** Coolant that goes in short of what came out by more than this share is looked at again (rules.md section 8). */
    static final double COOLANT_SHORT = 0.10;

    /** The answer to a level that is read the next day. */
    static final String TOMORROW = "to be read cold tomorrow, as a recheck";

    private final CardState card;
    private final CardEntry entry;
    /** False for what was entered on a card that had other gates. */
    private final boolean gatesHold;

    CardChange(CardState card, CardEntry entry) {
        this(card, entry, true);
    }

    private CardChange(CardState card, CardEntry entry, boolean gatesHold) {
        this.card = card;
        this.entry = entry;
        this.gatesHold = gatesHold;
    }

    /** An entry that a card took before its plan was kept, and whose steps and gates are others by now. */
    static CardChange ofEarlierRelease(CardState card, CardEntry entry) {
        return new CardChange(card, entry, false);
    }

    /** What was signed stays signed; an answer that fits no step now is noted, and its step is asked once more. */
    CardState taken() {
        if (entry.event() instanceof Completed e) {
            return card.signed(e, entry);
        }
        try {
            return made();
        } catch (CardRefused e) {
            return card.noted(entry);
        }
    }

    /** Code of the step that {@code event} answers with a touch or a figure; empty for what stands beside the steps. */
    static Optional<String> stepOf(CardEvent event) {
        if (event instanceof Ticked e) {
            return Optional.of(e.step());
        } else if (event instanceof Counted e) {
            return Optional.of(e.step());
        } else if (event instanceof Checked e) {
            return Optional.of(e.step());
        } else if (event instanceof Measured e) {
            return Optional.of(e.step());
        } else if (event instanceof TorqueEntered e) {
            return Optional.of(e.step());
        } else if (event instanceof Turned e) {
            return Optional.of(e.step());
        } else if (event instanceof MarksRead e) {
            return Optional.of(e.step());
        }
        return Optional.empty();
    }

    CardState made() {
        CardEvent event = entry.event();
        if (event instanceof Started e) {
            if (card.checkIn().isPresent()) {
                throw new CardRefused(Kind.WRONG_ANSWER, "The vehicle is already checked in.");
            }
            return card.checkedIn(e, entry);
        }
        if (card.checkIn().isEmpty()) {
            throw new CardRefused(Kind.NOT_STARTED, "Check the vehicle in first.");
        }
        return new CardAside(card, entry).made().orElseGet(() -> {
            card.paused().ifPresent(p -> {
                throw new CardRefused(
                        Kind.PAUSED,
                        "The job waits for %s; go on with it first."
                                .formatted(p.why().words()));
            });
            return worked(event);
        });
    }

    private CardState worked(CardEvent event) {
        if (event instanceof PhaseTicked e) {
            return tickPhase(e);
        } else if (event instanceof Ticked e) {
            return tick(e);
        } else if (event instanceof Inspected e) {
            return inspect(e);
        } else if (event instanceof Chosen e) {
            return choose(e);
        } else if (event instanceof Counted e) {
            Step step = answerable(e.step());
            if (!(step.task() instanceof Task.Count count) || e.count() < 0 || e.count() > 999) {
                throw wrongAnswer(step);
            }
            return answered(step, e.count() + " of " + count.expected(), e.count() == count.expected());
        } else if (event instanceof Checked e) {
            return check(e);
        } else if (event instanceof Measured e) {
            return measure(e);
        } else if (event instanceof RunsCounted e) {
            return runs(e);
        } else if (event instanceof MarksCounted e) {
            return fromMarkToMark(e);
        } else if (event instanceof Passed e) {
            return pass(e);
        } else if (event instanceof TorqueEntered e) {
            return tighten(e);
        } else if (event instanceof TorqueFiled e) {
            return file(e);
        } else if (event instanceof Turned e) {
            Step step = answerable(e.step());
            if (!(step.task() instanceof Task.Turn turn)) {
                throw wrongAnswer(step);
            }
            earlierTurnDone(turn);
            return answered(step, "turn " + turn.number() + " done, no stop", true);
        } else if (event instanceof MarksRead e) {
            return marks(e);
        } else if (event instanceof OutOfTime e) {
            return outOfTime(e.words());
        } else if (event instanceof HardStop e) {
            if (!card.plan().gatePositions().containsKey(GateKind.REFERENCES_TRUE)) {
                throw new CardRefused(
                        Kind.WRONG_ANSWER, "On this card the drive stays on; note what stopped it as something found.");
            }
            return card.noted(entry)
                    .toBeProvenAgain(
                            "hard stop" + (e.note().isBlank() ? "" : ": " + e.note()),
                            entry,
                            true,
                            RoutedCard.touchedSoFar(card));
        } else if (event instanceof Undone e) {
            return undo(e);
        } else if (event instanceof Deviated e) {
            return deviate(e);
        } else if (event instanceof Deferred e) {
            Step step = answerable(e.step());
            if (!step.mayFollow()) {
                throw new CardRefused(Kind.NOT_ALLOWED, "Only the cold level may follow as a recheck.");
            }
            return answered(step, TOMORROW, true);
        } else if (event instanceof GoesBack e) {
            return goesBack(e);
        } else if (event instanceof Completed e) {
            return complete(e);
        }
        throw new IllegalStateException("unhandled event " + event);
    }

    private CardState tickPhase(PhaseTicked e) {
        Phase phase = card.plan()
                .phase(e.phase())
                .orElseThrow(() -> new CardRefused(Kind.UNKNOWN_STEP, "This card has no phase " + e.phase() + "."));
        CardState state = card;
        for (Step step : phase.steps()) {
            if (step.task() instanceof Task.Tick
                    && !card.answers().containsKey(step.code())
                    && !card.awaitsOwner(step)) {
                if (gatesHold && state.gateInTheWayOf(step).isPresent()) {
                    break;
                }
                state = state.answered(step, "done", true, Optional.empty(), entry);
            }
        }
        if (state == card && gatesHold) {
            card.gateInTheWayOf(phase.steps().get(0)).ifPresent(g -> {
                throw CardState.shut(g);
            });
            throw CardState.nothingPlain(phase.title());
        }
        return state;
    }

    private CardState tick(Ticked e) {
        Step step = answerable(e.step());
        if (!(step.task() instanceof Task.Tick || step.task() instanceof Task.Confirm)) {
            throw wrongAnswer(step);
        }
        boolean eyes = step.gate().filter(g -> g == GateKind.SECOND_EYES).isPresent();
        if (eyes
                && card.attempts().stream()
                        .reduce((a, b) -> b)
                        .filter(a -> a.by().equals(entry.by()))
                        .isPresent()) {
            throw new CardRefused(
                    Kind.NOT_ALLOWED, "A second pair of eyes belongs to somebody else than %s.".formatted(entry.by()));
        }
        return answered(step, eyes ? "looked at by " + entry.by() : "done", true);
    }

    private CardState inspect(Inspected e) {
        Step step = answerable(e.step());
        if (!(step.task() instanceof Task.Inspect inspect)) {
            throw wrongAnswer(step);
        }
        List<String> results = inspect.chosen(e);
        if (results.isEmpty()) {
            throw wrongAnswer(step);
        }
        Set<EvidenceKind> says = new LinkedHashSet<>();
        results.forEach(r -> CardState.saidBy(step, r).ifPresent(says::add));
        String advice = says.stream()
                .map(EvidenceKind::advice)
                .filter(a -> !a.isBlank())
                .collect(Collectors.joining(" "));
        CardState next = card.answered(
                step,
                String.join(", ", results),
                results.stream().noneMatch(inspect.bad()::contains),
                Optional.of(advice).filter(a -> !a.isEmpty()),
                entry);
        if (says.isEmpty()) {
            return next;
        }
        next = next.noted(entry);
        if (RoutedCard.searches(step, inspect, e.result())) {
            return next.recorded(List.of(RoutedCard.missing(step)))
                    .with(next.scope().mishap(), entry.seq());
        }
        boolean broken = says.contains(EvidenceKind.BELT_FAILED);
        return broken && timingIsOpen() ? scratch(next) : next;
    }

    /** The old part goes back, as far as the new one is not on yet. */
    private CardState goesBack(GoesBack e) {
        CardAside.words(e.why(), true);
        if (!card.mayGoBack().contains(e.item())) {
            throw new CardRefused(
                    Kind.WRONG_ANSWER,
                    card.scope().items().contains(e.item())
                            ? "The new part is on already, or waits for the owner: %s.".formatted(nameOf(e.item()))
                            : "This card does not renew %s.".formatted(nameOf(e.item())));
        }
        return card.with(card.scope().without(e.item()), entry.seq()).noted(entry);
    }

    private CardState choose(Chosen e) {
        Step step = answerable(e.step());
        if (!(step.task() instanceof Task.Choose choose)) {
            throw wrongAnswer(step);
        }
        Task.Choose.Option option = choose.option(e.option()).orElseThrow(() -> wrongAnswer(step));
        CardAside.words(e.reason(), option.needsReason());
        String words =
                option.words() + (e.reason().isBlank() ? "" : ": " + e.reason().strip());
        Answer answer = new Answer(
                words,
                true,
                entry.by(),
                entry.at(),
                entry.seq(),
                OptionalDouble.empty(),
                Optional.empty(),
                option.needsReason() && choose.what() != Task.Choose.Changes.ENDING);
        CardScope scope = card.scope();
        scope = switch (choose.what()) {
            case NOTHING, ENDING -> scope;
            case VARIANT -> scope.settled(Map.of(variantOf(step), option.code()));
            case REFERENCE -> scope.paint(option.code().equals("paint"));
            case REFITTED -> scope.refitted(option.code().equals("same"));
        };
        CardState next = card.with(scope, entry.seq()).answered(step, answer);
        return choose.what() == Task.Choose.Changes.ENDING ? next.noted(entry) : next;
    }

    private static String variantOf(Step step) {
        return step.code().substring("variant-".length());
    }

    private CardState check(Checked e) {
        Step step = answerable(e.step());
        if (!(step.task() instanceof Task.Check check) || !check.points().containsAll(e.wrong())) {
            throw wrongAnswer(step);
        }
        if (e.wrong().isEmpty()) {
            return answered(step, "all %d %s".formatted(check.points().size(), check.right()), true);
        }
        return answered(step, check.wrong() + ": " + String.join(", ", sorted(e.wrong())), false);
    }

    private CardState measure(Measured e) {
        Step step = answerable(e.step());
        if (!(step.task() instanceof Task.Measure m) || !Double.isFinite(e.value()) || Math.abs(e.value()) > 9_999) {
            throw wrongAnswer(step);
        }
        boolean good = e.value() >= m.low() - 1e-9 && e.value() <= m.high() + 1e-9;
        String figure = CardSteps.number(e.value())
                + " "
                + m.unit()
                + e.simulatedBy().map(s -> " (simulated by the " + s + ")").orElse("");
        boolean volume = m.kind() == Task.Measure.Kind.COOLANT_IN || m.kind() == Task.Measure.Kind.COOLANT_OUT;
        if (volume && !good) {
            throw new CardRefused(
                    Kind.WRONG_ANSWER,
                    "A volume lies between %s and %s L.".formatted(m.low(), CardSteps.number(m.high())));
        }
        if (volume) {
            Optional<String> hint =
                    m.kind() == Task.Measure.Kind.COOLANT_IN ? shortOf(step, e.value()) : Optional.empty();
            return card.answered(step, figure, true, OptionalDouble.of(e.value()), hint, entry);
        }
        String window = m.isOpen()
                ? "at least " + CardSteps.number(m.low())
                : "%s to %s".formatted(CardSteps.number(m.low()), CardSteps.number(m.high()));
        String words = good ? figure : "%s, good is %s, %s".formatted(figure, window, offBy(e.value(), m));
        if (!good
                && step.provesTiming()
                && step.gate().filter(card.overrides()::containsKey).isEmpty()
                && !isSetOnly(step)) {
            return card.toBeProvenAgain(
                    "%s: %s".formatted(step.title().toLowerCase(java.util.Locale.ROOT), words),
                    entry,
                    card.hardStop(),
                    RoutedCard.tension(card, step));
        }
        return answered(step, words, good);
    }

    /** The figure is what the tension is set to, not what proves it: a wrong one is set once more, and nothing else. */
    private boolean isSetOnly(Step step) {
        return card.plan().layout() == CardPlan.Layout.ROUTED
                && !card.plan().isKeptAt(entry.seq())
                && step.operations().stream().noneMatch(o -> o.verb() == Verb.MEASURE);
    }

    private static String offBy(double value, Task.Measure m) {
        return value > m.high()
                ? "over by " + CardSteps.number(value - m.high())
                : "under by " + CardSteps.number(m.low() - value);
    }

    /** Says so where much less coolant went in than came out. */
    private Optional<String> shortOf(Step fill, double in) {
        OptionalDouble out = card.figure(fill.code().replace("fill", "drain"));
        if (out.isEmpty() || in >= out.getAsDouble() * (1 - COOLANT_SHORT) - 1e-9) {
            return Optional.empty();
        }
        return Optional.of(String.format(
                Locale.ROOT,
                "%s L in for %s L out, %.0f %% short: bleed again, check after the road test.",
                CardSteps.number(in),
                CardSteps.number(out.getAsDouble()),
                100 * (1 - in / out.getAsDouble())));
    }

    private CardState runs(RunsCounted e) {
        Step step = answerable(e.step());
        if (!(step.task() instanceof Task.Runs runs)
                || e.old().size() != runs.runs().size()
                || e.now().size() != runs.runs().size()
                || e.onWheels() < 0
                || e.now().stream().anyMatch(n -> n < 0 || n > runs.total())) {
            throw wrongAnswer(step);
        }
        List<String> faults = new ArrayList<>();
        for (int i = 0; i < e.old().size(); i++) {
            if (!e.old().get(i).equals(e.now().get(i))) {
                faults.add("%s %d, was %d"
                        .formatted(
                                CardSteps.lower(runs.runs().get(i)),
                                e.now().get(i),
                                e.old().get(i)));
            }
        }
        int sum = e.now().stream().mapToInt(Integer::intValue).sum() + e.onWheels();
        if (sum != runs.total()) {
            faults.add("they add up to %d, the belt has %d".formatted(sum, runs.total()));
        }
        return faults.isEmpty()
                ? answered(step, "%s, together %d".formatted(e.now(), sum), true)
                : answered(step, String.join("; ", faults), false);
    }

    private CardState fromMarkToMark(MarksCounted e) {
        Step step = answerable(e.step());
        if (!(step.task() instanceof Task.MarkToMark task)
                || Stream.of(e.old(), e.now())
                        .flatMap(t -> Stream.of(t.first(), t.again()))
                        .anyMatch(c -> c.size() != task.spans().size()
                                || c.stream().anyMatch(n -> n < 1 || n > task.total()))) {
            throw wrongAnswer(step);
        }
        List<String> faults = new ArrayList<>();
        countedAlike(task, "old", e.old(), faults);
        countedAlike(task, "new", e.now(), faults);
        for (int i = 0; i < task.spans().size(); i++) {
            int old = e.old().first().get(i);
            int now = e.now().first().get(i);
            if (old != now) {
                faults.add("%s: %d on the new, %d on the old"
                        .formatted(CardSteps.lower(task.spans().get(i)), now, old));
            }
        }
        int sum = e.now().first().stream().mapToInt(Integer::intValue).sum();
        if (sum != task.total()) {
            faults.add("they add up to %d, it has %d".formatted(sum, task.total()));
        }
        return faults.isEmpty()
                ? answered(
                        step,
                        "%s, together %d %s, old and new, each twice"
                                .formatted(
                                        e.now().first().stream()
                                                .map(String::valueOf)
                                                .collect(Collectors.joining(" + ")),
                                        sum,
                                        task.counted()),
                        true)
                : answered(step, String.join("; ", faults), false);
    }

    private static void countedAlike(Task.MarkToMark task, String which, CardEvent.Twice twice, List<String> faults) {
        for (int i = 0; i < task.spans().size(); i++) {
            if (!twice.first().get(i).equals(twice.again().get(i))) {
                faults.add("%s, %s: %d the first time, then %d"
                        .formatted(
                                CardSteps.lower(task.spans().get(i)),
                                which,
                                twice.first().get(i),
                                twice.again().get(i)));
            }
        }
    }

    private CardState pass(Passed e) {
        Step step = answerable(e.step());
        if (!(step.task() instanceof Task.Passes passes)) {
            throw wrongAnswer(step);
        }
        int done = card.passesDone(step);
        if (done >= passes.passes()) {
            throw new CardRefused(Kind.WRONG_ANSWER, "Every pass over %s is done.".formatted(passes.joint()));
        }
        return card.answered(
                step,
                "%d of %d passes".formatted(done + 1, passes.passes()),
                done + 1 == passes.passes(),
                OptionalDouble.of(done + 1),
                Optional.empty(),
                entry);
    }

    private CardState tighten(TorqueEntered e) {
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
                        "The book has no torque on file for %s: enter the book's value with its origin first."
                                .formatted(tighten.joint())));
        TorqueJudgement judgement = TorqueJudgement.of(spec, e.value(), e.unit());
        if (judgement.guard().isPresent() && !e.unitConfirmed()) {
            TorqueUnit meant = judgement.guard().get();
            throw new CardRefused(
                    Kind.UNIT_GUARD,
                    "%s %s is %s N·m; the book says %s N·m. %s or %s?"
                            .formatted(
                                    CardSteps.number(e.value()),
                                    e.unit().symbol(),
                                    CardSteps.number(judgement.entered().newtonMetres()),
                                    CardSteps.number(spec.torque().newtonMetres()),
                                    meant.symbol(),
                                    e.unit().symbol()),
                    Optional.empty(),
                    Optional.of(judgement));
        }
        boolean angleGood = spec.angleDegrees().isEmpty() || spec.angleDegrees().equals(e.angleDegrees());
        String words = CardSteps.number(e.value()) + " " + e.unit().symbol()
                + (e.unit() == TorqueUnit.NEWTON_METRE
                        ? ""
                        : " = " + CardSteps.number(judgement.entered().newtonMetres()) + " N·m")
                + angleWords(e.angleDegrees());
        return answered(step, words, judgement.inRange() && angleGood);
    }

    private static String angleWords(OptionalInt angle) {
        return angle.isPresent() ? " + " + angle.getAsInt() + "°" : "";
    }

    private CardState file(TorqueFiled e) {
        Step step = known(e.step());
        if (!(step.task() instanceof Task.Tighten tighten) || tighten.spec().isPresent()) {
            throw new CardRefused(Kind.WRONG_ANSWER, "The book has its torque already.");
        }
        CardAside.words(e.spec().origin(), true);
        if (!(e.spec().torque().newtonMetres() > 0)) {
            throw new CardRefused(Kind.WRONG_ANSWER, "A torque must be a number above zero.");
        }
        return card.with(card.scope().filed(tighten.jointCode(), e.spec()), entry.seq())
                .noted(entry);
    }

    private void earlierTurnDone(Task.Turn turn) {
        card.plan().steps().stream()
                .filter(s -> s.task() instanceof Task.Turn t && t.number() < turn.number())
                .filter(s -> !card.isGood(s))
                .findFirst()
                .ifPresent(s -> {
                    throw new CardRefused(Kind.WRONG_ANSWER, s.title() + " comes first.");
                });
    }

    private CardState marks(MarksRead e) {
        Step step = answerable(e.step());
        if (!(step.task() instanceof Task.TrueMarks task) || !task.references().containsAll(e.notTrue())) {
            throw wrongAnswer(step);
        }
        boolean afterTurns =
                step.gate().filter(g -> g == GateKind.REFERENCES_TRUE).isPresent();
        if (e.notTrue().isEmpty()) {
            CardState state = answered(step, "all " + task.references().size() + " true", true);
            return afterTurns ? state.withHardStop(false) : state;
        }
        String words = "not true: " + String.join(", ", sorted(e.notTrue()));
        if (afterTurns || (step.provesTiming() && turned())) {
            return card.toBeProvenAgain(words, entry, card.hardStop(), RoutedCard.timing(card, step));
        }
        return card.answered(step, words, false, MarksAdvice.of(task.references(), e.notTrue()), entry);
    }

    private boolean turned() {
        return card.plan().steps().stream()
                .anyMatch(s -> s.task() instanceof Task.Turn t && t.number() == 2 && card.isGood(s));
    }

    /** Steps by which the timing is found before a loop comes off. */
    private List<Step> finding() {
        return card.plan().steps().stream()
                .filter(s -> s.task() instanceof Task.TrueMarks
                        || s.task() instanceof Task.Check
                        || (s.task() instanceof Task.Confirm && !s.operations().isEmpty()))
                .filter(s -> s.gate().filter(g -> g == GateKind.REFERENCE_FOUND).isPresent())
                .toList();
    }

    /** The marks have not been found true yet, so that the engine may still prove to be out of time. */
    private boolean timingIsOpen() {
        return finding().stream().anyMatch(s -> !card.isGood(s));
    }

    private CardState outOfTime(String words) {
        CardAside.words(words, false);
        if (card.scope().outOfTime()) {
            return card.noted(entry);
        }
        if (!timingIsOpen()) {
            throw new CardRefused(
                    Kind.WRONG_ANSWER,
                    finding().isEmpty()
                            ? "On this card the drive stays on; its timing is not opened."
                            : "The marks were found true; undo that first.");
        }
        return scratch(card.noted(entry));
    }

    /** What was found says nothing any more; a pin that is in comes out before anything is moved. */
    private CardState scratch(CardState state) {
        List<Operation> lost = RoutedCard.foundOutOfTime(state);
        List<Operation> recorded = new ArrayList<>(RoutedCard.outAgain(state, lost));
        recorded.addAll(lost);
        Set<String> found = finding().stream()
                .filter(s -> !card.isGood(s) || !RoutedCard.staysFound(state, s, lost))
                .map(Step::code)
                .collect(Collectors.toSet());
        return state.without(found, entry.seq())
                .recorded(recorded)
                .with(state.scope().outOfTime(true), entry.seq());
    }

    private CardState undo(Undone e) {
        Step step = known(e.step());
        boolean branch = card.scope().outOfTime()
                && step.gate().filter(g -> g == GateKind.SAFE_POSITION).isPresent();
        if (branch && !card.answers().containsKey(step.code())) {
            List<Step> steps = card.plan().steps();
            boolean begun = steps.subList(card.plan().position(step) + 1, steps.size()).stream()
                    .map(Step::code)
                    .filter(c -> c.startsWith("camsin") || c.startsWith("marksin"))
                    .anyMatch(card.answers()::containsKey);
            if (begun) {
                throw new CardRefused(Kind.WRONG_ANSWER, "Work from scratch has begun; undo that first.");
            }
            return card.notLost().with(card.scope().outOfTime(false), entry.seq());
        }
        if (!card.answers().containsKey(step.code())) {
            return RoutedCard.repaired(step)
                    .map(joint -> whole(Operation.of(Verb.SHEARED, joint)).noted(entry))
                    .orElseThrow(() -> CardState.nothingToUndo(step.title()));
        }
        if (step.gate().isPresent()) {
            List<Step> steps = card.plan().steps();
            int position = step.gate().get() == GateKind.CRITICAL_TORQUES
                    ? card.plan().gatePositions().getOrDefault(GateKind.CRITICAL_TORQUES, -1)
                    : card.plan().position(step);
            for (Step later : steps.subList(position + 1, steps.size())) {
                if (card.answers().containsKey(later.code())) {
                    throw new CardRefused(
                            Kind.GATE_SHUT,
                            "\"%s\" was done relying on this; undo that first.".formatted(later.title()),
                            step.gate(),
                            Optional.empty());
                }
            }
        }
        CardScope scope = card.scope();
        if (step.task() instanceof Task.Choose choose) {
            scope = switch (choose.what()) {
                case NOTHING, ENDING -> scope;
                case VARIANT -> scope.unsettled(variantOf(step));
                case REFERENCE -> scope.paint(false);
                case REFITTED -> scope.refitted(false);
            };
        }
        boolean lookedFor = step.task() instanceof Task.Inspect inspect
                && RoutedCard.searches(
                        step,
                        inspect,
                        java.util.Objects.requireNonNull(card.answers().get(step.code()))
                                .words());
        if (lookedFor) {
            return card.takenBack(step, entry.seq())
                    .unrecorded(RoutedCard.missing(step))
                    .with(scope.mishap(), entry.seq())
                    .noted(entry);
        }
        CardState without = card.takenBack(step, entry.seq()).with(scope, entry.seq());
        // what a look had found goes with it
        return step.task() instanceof Task.Inspect ? without.noted(entry) : without;
    }

    /** What was recorded was a mistake: nothing broke off. */
    private CardState whole(Operation recorded) {
        return card.unrecorded(recorded).with(card.scope().mishap(), entry.seq());
    }

    private CardState deviate(Deviated e) {
        Step step = answerable(e.step());
        CardAside.words(e.reason(), true);
        Answer answer = card.answers().get(step.code());
        if (step.gate().isPresent() || step.provesTiming()) {
            throw new CardRefused(
                    Kind.NOT_ALLOWED,
                    "\"%s\" carries a gate; only the manager can let that pass.".formatted(step.title()),
                    step.gate(),
                    Optional.empty());
        }
        if (answer == null || !card.mayDeviate(step)) {
            throw new CardRefused(Kind.WRONG_ANSWER, "There is nothing to accept at \"%s\".".formatted(step.title()));
        }
        return card.answered(
                step,
                new Answer(
                        "%s; accepted: %s".formatted(answer.words(), e.reason().strip()),
                        true,
                        entry.by(),
                        entry.at(),
                        entry.seq(),
                        answer.figure(),
                        answer.hint(),
                        true));
    }

    private CardState complete(Completed e) {
        CardAside.words(e.note(), false);
        card.gates().stream().filter(g -> !g.open()).findFirst().ifPresent(g -> {
            throw CardState.shut(g);
        });
        card.scope().awaiting().stream().sorted().findFirst().ifPresent(item -> {
            throw new CardRefused(Kind.AWAITS_OWNER, "The owner has not answered yet: %s.".formatted(nameOf(item)));
        });
        List<Step> open = card.open();
        if (!open.isEmpty()) {
            throw new CardRefused(
                    Kind.STEPS_OPEN,
                    open.size() == 1
                            ? "One step is open: " + open.get(0).title() + "."
                            : "%d steps are open, first: %s."
                                    .formatted(open.size(), open.get(0).title()));
        }
        if (card.hardStop()) {
            throw new CardRefused(Kind.GATE_SHUT, "After a hard stop the timing must be proven again.");
        }
        if (e.workedMinutes().orElse(0) < 0 || e.workedMinutes().orElse(0) > 10_000) {
            throw new CardRefused(Kind.WRONG_ANSWER, "The time is zero to 166 hours.");
        }
        return card.signed(e, entry);
    }

    private String nameOf(String item) {
        return card.plan()
                .basis()
                .family()
                .item(item)
                .map(i -> CardSteps.lower(i.name()))
                .orElse(item);
    }

    private Step known(String code) {
        return card.plan()
                .step(code)
                .orElseThrow(() -> new CardRefused(Kind.UNKNOWN_STEP, "This card has no step " + code + "."));
    }

    private Step answerable(String code) {
        Step step = known(code);
        if (gatesHold) {
            card.gateInTheWayOf(step).ifPresent(g -> {
                throw CardState.shut(g);
            });
        }
        if (card.awaitsOwner(step)) {
            throw new CardRefused(Kind.AWAITS_OWNER, "\"%s\" waits for the owner's answer.".formatted(step.title()));
        }
        return step;
    }

    private CardState answered(Step step, String words, boolean good) {
        return card.answered(step, words, good, Optional.empty(), entry);
    }

    private static List<String> sorted(Set<String> words) {
        return words.stream().sorted().toList();
    }

    private static CardRefused wrongAnswer(Step step) {
        return new CardRefused(Kind.WRONG_ANSWER, "That is no answer to \"" + step.title() + "\".");
    }
}
