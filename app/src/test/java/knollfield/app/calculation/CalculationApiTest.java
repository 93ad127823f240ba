package knollfield.app.calculation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.apache.commons.statistics.distribution.ContinuousDistribution;
import org.apache.commons.statistics.distribution.WeibullDistribution;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** Everything that is needed comes in the request, and nothing is stored. */
class CalculationApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static Client ines;

    @BeforeAll
    static void signIn() {
        ines = SERVER.as("ines");
        Given.family(SERVER);
    }

    private static JsonNode post(String which, String body) {
        return ines.post("/api/calculations/" + which, body).ok().json();
    }

    /** Whoever is 98,000 km and 54 months into a belt of 120,000 km and 72 months. */
    private static String forecast(String conditions, String engine) {
        return """
               {"today": "2026-11-25", %s, "firstRegistered": "2018-11-25", "cameWithReading": false,
                "readings": [{"date": "2025-11-25", "km": 118000, "source": "WORKSHOP"},
                             {"date": "2026-11-25", "km": 138000, "source": "WORKSHOP"}],
                "starts": {"belt": {"date": "2022-05-25", "km": 40000, "grade": "DOCUMENTED", "proof": "invoice 4411"}},
                "conditions": [%s], "evidence": [], "usageClass": {"meanKmPerYear": 20000, "spreadKmPerYear": 6000},
                "trips": []}
               """.formatted(engine, conditions);
    }

    private static final String ENGINE = """
            "engine": {"drive": "BELT", "interference": "YES", "items": [
              {"code": "belt", "name": "Timing belt", "kind": "TIMING_BELT",
               "normal": {"km": 120000, "months": 72}, "severe": {"km": 70000, "months": 60}}]}""";

    @Test
    void theExamplesOfTheDocumentAreAnswered() {
        JsonNode paths = SERVER.stranger().get("/api/openapi").ok().json().get("paths");
        int tried = 0;
        for (String which : new String[] {
            "readings-chain",
            "forecast",
            "risk",
            "economic-interval",
            "labour",
            "bundle",
            "part-grade",
            "tooth-geometry"
        }) {
            JsonNode examples = paths.get("/api/calculations/" + which)
                    .get("post")
                    .get("requestBody")
                    .get("content")
                    .get("application/json")
                    .get("examples");
            for (JsonNode example : examples) {
                JsonNode value = example.get("value");
                post(which, value.isString() ? value.asString() : value.toString());
                tried++;
            }
        }
        assertThat(tried).isEqualTo(8);
    }

    @Test
    void milesAmongKilometresAreLeftOutOfTheChain() {
        JsonNode chain = post("readings-chain", """
                {"readings": [{"date": "2024-05-01", "km": 60000, "source": "WORKSHOP"},
                              {"date": "2025-05-01", "km": 49700, "source": "CUSTOMER"},
                              {"date": "2026-05-01", "km": 100000, "source": "WORKSHOP"}],
                 "usageClass": {"meanKmPerYear": 20000, "spreadKmPerYear": 6000}, "on": "2027-05-01"}
                """);
        assertThat(chain.get("kept")).hasSize(2);
        assertThat(chain.get("rejected").get(0).get("reason").asString()).contains("miles");
        assertThat(chain.get("kmPerYear").asDouble()).isBetween(19_900.0, 20_100.0);
        assertThat(chain.get("onKm").asDouble()).isBetween(119_500.0, 120_500.0);
    }

    @Test
    void aForecastOfAnEngineInTheRequestIsTheOneOfTheRules() {
        JsonNode f = post("forecast", forecast("", ENGINE));
        JsonNode belt = f.get("items").get(0);

        assertThat(belt.get("binding").asString()).isEqualTo("DISTANCE");
        assertThat(belt.get("usedKm").asDouble()).isCloseTo(98_000, within(1.0));
        assertThat(belt.get("leftKm").asDouble()).isCloseTo(22_000, within(1.0));
        assertThat(belt.get("ageDate").asString()).isEqualTo("2028-05-25");
        assertThat(f.get("status").asString()).isNotEqualTo("OVERDUE");
        assertThat(post("forecast", forecast("\"DUST\"", ENGINE)).get("status").asString())
                .isEqualTo("OVERDUE");
    }

    @Test
    void aFamilyOnFileAnswersAsTheSameLimitsGivenDo() {
        JsonNode given = post("forecast", forecast("", ENGINE));
        JsonNode onFile = post("forecast", forecast("", "\"family\": \"CAL-16\""));
        assertThat(onFile.get("items").get(0).get("actBy"))
                .isEqualTo(given.get("items").get(0).get("actBy"));
        assertThat(onFile.get("kmPerYear")).isEqualTo(given.get("kmPerYear"));
    }

    @ParameterizedTest
    @CsvSource({"0.5, 0.7, 4", "0.9, 1.1, 4", "1.0, 1.05, 2.5", "0.2, 2.0, 1"})
    void aChanceIsTheOneOfTheWeibullLaw(double now, double then, double shape) {
        // Source: Weibull distribution of Apache Commons Statistics; with equal shares of both limits the hazard is
        // that of one
        double scale = Math.pow(-Math.log(1 - 0.02), -1 / shape);
        ContinuousDistribution law = WeibullDistribution.of(shape, scale);
        double expected = (law.cumulativeProbability(then) - law.cumulativeProbability(now))
                / (1 - law.cumulativeProbability(now));
        JsonNode risk = post("risk", """
                {"shareFailedAtLimits": 0.02, "shape": %s, "distanceNow": %s, "ageNow": %s, "distanceThen": %s,
                 "ageThen": %s, "hazardFactor": 1, "failureMinor": 520000, "plannedMinor": 64000}
                """.formatted(shape, now, now, then, then));
        assertThat(risk.get("chance").asDouble()).isCloseTo(expected, within(1e-12));
        assertThat(risk.get("exposureMinor").asLong()).isEqualTo(Math.round(expected * (520_000 - 64_000)));
    }

    @Test
    void anEconomicIntervalStandsBesideTheBookLimit() {
        JsonNode e = post("economic-interval", """
                {"shareFailedAtLimits": 0.02, "shape": 4, "limit": {"km": 120000, "months": 72}, "kmPerYear": 20000,
                 "plannedMinor": 64000, "failureMinor": 520000}
                """);
        assertThat(e.get("perYearMinor").asDouble())
                .isLessThanOrEqualTo(e.get("perYearAtBookMinor").asDouble());
        assertThat(e.get("years").asDouble() * 20_000).isCloseTo(e.get("km").asDouble(), within(1e-6));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "forecast|/engine|\"family\": null",
                "forecast|/family|\"family\": \"NONE-1\"",
                "forecast|/engine/items|\"engine\": {\"drive\": \"BELT\", \"interference\": \"YES\", \"items\": []}",
                "forecast|/engine/items/0/severe|\"engine\": {\"drive\": \"BELT\", \"interference\": \"YES\", \"items\": [{\"code\": \"b\", \"name\": \"b\", \"kind\": \"TIMING_BELT\", \"normal\": {\"km\": 10}, \"severe\": {\"km\": 20}}]}",
                "forecast|/engine/items/0/normal|\"engine\": {\"drive\": \"BELT\", \"interference\": \"YES\", \"items\": [{\"code\": \"b\", \"name\": \"b\", \"kind\": \"TIMING_BELT\", \"normal\": {}}]}"
            })
    void whatIsWrongWithTheEngineIsNamed(String wrong) {
        String[] parts = wrong.split("\\|");
        assertThat(ines.post("/api/calculations/" + parts[0], forecast("", parts[2]))
                        .errorAt(parts[1]))
                .isNotBlank();
    }

    @Test
    void whatIsWrongWithFiguresIsNamed() {
        assertThat(ines.post("/api/calculations/risk", """
                        {"shareFailedAtLimits": 1.2, "shape": 0, "distanceNow": 1, "hazardFactor": 11,
                         "failureMinor": -1, "plannedMinor": 0}
                        """)
                        .problem(422, "invalid-input")
                        .get("errors")
                        .valueStream()
                        .map(e -> e.get("pointer").asString()))
                .contains("/shareFailedAtLimits", "/shape", "/distanceThen", "/hazardFactor", "/failureMinor");
        assertThat(ines.post("/api/calculations/economic-interval", """
                        {"shareFailedAtLimits": 0.02, "shape": 4, "limit": {}, "kmPerYear": -1, "plannedMinor": 0,
                         "failureMinor": 0}
                        """)
                        .problem(422, "invalid-input")
                        .get("errors")
                        .valueStream()
                        .map(e -> e.get("pointer").asString()))
                .contains("/limit", "/kmPerYear", "/plannedMinor", "/failureMinor");
        assertThat(ines.post("/api/calculations/readings-chain", """
                        {"readings": [{"date": "2024-05-01", "km": -5, "source": "WORKSHOP"}],
                         "usageClass": {"meanKmPerYear": 1, "spreadKmPerYear": 0}}
                        """)
                        .problem(422, "invalid-input")
                        .get("errors")
                        .valueStream()
                        .map(e -> e.get("pointer").asString()))
                .containsExactlyInAnyOrder("/readings/0/km", "/usageClass/spreadKmPerYear");
    }

    // Common practice, no source: procedure.md's 5.0 h + 0.4 h for air conditioning + 0.4 h for a top-mounted pump
    @Test
    void labourIsAUnion() {
        String steps = """
                {"steps": [{"code": "open", "minutes": 300, "requires": ["aircon", "steering"]},
                           {"code": "aircon", "minutes": 24, "requires": [], "equipment": "air conditioning"},
                           {"code": "steering", "minutes": 24, "requires": [], "equipment": "top steering pump"}],
                 "equipment": [%s],
                 "items": [{"code": "belt", "steps": ["open"]}, {"code": "pump", "steps": ["open"]}]}""";
        JsonNode both = post("labour", steps.formatted("\"air conditioning\", \"top steering pump\""));
        assertThat(both.get("minutes").asInt()).isEqualTo(348);
        assertThat(both.get("sumMinutes").asInt()).isEqualTo(696);
        assertThat(post("labour", steps.formatted("")).get("minutes").asInt()).isEqualTo(300);
        assertThat(ines.post("/api/calculations/labour", """
                {"steps": [{"code": "a", "minutes": 1, "requires": ["b"]}, {"code": "b", "minutes": 1, "requires": ["a"]}],
                 "equipment": [], "items": []}""").errorAt("/steps/0/requires"))
                .contains("needs itself");
        assertThat(ines.post("/api/calculations/labour", """
                {"steps": [], "equipment": [], "items": [{"code": "belt", "steps": ["ladder"]}]}""").errorAt("/items")).contains("ladder");
    }

    // By rules.md section 5, "Part grade"
    @ParameterizedTest
    @CsvSource({"3200, 130000, 938.46", "1920, 43000, 2539.53"})
    void aPartsLifeHasItsPrice(long price, int km, double minor) {
        JsonNode grade = post(
                "part-grade",
                "{\"priceMinor\": %d, \"labourShareMinor\": 9000, \"expectedKm\": %d}".formatted(price, km));
        assertThat(grade.get("per10000KmMinor").asDouble()).isCloseTo(minor, within(0.01));
        assertThat(ines.post(
                                "/api/calculations/part-grade",
                                "{\"priceMinor\": 1, \"labourShareMinor\": 0, \"expectedKm\": 0}")
                        .errorAt("/expectedKm"))
                .contains("above zero");
    }

    @Test
    void theBundleIsTheCheapestSet() {
        String bundle = """
                {"labourRateMinor": 6000, "equipment": [],
                 "steps": [{"code": "open", "minutes": 60, "requires": []}, {"code": "pump", "minutes": 30, "requires": ["open"]}],
                 "items": [
                   {"code": "belt", "partsMinor": 4000, "steps": ["open"], "required": true, "leavingMinor": 0, "later": false},
                   {"code": "pump", "partsMinor": 3000, "steps": ["pump"], "required": false, "leavingMinor": %d, "later": %s}]}""";
        JsonNode pays = post("bundle", bundle.formatted(0, true));
        // now: 60 min, 30 min, both parts; left: the later job opens it all again
        assertThat(pays.get("in")).extracting(JsonNode::asString).containsExactly("belt", "pump");
        assertThat(pays.get("costMinor").asLong()).isEqualTo(9_000 + 7_000);
        assertThat(pays.get("requiredOnlyMinor").asLong()).isEqualTo(10_000 + 9_000 + 3_000);
        JsonNode left = post("bundle", bundle.formatted(500, false));
        assertThat(left.get("in")).extracting(JsonNode::asString).containsExactly("belt");
        assertThat(left.get("costMinor").asLong()).isEqualTo(10_500);
    }

    // By rules.md section 7, mark returns and the slider-crank
    @ParameterizedTest
    @CsvSource({"120, 20, 40, 6", "145, 24, 48, 290"})
    void teethSayWhenPaintMarksAreBack(int belt, int crank, int cam, int turns) {
        String body = """
                {"teeth": %d, "crankTeeth": %d, "sprockets": [{"name": "cam", "teeth": %d, "marked": true}],
                 "crankThrowMm": 43, "rodMm": %s, "degrees": 90}""";
        JsonNode geometry = post("tooth-geometry", body.formatted(belt, crank, cam, "137"));
        assertThat(geometry.get("marksReturnTurns").asInt()).isEqualTo(turns);
        assertThat(geometry.get("pistonMm").asDouble()).isCloseTo(49.923, within(0.0006));
        assertThat(ines.post("/api/calculations/tooth-geometry", body.formatted(belt, crank, cam, "40"))
                        .errorAt("/rodMm"))
                .contains("longer");
    }
}
