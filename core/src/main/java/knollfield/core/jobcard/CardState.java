package knollfield.core.jobcard;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Predicate;
import knollfield.core.bundle.FitCheck;
import knollfield.core.due.EvidenceKind;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;
import knollfield.core.jobcard.CardEvent.Completed;
import knollfield.core.jobcard.CardEvent.Found;
import knollfield.core.jobcard.CardEvent.GateOverridden;
import knollfield.core.jobcard.CardEvent.Inspected;
import knollfield.core.jobcard.CardEvent.Paused;
import knollfield.core.jobcard.CardEvent.Started;
import knollfield.core.jobcard.CardRefused.Kind;

/**
 * Where a card stands after its events. Every change goes through {@link #after}, which refuses what the gates do not
 * allow, so that a replayed card and a worked one are the same.
 *
 * @param plan the card as its scope now has it
 * @param answers by step code
 * @param overrides what a manager opened, by gate
 * @param hardStop a hard stop happened and the timing has not been proven since
 * @param paused what the job waits for
 * @param attempts those that failed, oldest first
 * @param journal entries beside the steps: findings, pauses, hand-overs, pictures and the like, oldest first
 * @param past what was done and stands on no step now: the card does not have it any more, or asks it once more
 * @param did all that hands have done, in that order, what was done twice twice
 */
public record CardState(
        CardPlan plan,
        Map<String, Answer> answers,
        Map<GateKind, Opened> overrides,
        Optional<CheckIn> checkIn,
        Optional<Signature> signature,
        boolean hardStop,
        Optional<Paused> paused,
        List<FailedAttempt> attempts,
        List<CardEntry> journal,
        Map<Operation, Answer> past,
        List<Operation> did,
        long seq) {

    /** After so many attempts the card asks for a second pair of eyes. */
    public static final int ATTEMPTS_ALONE = 3;

    /** A gate opened by a manager. */
    public record Opened(String words, String by, Instant at) {}

    public record CheckIn(Started event, String by, Instant at) {}

    public record Signature(Completed event, String by, Instant at) {}

    /** @param number 1 for the first */
    public record FailedAttempt(int number, String what, String by, Instant at) {}

    /**
     * Something found on the timing drive.
     *
     * @param item code of the item it was found on, where it is one
     */
    public record Finding(
            Optional<String> step,
            EvidenceKind kind,
            Optional<String> item,
            String words,
            String by,
            Instant at,
            long seq) {}

    public CardState {
        answers = Map.copyOf(answers);
        overrides = Map.copyOf(overrides);
        attempts = List.copyOf(attempts);
        journal = List.copyOf(journal);
        past = Map.copyOf(past);
        did = List.copyOf(did);
    }

    /** A card nobody has touched. */
    public static CardState fresh(CardPlan plan) {
        return new CardState(
                plan,
                Map.of(),
                Map.of(),
                Optional.empty(),
                Optional.empty(),
                false,
                Optional.empty(),
                List.of(),
                List.of(),
                Map.of(),
                List.of(),
                0);
    }

    /** The state after {@code entries}, in order of their numbers. */
    public static CardState replay(CardPlan plan, List<CardEntry> entries) {
        CardState state = fresh(plan);
        for (CardEntry entry : entries) {
            state = state.replayed(entry);
        }
        return state;
    }

    /** An entry that stands is taken, whatever the steps of its card are called by now. */
    private CardState replayed(CardEntry entry) {
        try {
            return after(entry);
        } catch (CardRefused e) {
            if (plan.layout() != CardPlan.Layout.BEGUN_BEFORE) {
                throw e;
            }
            return CardChange.ofEarlierRelease(this, entry).taken();
        }
    }

    /**
     * What was answered on a card of an early release at steps that are asked otherwise now, such as {@code tools}; empty
     * for every other card.
     */
    public List<String> answeredOtherwise() {
        return journal.stream()
                .map(CardEntry::event)
                .flatMap(e -> CardChange.stepOf(e).stream())
                .distinct()
                .toList();
    }

    /**
     * The state after one more event.
     *
     * @throws CardRefused where the card does not take it
     */
    public CardState after(CardEntry entry) {
        if (signature.isPresent()) {
            throw new CardRefused(Kind.ALREADY_SIGNED, "This card is signed; nothing more can be entered on it.");
        }
        return new CardChange(this, entry).made();
    }

    public Optional<Started> started() {
        return checkIn.map(CheckIn::event);
    }

    public Optional<Instant> startedAt() {
        return checkIn.map(CheckIn::at);
    }

    public Optional<Instant> completedAt() {
        return signature.map(Signature::at);
    }

    public CardScope scope() {
        return plan.basis().scope();
    }

    /** 1 for the first time the timing is set, one more for each time it had to be done again. */
    public int attempt() {
        return scope().attempt();
    }

    /** Entries of one kind beside the steps, oldest first. */
    public <E extends CardEvent> List<E> noted(Class<E> kind) {
        return journal.stream()
                .map(CardEntry::event)
                .filter(kind::isInstance)
                .map(kind::cast)
                .toList();
    }

    /** What was found on the timing drive, by a look or on its own; a look that was taken back has found nothing. */
    public List<Finding> findings() {
        List<Finding> findings = new ArrayList<>();
        List<Finding> looked = new ArrayList<>();
        for (CardEntry entry : journal) {
            if (entry.event() instanceof Found f) {
                findings.add(new Finding(f.step(), f.kind(), f.item(), f.words(), entry.by(), entry.at(), entry.seq()));
            } else if (entry.event() instanceof Inspected i) {
                plan.step(i.step())
                        .filter(s -> s.task() instanceof Task.Inspect)
                        .ifPresent(s -> ((Task.Inspect) s.task())
                                .chosen(i)
                                .forEach(result -> saidBy(s, result)
                                        .ifPresent(kind -> looked.add(new Finding(
                                                Optional.of(i.step()),
                                                kind,
                                                Optional.empty(),
                                                result,
                                                entry.by(),
                                                entry.at(),
                                                entry.seq())))));
            } else if (entry.event() instanceof CardEvent.Undone u) {
                looked.removeIf(f -> f.step().equals(Optional.of(u.step())));
            } else if (entry.event() instanceof CardEvent.OutOfTime o && !o.planned()) {
                findings.add(new Finding(
                        Optional.empty(),
                        EvidenceKind.OUT_OF_TIME,
                        Optional.empty(),
                        o.words(),
                        entry.by(),
                        entry.at(),
                        entry.seq()));
            }
        }
        findings.addAll(looked);
        findings.sort(Comparator.comparingLong(Finding::seq));
        return findings;
    }

    static Optional<EvidenceKind> saidBy(Step step, String result) {
        return step.task() instanceof Task.Inspect i
                ? Optional.ofNullable(i.says().get(result))
                : Optional.empty();
    }

    /** A bad answer that may be let pass with a reason: no gate rests on it, and it proves no timing. */
    public boolean mayDeviate(Step step) {
        Answer answer = answers.get(step.code());
        return answer != null
                && !answer.good()
                && step.gate().isEmpty()
                && !step.provesTiming()
                && !(step.task() instanceof Task.Passes);
    }

    /** Passes done over the pattern of {@code step}. */
    public int passesDone(Step step) {
        return (int) figure(step.code()).orElse(0);
    }

    /** What was counted or measured at a step. */
    OptionalDouble figure(String step) {
        Answer answer = answers.get(step);
        return answer == null ? OptionalDouble.empty() : answer.figure();
    }

    /** The cold coolant level is to be read after the job. */
    public boolean levelIsDeferred() {
        return plan.steps().stream()
                .filter(Step::mayFollow)
                .flatMap(s -> Optional.ofNullable(answers.get(s.code())).stream())
                .anyMatch(a -> a.words().equals(CardChange.TOMORROW));
    }

    /** Words about coolant that went in short of what came out. */
    public Optional<String> coolantShort() {
        return plan.steps().stream()
                .filter(s -> s.task() instanceof Task.Measure m && m.kind() == Task.Measure.Kind.COOLANT_IN)
                .flatMap(s -> Optional.ofNullable(answers.get(s.code())).stream())
                .flatMap(a -> a.hint().stream())
                .findFirst();
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
        Optional<String> words = Optional.ofNullable(overrides.get(kind)).map(Opened::words);
        if (words.isPresent()) {
            return new GateState(kind, true, Optional.empty(), words);
        }
        Optional<String> waitsFor =
                plan.feeding(kind).stream().filter(s -> !isGood(s)).findFirst().map(this::whatIsMissing);
        return new GateState(kind, waitsFor.isEmpty(), waitsFor, Optional.empty());
    }

    /** The first step that can be answered now and has no good answer; empty when all are done, or it is signed. */
    public Optional<Step> next() {
        if (signature.isPresent()) {
            return Optional.empty();
        }
        List<Step> open = open();
        Set<String> waits = waiting();
        return open.stream()
                .filter(s -> !waits.contains(s.code()))
                .findFirst()
                .or(() -> open.stream().findFirst());
    }

    /** Nothing in the book and no law keeps an open step waiting; the gates keep the line all the same. */
    public boolean mayBeDoneNow(Step step) {
        return checkIn.isPresent()
                && !step.operations().isEmpty()
                && !isSettled(step)
                && step.after().stream().flatMap(c -> plan.step(c).stream()).allMatch(this::isSettled);
    }

    /** Share of the card's steps that are settled, 0 to 1. */
    public double share() {
        return plan.steps().isEmpty()
                ? 0
                : plan.steps().stream().filter(this::isSettled).count()
                        / (double) plan.steps().size();
    }

    /** Steps without a good answer that no manager has let pass. */
    List<Step> open() {
        return plan.steps().stream().filter(s -> !isSettled(s)).toList();
    }

    boolean isGood(Step step) {
        Answer answer = answers.get(step.code());
        return answer != null && answer.good();
    }

    /** Answered well, or answered somehow behind a gate that a manager opened. */
    public boolean isSettled(Step step) {
        return isGood(step) || step.gate().filter(overrides::containsKey).isPresent();
    }

    /** True where the step serves an item the owner has not agreed to yet, or comes after one that does. */
    public boolean awaitsOwner(Step step) {
        return waiting().contains(step.code());
    }

    private Set<String> waiting() {
        if (scope().awaiting().isEmpty()) {
            return Set.of();
        }
        Set<String> waits = new HashSet<>();
        for (Step s : plan.steps()) {
            boolean serves = s.serves().filter(scope().awaiting()::contains).isPresent();
            if (!isSettled(s) && (serves || s.after().stream().anyMatch(waits::contains))) {
                waits.add(s.code());
            }
        }
        return waits;
    }

    /**
     * The first shut gate before {@code step}. What feeds a gate holds up whatever comes after it; the torques alone are
     * waited for together, after the last of them.
     */
    Optional<GateState> gateInTheWayOf(Step step) {
        List<Step> steps = plan.steps();
        int position = plan.position(step);
        // what waits for the owner holds up what comes after it, and nothing else
        Set<String> waits = waiting();
        Map<GateKind, Integer> last = plan.gatePositions();
        for (Step earlier : steps.subList(0, Math.max(position, 0))) {
            if (earlier.gate().isEmpty()
                    || isSettled(earlier)
                    || earlier.gate().equals(step.gate())
                    || waits.contains(earlier.code())) {
                continue;
            }
            GateKind kind = earlier.gate().get();
            if (kind != GateKind.CRITICAL_TORQUES || last.getOrDefault(kind, 0) < position) {
                return Optional.of(gate(kind));
            }
        }
        return Optional.empty();
    }

    private String whatIsMissing(Step step) {
        Answer answer = answers.get(step.code());
        if (step.task() instanceof Task.Count count) {
            return answer == null
                    ? "count %d %s".formatted(count.expected(), count.what())
                    : "%s %s, %d are needed".formatted(answer.words(), count.what(), count.expected());
        }
        if (step.task() instanceof Task.Tighten tighten) {
            return answer == null
                    ? tighten.joint() + (tighten.spec().isEmpty() ? ": torque not on file" : " not measured")
                    : tighten.joint() + " out of range: " + answer.words();
        }
        if (step.task() instanceof Task.Turn turn) {
            return "turn %d of 2 not done".formatted(turn.number());
        }
        if (answer != null) {
            return answer.words();
        }
        if (step.task() instanceof Task.TrueMarks) {
            return "not looked at yet";
        }
        if (step.task() instanceof Task.Measure) {
            return "not measured yet";
        }
        return step.task() instanceof Task.Choose ? "not settled yet" : "not confirmed yet";
    }

    CardState with(CardScope scope, long at) {
        return on(plan.with(scope, at, this), at);
    }

    /** What is done stands on {@code next} as far as that does not ask it again. */
    private CardState on(CardPlan next, long at) {
        return new CardState(
                next,
                Standing.on(this, next),
                overrides,
                checkIn,
                signature,
                hardStop,
                paused,
                attempts,
                journal,
                Standing.past(this, next),
                did,
                at);
    }

    CardState with(Map<String, Answer> other, long at) {
        return new CardState(
                plan, other, overrides, checkIn, signature, hardStop, paused, attempts, journal, past, did, at);
    }

    CardState answered(Step step, String words, boolean good, Optional<String> hint, CardEntry entry) {
        return answered(step, words, good, OptionalDouble.empty(), hint, entry);
    }

    CardState answered(
            Step step, String words, boolean good, OptionalDouble figure, Optional<String> hint, CardEntry entry) {
        return answered(step, new Answer(words, good, entry.by(), entry.at(), entry.seq(), figure, hint, false));
    }

    CardState answered(Step step, Answer answer) {
        Map<String, Answer> all = new HashMap<>(answers);
        Answer before = all.put(step.code(), answer);
        CardState with = with(all, answer.seq());
        boolean news = answer.good() && (before == null || !before.good());
        return news ? with.having(doneAfter(step)) : with;
    }

    /** What hands have done once {@code step} is answered; of several steps of one thing the first does it. */
    private List<Operation> doneAfter(Step step) {
        List<Operation> all = new ArrayList<>(did);
        step.operations().stream()
                .filter(o -> plan.steps().stream()
                        .filter(s -> s.operations().contains(o))
                        .findFirst()
                        .filter(s -> s.code().equals(step.code()))
                        .isPresent())
                .forEach(all::add);
        return all;
    }

    /** An answer that was a mistake: nothing was done. */
    CardState takenBack(Step step, long at) {
        List<Operation> all = new ArrayList<>(did);
        step.operations().forEach(o -> {
            int last = all.lastIndexOf(o);
            if (last >= 0) {
                all.remove(last);
            }
        });
        return without(Set.of(step.code()), at).having(all);
    }

    /** With what is no step of the card: loops found out of time, pins out again because of it. */
    CardState recorded(List<Operation> more) {
        List<Operation> all = new ArrayList<>(did);
        all.addAll(more);
        return having(all);
    }

    /** What was recorded last of {@code operation} was a mistake. */
    CardState unrecorded(Operation operation) {
        List<Operation> all = new ArrayList<>(did);
        int last = all.lastIndexOf(operation);
        if (last >= 0) {
            all.remove(last);
        }
        return having(all);
    }

    /** Joints a step undoes or does up, name by code; none on cards of an older layout. */
    public Map<String, String> joints(Step step) {
        return plan.layout() == CardPlan.Layout.ROUTED ? RoutedCard.joints(this, step) : Map.of();
    }

    /** What an inspection came to; empty before that was decided, and on every other card. */
    public Optional<InspectionEnd.Decided> inspectionEnd() {
        return Optional.ofNullable(plan.isInspection() ? answers.get(InspectionCard.END) : null)
                .flatMap(a -> journal.stream()
                        .filter(e -> e.seq() == a.seq())
                        .map(CardEntry::event)
                        .filter(CardEvent.Chosen.class::isInstance)
                        .map(CardEvent.Chosen.class::cast)
                        .map(c -> new InspectionEnd.Decided(
                                InspectionEnd.valueOf(c.option()), c.reason().strip()))
                        .findFirst());
    }

    /** Chain slack outside the book's figure that was accepted with words, each as one sentence. */
    public List<String> slackAccepted() {
        return plan.isInspection()
                ? accepted(s -> s.code().startsWith(InspectionCard.SLACK) && s.task() instanceof Task.Measure)
                : List.of();
    }

    /** Valve clearances outside their limits that were accepted with words, each as one sentence. */
    public List<String> clearancesAccepted() {
        return accepted(s -> s.task() instanceof Task.Measure m && m.kind() == Task.Measure.Kind.CLEARANCE);
    }

    private List<String> accepted(Predicate<Step> which) {
        return plan.steps().stream()
                .filter(which)
                .flatMap(s -> Optional.ofNullable(answers.get(s.code())).stream()
                        .filter(Answer::deviation)
                        .map(a -> s.title() + ": " + a.words()))
                .toList();
    }

    /** Who did the work that an entry typed in from paper tells of; empty for one made at the bench. */
    public Optional<String> onPaperBy(long seq) {
        return journal.stream()
                .filter(e ->
                        e.event() instanceof CardEvent.FromPaper p && seq > e.seq() && seq <= e.seq() + p.entries())
                .map(e -> ((CardEvent.FromPaper) e.event()).workedBy())
                .findFirst();
    }

    /** Batches read off new parts, by item; the last one counts. */
    public Map<String, String> batches() {
        Map<String, String> all = new HashMap<>();
        noted(CardEvent.BatchRead.class)
                .forEach(e -> all.put(e.item(), e.batch().strip()));
        return all;
    }

    /** New parts as they were measured in hand, by item; the last one counts. */
    public Map<String, FitCheck.Data> partsMeasured() {
        Map<String, FitCheck.Data> all = new HashMap<>();
        noted(CardEvent.PartMeasured.class).forEach(e -> all.put(e.item(), e.seen()));
        return all;
    }

    /** Pieces of the tool set that could not be worked with, by name; the last report of each counts. */
    public Map<String, CardEvent.ToolFailed> toolsFailed() {
        Map<String, CardEvent.ToolFailed> all = new HashMap<>();
        noted(CardEvent.ToolFailed.class).forEach(e -> all.put(e.piece(), e));
        return all;
    }

    /**
     * What was found and asks for a part that the book does not have, and nobody has told of the work for it yet: a line of
     * its own, with its price.
     */
    public Set<EvidenceKind> withoutALine() {
        Set<EvidenceKind> all = new TreeSet<>();
        for (Finding f : findings()) {
            boolean noPart = !f.kind().asksFor().isEmpty()
                    && plan.basis().family().items().stream()
                            .noneMatch(i -> f.kind().asksFor().contains(i.kind()));
            boolean told = moreWork().values().stream()
                    .anyMatch(m -> m.what().startsWith(f.kind().words()));
            if (noPart && !told) {
                all.add(f.kind());
            }
        }
        return all;
    }

    /** Work nobody planned, by the number of its entry; a stud that did not break after all is none. */
    public SortedMap<Long, CardEvent.Contingency> moreWork() {
        SortedMap<Long, CardEvent.Contingency> all = new TreeMap<>();
        for (CardEntry entry : journal) {
            if (entry.event() instanceof CardEvent.Contingency c) {
                all.put(entry.seq(), c);
            } else if (entry.event() instanceof CardEvent.Undone u) {
                all.values()
                        .removeIf(c -> c.joint()
                                .filter(j -> u.step()
                                        .equals(Operation.of(Verb.REPAIR, j).code()))
                                .isPresent());
            }
        }
        return all;
    }

    /** Minutes of {@link #moreWork()}. */
    public int moreMinutes() {
        return moreWork().values().stream()
                .mapToInt(CardEvent.Contingency::minutes)
                .sum();
    }

    /** Valve clearances are asked for, and every one was measured within its limits. */
    public boolean clearancesSet() {
        List<Step> asked = plan.steps().stream()
                .filter(s -> s.task() instanceof Task.Measure m && m.kind() == Task.Measure.Kind.CLEARANCE)
                .toList();
        return !asked.isEmpty()
                && asked.stream()
                        .allMatch(s -> Optional.ofNullable(answers.get(s.code()))
                                .filter(a -> a.good() && !a.deviation())
                                .isPresent());
    }

    /** Codes of the items whose old part can still go back, because the new one is not on. */
    public Set<String> mayGoBack() {
        boolean underWay = checkIn.isPresent() && signature.isEmpty();
        return underWay && plan.layout() == CardPlan.Layout.ROUTED ? RoutedCard.mayGoBack(this) : Set.of();
    }

    /** That a loop is out of time was a mistake. */
    CardState notLost() {
        return having(did.stream().filter(o -> o.verb() != Verb.LOST).toList());
    }

    private CardState having(List<Operation> done) {
        return new CardState(
                plan, answers, overrides, checkIn, signature, hardStop, paused, attempts, journal, past, done, seq);
    }

    CardState without(Set<String> steps, long at) {
        Map<String, Answer> left = new HashMap<>(answers);
        left.keySet().removeAll(steps);
        return with(left, at);
    }

    CardState noted(CardEntry entry) {
        List<CardEntry> all = new ArrayList<>(journal);
        all.add(entry);
        return new CardState(
                plan, answers, overrides, checkIn, signature, hardStop, paused, attempts, all, past, did, entry.seq());
    }

    CardState with(Optional<Paused> pause, CardEntry entry) {
        return new CardState(
                        plan,
                        answers,
                        overrides,
                        checkIn,
                        signature,
                        hardStop,
                        pause,
                        attempts,
                        journal,
                        past,
                        did,
                        entry.seq())
                .noted(entry);
    }

    CardState withHardStop(boolean value) {
        return new CardState(
                plan, answers, overrides, checkIn, signature, value, paused, attempts, journal, past, did, seq);
    }

    CardState opened(GateOverridden e, CardEntry entry) {
        Map<GateKind, Opened> all = new EnumMap<>(GateKind.class);
        all.putAll(overrides);
        all.put(e.gate(), new Opened(e.words().strip(), entry.by(), entry.at()));
        return new CardState(
                plan, answers, all, checkIn, signature, hardStop, paused, attempts, journal, past, did, entry.seq());
    }

    CardState checkedIn(Started event, CardEntry entry) {
        CardPlan begun = event.fixed()
                .map(f -> plan.laid(
                        new CardBasis(
                                plan.basis().family(),
                                f.equipment(),
                                f.variants().keySet(),
                                scope().on(f.items()).settled(f.variants())),
                        entry.seq(),
                        this))
                .orElse(plan);
        return new CardState(
                begun,
                answers,
                overrides,
                Optional.of(new CheckIn(event, entry.by(), entry.at())),
                signature,
                hardStop,
                paused,
                attempts,
                journal,
                past,
                did,
                entry.seq());
    }

    CardState signed(Completed event, CardEntry entry) {
        return new CardState(
                plan,
                answers,
                overrides,
                checkIn,
                Optional.of(new Signature(event, entry.by(), entry.at())),
                false,
                paused,
                attempts,
                journal,
                past,
                did,
                entry.seq());
    }

    /**
     * The attempt counts up: normal work, not shame. What did not prove is done once more, with all that opens it; where
     * that cannot be worked out from how the engine stands, everything that proved the timing is taken back.
     *
     * @param redo what is done once more; empty where nothing was laid yet
     */
    CardState toBeProvenAgain(String what, CardEntry entry, boolean stopped, Optional<Progress.Redo> redo) {
        List<FailedAttempt> failed = new ArrayList<>(attempts);
        failed.add(new FailedAttempt(attempt(), what, entry.by(), entry.at()));
        CardScope scope = scope().attempt(attempt() + 1);
        CardPlan corrected = plan.corrected(scope, entry.seq(), this, redo);
        CardState next = corrected.layout() != CardPlan.Layout.ROUTED || corrected.correctsByList()
                ? withoutProofs(entry).on(corrected, entry.seq())
                : recorded(redo.map(Progress.Redo::lost).orElse(List.of())).on(corrected, entry.seq());
        return new CardState(
                next.plan,
                next.answers,
                overrides,
                checkIn,
                signature,
                stopped,
                paused,
                failed,
                journal,
                next.past,
                next.did,
                entry.seq());
    }

    private CardState withoutProofs(CardEntry entry) {
        Set<String> proofs = new HashSet<>();
        CardState undone = this;
        for (Step s : plan.steps()) {
            if (s.provesTiming()) {
                proofs.add(s.code());
                undone = answers.containsKey(s.code()) ? undone.takenBack(s, entry.seq()) : undone;
            }
        }
        return undone.without(proofs, entry.seq());
    }

    static CardRefused shut(GateState gate) {
        return new CardRefused(
                Kind.GATE_SHUT,
                "%s: %s.".formatted(gate.kind().words(), gate.waitsFor().orElse("still shut")),
                Optional.of(gate.kind()),
                Optional.empty());
    }

    static CardRefused nothingPlain(String title) {
        return new CardRefused(Kind.WRONG_ANSWER, "Nothing plain is left to tick in %s.".formatted(title));
    }

    static CardRefused nothingToUndo(String title) {
        return new CardRefused(Kind.WRONG_ANSWER, "There is nothing to undo at \"%s\".".formatted(title));
    }
}
