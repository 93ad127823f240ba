package knollfield.app.vehicle;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

class VehicleApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;
    private long vehicle;

    @BeforeEach
    void aVehicle() {
        ines = SERVER.as("ines");
        vehicle = Given.vehicle(SERVER, ines, "");
    }

    private JsonNode dossier() {
        return ines.get("/api/vehicles/" + vehicle).ok().json();
    }

    private JsonNode belt() {
        return dossier()
                .get("items")
                .valueStream()
                .filter(i -> i.get("code").asString().equals("belt"))
                .findFirst()
                .orElseThrow();
    }

    private List<String> reasons() {
        return dossier()
                .get("reasons")
                .valueStream()
                .map(r -> r.get("text").asString().replace('\u00a0', ' '))
                .toList();
    }

    @Test
    void distanceDecidesAndDustMakesItOverdue() {
        for (int i = 4; i >= 0; i--) {
            LocalDate day = TODAY.minusMonths(6L * i);
            double years = ChronoUnit.DAYS.between(day, TODAY) / 365.25;
            Given.reading(ines, vehicle, day, Long.toString(Math.round(138_000 - 20_000 * years)), "KM")
                    .ok();
        }
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, vehicle, item, TODAY.minusMonths(54), 40_000, false)
                    .ok();
        }

        assertThat(belt().get("binding").asString()).isEqualTo("DISTANCE");
        assertThat(belt().get("usedKm").asDouble()).isCloseTo(98_000, within(1.0));
        assertThat(reasons())
                .contains("98,000 km of 120,000 km used, 22,000 km left.")
                .anyMatch(r -> r.startsWith("54 months of 72 months used, 18 months left, until"))
                .contains("Under hard use the limit would be 70,000 km: over by 28,000 km.");

        ines.put("/api/vehicles/%d/conditions".formatted(vehicle), "{\"conditions\": [\"DUST\"], \"version\": 1}")
                .ok();
        assertThat(dossier().get("status").asString()).isEqualTo("OVERDUE");
        assertThat(reasons())
                .contains("98,000 km of 70,000 km used, 28,000 km over.")
                .anyMatch(r -> r.startsWith("Severe, because of dust"));
    }

    @ParameterizedTest(name = "{0}: {1} {2} days ago")
    @CsvSource(delimiter = '|', textBlock = """
            below the last       | 119000     | 0     | /value | runs backwards. 120,000 km was read on
            more than it can run | 990000     | 0     | /value | would be more than 1,500 km a day
            ten digits           | 1234567890 | 0     | /value | 1234567890 is not one
            below zero           | -5         | 0     | /value | -5 is not one
            in the future        | 121000     | -1    | /date  | lies in the future
            before it was built  | 10         | 9000  | /date  | before first registration
            """)
    void aWrongReadingIsSaidBesideItsFieldAndKeepsNothing(
            String behaviour, String value, int daysAgo, String pointer, String words) {
        Given.reading(ines, vehicle, TODAY.minusDays(30), "120000", "KM").ok();

        Client.Answer answer = Given.reading(ines, vehicle, TODAY.minusDays(daysAgo), value, "KM");

        assertThat(answer.errorAt(pointer).replace('\u00a0', ' ')).contains(words);
        assertThat(dossier().get("readings")).hasSize(1);
        assertThat(dossier()
                        .get("log")
                        .valueStream()
                        .filter(l -> l.get("what").asString().equals("odometer reading")))
                .hasSize(1);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            {"date": "yesterday", "value": 1, "unit": "KM", "source": "WORKSHOP", "insist": false}  | /date
            {"date": "2026-01-01", "value": "x", "unit": "KM", "source": "WORKSHOP", "insist": false} | /value
            {"date": "2026-01-01", "value": 1, "unit": "FURLONG", "source": "WORKSHOP", "insist": false} | /unit
            """)
    void whatCannotBeReadIsNamed(String body, String pointer) {
        JsonNode problem =
                ines.post("/api/vehicles/%d/readings".formatted(vehicle), body).problem(400, "invalid-input");

        assertThat(problem.get("errors").get(0).get("pointer").asString()).isEqualTo(pointer);
        ines.post("/api/vehicles/%d/readings".formatted(vehicle), "{").problem(400, "unreadable");
    }

    @Test
    void milesAreKeptAsWrittenAndCountedInKilometres() {
        Given.reading(ines, vehicle, TODAY, "74565", "MILES").ok();
        JsonNode reading = dossier().get("readings").get(0);

        assertThat(reading.get("writtenValue").asDouble()).isEqualTo(74_565);
        assertThat(reading.get("writtenUnit").asString()).isEqualTo("MILES");
        // 74,565 × 1.609344 = 120,000.7
        assertThat(reading.get("km").asInt()).isEqualTo(120_001);
    }

    @Test
    void aReadingInsistedOnIsKeptAndLeftOutWithItsReason() {
        Given.reading(ines, vehicle, TODAY.minusDays(200), "110000", "KM").ok();
        Given.reading(ines, vehicle, TODAY.minusDays(30), "120000", "KM").ok();
        ines.post("/api/vehicles/%d/readings".formatted(vehicle), """
                        {"date": "%s", "value": 60000, "unit": "KM", "source": "CUSTOMER", "insist": true}
                        """.formatted(TODAY))
                .ok();

        assertThat(dossier().get("readings").get(0).get("rejected").asString()).isEqualTo("runs backwards");
    }

    @Test
    void ofTwoWhoEditOneLosesAndSeesWhatTheOtherDid() {
        Given.reading(ines, vehicle, TODAY, "120000", "KM").ok();
        long reading = dossier().get("readings").get(0).get("id").asLong();
        String mark = "{\"wrong\": true, \"version\": 1}";
        ines.put("/api/vehicles/%d/readings/%d/mark".formatted(vehicle, reading), mark)
                .ok();

        JsonNode conflict = ines.put(
                        "/api/vehicles/%d/conditions".formatted(vehicle),
                        "{\"conditions\": [\"TOWING\"], \"version\": 1}")
                .problem(409, "conflict");
        assertThat(conflict.get("detail").asString()).contains("Ines Carrow").contains("reading marked wrong");
        assertThat(dossier()
                        .get("conditions")
                        .valueStream()
                        .filter(c -> c.get("applies").asBoolean()))
                .isEmpty();
        assertThat(dossier().get("readings").get(0).get("markedWrong").asBoolean())
                .isTrue();
    }

    @Test
    void evidenceStopsTheEngineUntilItIsWithdrawnWithWords() {
        ines.post(
                        "/api/vehicles/%d/evidence".formatted(vehicle),
                        "{\"kind\": \"BELT_FAILED\", \"found\": \"%s\", \"note\": \"towed in\"}".formatted(TODAY))
                .ok();
        assertThat(dossier().get("status").asString()).isEqualTo("STOP");
        long id = dossier().get("evidence").get(0).get("id").asLong();

        String path = "/api/vehicles/%d/evidence/%d/withdrawal".formatted(vehicle, id);
        assertThat(ines.post(path, "{\"why\": \" \"}").errorAt("/why")).contains("missing");
        ines.post(path, "{\"why\": \"wrong vehicle\"}").ok();
        assertThat(dossier().get("status").asString()).isNotEqualTo("STOP");
        ines.post(path, "{\"why\": \"wrong vehicle again\"}").problem(404, "not-found");
    }

    @Test
    void aPolicyChangeJudgesEveryVehicleAnew() {
        Given.reading(ines, vehicle, TODAY, "138000", "KM").ok();
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, vehicle, item, TODAY.minusMonths(54), 40_000, false)
                    .ok();
        }
        // classes are learned anew whenever all vehicles are judged: so they are once before
        Client.Answer first = ines.put(
                "/api/setup/workshop",
                policy(
                        "CAREFUL",
                        0.95,
                        ines.get("/api/setup/workshop").json().get("version").asInt()));
        first.ok();
        String before = belt().get("actBy").asString();
        Client.Answer changed = ines.put(
                "/api/setup/workshop",
                policy("EARLY", 0.5, first.json().get("version").asInt()));
        changed.ok();

        assertThat(belt().get("actBy").asString()).isLessThan(before);
        int version = changed.json().get("version").asInt();
        ines.put("/api/setup/workshop", policy("EARLY", 0.95, version - 1)).problem(409, "conflict");
        assertThat(ines.put("/api/setup/workshop", policy("EARLY", 1.5, version))
                        .errorAt("/earlyShare"))
                .contains("at most 100 %");
        ines.put("/api/setup/workshop", policy("CAREFUL", 0.95, version)).ok();
        assertThat(belt().get("actBy").asString()).isEqualTo(before);
    }

    @Test
    void whatIsNotDueButPaysOnAVisitIsAListOfItsOwn() {
        Given.reading(ines, vehicle, TODAY.minusYears(3), "130000", "KM").ok();
        Given.reading(ines, vehicle, TODAY.minusDays(5), "138000", "KM").ok();
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, vehicle, item, TODAY.minusMonths(64), 120_000, false)
                    .ok();
        }
        assertThat(dossier().get("status").asString()).isEqualTo("CLEAR");
        assertThat(reasons()).anyMatch(r -> r.startsWith("Not due, but worth doing while it is here"));
        JsonNode listed = ines.get("/api/desk?only=WHILE_HERE&limit=200").ok().json();
        assertThat(listed.get("whileHere").asInt())
                .isEqualTo(listed.get("total").asInt());
        assertThat(listed.get("rows").valueStream())
                .allSatisfy(r -> assertThat(r.get("status").asString()).isIn("CLEAR", "COMING"))
                .anySatisfy(r -> {
                    assertThat(r.get("vehicleId").asLong()).isEqualTo(vehicle);
                    assertThat(r.get("whileHere").asBoolean()).isTrue();
                });

        // a visit that saves nothing is no reason, and nothing of it is ever due
        ines.put("/api/setup/assumptions", visit(0)).ok();
        assertThat(ines.get("/api/desk?only=WHILE_HERE")
                        .ok()
                        .json()
                        .get("total")
                        .asInt())
                .isZero();
        ines.put("/api/setup/assumptions", visit(90)).ok();
    }

    @Test
    void aPumpNobodyKnowsOfIsNamedOnTheRowAndItsOwnerIsAsked() {
        Given.reading(ines, vehicle, TODAY.minusDays(5), "138000", "KM").ok();
        for (String item : List.of("belt", "tensioner", "idler")) {
            Given.renewal(ines, vehicle, item, TODAY.minusMonths(20), 120_000, false)
                    .ok();
        }
        assertThat(dossier().get("status").asString()).isEqualTo("CLEAR");
        assertThat(ines.get("/api/desk?status=CLEAR&limit=200")
                        .ok()
                        .json()
                        .get("rows")
                        .valueStream())
                .filteredOn(r -> r.get("vehicleId").asLong() == vehicle)
                .singleElement()
                .satisfies(r -> {
                    assertThat(r.get("note").asString()).isEqualTo("pump not known");
                    assertThat(r.get("nextStep").asString()).isEqualTo("ASK_OWNER");
                });
    }

    private String visit(int saves) {
        return "{\"amounts\": {\"policy.visit\": %d}, \"version\": %d}"
                .formatted(
                        saves,
                        ines.get("/api/setup/workshop").json().get("version").asInt());
    }

    private static String policy(String kind, double share, int version) {
        return """
               {"name": "Test garage", "policy": "%s", "earlyShare": %s, "riskInterference": 0.1, "riskOther": 0.5,
                "horizonDays": 120, "unknownRule": "DUE_NOW", "statedCounts": false, "labourRateMinor": 9000, "recoveryMinor": 18000,
                "dayOffRoadMinor": 6500, "daysOffRoad": 6, "shareFailedAtLimits": 0.02, "wearShape": 4, "version": %d}
               """.formatted(kind, share, version);
    }
}
