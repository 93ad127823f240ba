package knollfield.app.importing;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.StreamSupport;
import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Lists out and in again, people as a list, and the parts of a book, over HTTP on the island. */
class ListsTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    @RegisterExtension
    static final Server OWN = Server.fresh();

    private final Client ines = SERVER.as("ines");

    private static String as(String kind) {
        return "?as="
                + java.net.URLEncoder.encode(
                        "{\"kind\": \"%s\", \"existing\": \"UPDATE\"}".formatted(kind),
                        java.nio.charset.StandardCharsets.UTF_8);
    }

    @ParameterizedTest
    @CsvSource({"VEHICLES, 100", "READINGS, 500", "RENEWALS, 100", "PARTS, 20", "PEOPLE, 5"})
    void whatIsOnFileGoesOutInTheFormOfTheTemplateAndInAgainChangesNothing(String kind, int atLeast) {
        String list = ines.get("/api/imports/list?kind=" + kind).ok().text();
        String template = ines.get("/api/imports/template?kind=" + kind).ok().text();
        assertThat(list.lines().findFirst()).isEqualTo(template.lines().findFirst());

        JsonNode read = ines.csv("/api/imports/preview" + as(kind), list).ok().json();
        assertThat(read.get("kind").asString()).isEqualTo(kind);
        assertThat(read.get("bad").asInt()).as(read.get("lines").toString()).isZero();
        assertThat(read.get("total").asInt()).isGreaterThan(atLeast);
        assertThat(read.get("actions").get("NEW").asInt()).isZero();
        assertThat(read.get("actions").get("UPDATE").asInt()).as(changes(read)).isZero();
        // the kind is known from the headings alone
        assertThat(ines.csv("/api/imports/preview", list)
                        .ok()
                        .json()
                        .get("kind")
                        .asString())
                .isEqualTo(kind);
    }

    private static String changes(JsonNode read) {
        return StreamSupport.stream(read.get("lines").spliterator(), false)
                .filter(l -> l.get("action").asString().equals("UPDATE"))
                .limit(3)
                .map(JsonNode::toString)
                .toList()
                .toString();
    }

    private Client own() {
        return OWN.as("ines");
    }

    private JsonNode person(String signIn) {
        return StreamSupport.stream(own().get("/api/setup/people").ok().json().spliterator(), false)
                .filter(p -> p.get("signIn").asString().equals(signIn))
                .findFirst()
                .orElse(null);
    }

    @Test
    void peopleComeAsAListSignInOnceTheyHaveAPasswordAndGoWithIt() {
        String list = """
                Mitarbeiter;Kurzzeichen;Rolle;Works on;Arbeitstage;Flotte
                Tressa Pym;typ;technician;belt|chain;Mon|Tue|Wednesday;
                Cador Ley;cley;front desk;;;
                Bad Line;bad;captain;;;
                No Fleet;nofleet;fleet contact;;;
                """;
        JsonNode read = own().csv("/api/imports/preview", list).ok().json();
        assertThat(read.get("kind").asString()).isEqualTo("PEOPLE");
        assertThat(read.get("good").asInt()).isEqualTo(2);
        assertThat(read.get("lines").toString()).contains("captain", "needs a fleet");
        String good =
                "?as=" + java.net.URLEncoder.encode("{\"takeGood\": true}", java.nio.charset.StandardCharsets.UTF_8);
        long batch =
                own().csv("/api/imports" + good, list).ok().json().get("batch").asLong();

        JsonNode tressa = person("typ");
        assertThat(tressa.get("role").asString()).isEqualTo("TECHNICIAN");
        assertThat(tressa.get("workingDays")).hasSize(3);
        assertThat(tressa.get("skills").toString()).contains("BELT", "CHAIN");
        assertThat(tressa.get("hasPassword").asBoolean()).isFalse();
        Client stranger = OWN.stranger();
        stranger.get("/api/me");
        assertThat(stranger.post("/api/sign-in", "{\"signIn\": \"typ\", \"password\": \"none\"}")
                        .status())
                .isEqualTo(422);
        own().put(
                        "/api/setup/people/%d/password"
                                .formatted(tressa.get("id").asLong()),
                        "{\"password\": \"long-enough-word-9\"}")
                .ok();
        OWN.stranger().signIn("typ", "long-enough-word-9").get("/api/desk").ok();
        assertThat(own().post("/api/imports/%d/take-back".formatted(batch), "{}")
                        .text())
                .contains("typ has a password");

        String second = "person,signs in as,role\nWella Nance,wella,technician\n";
        long again = own().csv("/api/imports", second).ok().json().get("batch").asLong();
        String change = "person,signs in as,role\nWella Nance-Ley,wella,technician\n";
        String update = "?as="
                + java.net.URLEncoder.encode("{\"existing\": \"UPDATE\"}", java.nio.charset.StandardCharsets.UTF_8);
        long changed = own().csv("/api/imports" + update, change)
                .ok()
                .json()
                .get("batch")
                .asLong();
        assertThat(person("wella").get("name").asString()).isEqualTo("Wella Nance-Ley");
        own().post("/api/imports/%d/take-back".formatted(again), "{}").problem(409, "conflict");
        own().post("/api/imports/%d/take-back".formatted(changed), "{}").ok();
        assertThat(person("wella").get("name").asString()).isEqualTo("Wella Nance");
    }

    @ParameterizedTest
    @CsvSource({"Engine, ENGINE_FAMILY", "Motor, ENGINE_FAMILY", "Engine code, ENGINE_LETTERS", "MKB, ENGINE_LETTERS"})
    void anEnginesColumnIsTakenForTheFamilyAndItsCodeForTheLetters(String heading, String field) {
        JsonNode read = ines.csv(
                        "/api/imports/preview",
                        "registration,model,first registered,%s\nLST 1,Any,2016-01-01,CAL-16\n".formatted(heading))
                .ok()
                .json();
        assertThat(read.get("columns").path(field).asInt(-1)).isEqualTo(3);
    }

    @Test
    void onlyAManagerTakesInPeople() {
        Client desk = SERVER.as("morwen");
        assertThat(desk.csv("/api/imports/preview", "person,signs in as\nA,b\n").errorAt("/kind"))
                .contains("manager");
        assertThat(desk.get("/api/imports/list?kind=PEOPLE").status()).isEqualTo(403);
        desk.get("/api/imports/list?kind=VEHICLES").ok();
    }

    @Test
    void thePartsOfABookGoIntoTheCatalogueInOneTouchAndOutAgain() {
        Client own = OWN.as("ines");
        String code = knollfield.app.Given.family(OWN);
        JsonNode parts = own.get("/api/parts").ok().json();
        int missing = StreamSupport.stream(
                        own.get("/api/parts/of-books").ok().json().spliterator(), false)
                .filter(b -> b.get("familyCode").asString().equals(code))
                .mapToInt(b -> b.get("parts").asInt())
                .sum();
        assertThat(missing).isPositive();

        JsonNode taken = own.post("/api/parts/of-books/" + code, "{}").ok().json();
        assertThat(taken.get("taken")).hasSize(missing);
        assertThat(taken.get("parts")).hasSize(parts.size() + missing);
        assertThat(own.get("/api/parts/of-books").json().findValuesAsString("familyCode"))
                .doesNotContain(code);
        own.post("/api/parts/removals", taken.get("taken").toString()).ok();
        assertThat(own.get("/api/parts").json()).isEqualTo(parts);
        own.post("/api/parts/removals", taken.get("taken").toString()).problem(409, "conflict");
    }

    @Test
    void aBaysPostsAndLoadAreKept() {
        own().post(
                        "/api/setup/bays",
                        "{\"name\": \"Pit\", \"note\": \"\", \"liftClass\": 2, \"posts\": 0, \"carriesKg\": 12000}")
                .ok();
        ObjectNode pit = StreamSupport.stream(
                        own().get("/api/setup/bays").json().spliterator(), false)
                .filter(b -> b.get("name").asString().equals("Pit"))
                .map(ObjectNode.class::cast)
                .findFirst()
                .orElseThrow();
        assertThat(pit.get("carriesKg").asInt()).isEqualTo(12_000);
        assertThat(own().put(
                                "/api/setup/bays/" + pit.get("id").asLong(),
                                pit.put("posts", 40).toString())
                        .errorAt("/posts"))
                .contains("0 to 8");
        own().put(
                        "/api/setup/bays/" + pit.get("id").asLong(),
                        pit.put("posts", 4).put("active", false).toString())
                .ok();
    }
}
