package knollfield.app.calculation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What is asked at the edge of what can be, and beyond it. */
class CalculationEdgesTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static final List<String> FIGURES =
            List.of("0", "-1", "1", "0.02", "1e-300", "0.999999", "4", "20", "120000", "1e12", "1e300", "72", "19");

    private static Client ines;

    @BeforeAll
    static void signIn() {
        ines = SERVER.as("ines");
    }

    /** An answer without a figure that is none, or a refusal that names its field. */
    private static void isSound(String path, String body) {
        Client.Answer answer = ines.post("/api/calculations/" + path, body);
        assertThat(answer.status())
                .as("%s of %s: %s", path, body, answer.text())
                .isIn(200, 400, 422);
        assertThat(answer.text()).as("%s of %s", path, body).doesNotContain("NaN", "Infinity");
        if (answer.status() == 422) {
            assertThat(answer.json().get("errors")).as("%s of %s", path, body).isNotEmpty();
        }
    }

    @Test
    void whateverIsAskedNoFigureIsNone() {
        for (int seed = 0; seed < 400; seed++) {
            Random dice = new Random(seed);
            isSound("economic-interval", """
                    {"shareFailedAtLimits": %s, "shape": %s, "limit": {%s}, "kmPerYear": %s,
                     "plannedMinor": %d, "failureMinor": %d}
                    """.formatted(
                            any(dice),
                            any(dice),
                            dice.nextBoolean() ? "\"km\": " + (1 + dice.nextInt(1_000_000)) : "\"months\": 72",
                            any(dice),
                            (long) Math.pow(10, dice.nextInt(18)),
                            (long) Math.pow(10, dice.nextInt(18))));
            isSound("risk", """
                    {"shareFailedAtLimits": %s, "shape": %s, "distanceNow": %s, "distanceThen": %s, "ageNow": %s,
                     "ageThen": %s, "hazardFactor": %s, "failureMinor": 100, "plannedMinor": 10}
                    """.formatted(
                            any(dice), any(dice), any(dice), any(dice), any(dice), any(dice), 1 + dice.nextInt(12)));
            isSound("bench/wrench", """
                    {"torqueNm": %s, "mostNm": %s, "lengthMm": %s, "extensionMm": %s}
                    """.formatted(any(dice), any(dice), any(dice), any(dice)));
            isSound("bench/tension", """
                    {"kilogramsPerMetre": %s, "metres": %s, "newtons": %s}
                    """.formatted(any(dice), any(dice), any(dice)));
        }
    }

    private static String any(Random dice) {
        return FIGURES.get(dice.nextInt(FIGURES.size()));
    }

    @ParameterizedTest(name = "{1} in {0}: {2}")
    @CsvSource({
        "tension, newtons, 20001, at most 20",
        "tension, newtons, 0, above zero",
        "wrench, torqueNm, 5001, at most 5",
        "wrench, extensionMm, -400, shorter than the wrench"
    })
    void aRefusalSaysWhichBoundWasPassed(String path, String field, double value, String words) {
        String body = path.equals("tension")
                ? "{\"kilogramsPerMetre\": 0.16, \"metres\": 0.12, \"newtons\": %s}".formatted(value)
                : "{\"torqueNm\": %s, \"mostNm\": 200, \"lengthMm\": 400, \"extensionMm\": %s}"
                        .formatted(field.equals("torqueNm") ? value : 100, field.equals("extensionMm") ? value : 0);
        assertThat(ines.post("/api/calculations/bench/" + path, body).errorAt("/" + field))
                .contains(words);
    }

    @Test
    void aCrowfootTurnedBackIsSetHigher() {
        JsonNode back = ines.post(
                        "/api/calculations/bench/wrench",
                        "{\"torqueNm\": 100, \"mostNm\": 200, \"lengthMm\": 400, \"extensionMm\": -50}")
                .ok()
                .json();
        // From memory: T·L/(L + E) with E below zero
        assertThat(back.get("settingNm").asDouble()).isCloseTo(100 * 400 / 350.0, within(1e-9));
    }

    @Test
    void beforeTheLastReadingTheChainTells() {
        String chain = """
                {"readings": [{"date": "2024-01-01", "km": 10000, "source": "WORKSHOP"},
                              {"date": "2026-01-01", "km": 50000, "source": "WORKSHOP"}],
                 "usageClass": {"meanKmPerYear": 12000, "spreadKmPerYear": 4000}, "on": "%s"}
                """;
        JsonNode between = ines.post("/api/calculations/readings-chain", chain.formatted("2025-01-01"))
                .ok()
                .json();
        // 366 of 731 days
        assertThat(between.toString())
                .contains(String.valueOf(10_000 + 40_000 * 366 / 731.0).substring(0, 8));
        JsonNode after = ines.post("/api/calculations/readings-chain", chain.formatted("2027-01-01"))
                .ok()
                .json();
        assertThat(after.toString()).isNotEqualTo(between.toString());
    }

    private static String forecast(String engine, String registered, String read) {
        return """
                {"today": "2026-11-25", "engine": {"drive": "%s", "interference": "YES", "items": [%s]},
                 "firstRegistered": "%s", "cameWithReading": false,
                 "readings": [{"date": "%s", "km": 90000, "source": "WORKSHOP"}],
                 "starts": {}, "conditions": [], "evidence": [],
                 "usageClass": {"meanKmPerYear": 12000, "spreadKmPerYear": 4000}, "trips": []}
                """.formatted(engine.contains("CHAIN") ? "CHAIN" : "BELT", engine, registered, read);
    }

    @Test
    void aChainWithoutLimitsCanBeAskedAndWhatLiesAheadCannot() {
        String chain = "{\"code\": \"chain\", \"name\": \"Timing chain\", \"kind\": \"TIMING_CHAIN\"}";
        JsonNode asked = ines.post("/api/calculations/forecast", forecast(chain, "2020-01-01", "2026-11-20"))
                .ok()
                .json();
        assertThat(asked.get("status").asString()).isEqualTo("NO_BOOK");
        assertThat(ines.post("/api/calculations/forecast", forecast(chain, "2020-01-01", "2026-11-26"))
                        .errorAt("/readings/0/date"))
                .contains("later than today");
        assertThat(ines.post("/api/calculations/forecast", forecast(chain, "2026-12-01", "2026-11-20"))
                        .errorAt("/firstRegistered"))
                .contains("after today");
    }

    @Test
    void aBeltWithoutAnAgeLimitIsRemarkedOnByItsAge() {
        String belt =
                "{\"code\": \"belt\", \"name\": \"Timing belt\", \"kind\": \"TIMING_BELT\", \"normal\": {\"km\": 240000}}";
        String reasons = ines.post("/api/calculations/forecast", forecast(belt, "2019-11-25", "2026-11-20"))
                .ok()
                .json()
                .get("reasons")
                .toString();
        assertThat(reasons).contains("no age limit", "it is 84", "rubber ages");
    }

    private static final String BELT = """
            {"code": "belt", "name": "Timing belt", "kind": "TIMING_BELT", "normal": {"km": 120000, "months": 120}}""";

    @Test
    void theOdometerOfARenewalIsAReading() {
        String plain = forecast(BELT, "2016-01-01", "2026-11-20");
        String renewal = "\"starts\": {\"belt\": {\"date\": \"2025-11-20\", \"km\": %d, \"grade\": \"STATED\"}}";
        JsonNode slow = ines.post(
                        "/api/calculations/forecast", plain.replace("\"starts\": {}", renewal.formatted(85_000)))
                .ok()
                .json();
        JsonNode fast = ines.post(
                        "/api/calculations/forecast", plain.replace("\"starts\": {}", renewal.formatted(60_000)))
                .ok()
                .json();
        assertThat(fast.get("kmPerYear").asDouble())
                .isGreaterThan(slow.get("kmPerYear").asDouble() + 5_000);

        String wrong = ines.post(
                        "/api/calculations/forecast", plain.replace("\"starts\": {}", renewal.formatted(110_000)))
                .ok()
                .json()
                .get("reasons")
                .toString();
        assertThat(wrong).contains("stated with the renewal", "runs backwards");
    }

    @Test
    void aWholeMileLessIsNotBackwards() {
        String chain = """
                {"readings": [{"date": "2026-01-01", "km": 120001, "source": "WORKSHOP"},
                              {"date": "2026-02-01", "km": 120000, "source": "CUSTOMER"%s}],
                 "usageClass": {"meanKmPerYear": 12000, "spreadKmPerYear": 4000}}
                """;
        JsonNode miles = ines.post("/api/calculations/readings-chain", chain.formatted(", \"unit\": \"MILES\""))
                .ok()
                .json();
        assertThat(miles.get("rejected")).isEmpty();
        assertThat(miles.get("kept").get(1).get("km").asInt()).isEqualTo(120_001);
        assertThat(ines.post("/api/calculations/readings-chain", chain.formatted(""))
                        .ok()
                        .json()
                        .get("rejected"))
                .hasSize(1);
    }
}
