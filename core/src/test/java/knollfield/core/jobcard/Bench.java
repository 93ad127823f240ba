package knollfield.core.jobcard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/** A bench: keeps the entries, applies them as the server does. */
final class Bench {

    static final Instant NOW = Instant.parse("2026-11-25T09:00:00Z");

    final CardPlan plan;
    final List<CardEntry> entries = new ArrayList<>();
    CardState state;

    Bench(CardPlan plan) {
        this.plan = plan;
        state = CardState.fresh(plan);
    }

    Bench enter(CardEvent event) {
        return enter(event, false);
    }

    Bench enter(CardEvent event, boolean manager) {
        return enter(event, manager ? "Ines Carrow" : "Hedra Voss", manager);
    }

    Bench enter(CardEvent event, String by, boolean manager) {
        CardEntry entry = new CardEntry(state.seq() + 1, NOW.plusSeconds(60 * entries.size()), by, manager, event);
        state = state.after(entry);
        entries.add(entry);
        return this;
    }

    Bench started() {
        return enter(new CardEvent.Started(138_000, "keys here"));
    }

    /** Answers every step well until the one named, not including it. */
    Bench until(String code) {
        while (state.next().isPresent() && !state.next().orElseThrow().code().equals(code)) {
            enter(BookAnswer.to(state.next().orElseThrow()));
        }
        assertThat(state.next()).hasValueSatisfying(s -> assertThat(s.code()).isEqualTo(code));
        return this;
    }

    Bench toTheEnd() {
        while (state.next().isPresent()) {
            enter(BookAnswer.to(state.next().orElseThrow()));
        }
        return this;
    }

    CardRefused refused(CardEvent event) {
        CardRefused refusal = catchThrowableOfType(CardRefused.class, () -> enter(event));
        assertThat(refusal).as("refusal of %s", event).isNotNull();
        return refusal;
    }
}
