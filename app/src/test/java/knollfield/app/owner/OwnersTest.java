package knollfield.app.owner;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Collectors;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.flywaydb.core.Flyway;
import org.h2.jdbcx.JdbcConnectionPool;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;

class OwnersTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    private final Client ines = SERVER.as("ines");

    private String list(String... lines) {
        Given.family(SERVER);
        return "registration,make_model,engine_family,owner,phone,usage,first_registered,vin\n"
                + List.of(lines).stream()
                        .map(l -> l.split(",", -1))
                        .map(l -> "%s,Test vehicle,CAL-16,%s,%s,private,%s,%s"
                                .formatted(l[0], l[1], l[2], Given.TODAY.minusYears(9), l.length > 3 ? l[3] : ""))
                        .collect(Collectors.joining("\n"));
    }

    private JsonNode find(String q) {
        return ines.get("/api/find?limit=200&q=" + URLEncoder.encode(q, StandardCharsets.UTF_8))
                .ok()
                .json();
    }

    private static List<String> registrations(JsonNode found) {
        return found.get("vehicles")
                .valueStream()
                .map(v -> v.get("registration").asString())
                .toList();
    }

    private JsonNode ownerOf(String registration) {
        long vehicle = Given.find(ines, registration);
        long owner = ines.get("/api/vehicles/%d/details".formatted(vehicle))
                .ok()
                .json()
                .get("ownerId")
                .asLong();
        return page(owner);
    }

    private JsonNode page(long owner) {
        return ines.get("/api/owners/" + owner).ok().json();
    }

    private static long id(JsonNode page) {
        return page.get("owner").get("id").asLong();
    }

    private static int version(JsonNode page) {
        return page.get("owner").get("version").asInt();
    }

    private static List<String> vehicles(JsonNode page) {
        return page.get("vehicles")
                .valueStream()
                .map(v -> v.get("registration").asString())
                .sorted()
                .toList();
    }

    @Test
    void aListMakesOneOwnerOfOneNameAndNumberAndNobodyOfNone() {
        ines.csv(
                        "/api/imports",
                        list(
                                "OWN 1,Orla Penhale,0555 100 1",
                                "OWN 2,ORLA PENHALE,0555-1001",
                                "OWN 3,Orla Penhale,0555 100 2",
                                "OWN 4,,",
                                "OWN 5,,"))
                .ok();

        assertThat(vehicles(ownerOf("OWN 1"))).containsExactly("OWN 1", "OWN 2");
        assertThat(vehicles(ownerOf("OWN 3"))).containsExactly("OWN 3");
        assertThat(ownerOf("OWN 3").get("alike").get(0).get("id").asLong()).isEqualTo(id(ownerOf("OWN 1")));
        JsonNode nobody = ines.get("/api/vehicles/%d/details".formatted(Given.find(ines, "OWN 4")))
                .ok()
                .json();
        assertThat(nobody.has("ownerId")).isFalse();
        assertThat(nobody.get("ownerName").asString()).isEqualTo("not stated");

        // taken back as a whole, owners too
        long batch = ines.get("/api/imports").json().get(0).get("id").asLong();
        ines.post("/api/imports/%d/take-back".formatted(batch), "{}").ok();
        assertThat(find("penhale").get("owners")).isEmpty();
    }

    @Test
    void whatChangesOfAnOwnerChangesForEveryVehicleAndStandsInEachLog() {
        ines.csv("/api/imports", list("TWO 1,Brannoc Hale,0555 200", "TWO 2,Brannoc Hale,0555 200"))
                .ok();
        JsonNode before = ownerOf("TWO 1");
        String body = """
                {"name": "Brannoc Hale & Sons", "kind": "FIRM", "address": "2 Ferry Road", "email": "%s",
                 "prefers": "LETTER", "language": "el", "mayWrite": false, "version": %d,
                 "phones": [{"number": "0555 201", "label": "yard"}, {"number": "+47 0555 200", "label": ""}]}
                """;
        String address = "/api/owners/" + id(before);
        assertThat(ines.put(address, body.formatted("no at all", version(before)))
                        .errorAt("/email"))
                .contains("name@place");
        assertThat(ines.put(
                                address,
                                "{\"name\": \"x\", \"mayWrite\": true, \"version\": %d, \"phones\": [null]}"
                                        .formatted(version(before)))
                        .errorAt("/phones/0"))
                .contains("missing");
        JsonNode nothing = ines.put(
                        address,
                        "{\"name\": \"x\", \"mayWrite\": true, \"version\": %d, \"phones\": []}"
                                .formatted(version(before)))
                .problem(422, "invalid-input");
        assertThat(nothing.toString()).contains("/kind", "/prefers");
        ines.put(address, body.formatted("yard@hale.example", version(before))).ok();
        ines.put(address, body.formatted("later@hale.example", version(before))).problem(409, "conflict");

        for (String registration : List.of("TWO 1", "TWO 2")) {
            long vehicle = Given.find(ines, registration);
            JsonNode details =
                    ines.get("/api/vehicles/%d/details".formatted(vehicle)).json();
            assertThat(details.get("ownerName").asString()).isEqualTo("Brannoc Hale & Sons");
            assertThat(details.get("ownerPhone").asString()).isEqualTo("0555 201");
            assertThat(ines.get("/api/vehicles/" + vehicle).json().get("log").toString())
                    .contains("yard 0555 201", "letters in el", "not to be written to");
        }
        assertThat(registrations(find("0555200"))).contains("TWO 1", "TWO 2");
    }

    @Test
    void anotherNameInTheVehiclesFormIsAnotherOwnerAndAnotherNumberIsTheSameOnes() {
        ines.csv("/api/imports", list("FRM 1,Keren Moll,0555 300", "FRM 2,Keren Moll,0555 300"))
                .ok();
        long keren = id(ownerOf("FRM 1"));
        long vehicle = Given.find(ines, "FRM 1");
        String address = "/api/vehicles/%d/details".formatted(vehicle);

        ines.put(address, ines.get(address).ok().text().replace("0555 300", "0555 301"))
                .ok();
        assertThat(id(ownerOf("FRM 1"))).isEqualTo(keren);
        assertThat(ownerOf("FRM 2")
                        .get("owner")
                        .get("phones")
                        .get(0)
                        .get("number")
                        .asString())
                .isEqualTo("0555 301");
        assertThat(ownerOf("FRM 2").get("owner").get("phones")).hasSize(2);

        ines.put(address, ines.get(address).ok().text().replace("Keren Moll", "Davy Moll"))
                .ok();
        assertThat(id(ownerOf("FRM 1"))).isNotEqualTo(keren);
        assertThat(vehicles(page(keren))).containsExactly("FRM 2");

        ines.put(address, ines.get(address).ok().text().replaceFirst("\"ownerId\":\\d+", "\"ownerId\":" + keren))
                .ok();
        assertThat(vehicles(page(keren))).containsExactly("FRM 1", "FRM 2");
    }

    @Test
    void mergedAndSplitAndUndone() {
        ines.csv(
                        "/api/imports",
                        list("MRG 1,Wella Tripp,0555 400", "MRG 2,W. Tripp,0555 401", "MRG 3,W. Tripp,0555 401"))
                .ok();
        JsonNode wella = ownerOf("MRG 1");
        JsonNode w = ownerOf("MRG 2");
        String merge = "{\"version\": %d, \"into\": %d, \"intoVersion\": %d}";
        String address = "/api/owners/%d/merge".formatted(id(w));
        ines.post(address, merge.formatted(version(w) + 1, id(wella), version(wella)))
                .problem(409, "conflict");

        JsonNode one = ines.post(address, merge.formatted(version(w), id(wella), version(wella)))
                .ok()
                .json();
        assertThat(vehicles(one)).containsExactly("MRG 1", "MRG 2", "MRG 3");
        assertThat(one.get("owner").get("phones")).hasSize(2);
        assertThat(id(page(id(w)))).as("by the old number").isEqualTo(id(wella));
        assertThat(find("tripp").get("owners")).hasSize(1);

        String undo = "/api/owners/%d/changes/%d/undo"
                .formatted(id(wella), one.get("changes").get(0).get("id").asLong());
        JsonNode back = ines.post(undo, "{}").ok().json();
        assertThat(vehicles(back)).containsExactly("MRG 1");
        assertThat(back.get("owner").get("phones"))
                .as("what the merge added is taken off again")
                .isEqualTo(wella.get("owner").get("phones"));
        ines.post(undo, "{}").problem(404, "not-found");
        assertThat(vehicles(page(id(w)))).containsExactly("MRG 2", "MRG 3");

        JsonNode two = page(id(w));
        String split = "{\"version\": %d, \"name\": \"%s\", \"phone\": \"0555 402\", \"vehicles\": [%s]}";
        String at = "/api/owners/%d/split".formatted(id(w));
        long third = Given.find(ines, "MRG 3");
        assertThat(ines.post(at, split.formatted(version(two), "", third)).errorAt("/name"))
                .contains("missing");
        assertThat(ines.post(at, split.formatted(version(two), "Jan Tripp", Given.find(ines, "MRG 1")))
                        .errorAt("/vehicles"))
                .contains("Not all");
        JsonNode left = ines.post(at, split.formatted(version(two), "Jan Tripp", third))
                .ok()
                .json();
        assertThat(vehicles(left)).containsExactly("MRG 2");
        assertThat(ownerOf("MRG 3").get("owner").get("name").asString()).isEqualTo("Jan Tripp");
        assertThat(ines.get("/api/vehicles/" + third).json().get("log").toString())
                .contains("Jan Tripp");
        ines.post(
                        "/api/owners/%d/changes/%d/undo"
                                .formatted(
                                        id(w),
                                        left.get("changes").get(0).get("id").asLong()),
                        "{}")
                .ok();
        assertThat(vehicles(page(id(w)))).containsExactly("MRG 2", "MRG 3");
        assertThat(find("Jan Tripp").get("owners")).isEmpty();
    }

    @Test
    void whatWasChangedSinceAMergeStaysWhenItIsUndoneAndAnOldNumberLeadsToTheLastOwner() {
        ines.csv("/api/imports", list("CHN 1,Ada Pol,0555 501", "CHN 2,Bea Pol,0555 502", "CHN 3,Cleo Pol,0555 503"))
                .ok();
        JsonNode ada = ownerOf("CHN 1");
        String merge = "{\"version\": %d, \"into\": %d, \"intoVersion\": %d}";
        JsonNode bea = ines.post(
                        "/api/owners/%d/merge".formatted(id(ada)),
                        merge.formatted(version(ada), id(ownerOf("CHN 2")), version(ownerOf("CHN 2"))))
                .ok()
                .json();
        JsonNode cleo = ownerOf("CHN 3");
        ines.post("/api/owners/%d/merge".formatted(id(bea)), merge.formatted(version(bea), id(cleo), version(cleo)))
                .ok();
        assertThat(id(page(id(ada)))).isEqualTo(id(cleo));

        JsonNode now = page(id(cleo));
        ines.put("/api/owners/" + id(cleo), """
                        {"name": "Cleo Pol-Hale", "kind": "PERSON", "prefers": "PHONE", "mayWrite": true, "version": %d,
                         "phones": [{"number": "0555 509"}]}
                        """.formatted(version(now))).ok();
        JsonNode undone = ines.post(
                        "/api/owners/%d/changes/%d/undo"
                                .formatted(
                                        id(cleo),
                                        now.get("changes").get(0).get("id").asLong()),
                        "{}")
                .ok()
                .json();
        assertThat(undone.get("owner").get("name").asString()).isEqualTo("Cleo Pol-Hale");
        assertThat(vehicles(undone)).containsExactly("CHN 3");
        assertThat(vehicles(page(id(ada)))).containsExactly("CHN 1", "CHN 2");

        String details = "/api/vehicles/%d/details".formatted(Given.find(ines, "CHN 3"));
        assertThat(ines.put(
                                details,
                                ines.get(details).ok().text().replaceFirst("\"ownerId\":\\d+", "\"ownerId\":987654"))
                        .errorAt("/ownerId"))
                .contains("no such owner");
    }

    // Source: ITU-T Recommendation E.123 (2001), section 7: a number in national and in international notation
    @ParameterizedTest
    @ValueSource(
            strings = {
                "(0607) 123 4567",
                "+22 607 123 4567",
                "0022 607 1234567",
                "+22 (0)607 123-4567",
                "607/123.45.67",
                "1234567"
            })
    void aNumberIsFoundInAnySpelling(String asked) {
        if (find("PHN 1").get("total").asInt() == 0) {
            ines.csv("/api/imports", list("PHN 1,Sithney Roe,0607 123 4567", "PHN 2,Else Roe,0607 765 4321"))
                    .ok();
        }
        JsonNode found = find(asked);
        assertThat(registrations(found)).containsExactly("PHN 1");
        assertThat(found.get("owners").valueStream().map(o -> o.get("name").asString()))
                .containsExactly("Sithney Roe");
        assertThat(ines.get("/api/desk?q=" + URLEncoder.encode(asked, StandardCharsets.UTF_8))
                        .ok()
                        .json()
                        .get("rows")
                        .valueStream()
                        .map(v -> v.get("registration").asString()))
                .as("on the Desk")
                .containsExactly("PHN 1");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({
        "test orla tin, TIN 1",
        "JKLMN12, TIN 1",
        "jk lmn 12, TIN 1",
        "cal-16 roetin, TIN 2",
        "tin 2 vehicle, TIN 2"
    })
    void everyWordNarrows(String asked, String registration) {
        if (find("TIN 1").get("total").asInt() == 0) {
            ines.csv(
                            "/api/imports",
                            list(
                                    "TIN 1,Orla Tin,0555 600,ABCDEFGHJKLMN1234",
                                    "TIN 2,Roetin,0555 601,ABCDEFGHJKLPX1234"))
                    .ok();
        }
        assertThat(registrations(find(asked))).containsExactly(registration);
    }

    @ParameterizedTest
    @ValueSource(strings = {"åse bø", "Ase Bo", "ÅSE", "as 4711", "ÅS 4711"})
    void accentsNeedNotBeTyped(String asked) {
        if (find("ÅS 4711").get("total").asInt() == 0) {
            ines.csv("/api/imports", list("ÅS 4711,Åse Bø,0555 800", "PL 1,Łucja Groß,0555 801"))
                    .ok();
        }
        JsonNode found = find(asked);
        assertThat(registrations(found)).containsExactly("ÅS 4711");
        if (!asked.contains("4711")) {
            assertThat(found.get("owners").get(0).get("name").asString()).isEqualTo("Åse Bø");
        }
        assertThat(registrations(find("lucja gross"))).containsExactly("PL 1");
    }

    @Test
    void allThatIsFoundIsCountedAndReachedTheWorstFirst() {
        String[] lines = new String[19];
        for (int i = 0; i < lines.length; i++) {
            lines[i] = "MNY %d,Many Lanyon,0555 700".formatted(100 + i);
        }
        ines.csv("/api/imports", list(lines)).ok();
        long worst = Given.find(ines, "MNY 117");
        ines.post("/api/vehicles/%d/evidence".formatted(worst), """
                        {"kind": "BELT_FAILED", "found": "%s", "confidence": "SEEN", "note": ""}
                        """.formatted(Given.TODAY))
                .ok();
        long sold = Given.find(ines, "MNY 100");
        ines.put("/api/vehicles/%d/state".formatted(sold), """
                        {"state": "SOLD", "since": "%s", "version": %d}
                        """.formatted(
                                Given.TODAY,
                                ines.get("/api/vehicles/%d/details".formatted(sold))
                                        .json()
                                        .get("version")
                                        .asInt()))
                .ok();

        JsonNode first = ines.get("/api/find?q=lanyon").ok().json();
        assertThat(first.get("total").asInt()).isEqualTo(19);
        assertThat(first.get("vehicles")).hasSize(8);
        assertThat(registrations(first)).startsWith("MNY 117");
        assertThat(first.get("owners").get(0).get("vehicles").asInt()).isEqualTo(19);
        List<String> all = registrations(find("lanyon"));
        assertThat(all).hasSize(19).doesNotHaveDuplicates().endsWith("MNY 100");
        assertThat(ines.get("/api/find?q=lanyon&offset=16").json().get("vehicles"))
                .hasSize(3);
        assertThat(registrations(find("MNY 103"))).startsWith("MNY 103");
        assertThat(find("cal-16").get("families").get(0).get("code").asString()).isEqualTo("CAL-16");

        long job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(worst))
                .ok()
                .json()
                .get("id")
                .asLong();
        for (String asked : List.of("%d", "#%d", "Job %d")) {
            assertThat(find(asked.formatted(job))
                            .get("jobs")
                            .get(0)
                            .get("registration")
                            .asString())
                    .isEqualTo("MNY 117");
        }
    }

    @Test
    void ownersOfBeforeMoveOver() {
        JdbcConnectionPool pool = JdbcConnectionPool.create("jdbc:h2:mem:before-owners;DB_CLOSE_DELAY=-1", "sa", "");
        Flyway.configure()
                .dataSource(pool)
                .locations("classpath:db/migration")
                .target("14")
                .load()
                .migrate();
        JdbcClient jdbc = JdbcClient.create(pool);
        String[] owners = {
            "'Odo Brack', '0555 12'",
            "'odo brack ', '0555-12'",
            "'Odo Brack', '0555 13'",
            "'not stated', 'not stated'",
            "'not stated', '0555 14'",
            "'Elowen', 'not stated'"
        };
        for (int i = 0; i < owners.length; i++) {
            jdbc.sql("""
                            INSERT INTO vehicle (registration, registration_key, make_model, owner_name, owner_phone,
                                usage_class, first_registered, came_with_reading, conditions, equipment, lift_class, version)
                            VALUES ('R%1$d', 'R%1$d', 'm', %2$s, (SELECT MIN(code) FROM usage_class), DATE '2020-01-01',
                                TRUE, '', '', 1, 1)
                            """.formatted(i, owners[i])).update();
        }

        Flyway.configure()
                .dataSource(pool)
                .locations("classpath:db/migration")
                .load()
                .migrate();

        assertThat(jdbc.sql("""
                                SELECT v.registration || ' ' || COALESCE(o.name, '-') || ' ' || COALESCE(p.number, '-')
                                FROM vehicle v
                                LEFT JOIN owner o ON o.id = v.owner_id
                                LEFT JOIN owner_phone p ON p.owner_id = o.id
                                ORDER BY v.id
                                """).query(String.class).list())
                .containsExactly(
                        "R0 Odo Brack 0555 12",
                        "R1 Odo Brack 0555 12",
                        "R2 Odo Brack 0555 13",
                        "R3 - -",
                        "R4 not stated 0555 14",
                        "R5 Elowen -");
        jdbc.sql("INSERT INTO owner (name) VALUES ('new')").update();
        assertThat(jdbc.sql("SELECT COUNT(*) FROM owner").query(Integer.class).single())
                .isEqualTo(5);
        pool.dispose();
    }
}
