package knollfield.app.job.card;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import knollfield.app.Server;
import knollfield.core.engine.EngineFamily;
import knollfield.core.jobcard.BookAnswer;
import knollfield.core.jobcard.CardBasis;
import knollfield.core.jobcard.CardEntry;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardGenerator;
import knollfield.core.jobcard.CardPlan;
import knollfield.core.jobcard.CardScope;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.Progress;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Cards of each release, as its database held them, are opened, go on, and read as they read then. A golden card is never
 * written anew; a release adds its own.
 */
class GoldenCardTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    @ParameterizedTest(name = "{0}")
    @CsvSource({
        "release-0-half-done.json",
        "release-0-signed.json",
        "release-1-half-done.json",
        "release-1-signed.json",
        "release-2-half-done.json",
        "release-3-listed-half-done.json",
        "release-3-listed-laying.json"
    })
    void opensAndReadsAsItReadThen(String file) throws IOException {
        JsonMapper json = SERVER.bean(JsonMapper.class);
        JsonNode golden;
        try (InputStream in = Objects.requireNonNull(GoldenCardTest.class.getResourceAsStream("/golden/" + file))) {
            golden = json.readTree(in);
        }
        EngineFamily family = json.treeToValue(golden.get("family"), EngineFamily.class);
        List<CardEntry> entries = entries(golden, json);

        CardState state = CardState.replay(begun(golden, family, json), entries);

        Map<String, String> answers = new HashMap<>();
        state.answers().forEach((step, answer) -> answers.put(step, answer.words()));
        Map<String, String> then = new HashMap<>();
        golden.get("answers")
                .propertyStream()
                .forEach(a -> then.put(a.getKey(), a.getValue().asString()));
        assertThat(answers).isEqualTo(then);
        assertThat(state.signature().isPresent()).isEqualTo(golden.get("signed").asBoolean());
        assertThat(state.next().map(s -> s.code()).orElse(""))
                .isEqualTo(golden.get("next").asString());
        if (state.signature().isEmpty()) {
            goesOnAsItWasBegun(state);
        }
    }

    /** It is worked to its signature in the layout it was begun in. */
    private static void goesOnAsItWasBegun(CardState begun) {
        CardState state = begun;
        while (state.next().isPresent()) {
            state = entered(state, BookAnswer.to(state.next().get()));
        }
        state = entered(state, new CardEvent.Completed(""));

        assertThat(state.signature()).isPresent();
        assertThat(state.plan().layout()).isEqualTo(begun.plan().layout());
    }

    private static CardState entered(CardState state, CardEvent event) {
        return state.after(
                new CardEntry(state.seq() + 1, Instant.parse("2026-11-28T08:00:00Z"), "Hedra Voss", false, event));
    }

    private static CardPlan begun(JsonNode golden, EngineFamily family, JsonMapper json) {
        Map<Long, CardPlan> plans = new HashMap<>();
        JsonMapper tasks = KeptPlanRepository.tasks(json);
        golden.get("plans")
                .propertyStream()
                .forEach(p -> plans.put(
                        Long.valueOf(p.getKey()),
                        KeptPlanRepository.plan(tasks, p.getValue().toString(), family, layout(family))));
        if (plans.containsKey(1L)) {
            return plans.get(1L).keeping(plans);
        }
        Set<String> items = new HashSet<>();
        golden.get("items").valueStream().forEach(i -> items.add(i.asString()));
        Set<String> equipment = new HashSet<>();
        golden.get("equipment").valueStream().forEach(e -> equipment.add(e.asString()));
        return CardGenerator.laid(
                new CardBasis(family, equipment, Set.of(), CardScope.of(items)),
                CardPlan.Layout.BEGUN_BEFORE,
                Progress.none());
    }

    /** Only books that said themselves how the engine is built gave worked-out cards up to release 3. */
    private static CardPlan.Layout layout(EngineFamily family) {
        return family.build().isPresent() ? CardPlan.Layout.ROUTED_AT_FIRST : CardPlan.Layout.LISTED;
    }

    private static List<CardEntry> entries(JsonNode golden, JsonMapper json) {
        List<CardEntry> entries = new ArrayList<>();
        golden.get("entries")
                .valueStream()
                .forEach(e -> entries.add(new CardEntry(
                        e.get("seq").asLong(),
                        Instant.parse(e.get("at").asString()),
                        e.get("by").asString(),
                        e.get("manager").asBoolean(),
                        event(e.get("event"), json))));
        return entries;
    }

    private static CardEvent event(JsonNode event, JsonMapper json) {
        return CardEventNames.read(CardEventNames.in(json), event);
    }
}
