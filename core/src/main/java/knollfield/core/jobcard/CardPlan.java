package knollfield.core.jobcard;

import java.util.Collections;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.core.engine.ToolSet;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.work.Verb;
import org.jspecify.annotations.Nullable;

/**
 * A generated job card, before anybody has touched it. It follows from its basis alone, so that two of one basis are
 * equal. A class, not a record, because a card is replayed often and looks its steps up in prepared lists.
 */
public final class CardPlan {

    private final CardBasis basis;
    private final List<Phase> phases;
    private final int bookMinutes;
    private final OptionalInt turnsUntilPaintReturns;
    private final List<Step> steps;
    private final Map<String, Step> byCode = new HashMap<>();
    private final Map<String, Integer> positions = new HashMap<>();
    private final Map<GateKind, Integer> gatePositions = new EnumMap<>(GateKind.class);
    /** Plans as they were laid when the card was worked, by the number of the entry that asked for them. */
    private Map<Long, CardPlan> kept = Map.of();

    private final Layout layout;
    private final Set<String> askedAgain;
    /** Worked out when it is first asked for. */
    private @Nullable Anatomy anatomy;

    /** How a plan is laid; a card goes on as it was begun. */
    public enum Layout {
        /** A list with conditions, as made before plans were kept; laid anew at each reading. */
        BEGUN_BEFORE,
        /** The same list, which closes all it opens. */
        LISTED,
        /** Worked out from the book and proven; answers go by the step alone when it is laid anew. */
        ROUTED_AT_FIRST,
        /** Worked out from the book and proven; answers go by what was done. */
        ROUTED,
        /** Nothing is opened and nothing renewed: an inspection. */
        INSPECTION
    }

    CardPlan(CardBasis basis, List<Phase> phases, int bookMinutes, OptionalInt turnsUntilPaintReturns, Layout layout) {
        this(basis, phases, bookMinutes, turnsUntilPaintReturns, layout, Set.of());
    }

    private CardPlan(
            CardBasis basis,
            List<Phase> phases,
            int bookMinutes,
            OptionalInt turnsUntilPaintReturns,
            Layout layout,
            Set<String> askedAgain) {
        this.basis = basis;
        this.askedAgain = Set.copyOf(askedAgain);
        this.layout = layout;
        this.phases = List.copyOf(phases);
        this.bookMinutes = bookMinutes;
        this.turnsUntilPaintReturns = turnsUntilPaintReturns;
        this.steps = this.phases.stream().flatMap(p -> p.steps().stream()).toList();
        for (int i = 0; i < steps.size(); i++) {
            Step step = steps.get(i);
            if (byCode.put(step.code(), step) != null) {
                throw new IllegalArgumentException("a card has two steps " + step.code());
            }
            positions.put(step.code(), i);
            int position = i;
            step.gate().ifPresent(g -> gatePositions.put(g, position));
        }
    }

    /** A plan as it was laid and kept; nothing is worked out anew. */
    public static CardPlan kept(
            CardBasis basis,
            List<Phase> phases,
            int bookMinutes,
            OptionalInt turnsUntilPaintReturns,
            Layout layout,
            Set<String> askedAgain) {
        return new CardPlan(basis, phases, bookMinutes, turnsUntilPaintReturns, layout, askedAgain);
    }

    /**
     * This plan on a card that was begun: where an entry asked for another plan, the one laid then is taken.
     *
     * @param plans by the number of the entry
     */
    public CardPlan keeping(Map<Long, CardPlan> plans) {
        CardPlan same = new CardPlan(basis, phases, bookMinutes, turnsUntilPaintReturns, layout, askedAgain);
        same.kept = Map.copyOf(plans);
        return same;
    }

    /** How it was laid, and how the card goes on. */
    public Layout layout() {
        return layout;
    }

    /** What did not prove is done once more by a list of steps, not worked out from how the engine stands. */
    boolean correctsByList() {
        return steps.stream().anyMatch(s -> s.code().startsWith(RoutedSteps.AGAIN));
    }

    /** Codes of steps that were done, and are asked once more on this plan because it opens them again. */
    public Set<String> askedAgain() {
        return askedAgain;
    }

    /** The engine as this card has it; for worked-out cards only. */
    Anatomy anatomy() {
        Anatomy known = anatomy;
        if (known == null) {
            known = RoutedCard.anatomy(basis);
            anatomy = known;
        }
        return known;
    }

    /** What it was generated from. */
    public CardBasis basis() {
        return basis;
    }

    public List<Phase> phases() {
        return phases;
    }

    /** Union of the access steps of the job, minutes of one technician. */
    public int bookMinutes() {
        return bookMinutes;
    }

    /** Crank turns after which paint marks on the loop line up again. */
    public OptionalInt turnsUntilPaintReturns() {
        return turnsUntilPaintReturns;
    }

    /** The card for another scope, as entry {@code seq} asks for it, in the middle of the work. */
    CardPlan with(CardScope scope, long seq, CardState state) {
        return scope.equals(basis.scope()) ? this : laid(basis.with(scope), seq, state);
    }

    /**
     * The card after something did not prove.
     *
     * @param redo what is done once more; empty where nothing was laid yet, so that the list says what is to be looked at
     */
    CardPlan corrected(CardScope scope, long seq, CardState state, Optional<Progress.Redo> redo) {
        CardBasis other = basis.with(scope);
        return kept(seq).orElseGet(() -> {
            Progress progress = progress(state, scope);
            return CardGenerator.laid(other, layout, redo.map(progress::toRedo).orElseGet(progress::correctedByList))
                    .keeping(kept);
        });
    }

    /** The plan kept with entry {@code seq}, or one laid now. */
    CardPlan laid(CardBasis other, long seq, CardState state) {
        return kept(seq)
                .orElseGet(() -> (isInspection()
                                ? InspectionCard.of(other, bookMinutes)
                                : CardGenerator.laid(other, layout, progress(state, other.scope())))
                        .keeping(kept));
    }

    /** Nothing is opened and nothing renewed on it. */
    public boolean isInspection() {
        return layout == Layout.INSPECTION;
    }

    /** An entry that asked for another plan when it was made does so again. */
    boolean isKeptAt(long seq) {
        return kept.containsKey(seq);
    }

    private Optional<CardPlan> kept(long seq) {
        return Optional.ofNullable(kept.get(seq)).map(p -> p.keeping(kept));
    }

    private Progress progress(CardState state, CardScope scope) {
        return layout == Layout.ROUTED ? Progress.of(state, scope) : Progress.none();
    }

    /** All steps in working order. */
    public List<Step> steps() {
        return steps;
    }

    public Optional<Step> step(String code) {
        return Optional.ofNullable(byCode.get(code));
    }

    public Optional<Phase> phase(String code) {
        return phases.stream().filter(p -> p.code().equals(code)).findFirst();
    }

    /** Where a step of this card stands in working order, from 0 on. */
    int position(Step step) {
        return positions.getOrDefault(step.code(), -1);
    }

    /** The gates of this card with the position of the last step that feeds each; what comes after waits for it. */
    public Map<GateKind, Integer> gatePositions() {
        return Collections.unmodifiableMap(gatePositions);
    }

    /** The pieces of the tool set this card works with: what is set in or holds, and what the book lists besides. */
    public List<String> toolPieces() {
        Stream<String> setIn = basis.family().build().stream()
                .flatMap(b -> b.hardware().stream())
                .filter(h -> h.kind() != Hardware.Kind.TENSIONER_PIN && h.kind() != Hardware.Kind.SUPPORT)
                .filter(h -> steps.stream()
                        .flatMap(s -> s.operations().stream())
                        .anyMatch(o -> o.verb() == Verb.SET_IN && o.thing().equals(h.code())))
                .map(h -> CardSteps.lower(h.name()));
        return Stream.concat(setIn, basis.family().tools().pieces().stream().map(ToolSet.Piece::name))
                .distinct()
                .toList();
    }

    /** Steps that feed {@code gate}, in working order. */
    public List<Step> feeding(GateKind gate) {
        return steps.stream()
                .filter(s -> s.gate().filter(g -> g == gate).isPresent())
                .toList();
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof CardPlan plan && plan.basis.equals(basis);
    }

    @Override
    public int hashCode() {
        return basis.hashCode();
    }

    @Override
    public String toString() {
        return "CardPlan[%s, %d steps]".formatted(basis.family().code(), steps.size());
    }
}
