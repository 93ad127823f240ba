package knollfield.app.security;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

class AccessTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private static final String WORKSHOP_CHANGE = """
            {"name": "X", "policy": "BOOK", "earlyShare": 1, "riskInterference": 0.1, "riskOther": 0.5,
             "horizonDays": 120, "unknownRule": "DUE_NOW", "labourRateMinor": 1, "recoveryMinor": 1,
             "dayOffRoadMinor": 1, "daysOffRoad": 1, "shareFailedAtLimits": 0.02, "wearShape": 4, "version": 1}
            """;

    @Test
    void nobodySignedInSeesNothing() {
        SERVER.stranger().get("/api/desk").problem(401, "signed-out");
        assertThat(SERVER.stranger().get("/api/me").ok().json().has("name")).isFalse();
    }

    @Test
    void aWrongPasswordIsSaidBesideItsField() {
        Client client = SERVER.stranger();
        assertThat(client.post("/api/sign-in", "{\"signIn\": \"ines\", \"password\": \"wrong-one\"}")
                        .errorAt("/password"))
                .contains("do not belong together");
        client.get("/api/desk").problem(401, "signed-out");
    }

    private static Client signIn(String name, String password) {
        Client client = SERVER.stranger();
        client.post("/api/sign-in", "{\"signIn\": \"%s\", \"password\": \"%s\"}".formatted(name, password))
                .ok();
        return client;
    }

    @Test
    void aForgottenPasswordIsGivenAnewAndOnesOwnIsChanged() {
        Client ines = SERVER.as("ines");
        ines.post("/api/setup/people", """
                        {"signIn": "lamorna", "name": "Lamorna Reed", "role": "FRONT_DESK", "skills": [],
                         "workingDays": [], "password": "first-of-lamorna-7"}
                        """).ok();
        long id = ines.get("/api/setup/people")
                .ok()
                .json()
                .valueStream()
                .filter(p -> p.get("signIn").asString().equals("lamorna"))
                .findFirst()
                .orElseThrow()
                .get("id")
                .asLong();
        String path = "/api/setup/people/%d/password".formatted(id);
        assertThat(ines.put(path, "{\"password\": \"short\"}").errorAt("/password"))
                .contains("at least 12");
        ines.put(path, "{\"password\": \"given-anew-by-ines-1\"}").ok();
        assertThat(SERVER.stranger()
                        .post("/api/sign-in", "{\"signIn\": \"lamorna\", \"password\": \"first-of-lamorna-7\"}")
                        .errorAt("/password"))
                .contains("do not belong");

        Client lamorna = signIn("lamorna", "given-anew-by-ines-1");
        lamorna.put(path, "{\"password\": \"by-herself\"}").problem(403, "not-allowed");
        assertThat(lamorna.put("/api/me/password", "{\"current\": \"guess\", \"password\": \"my-own-four-words\"}")
                        .errorAt("/current"))
                .contains("not your password");
        lamorna.put("/api/me/password", "{\"current\": \"given-anew-by-ines-1\", \"password\": \"my-own-four-words\"}")
                .ok();
        signIn("lamorna", "my-own-four-words").get("/api/desk").ok();
        SERVER.stranger()
                .put("/api/me/password", "{\"current\": \"my-own-four-words\", \"password\": \"someone-else\"}")
                .problem(401, "signed-out");
    }

    @Test
    void aChangeFromAForeignPageIsRefused() {
        Client ines = SERVER.as("ines");
        ines.postWithoutToken("/api/jobs", "{\"vehicleId\": 1}").problem(403, "not-allowed");
    }

    @ParameterizedTest(name = "{0} may not {1} {2}")
    @CsvSource({
        "hedra, PUT, /api/setup/workshop",
        "hedra, GET, /api/setup/workshop",
        "hedra, POST, /api/setup/people",
        "hedra, PUT, /api/setup/people/1",
        "hedra, GET, /api/setup/breakdowns",
        "jory, POST, /api/vehicles/1/breakdowns",
        "morwen, PUT, /api/setup/workshop",
        "jory, PUT, /api/setup/workshop",
        "hedra, POST, /api/jobs",
        "hedra, PUT, /api/jobs/1/booking",
        "hedra, PUT, /api/vehicles/1/conditions",
        "jory, POST, /api/vehicles/1/readings",
        "jory, GET, /api/jobs",
        "morwen, POST, /api/jobs/2/card/events",
        "jory, POST, /api/imports",
        "ines, GET, /api/anything-else"
    })
    void rolesEndWhereTheyEnd(String who, String method, String path) {
        Client client = SERVER.as(who);
        Client.Answer answer = switch (method) {
            case "GET" -> client.get(path);
            case "PUT" -> client.put(path, WORKSHOP_CHANGE);
            default -> client.post(path, "{}");
        };
        answer.problem(403, "not-allowed");
    }

    @Test
    void refusedChangesChangeNothing() {
        JsonNode before = SERVER.as("ines").get("/api/setup/workshop").ok().json();
        SERVER.as("hedra").put("/api/setup/workshop", WORKSHOP_CHANGE).problem(403, "not-allowed");

        assertThat(SERVER.as("ines").get("/api/setup/workshop").json()).isEqualTo(before);
    }

    @Test
    void aFleetContactSeesTheOwnFleetAndNothingElse() {
        Client jory = SERVER.as("jory");
        JsonNode desk = jory.get("/api/desk?status=CLEAR&status=OVERDUE&status=COMING&status=ACT_NOW")
                .ok()
                .json();
        long stranger = SERVER.as("ines")
                .get("/api/desk")
                .json()
                .get("rows")
                .valueStream()
                .filter(r -> !r.path("fleet").asString("").equals("Harbour taxis"))
                .findFirst()
                .orElseThrow()
                .get("vehicleId")
                .asLong();

        assertThat(desk.get("vehicles").asInt()).isEqualTo(10);
        assertThat(desk.get("rows").valueStream().map(r -> r.get("fleet").asString()))
                .isNotEmpty()
                .containsOnly("Harbour taxis");
        assertThat(jory.get("/api/desk/fleets").json()).hasSize(1);
        jory.get("/api/vehicles/" + stranger).problem(404, "not-found");
        JsonNode skr = jory.get("/api/find?q=SKR").json();
        assertThat(skr.get("owners")).isEmpty();
        List<String> found = skr.get("vehicles")
                .valueStream()
                .map(f -> f.get("ownerName").asString())
                .toList();
        assertThat(found).containsOnly("Harbour taxis");
    }

    @Test
    void anAccountSwitchedOffIsOutAtOnceAndTheLastManagerStays() {
        Client ines = SERVER.as("ines");
        ines.post("/api/setup/people", """
                        {"signIn": "temp", "name": "Temporary Hand", "role": "FRONT_DESK", "skills": [],
                         "workingDays": [], "password": "long-enough-word-9"}
                        """).ok();
        Client temp = SERVER.stranger().signIn("temp", "long-enough-word-9");
        temp.get("/api/desk").ok();
        JsonNode person = person(ines, "temp");
        ines.put("/api/setup/people/" + person.get("id").asLong(), change(person, "FRONT_DESK", false))
                .ok();

        assertThat(temp.get("/api/desk").status()).isEqualTo(401);
        JsonNode manager = person(ines, "ines");
        assertThat(ines.put("/api/setup/people/" + manager.get("id").asLong(), change(manager, "FRONT_DESK", true))
                        .errorAt("/role"))
                .contains("last manager");
    }

    @Test
    void anAccountNeedsAWholeFormAndAFreeName() {
        Client.Answer answer = SERVER.as("ines").post("/api/setup/people", """
                        {"signIn": "", "name": "", "role": "FLEET_CONTACT", "skills": [], "workingDays": [],
                         "password": "short"}
                        """);

        assertThat(answer.problem(422, "invalid-input")
                        .get("errors")
                        .valueStream()
                        .map(e -> e.get("pointer").asString()))
                .containsExactlyInAnyOrder("/name", "/fleetId", "/signIn", "/password");
        assertThat(SERVER.as("ines").post("/api/setup/people", """
                                {"signIn": "HEDRA", "name": "Second", "role": "TECHNICIAN", "skills": [],
                                 "workingDays": [], "password": "long-enough-word-9"}
                                """).errorAt("/signIn"))
                .contains("taken");
    }

    private static JsonNode person(Client client, String signIn) {
        return client.get("/api/setup/people")
                .ok()
                .json()
                .valueStream()
                .filter(p -> p.get("signIn").asString().equals(signIn))
                .findFirst()
                .orElseThrow();
    }

    private static String change(JsonNode p, String role, boolean active) {
        return """
               {"name": "%s", "role": "%s", "skills": [], "workingDays": [], "active": %s, "version": %d}
               """.formatted(
                        p.get("name").asString(), role, active, p.get("version").asInt());
    }
}
