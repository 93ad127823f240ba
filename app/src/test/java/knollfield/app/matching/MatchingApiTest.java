package knollfield.app.matching;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.StreamSupport;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Rules that give vehicles their engine family, over HTTP, and the vehicles they leave open. */
class MatchingApiTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    private static final String MATCHING = "/api/setup/matching";

    private Client ines;
    private String one;
    private String other;

    @BeforeEach
    void families() {
        ines = SERVER.as("ines");
        Given.family(SERVER);
        List<String> codes = StreamSupport.stream(
                        ines.get("/api/engines").ok().json().spliterator(), false)
                .map(f -> f.get("code").asString())
                .sorted()
                .toList();
        one = codes.get(0);
        other = codes.get(1);
    }

    @AfterEach
    void noRules() {
        ines.get(MATCHING)
                .json()
                .get("rules")
                .forEach(r -> ines.delete(MATCHING
                                + "/rules/%d?version=%d"
                                        .formatted(
                                                r.get("id").asLong(),
                                                r.get("version").asInt()))
                        .ok());
    }

    private JsonNode rule(String family, String makeModel, String engine) {
        return ines.post(MATCHING + "/rules", """
                        {"family": "%s", "makeModel": "%s", "engine": "%s", "version": 0}""".formatted(family, makeModel, engine))
                .ok()
                .json();
    }

    private JsonNode add(String registration, String makeModel, String engine) {
        return ines.post("/api/vehicles", """
                        {"registration": "%s", "makeModel": "%s", "engine": "%s", "ownerName": "Owner", "ownerPhone": "1",
                         "usageClass": "PRIVATE", "firstRegistered": "2015-03-01", "cameWithReading": true,
                         "conditions": [], "equipment": [], "heavy": false, "idleHoursPerYear": 0, "version": 0}""".formatted(registration, makeModel, engine))
                .ok()
                .json();
    }

    private String familyOf(long id) {
        return ines.get("/api/vehicles/%d/details".formatted(id))
                .ok()
                .json()
                .path("family")
                .asString("");
    }

    private static List<String> registrations(JsonNode list) {
        return list.findValuesAsString("registration");
    }

    @Test
    void vehiclesThatMatchNoneOneOrSeveralAreListedAndGivenTheirFamily() {
        long plain = add("MATCH 1", "Quillon Bay 1.6", "").get("id").asLong();
        long lettered = add("MATCH 2", "Quillon Bay 1.6", "qb-16").get("id").asLong();
        add("MATCH 3", "Ostler", "");
        rule(one, "quillon bay", "");
        JsonNode now = rule(other, "", "QB 16, QB 18");

        assertThat(registrations(now.get("one"))).contains("MATCH 1").doesNotContain("MATCH 2", "MATCH 3");
        assertThat(registrations(now.get("several"))).containsExactly("MATCH 2");
        assertThat(registrations(now.get("none"))).contains("MATCH 3");
        assertThat(now.get("several").get(0).get("families").findValuesAsString("code"))
                .containsExactly(one, other);
        assertThat(now.get("rules").get(0).get("fits").asInt()).isEqualTo(2);

        int version = now.get("one").get(0).get("version").asInt();
        JsonNode given = ines.post(MATCHING + "/families", """
                        {"choices": [{"vehicleId": %d, "family": "%s", "version": %d}]}""".formatted(plain, one, version))
                .ok()
                .json();
        assertThat(familyOf(plain)).isEqualTo(one);
        assertThat(registrations(given.get("now").get("one"))).doesNotContain("MATCH 1");
        assertThat(ines.get("/api/vehicles/%d".formatted(plain)).text()).contains("engine family");

        ines.post(
                        MATCHING + "/families",
                        "{\"choices\": %s}".formatted(given.get("before").toString()))
                .ok();
        assertThat(familyOf(plain)).as("taken back").isEmpty();
        assertThat(familyOf(lettered)).isEmpty();
    }

    @Test
    void aNewVehicleGetsTheOnlyFamilyTheRulesGiveIt() {
        rule(one, "Selwyn", "");
        JsonNode stored = add("MATCH 4", "Selwyn Tor", "");
        assertThat(familyOf(stored.get("id").asLong())).isEqualTo(one);
        assertThat(stored.get("warnings").toString()).contains(one, "matching rules");
        rule(other, "Tor", "");
        JsonNode two = add("MATCH 5", "Selwyn Tor", "");
        assertThat(familyOf(two.get("id").asLong())).isEmpty();
        assertThat(two.get("warnings").toString()).contains("several");
    }

    @Test
    void aListTakesTheFamilyFromTheRulesAndKeepsTheLetters() {
        rule(one, "", "ZX12");
        String list = """
                registration,make model,engine code,first registered
                MATCH 6,Any,ZX 12,2016-01-01
                MATCH 7,Any,ZX 13,2016-01-01
                """;
        Client.Answer taken = ines.csv("/api/imports/preview", list);
        ines.csv("/api/imports", list).ok();
        assertThat(taken.text()).contains("by your matching rules");
        JsonNode six = find("MATCH 6");
        JsonNode seven = find("MATCH 7");
        assertThat(six.get("family").asString()).isEqualTo(one);
        assertThat(six.get("engine").asString()).isEqualTo("ZX 12");
        assertThat(seven.path("family").asString("")).isEmpty();
        assertThat(seven.get("engine").asString()).isEqualTo("ZX 13");
    }

    private JsonNode find(String registration) {
        JsonNode found =
                ines.get("/api/find?q=" + registration.replace(" ", "%20")).ok().json();
        long id = found.get("vehicles").get(0).get("vehicleId").asLong();
        return ines.get("/api/vehicles/%d/details".formatted(id)).ok().json();
    }

    @ParameterizedTest
    @CsvSource({
        "NONE, Any, '', 2000, 2001, /family",
        "*, ' - ', '', 2000, 2001, /makeModel",
        "*, Any, '', 2001, 2000, /yearTo",
        "*, Any, '', 1800, 2000, /yearFrom"
    })
    void aRuleThatCannotBeIsRefusedAtItsField(
            String family, String makeModel, String engine, int from, int to, String at) {
        String body = """
                {"family": "%s", "makeModel": "%s", "engine": "%s", "yearFrom": %d, "yearTo": %d, "version": 0}""".formatted(family.equals("*") ? one : family, makeModel, engine, from, to);
        assertThat(ines.post(MATCHING + "/rules", body).errorAt(at)).isNotEmpty();
    }

    @Test
    void whoChangesARuleSecondLearnsOfTheFirst() {
        JsonNode r = rule(one, "Any", "").get("rules").get(0);
        String body = "{\"family\": \"%s\", \"makeModel\": \"Any Other\", \"version\": 1}".formatted(one);
        String at = MATCHING + "/rules/" + r.get("id").asLong();
        ines.put(at, body).ok();
        ines.put(at, body).problem(409, "conflict");
        ines.delete(at + "?version=1").problem(409, "conflict");
    }
}
