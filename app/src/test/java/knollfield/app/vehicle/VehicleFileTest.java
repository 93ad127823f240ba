package knollfield.app.vehicle;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

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

/** What is on file of a vehicle, its state and timing, and what its owner wishes. */
class VehicleFileTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;

    @BeforeEach
    void signIn() {
        ines = SERVER.as("ines");
        Given.family(SERVER);
    }

    private static String details(String registration, String more) {
        return """
               {"registration": "%s", "makeModel": "Calder Dunlin 1.6", "family": "CAL-16", "ownerName": "Ruan Keast",
                "ownerPhone": "0555 019 22", "usageClass": "PRIVATE", "firstRegistered": "%s", "cameWithReading": false,
                "conditions": [], "equipment": [], "heavy": false, "idleHoursPerYear": 0, "version": 0%s}
               """.formatted(registration, TODAY.minusYears(8), more);
    }

    private JsonNode dossier(long id) {
        return ines.get("/api/vehicles/" + id).ok().json();
    }

    private JsonNode item(long id, String code) {
        return dossier(id)
                .get("items")
                .valueStream()
                .filter(i -> i.get("code").asString().equals(code))
                .findFirst()
                .orElseThrow();
    }

    /** A vehicle whose belt was renewed {@code months} ago at 40,000 km and that runs 20,000 km a year. */
    private long renewed(int months) {
        long id = Given.vehicle(SERVER, ines, "");
        for (int back = 3; back >= 0; back--) {
            Given.reading(
                            ines,
                            id,
                            TODAY.minusMonths(12L * back),
                            Long.toString(40_000 + Math.round(20_000 * (months / 12.0 - back))),
                            "KM")
                    .ok();
        }
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, id, item, TODAY.minusMonths(months), 40_000, false)
                    .ok();
        }
        return id;
    }

    @Test
    void aVehicleIsAddedByHandAndStandsOnTheDeskAtOnce() {
        String registration = Given.registration();
        JsonNode stored =
                ines.post("/api/vehicles", details(registration, "")).ok().json();
        JsonNode v = dossier(stored.get("id").asLong());

        assertThat(stored.get("warnings")).isEmpty();
        assertThat(v.get("registration").asString()).isEqualTo(registration);
        assertThat(v.get("statusWords").asString()).isEqualTo("History unknown");
        assertThat(v.get("log").get(0).get("what").asString()).isEqualTo("added by hand");
        assertThat(ines.post("/api/vehicles", details(registration.replace(" ", ""), ""))
                        .errorAt("/registration"))
                .contains("already on file");
    }

    @ParameterizedTest
    @CsvSource({
        "'registration\": \" \"', /registration, missing",
        "'vin\": \"1M8GDM9AXKP04278\"', /vin, 17 letters",
        "'vin\": \"1M8GDM9AXKPO42788\"', /vin, 'without I, O and Q'",
        "'family\": \"NONE-1\"', /family, No such engine family",
        "'fleetId\": 999999', /fleetId, no such fleet",
        "'usageClass\": \"ROCKET\"', /usageClass, no such usage class",
        "'usageClass\": \"\"', /usageClass, missing",
        "'firstRegistered\": \"2150-01-01\"', /firstRegistered, future",
        "'firstRegistered\": null', /firstRegistered, missing",
        "'idleHoursPerYear\": 9000', /idleHoursPerYear, '8,784'",
        "'valueMinor\": -1', /valueMinor, zero or more",
        "'beltDateCode\": \"2150-01-01\"', /beltDateCode, future",
        "'ownerPhone\": \"\"', /ownerPhone, missing"
    })
    void whatIsWrongIsSaidBesideItsField(String wrong, String pointer, String words) {
        String registration = Given.registration();
        String field = wrong.substring(0, wrong.indexOf('"'));
        String whole = details(registration, "");
        String changed = whole.contains("\"" + field + "\"")
                ? whole.replaceFirst("\"" + field + "\": (\"[^\"]*\"|[^,}]+)", "\"" + wrong)
                : whole.replaceFirst("}\\s*$", ", \"" + wrong + "}");
        assertThat(ines.post("/api/vehicles", changed).errorAt(pointer)).contains(words);
        assertThat(ines.get("/api/find?q=" + registration.replace(" ", ""))
                        .json()
                        .get("vehicles"))
                .isEmpty();
    }

    @Test
    void aVinWhoseCheckDigitIsOddIsWarnedOfAndKept() {
        // Source: 49 CFR 565.15(c), worked example with check digit X
        assertThat(ines.get("/api/vehicles/vin-warning?vin=1M8GDM9AXKP042788").json())
                .isEmpty();
        String odd = "1M8GDM9A1KP042788";
        assertThat(ines.get("/api/vehicles/vin-warning?vin=" + odd)
                        .json()
                        .get(0)
                        .asString())
                .contains("ninth character is 1 where the check digit would be X");
        JsonNode stored = ines.post("/api/vehicles", details(Given.registration(), ", \"vin\": \"" + odd + "\""))
                .ok()
                .json();
        assertThat(stored.get("warnings")).hasSize(1);
        assertThat(dossier(stored.get("id").asLong()).get("vin").asString()).isEqualTo(odd);
    }

    @Test
    void twoPeopleMayNotOverwriteEachOther() {
        long id = Given.vehicle(SERVER, ines, "");
        String path = "/api/vehicles/%d/details".formatted(id);
        JsonNode seen = ines.get(path).ok().json();
        String first = seen.toString().replace("Tamsin Orde", "Kerra Bray");
        String second = seen.toString().replace("Tamsin Orde", "Jago Nance");
        ines.put(path, first).ok();
        String message =
                ines.put(path, second).problem(409, "conflict").get("detail").asString();

        assertThat(message).contains("Ines Carrow");
        assertThat(dossier(id).get("ownerName").asString()).isEqualTo("Kerra Bray");
        assertThat(dossier(id).get("log").get(0).toString()).contains("Tamsin Orde", "Kerra Bray");
    }

    @Test
    void aVehicleLaidUpStandsStillInDistanceAndOneSoldLeavesTheList() {
        long id = renewed(36);
        double before = item(id, "belt").get("usedKm").asDouble();
        String path = "/api/vehicles/%d/state".formatted(id);
        assertThat(ines.put(
                                path,
                                "{\"state\": \"LAID_UP\", \"since\": \"%s\", \"version\": 1}"
                                        .formatted(TODAY.plusDays(1)))
                        .errorAt("/since"))
                .contains("future");
        ines.put(path, "{\"state\": \"LAID_UP\", \"since\": \"%s\", \"version\": 1}".formatted(TODAY))
                .ok();
        JsonNode inTwoYears = ines.get("/api/vehicles/%d/what-if?date=%s".formatted(id, TODAY.plusYears(2)))
                .ok()
                .json();
        assertThat(inTwoYears.get("sinceKm").asDouble()).isEqualTo(before);
        assertThat(inTwoYears.get("sinceMonths").asDouble()).isBetween(59.9, 60.1);

        ines.put(path, "{\"state\": \"SOLD\", \"since\": \"%s\", \"version\": 2}".formatted(TODAY))
                .ok();
        String registration = dossier(id).get("registration").asString();
        String key = registration.replace(" ", "%20");
        assertThat(ines.get("/api/desk?q=" + key).json().get("total").asInt()).isZero();
        assertThat(ines.get("/api/desk?state=SOLD&q=" + key).json().get("total").asInt())
                .isEqualTo(1);
        assertThat(ines.get("/api/find?q=" + key)
                        .json()
                        .get("vehicles")
                        .get(0)
                        .get("status")
                        .asString())
                .isEqualTo("sold");
    }

    @Test
    void aTimingOfItsOwnNeedsAReasonAndBringsTheDateForward() {
        long id = renewed(24);
        String book = item(id, "belt").get("actBy").asString();
        String path = "/api/vehicles/%d/own-timing".formatted(id);
        assertThat(ines.put(path, "{\"kind\": \"EARLY\", \"share\": 0.5, \"reason\": \"\", \"version\": 1}")
                        .errorAt("/reason"))
                .contains("missing");
        assertThat(ines.put(path, "{\"kind\": \"FIXED\", \"reason\": \"x\", \"version\": 1}")
                        .errorAt("/km"))
                .contains("a distance, an age, or both");
        ines.put(path, "{\"kind\": \"EARLY\", \"share\": 0.5, \"reason\": \"tows every day\", \"version\": 1}")
                .ok();

        assertThat(item(id, "belt").get("actBy").asString()).isLessThan(book);
        assertThat(dossier(id).get("ownTiming").get("reason").asString()).isEqualTo("tows every day");
        ines.put(path, "{\"version\": 2}").ok();
        assertThat(item(id, "belt").get("actBy").asString()).isEqualTo(book);
    }

    @Test
    void anOdometerThatWasReplacedGoesOnCountingAndCanBeTakenBack() {
        long id = renewed(36);
        double used = item(id, "belt").get("usedKm").asDouble();
        ines.post("/api/vehicles/%d/readings".formatted(id), """
                        {"date": "%s", "value": 120, "unit": "KM", "source": "WORKSHOP", "insist": true}
                        """.formatted(TODAY))
                .ok();
        JsonNode low = dossier(id)
                .get("readings")
                .valueStream()
                .filter(r -> r.get("km").asInt() == 120)
                .findFirst()
                .orElseThrow();
        String path = "/api/vehicles/%d/readings/%d/replacement"
                .formatted(id, low.get("id").asLong());
        int version = dossier(id).get("version").asInt();
        ines.post(path, "{\"version\": %d}".formatted(version)).ok();

        JsonNode after = dossier(id);
        assertThat(after.get("readings").valueStream()).noneMatch(r -> r.has("rejected"));
        assertThat(item(id, "belt").get("usedKm").asDouble())
                .as("60,000 km were on the old odometer")
                .isBetween(used, used + 200);
        ines.post(path, "{\"version\": %d}".formatted(version)).problem(409, "conflict");
        ines.delete(path + "?version=" + after.get("version").asInt()).ok();
        assertThat(dossier(id).get("readings").valueStream()).anyMatch(r -> r.has("rejected"));
    }

    @Test
    void aCallWithADayToAskAgainTakesTheVehicleOffTodaysListUntilThatDay() {
        long id = Given.vehicle(SERVER, ines, "");
        String key = dossier(id).get("registration").asString().replace(" ", "%20");
        String path = "/api/vehicles/%d/calls".formatted(id);
        assertThat(ines.post(
                                path,
                                "{\"spokeWith\": \"Tamsin Orde\", \"note\": \"away\", \"askAgainOn\": \"%s\"}"
                                        .formatted(TODAY))
                        .errorAt("/askAgainOn"))
                .contains("after today");
        assertThat(ines.post(path, "{\"spokeWith\": \"\", \"note\": \"\"}").errorAt("/note"))
                .contains("missing");
        ines.post(
                        path,
                        "{\"spokeWith\": \"Tamsin Orde\", \"note\": \"away until then\", \"askAgainOn\": \"%s\"}"
                                .formatted(TODAY.plusDays(9)))
                .ok();

        JsonNode desk = ines.get("/api/desk?q=" + key).json();
        assertThat(desk.get("total").asInt()).isZero();
        assertThat(desk.get("aside").asInt()).isEqualTo(1);
        JsonNode row =
                ines.get("/api/desk?aside=true&q=" + key).json().get("rows").get(0);
        assertThat(row.get("aside").asString()).startsWith("ask again until ");
        assertThat(dossier(id).get("calls").get(0).get("note").asString()).isEqualTo("away until then");
    }

    @Test
    void aDeclineStandsUntilItEndsIsTakenBackOrSomethingIsFound() {
        long id = Given.vehicle(SERVER, ines, "");
        String key = dossier(id).get("registration").asString().replace(" ", "%20");
        String path = "/api/vehicles/%d/declines".formatted(id);
        assertThat(ines.post(
                                path,
                                "{\"declinedBy\": \"Tamsin Orde\", \"told\": \"\", \"until\": \"%s\"}"
                                        .formatted(TODAY.plusDays(30)))
                        .errorAt("/told"))
                .contains("missing");
        ines.post(
                        path,
                        "{\"declinedBy\": \"Tamsin Orde\", \"told\": \"it may break the engine\", \"until\": \"%s\"}"
                                .formatted(TODAY.plusDays(30)))
                .ok();
        assertThat(ines.get("/api/desk?q=" + key).json().get("total").asInt()).isZero();

        long decline = dossier(id).get("declines").get(0).get("id").asLong();
        ines.post(path + "/%d/withdrawal".formatted(decline), "").ok();
        ines.post(path + "/%d/withdrawal".formatted(decline), "").problem(404, "not-found");
        assertThat(ines.get("/api/desk?q=" + key).json().get("total").asInt()).isEqualTo(1);
        assertThat(dossier(id).get("declines").get(0).get("withdrawnOn").asString())
                .isEqualTo(TODAY.toString());
    }

    @Test
    void aTripBringsTheDateForwardAndGivesItBackWhenItIsOff() {
        long id = renewed(36);
        String before = item(id, "belt").get("actBy").asString();
        String path = "/api/vehicles/%d/trips".formatted(id);
        assertThat(ines.post(
                                path,
                                "{\"from\": \"%s\", \"to\": \"%s\", \"extraKm\": 9000}"
                                        .formatted(TODAY.plusDays(9), TODAY.plusDays(8)))
                        .errorAt("/to"))
                .contains("ends before it starts");
        ines.post(
                        path,
                        "{\"from\": \"%s\", \"to\": \"%s\", \"extraKm\": 15000}"
                                .formatted(TODAY.plusDays(20), TODAY.plusDays(60)))
                .ok();
        assertThat(item(id, "belt").get("actBy").asString()).isLessThan(before);
        long trip = dossier(id).get("trips").get(0).get("id").asLong();
        ines.delete(path + "/" + trip).ok();
        assertThat(item(id, "belt").get("actBy").asString()).isEqualTo(before);
        assertThat(dossier(id).get("trips")).isEmpty();
        ines.delete(path + "/" + trip).problem(404, "not-found");
    }

    @Test
    void theDossierTellsWhatWasRenewedOnWhatProof() {
        long id = renewed(36);
        ines.post("/api/vehicles/%d/renewals".formatted(id), """
                        {"item": "pump", "date": "%s", "km": 95000, "grade": "STATED", "part": "P-9",
                         "countsAsReading": false, "source": "CUSTOMER"}
                        """.formatted(TODAY.minusMonths(3)))
                .ok();
        JsonNode renewals = dossier(id).get("renewals");

        assertThat(renewals).hasSize(5);
        assertThat(renewals.get(0).get("item").asString()).isEqualTo("Water pump");
        assertThat(renewals.get(0).get("grade").asString()).isEqualTo("stated");
        assertThat(renewals.get(0).get("part").asString()).isEqualTo("P-9");
        assertThat(renewals.get(1).get("date").asString())
                .isEqualTo(TODAY.minusMonths(36).toString());
    }

    @Test
    void theOdometerOfARenewalIsTrustedAsItsProofIs() {
        long id = Given.vehicle(SERVER, ines, "");
        String renewal =
                "{\"item\": \"belt\", \"date\": \"%s\", \"km\": %d, \"grade\": \"%s\", \"proof\": \"invoice 4411\", \"countsAsReading\": true}";
        String path = "/api/vehicles/%d/renewals".formatted(id);
        ines.post(path, renewal.formatted(TODAY.minusYears(3), 50_000, "DOCUMENTED"))
                .ok();
        ines.post(path, renewal.formatted(TODAY.minusYears(1), 80_000, "STATED"))
                .ok();

        assertThat(dossier(id)
                        .get("readings")
                        .valueStream()
                        .map(r -> r.get("source").asString()))
                .containsExactly("CUSTOMER", "CERTIFICATE");
    }

    @Test
    void evidenceMaySpeakOfOneItemThatTheEngineHas() {
        long id = renewed(12);
        String path = "/api/vehicles/%d/evidence".formatted(id);
        assertThat(ines.post(
                                path,
                                "{\"kind\": \"COOLANT_TRACE\", \"found\": \"%s\", \"item\": \"wing\"}".formatted(TODAY))
                        .errorAt("/item"))
                .contains("no item \"wing\"");
        ines.post(
                        path,
                        "{\"kind\": \"COOLANT_TRACE\", \"found\": \"%s\", \"item\": \"pump\", \"confidence\": \"MEASURED\"}"
                                .formatted(TODAY))
                .ok();
        JsonNode found = dossier(id).get("evidence").get(0);
        assertThat(found.get("item").asString()).isEqualTo("Water pump");
        assertThat(found.get("confidence").asString()).isEqualTo("measured");
        assertThat(found.get("advice").asString()).isNotBlank();
    }

    @Test
    void readingsOfManyVehiclesAreTakenTogetherOrNotAtAll() {
        long first = renewed(36);
        long second = renewed(24);
        String a = dossier(first).get("registration").asString();
        String b = dossier(second).get("registration").asString();
        String lines = "{\"unit\": \"KM\", \"source\": \"CUSTOMER\", \"lines\": [%s, %s]}";
        String good = "{\"registration\": \"%s\", \"value\": %d}";
        int before = dossier(first).get("readings").size();

        assertThat(ines.post(
                                "/api/vehicle-readings",
                                lines.formatted(good.formatted(a, 101_000), good.formatted("NO 1", 5)))
                        .errorAt("/lines/1/registration"))
                .contains("not on file");
        JsonNode soft = ines.post(
                        "/api/vehicle-readings", lines.formatted(good.formatted(a, 101_000), good.formatted(b, 5)))
                .problem(422, "invalid-input");
        assertThat(soft.get("suggestion").asString()).isEqualTo("insist");
        assertThat(soft.get("errors").get(0).get("pointer").asString()).isEqualTo("/lines/1/value");
        assertThat(dossier(first).get("readings")).hasSize(before);

        JsonNode taken = ines.post(
                        "/api/vehicle-readings",
                        lines.formatted(
                                good.formatted(a, 101_000),
                                "{\"registration\": \"%s\", \"value\": 5, \"insist\": true}".formatted(b)))
                .ok()
                .json();
        assertThat(taken.get("count").asInt()).isEqualTo(2);
        assertThat(dossier(first).get("readings")).hasSize(before + 1);
        assertThat(dossier(second).get("readings").valueStream())
                .anyMatch(r -> r.get("km").asInt() == 5 && r.has("rejected"));
        assertThat(ines.post("/api/vehicle-readings", "{\"unit\": \"KM\", \"source\": \"CUSTOMER\", \"lines\": []}")
                        .errorAt("/lines"))
                .contains("no reading");
    }
}
