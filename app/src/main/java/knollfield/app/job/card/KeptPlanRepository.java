package knollfield.app.job.card;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.engine.EngineFamily;
import knollfield.core.jobcard.CardBasis;
import knollfield.core.jobcard.CardPlan;
import knollfield.core.jobcard.CardScope;
import knollfield.core.jobcard.Phase;
import knollfield.core.jobcard.Task;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** Plans of cards as they were laid; kept beside the entry that asked for them, and never laid anew. */
@Repository
class KeptPlanRepository {

    /** How a kept plan was laid, by its number in the database. */
    private static final Map<Integer, CardPlan.Layout> LAYOUTS = Map.of(
            0, CardPlan.Layout.BEGUN_BEFORE,
            1, CardPlan.Layout.LISTED,
            2, CardPlan.Layout.ROUTED_AT_FIRST,
            3, CardPlan.Layout.ROUTED,
            4, CardPlan.Layout.INSPECTION);

    private final JdbcClient jdbc;
    private final JsonMapper json;

    KeptPlanRepository(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = tasks(json);
    }

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "asks")
    @JsonSubTypes({
        @JsonSubTypes.Type(value = Task.Tick.class, name = "tick"),
        @JsonSubTypes.Type(value = Task.Confirm.class, name = "confirm"),
        @JsonSubTypes.Type(value = Task.Inspect.class, name = "inspect"),
        @JsonSubTypes.Type(value = Task.Choose.class, name = "choose"),
        @JsonSubTypes.Type(value = Task.Count.class, name = "count"),
        @JsonSubTypes.Type(value = Task.Check.class, name = "check"),
        @JsonSubTypes.Type(value = Task.Measure.class, name = "measure"),
        @JsonSubTypes.Type(value = Task.Runs.class, name = "runs"),
        @JsonSubTypes.Type(value = Task.MarkToMark.class, name = "markToMark"),
        @JsonSubTypes.Type(value = Task.Passes.class, name = "passes"),
        @JsonSubTypes.Type(value = Task.Tighten.class, name = "tighten"),
        @JsonSubTypes.Type(value = Task.Turn.class, name = "turn"),
        @JsonSubTypes.Type(value = Task.TrueMarks.class, name = "marks")
    })
    private interface TaskNames {}

    /**
     * A plan without its book, which is on file in the version the job was built on.
     *
     * @param askedAgain null on plans kept before steps could be asked again
     */
    private record Body(
            CardScope scope,
            Set<String> equipment,
            Set<String> settledBefore,
            List<Phase> phases,
            int bookMinutes,
            OptionalInt turnsUntilPaintReturns,
            @Nullable Set<String> askedAgain) {}

    /** Plans of a card by the number of the entry that asked for them. */
    Map<Long, CardPlan> of(long jobId, EngineFamily family) {
        Map<Long, CardPlan> plans = new HashMap<>();
        jdbc.sql("SELECT seq, layout, body FROM card_plan WHERE job_id = :job")
                .param("job", jobId)
                .query((rs, row) -> plans.put(
                        rs.getLong("seq"),
                        plan(
                                json,
                                rs.getString("body"),
                                family,
                                Objects.requireNonNull(LAYOUTS.get(rs.getInt("layout"))))))
                .list();
        return plans;
    }

    static JsonMapper tasks(JsonMapper json) {
        return json.rebuild()
                .addMixIn(Task.class, TaskNames.class)
                // what plans kept earlier do not count yet is none
                .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                .build();
    }

    /**
     * A plan as its body was written.
     *
     * @param tasks made by {@link #tasks}: what it has learned of the types is what takes its time
     */
    static CardPlan plan(JsonMapper tasks, String body, EngineFamily family, CardPlan.Layout layout) {
        Body b = tasks.readValue(body, Body.class);
        return CardPlan.kept(
                new CardBasis(family, b.equipment(), b.settledBefore(), b.scope()),
                b.phases(),
                b.bookMinutes(),
                b.turnsUntilPaintReturns(),
                layout,
                b.askedAgain() == null ? Set.of() : b.askedAgain());
    }

    private static int number(CardPlan.Layout layout) {
        return LAYOUTS.entrySet().stream()
                .filter(l -> l.getValue() == layout)
                .map(Map.Entry::getKey)
                .findFirst()
                .orElseThrow();
    }

    void keep(long jobId, long seq, CardPlan plan) {
        CardBasis basis = plan.basis();
        Body body = new Body(
                basis.scope(),
                basis.equipment(),
                basis.settledBefore(),
                plan.phases(),
                plan.bookMinutes(),
                plan.turnsUntilPaintReturns(),
                plan.askedAgain());
        jdbc.sql("""
                        INSERT INTO card_plan (job_id, seq, layout, body)
                        VALUES (:job, :seq, :layout, :body)
                        """)
                .param("job", jobId)
                .param("seq", seq)
                .param("layout", number(plan.layout()))
                .param("body", json.writeValueAsString(body))
                .update();
    }
}
