package knollfield.app.practice;

import static org.assertj.core.api.Assertions.assertThat;

import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.Workbench;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** Practice and the small sums over HTTP. */
class PracticeApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;

    @BeforeEach
    void aFamily() {
        Given.family(SERVER);
        ines = SERVER.as("ines");
    }

    @Test
    void aRoundIsScoredAndTouchesNoRealData() {
        long log = count("vehicle_log");
        long entries = count("card_event");
        JsonNode round = ines.get("/api/practice/CAL-16?seed=7").ok().json();
        assertThat(round.get("path").get("pulleys")).isNotEmpty();
        String answers = """
                {"family": "CAL-16", "seed": 7, "turns": [%d], "order": ["crank"], "wheelOut": "%s", "teethOut": %d,
                 "decision": "STOP"}
                """.formatted(
                        round.get("startTeeth").asInt(),
                        round.get("wheelOut").asString(),
                        round.get("degreesOut").asDouble() > 0 ? 1 : -1);
        JsonNode marks = ines.post("/api/practice/marks", answers).ok().json();

        assertThat(marks.get("parts").get(0).get("points").asInt()).isEqualTo(25);
        assertThat(marks.get("parts").get(1).get("points").asInt()).isLessThan(25);
        assertThat(marks.get("parts").get(2).get("points").asInt()).isEqualTo(25);
        assertThat(count("vehicle_log")).isEqualTo(log);
        assertThat(count("card_event")).isEqualTo(entries);
        ines.get("/api/practice/NO-1?seed=7").problem(404, "not-found");
    }

    @Test
    void whatComesNextIsAnsweredByTheDryRunWithItsLaw() {
        long entries = count("card_event");
        int wrong = 0;
        for (int seed = 0; seed < 8; seed++) {
            JsonNode question =
                    ines.get("/api/practice/OST-20/next?seed=" + seed).ok().json();
            int right = 0;
            for (JsonNode choice : question.get("choices")) {
                JsonNode marks = ines.post(
                                "/api/practice/next",
                                "{\"family\": \"OST-20\", \"seed\": %d, \"choice\": \"%s\"}"
                                        .formatted(seed, choice.get("code").asString()))
                        .ok()
                        .json();
                boolean may = marks.get("may").valueStream().anyMatch(m -> m.equals(choice.get("title")));
                assertThat(marks.get("right").asBoolean()).isEqualTo(may);
                assertThat(marks.get("broken").isEmpty()).isEqualTo(may);
                right += may ? 1 : 0;
                wrong += may ? 0 : 1;
            }
            assertThat(right).isPositive();
        }
        assertThat(wrong).isPositive();
        assertThat(ines.post("/api/practice/next", "{\"family\": \"OST-20\", \"seed\": 1, \"choice\": \"none\"}")
                        .errorAt("/choice"))
                .contains("no such answer");
        assertThat(count("card_event")).isEqualTo(entries);
    }

    private static long count(String table) {
        return SERVER.jdbc()
                .sql("SELECT COUNT(*) FROM " + table)
                .query(Long.class)
                .single();
    }

    @Test
    void theSmallSumsAnswerAndRefuse() {
        // Common practice, no source: rules.md section 8 and procedure.md, 53 lb·ft against a book of 53 lb·in
        JsonNode torque = sum("torque", """
                {"value": 53, "unit": "POUND_FOOT", "bookValue": 53, "bookUnit": "POUND_INCH", "angleDegrees": 90}""");
        assertThat(torque.get("inRange").asBoolean()).isFalse();
        assertThat(torque.get("guard").asString()).isEqualTo("POUND_INCH");
        assertThat(torque.get("angleWords").asString()).isEqualTo("a quarter turn, 1.5 flats");
        // By rules.md section 8
        assertThat(sum("tension", "{\"kilogramsPerMetre\": 0.16, \"metres\": 0.12, \"hertz\": 85}")
                        .get("newtons")
                        .asDouble())
                .isCloseTo(66.6, org.assertj.core.api.Assertions.within(0.05));
        // By rules.md section 7 (slider–crank)
        assertThat(sum("piston", "{\"throwMm\": 43, \"rodMm\": 137, \"degrees\": 90}")
                        .get("travelMm")
                        .asDouble())
                .isCloseTo(49.923, org.assertj.core.api.Assertions.within(0.0006));
        assertThat(sum("wrench", "{\"torqueNm\": 100, \"mostNm\": 200, \"lengthMm\": 400, \"extensionMm\": 50}")
                        .get("settingNm")
                        .asDouble())
                .isCloseTo(88.889, org.assertj.core.api.Assertions.within(0.001));
        assertThat(sum("coolant", """
                {"keptLitres": 2, "keptShare": 0.3, "newLitres": 4, "newShare": 0.5, "wanted": 0.5}""").get("concentrateLitres").asDouble())
                .isCloseTo(2.4, org.assertj.core.api.Assertions.within(1e-9));
        assertThat(sum("clearance", "{\"measuredMm\": 0.2, \"lowMm\": 0.152, \"highMm\": 0.178, \"shimMm\": 2.4}")
                        .get("shimMm")
                        .asDouble())
                .isCloseTo(2.435, org.assertj.core.api.Assertions.within(1e-9));
        JsonNode teeth = sum("teeth", "{\"family\": \"CAL-16\", \"crankTeeth\": 24}");
        assertThat(teeth.get("allTrue").asBoolean())
                .as("cams opposite after one turn")
                .isFalse();
        assertThat(teeth.get("turnsUntilPaintReturns").asInt()).isEqualTo(290);
        assertThat(sum("teeth", "{\"family\": \"CAL-16\", \"crankTeeth\": 48}")
                        .get("allTrue")
                        .asBoolean())
                .isTrue();

        assertThat(ines.post(
                                "/api/calculations/bench/tension",
                                "{\"kilogramsPerMetre\": 0, \"metres\": 0.12, \"hertz\": 85}")
                        .errorAt("/kilogramsPerMetre"))
                .contains("0.001 to 5 kg/m");
        assertThat(ines.post("/api/calculations/bench/piston", "{\"throwMm\": 43, \"rodMm\": 40, \"degrees\": 90}")
                        .errorAt("/rodMm"))
                .contains("longer");
        assertThat(ines.post("/api/calculations/bench/coolant", """
                {"keptLitres": 2, "keptShare": 1.3, "newLitres": 4, "newShare": 0.5}""").errorAt("/keptShare"))
                .contains("0 to 100 %");
    }

    private JsonNode sum(String what, String body) {
        return ines.post("/api/calculations/bench/" + what, body).ok().json();
    }

    @Test
    void scoresAreKeptForThoseWhoWishItAndTheFirstAnswerCounts() {
        long seed = 3;
        assertThat(ines.get("/api/practice-course").ok().json().get("keeps").asBoolean())
                .isFalse();
        answer(seed, true);
        assertThat(answers()).isZero();

        ines.put("/api/practice-course", "{\"keeps\": true}").ok();
        answer(seed, false);
        answer(seed, true);
        assertThat(answers()).as("the second answer to one question is none").isEqualTo(1);
        JsonNode course = ines.get("/api/practice-course").ok().json();
        JsonNode sort = course.get("sorts")
                .valueStream()
                .filter(s -> s.get("answers").asInt() > 0)
                .findFirst()
                .orElseThrow();
        assertThat(sort.get("percent").asInt()).isZero();
        assertThat(sort.get("ready").asBoolean()).isFalse();
        assertThat(course.get("next").get("sort").asString())
                .isEqualTo(sort.get("sort").asString());
        assertThat(course.get("people").get(0).get("name").asString()).isEqualTo("Ines Carrow");

        ines.delete("/api/practice-course").ok();
        assertThat(answers()).isZero();
        ines.put("/api/practice-course", "{\"keeps\": false}").ok();
        assertThat(ines.get("/api/practice-course").ok().json().get("people")).isEmpty();
    }

    private int answers() {
        return ines.get("/api/practice-course")
                .ok()
                .json()
                .get("sorts")
                .valueStream()
                .mapToInt(s -> s.get("answers").asInt())
                .sum();
    }

    /** Answers the question of {@code seed} rightly, or wrongly. */
    private void answer(long seed, boolean rightly) {
        JsonNode question =
                ines.get("/api/practice/OST-20/next?seed=" + seed).ok().json();
        // which one is right is asked by somebody who keeps nothing
        Workbench.technician(ines, "perran", "Perran Voss", "BELT");
        Client other = SERVER.as("perran");
        for (JsonNode choice : question.get("choices")) {
            String answer = "{\"family\": \"OST-20\", \"seed\": %d, \"choice\": \"%s\"}"
                    .formatted(seed, choice.get("code").asString());
            if (other.post("/api/practice/next", answer)
                            .ok()
                            .json()
                            .get("right")
                            .asBoolean()
                    == rightly) {
                ines.post("/api/practice/next", answer).ok();
                return;
            }
        }
    }
}
