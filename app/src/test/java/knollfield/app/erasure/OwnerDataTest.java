package knollfield.app.erasure;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.stream.Stream;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** An owner gets a copy of what is kept, and is forgotten when asked for; the vehicle's record stays. */
class OwnerDataTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static final List<String> WHO = List.of("Zenobia Trembath", "0555 778 901", "zenobia@trembath.example");

    @Test
    void anErasedOwnerStandsNowhereAndTheVehiclesRecordIsAsItWas() {
        Client ines = SERVER.as("ines");
        String list =
                "registration,make_model,owner,phone,usage,first_registered\nZEN 1,van,Zenobia Trembath,0555 778 901,private,2015-05-01\n"
                        + "ZEN 2,van,Zenobia Other,0555 1,private,2015-05-01\n"
                        + "ZEN 4,van,Ann Zenobia Trembathson,0555 3,private,2015-05-01\n"
                        + "ZEN 5,van,Ann Zenobia Trembathson,0555 3,private,2015-05-01\n"
                        + "ZEN 3,van,Zenobia Trembath,0555 778 901,private,2015-05-01\n";
        ines.csv("/api/imports", list).ok();
        long vehicle = Given.find(ines, "ZEN 1");
        long owner =
                ines.get("/api/vehicles/" + vehicle).ok().json().get("ownerId").asLong();
        JsonNode page = ines.get("/api/owners/" + owner).ok().json().get("owner");
        ines.put("/api/owners/" + owner, """
                {"name": "Zenobia Trembath", "kind": "PERSON", "address": "7 Quay Hill", "email": "zenobia@trembath.example",
                 "prefers": "PHONE", "language": "", "mayWrite": true, "speakers": ["Zenobia Trembath"],
                 "phones": [{"number": "0555 778 901", "label": ""}], "version": %d}
                """.formatted(page.get("version").asInt()))
                .ok();
        Given.reading(ines, vehicle, LocalDate.now().minusDays(9), "61000", "KM")
                .ok();
        ines.post(
                        "/api/vehicles/%d/calls".formatted(vehicle),
                        "{\"spokeWith\": \"Zenobia Trembath\", \"note\": \"ring 0555 778 901 after six\"}")
                .ok();
        ines.post(
                        "/api/vehicles/%d/evidence".formatted(vehicle),
                        "{\"kind\": \"OIL_TOP\", \"found\": \"%s\", \"note\": \"seen by Zenobia Trembath\"}"
                                .formatted(LocalDate.now().minusDays(2)))
                .ok();

        // one that was hers and is another's now, with what was said about her
        long sold = Given.find(ines, "ZEN 3");
        ines.post(
                        "/api/vehicles/%d/calls".formatted(sold),
                        "{\"spokeWith\": \"her son\", \"note\": \"is in hospital\"}")
                .ok();
        ines.post(
                        "/api/owners/%d/split".formatted(owner),
                        "{\"version\": %d, \"name\": \"Jan Tripp\", \"phone\": \"0555 402\", \"vehicles\": [%d]}"
                                .formatted(version(ines, owner), sold))
                .ok();

        // somebody else's, whose name has hers in it
        long others = Given.find(ines, "ZEN 4");
        ines.post("/api/vehicles/%d/calls".formatted(others), "{\"spokeWith\": \"Ann\", \"note\": \"rings on Monday\"}")
                .ok();
        long ann =
                ines.get("/api/vehicles/" + others).ok().json().get("ownerId").asLong();
        ines.post(
                        "/api/owners/%d/split".formatted(ann),
                        "{\"version\": %d, \"name\": \"Jan Tripp\", \"phone\": \"0555 404\", \"vehicles\": [%d]}"
                                .formatted(version(ines, ann), others))
                .ok();

        String copy = ines.get("/api/owners/%d/copy".formatted(owner)).ok().text();
        assertThat(copy)
                .contains(WHO)
                .contains("after six", "61000", "7 Quay Hill")
                .doesNotContain("Zenobia Other");

        int version = version(ines, owner);
        String path = "/api/owners/%d/erasure".formatted(owner);
        String body = "{\"name\": \"%s\", \"version\": %d}";
        assertThat(ines.post(path, body.formatted("Zenobia", version)).errorAt("/name"))
                .contains("as it stands");
        ines.post(path, body.formatted("Zenobia Trembath", version + 1)).problem(409, "conflict");
        ines.post(path, body.formatted("Zenobia Trembath", version)).ok();

        JsonNode after = ines.get("/api/vehicles/" + vehicle).ok().json();
        assertThat(after.get("ownerName").asString()).isEqualTo("Erased owner " + owner);
        assertThat(after.get("readings").get(0).get("km").asInt()).isEqualTo(61_000);
        assertThat(after.get("evidence").get(0).get("note").asString()).isEqualTo("seen by (erased)");
        assertThat(ines.get("/api/find?q=Trembath").ok().json().get("owners").findValuesAsString("name"))
                .containsExactly("Ann Zenobia Trembathson");
        assertThat(ines.get("/api/find?q=0555778901").ok().json().get("owners")).isEmpty();
        assertThat(ines.get("/api/vehicles/" + others).ok().json().get("calls").toString())
                .contains("rings on Monday");
        // not in any table of the whole file but where lists were taken from
        assertThat(ines.get("/api/vehicles/" + sold)
                        .ok()
                        .json()
                        .get("ownerName")
                        .asString())
                .isEqualTo("Jan Tripp");
        for (String who : Stream.concat(WHO.stream(), Stream.of("in hospital", "7 Quay Hill"))
                .toList()) {
            List<String> left = SERVER
                    .jdbc()
                    .sql(
                            "SELECT table_name || '.' || column_name FROM information_schema.columns WHERE table_schema = 'PUBLIC' AND table_name <> 'flyway_schema_history' AND data_type LIKE 'CHARACTER%' ORDER BY 1")
                    .query(String.class)
                    .list()
                    .stream()
                    .filter(c -> SERVER.jdbc()
                                    .sql(
                                            "SELECT COUNT(*) FROM %s WHERE LOCATE(:who, REPLACE(%s, 'Zenobia Trembathson', '')) > 0"
                                                    .formatted(
                                                            c.substring(0, c.indexOf('.')),
                                                            c.substring(c.indexOf('.') + 1)))
                                    .param("who", who)
                                    .query(Long.class)
                                    .single()
                            > 0)
                    .toList();
            assertThat(left).as(who).isEmpty();
        }
    }

    private static int version(Client ines, long owner) {
        return ines.get("/api/owners/" + owner)
                .ok()
                .json()
                .get("owner")
                .get("version")
                .asInt();
    }

    @Test
    void anOpenJobComesFirst() {
        Client ines = SERVER.as("ines");
        Given.family(SERVER);
        long vehicle = Given.vehicle(SERVER, ines, "");
        JsonNode file = ines.get("/api/vehicles/" + vehicle).ok().json();
        ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle)).ok();
        JsonNode owner = ines.get("/api/owners/" + file.get("ownerId").asLong())
                .ok()
                .json()
                .get("owner");
        assertThat(ines.post(
                                "/api/owners/%d/erasure"
                                        .formatted(owner.get("id").asLong()),
                                "{\"name\": \"%s\", \"version\": %d}"
                                        .formatted(
                                                owner.get("name").asString(),
                                                owner.get("version").asInt()))
                        .errorAt("/name"))
                .contains("is open");
    }
}
