package knollfield.app.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.demo.TestFamilies;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.grow.GrownBuild;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The engine book in and out. */
class EngineApiTest {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static Client ines;

    @BeforeAll
    static void book() {
        ines = SERVER.as("ines");
        Given.family(SERVER);
    }

    private static ObjectNode document(String code) {
        return (ObjectNode) ines.get("/api/engines/" + code + "/document").ok().json();
    }

    private static Client.Answer take(String text, boolean preview) {
        return ines.text("/api/engines/documents?preview=" + preview, text);
    }

    private static JsonNode family(String code) {
        return ines.get("/api/engines/" + code).ok().json();
    }

    static Stream<EngineFamily> families() {
        return TestFamilies.all().stream();
    }

    @ParameterizedTest
    @MethodSource("families")
    void whatIsExportedIsImportedAsTheSameFamily(EngineFamily family) {
        JsonNode document =
                ines.get("/api/engines/" + family.code() + "/document").ok().json();
        EngineFamily read = SERVER.bean(FamilyJson.class).read(document.toString());

        assertThat(read).isEqualTo(GrownBuild.grown(family));
        JsonNode again = take(document.toString(), false).ok().json();
        assertThat(again.get("filed").asBoolean()).as("nothing new is filed").isFalse();
        assertThat(again.get("differences")).isEmpty();
    }

    private static Arguments broken(String what, String pointer, String words, Consumer<ObjectNode> change) {
        return Arguments.of(what, pointer, words, change);
    }

    private static ObjectNode at(ObjectNode family, String list, int index) {
        return (ObjectNode) family.get(list).get(index);
    }

    private static ObjectNode in(ObjectNode family, String name) {
        return (ObjectNode) family.get(name);
    }

    /** Thirty ways to break a good book; CAL-16 has the belt first among its items, the shields first of its steps. */
    static Stream<Arguments> broken() {
        return Stream.of(
                broken("no name", "/family/name", "missing", f -> f.remove("name")),
                broken("empty name", "/family/name", "", f -> f.put("name", "")),
                broken("name too long", "/family/name", "80", f -> f.put("name", "x".repeat(81))),
                broken("code with a space", "/family/code", "", f -> f.put("code", "A B")),
                broken("unknown field", "/family/colour", "no such field", f -> f.put("colour", "red")),
                broken("unknown drive", "/family/drive", "", f -> f.put("drive", "GEARS")),
                broken("drive of the wrong type", "/family/drive", "", f -> f.put("drive", 7)),
                broken("negative plugs", "/family/blankingPlugs", "", f -> f.put("blankingPlugs", -1)),
                broken("coolant as text", "/family/coolantLitres", "", f -> f.put("coolantLitres", "five")),
                broken("no items", "/family/items", "", f -> f.putArray("items")),
                broken("items no list", "/family/items", "", f -> f.put("items", "belt")),
                broken("neither path nor build", "/family/path", "needs its path", f -> {
                    f.remove("path");
                    f.remove("build");
                }),
                broken("timed by pins, none named", "/family/pins", "names none", f -> f.putArray("pins")),
                broken(
                        "no belt",
                        "/family/items",
                        "needs a belt or chain",
                        f -> at(f, "items", 0).put("kind", "IDLER")),
                broken(
                        "two items of one code",
                        "/family/items/1/code",
                        "two of item belt",
                        f -> at(f, "items", 1).put("code", "belt")),
                broken(
                        "item by an unknown step",
                        "/family/items/0/accessSteps",
                        "ladder",
                        f -> at(f, "items", 0).putArray("accessSteps").add("ladder")),
                broken(
                        "severe above normal",
                        "/family/items/0/schedule",
                        "must not exceed",
                        f -> ((ObjectNode) at(f, "items", 0).get("schedule").get("severe")).put("km", 500_000)),
                broken("limit of nothing", "/family/items/0/schedule/normal", "distance, an age", f -> {
                    ObjectNode normal =
                            (ObjectNode) at(f, "items", 0).get("schedule").get("normal");
                    normal.putNull("km");
                    normal.putNull("months");
                }),
                broken(
                        "half of itself",
                        "/family/items/0/halfOf",
                        "half of itself",
                        f -> at(f, "items", 0).put("halfOf", "belt")),
                broken(
                        "price below zero",
                        "/family/items/0/part/priceMinor",
                        "",
                        f -> ((ObjectNode) at(f, "items", 0).get("part")).put("priceMinor", -5)),
                broken(
                        "step that needs itself",
                        "/family/accessSteps/0/requires",
                        "needs itself",
                        f -> at(f, "accessSteps", 0).putArray("requires").add("shields")),
                broken(
                        "step that opens an unknown joint",
                        "/family/accessSteps/0/opens",
                        "hatch",
                        f -> at(f, "accessSteps", 0).putArray("opens").add("hatch")),
                broken(
                        "minutes as a fraction",
                        "/family/accessSteps/0/minutes",
                        "",
                        f -> at(f, "accessSteps", 0).put("minutes", 1.5)),
                broken(
                        "joint without bolts",
                        "/family/joints/0/bolts",
                        "",
                        f -> at(f, "joints", 0).put("bolts", 0)),
                broken(
                        "bolts by length that do not add up",
                        "/family/joints/5",
                        "by length",
                        f -> at(f, "joints", 5).put("bolts", 8)),
                broken(
                        "cam that does not turn at half speed",
                        "/family/path/pulleys/2/teeth",
                        "need 48",
                        f -> ((ObjectNode) f.get("path").get("pulleys").get(2)).put("teeth", 47)),
                broken(
                        "no crank",
                        "/family/path/pulleys",
                        "exactly one crank",
                        f -> ((ObjectNode) f.get("path").get("pulleys").get(0)).put("role", "IDLER")),
                broken(
                        "smooth wheel with a mark",
                        "/family/path/pulleys/1",
                        "smooth",
                        f -> ((ObjectNode) f.get("path").get("pulleys").get(1)).put("marked", true)),
                broken(
                        "repair from high to low",
                        "/family/repair",
                        "low to high",
                        f -> in(f, "repair").put("low", 9_999_999)),
                broken(
                        "last wheel that is not there",
                        "/family/handling/lastWheel",
                        "fan",
                        f -> in(f, "handling").put("lastWheel", "fan")),
                broken(
                        "turning back by a full turn",
                        "/family/handling/turningBackDegrees",
                        "",
                        f -> in(f, "handling").put("turningBackDegrees", 360)),
                broken(
                        "kit that holds an unknown item",
                        "/family/kits/0/items",
                        "wings",
                        f -> at(f, "kits", 0).putArray("items").add("wings")),
                broken(
                        "printed torque that is no figure",
                        "/family/joints/3/torque/printed/0/figure",
                        "",
                        f -> ((ObjectNode) at(f, "joints", 3)
                                        .get("torque")
                                        .get("printed")
                                        .get(0))
                                .put("figure", "about 130")));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("broken")
    void aBrokenBookIsRefusedAtItsPlaceAndChangesNothing(
            String what, String pointer, String words, Consumer<ObjectNode> change) {
        ObjectNode document = document("CAL-16");
        change.accept((ObjectNode) document.get("family"));
        int before = family("CAL-16").get("newest").asInt();

        Client.Answer answer = take(document.toString(), false);

        assertThat(answer.problem(422, "invalid-input").get("errors"))
                .extracting(e -> e.get("pointer").asString())
                .contains(pointer);
        assertThat(answer.errorAt(pointer)).contains(words).endsWith(".");
        assertThat(family("CAL-16").get("newest").asInt()).isEqualTo(before);
    }

    @Test
    void everyFaultIsSaidAtOnce() {
        ObjectNode document = document("CAL-16");
        ObjectNode family = (ObjectNode) document.get("family");
        at(family, "items", 0).putArray("accessSteps").add("ladder");
        in(family, "handling").put("lastWheel", "fan");
        at(family, "kits", 0).putArray("items").add("wings");

        assertThat(take(document.toString(), true).problem(422, "invalid-input").get("errors"))
                .extracting(e -> e.get("pointer").asString())
                .containsExactlyInAnyOrder(
                        "/family/items/0/accessSteps", "/family/handling/lastWheel", "/family/kits/0/items");
    }

    @Test
    void whatIsNoDocumentIsRefusedWithItsPlace() {
        assertThat(take("{\"format\": \"knollfield-engine-family\",", false).errorAt(""))
                .contains("not JSON", "line 1");
        take("   ", false).problem(422, "invalid-input");
        assertThat(take("[]", false).problem(422, "invalid-input").get("errors"))
                .isNotEmpty();
        assertThat(take("{\"format\": \"another\", \"formatVersion\": 1, \"family\": {}}", false)
                        .errorAt("/format"))
                .isNotEmpty();
    }

    private static int shields(JsonNode job) {
        return job.get("steps")
                .valueStream()
                .filter(s -> s.get("code").asString().equals("shields"))
                .findFirst()
                .orElseThrow()
                .get("minutes")
                .asInt();
    }

    private static String change(JsonNode family, int version, String note) {
        return "{\"family\": %s, \"version\": %d, \"note\": \"%s\"}".formatted(family, version, note);
    }

    @Test
    void aChangedBookIsANewVersionAndAJobKeepsItsOwn() {
        long vehicle = Given.vehicle(SERVER, ines, "");
        long job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
        JsonNode before = family("CAL-16");
        int version = before.get("version").asInt();
        assertThat(shields(ines.get("/api/jobs/" + job).json())).isEqualTo(20);
        ObjectNode edited = (ObjectNode) before.get("family").deepCopy();
        at(edited, "accessSteps", 0).put("minutes", 50);

        JsonNode after = ines.put("/api/engines/CAL-16", change(edited, version, "shields take longer"))
                .ok()
                .json();

        assertThat(after.get("version").asInt()).isEqualTo(version + 1);
        assertThat(after.get("versions").get(0).get("note").asString()).isEqualTo("shields take longer");
        JsonNode differences = ines.get("/api/engines/CAL-16/differences?from=%d&to=%d".formatted(version, version + 1))
                .ok()
                .json();
        assertThat(differences).hasSize(1);
        assertThat(differences.get(0).get("pointer").asString()).isEqualTo("/accessSteps/shields/minutes");
        assertThat(differences.get(0).get("before").asString()).isEqualTo("20");
        assertThat(differences.get(0).get("after").asString()).isEqualTo("50");

        JsonNode kept = ines.get("/api/jobs/" + job).json();
        assertThat(shields(kept)).isEqualTo(20);
        assertThat(kept.get("build").get("newestBook").asInt()).isEqualTo(version + 1);
        JsonNode renewed = ines.post("/api/jobs/%d/newest-book?version=1".formatted(job), "{}")
                .ok()
                .json();
        assertThat(shields(renewed)).isEqualTo(50);

        ines.put("/api/engines/CAL-16", change(edited, version, "")).problem(409, "conflict");
    }

    @Test
    void theCodeStaysAndTheEditorsFaultsStandAtTheirFields() {
        JsonNode before = family("WIN-15");
        ObjectNode edited = (ObjectNode) before.get("family").deepCopy();
        edited.put("code", "WIN-16");
        assertThat(ines.put("/api/engines/WIN-15", change(edited, 1, "")).errorAt("/family/code"))
                .contains("stays");
        edited.put("code", "WIN-15");
        ((ObjectNode) edited.get("path").get("pulleys").get(2)).put("teeth", 45);
        assertThat(ines.put("/api/engines/WIN-15", change(edited, 1, "")).errorAt("/family/path/pulleys/2/teeth"))
                .contains("need 44");
        assertThat(family("WIN-15").get("version").asInt()).isEqualTo(1);
    }

    @Test
    void whatIsNotOnFileAndWhatContradictsItselfIsSaid() {
        assertThat(family("WIN-15").get("remarks"))
                .extracting(r -> r.get("words").asString())
                .anySatisfy(w -> assertThat(w).contains("Cover bolts", "not on file"));
        assertThat(family("OST-24V").get("remarks"))
                .extracting(r -> r.get("words").asString())
                .anySatisfy(w -> assertThat(w).contains("219 N·m", "158 lb·ft", "161.5"));
    }

    @Test
    void thePathSaysWhatFollowsFromItsTeeth() {
        JsonNode path = family("CAL-16").get("path");

        assertThat(path.get("marksReturnTurns").asInt()).isEqualTo(290);
        assertThat(path.get("layingOn"))
                .extracting(JsonNode::asString)
                .containsExactly("Crank", "Water pump", "Idler", "Exhaust cam", "Inlet cam", "Tensioner");
        List<Boolean> tight = new ArrayList<>();
        path.get("runs").forEach(r -> tight.add(r.get("tight").asBoolean()));
        assertThat(tight).containsExactly(false, false, true, true, true, true);
    }

    @Test
    void theSchemaIsPublishedAndOnlyTheManagerChangesTheBook() {
        JsonNode schema = JSON.readTree(ines.get("/api/engines/schema").ok().text());
        assertThat(schema.get("$schema").asString()).contains("2020-12");
        assertThat(schema.get("properties").get("family").get("required"))
                .extracting(JsonNode::asString)
                .contains("joints", "handling")
                .as("a drawing may be missing")
                .doesNotContain("path");

        ines.post("/api/setup/people", """
                {"signIn": "desk-e", "name": "Desk E", "role": "FRONT_DESK", "skills": [], "workingDays": [],
                 "password": "%s"}""".formatted(Server.DEMO_PASSWORD)).ok();
        Client desk = SERVER.as("desk-e");
        desk.get("/api/engines").ok();
        desk.put("/api/engines/CAL-16", change(family("CAL-16").get("family"), 1, ""))
                .problem(403, "not-allowed");
    }

    @Test
    void aNewFamilyComesInAfterAPreview() {
        ObjectNode document = document("HOL-12");
        ((ObjectNode) document.get("family")).put("code", "NEW-1").put("name", "Newcomer");

        JsonNode preview = take(document.toString(), true).ok().json();
        assertThat(preview.get("created").asBoolean()).isTrue();
        assertThat(preview.get("filed").asBoolean()).isFalse();
        ines.get("/api/engines/NEW-1").problem(404, "not-found");

        assertThat(take(document.toString(), false).ok().json().get("version").asInt())
                .isEqualTo(1);
        assertThat(family("NEW-1").get("name").asString()).isEqualTo("Newcomer");
        ArrayNode items = (ArrayNode) family("NEW-1").get("family").get("items");
        assertThat(items).isNotEmpty();
    }
}
