package knollfield.app.told;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.Workbench;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** Owners hear of a price above what they agreed to, and of a later end; of promises that moved the board's test knows. */
class ToldTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    private Client ines;
    private long job;

    @BeforeEach
    void aJob() {
        ines = SERVER.as("ines");
        long vehicle = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, vehicle, TODAY.minusDays(40), "170000", "KM").ok();
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, vehicle, item, TODAY.minusYears(5), 120_000, false)
                    .ok();
        }
        job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
    }

    private Optional<JsonNode> line() {
        return ines.get("/api/told")
                .ok()
                .json()
                .valueStream()
                .filter(t -> t.get("jobId").asLong() == job)
                .findFirst();
    }

    private void decide(String item, boolean in) {
        int version = ines.get("/api/jobs/" + job).ok().json().get("version").asInt();
        ines.put(
                        "/api/jobs/%d/scope".formatted(job),
                        Given.scope("\"%s\": {\"in\": %s, \"reason\": \"as asked\"}".formatted(item, in), version))
                .ok();
    }

    private String freeItem() {
        return ines.get("/api/jobs/" + job)
                .ok()
                .json()
                .get("lines")
                .valueStream()
                .filter(l -> l.get("kind").asString().equals("ITEM")
                        && !l.get("included").asBoolean()
                        && !l.get("rule").asString().equals("EXCLUDED"))
                .map(l -> l.get("code").asString())
                .findFirst()
                .orElseThrow();
    }

    private void agreeToAll(int number) {
        ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok();
        agreeToAllBut("", number);
    }

    private void agreeToAllBut(String item, int number) {
        List<String> asked = ines.get("/api/jobs/%d/estimates".formatted(job))
                .ok()
                .json()
                .get("newest")
                .get("lines")
                .valueStream()
                .filter(l -> l.get("asked").asBoolean())
                .map(l -> l.get("code").asString())
                .filter(c -> !c.equals(item))
                .map(c -> '"' + c + '"')
                .distinct()
                .toList();
        ines.post("/api/jobs/%d/estimates/%d/consents".formatted(job, number), """
                        {"lines": [%s], "answer": "AGREED", "saidBy": "Tamsin Orde", "on": "%s", "how": "PHONE",
                         "warning": "", "signed": false}
                        """.formatted(
                                String.join(",", asked), TODAY))
                .ok();
    }

    @Test
    void aPriceAboveWhatWasAgreedToIsToldUntilItIsAgreedToOrTakenBack() {
        String item = freeItem();
        decide(item, true);
        decide(item, false);
        assertThat(line()).as("nobody has agreed to anything yet").isEmpty();
        agreeToAll(1);
        assertThat(line()).isEmpty();

        decide(item, true);
        JsonNode dearer = line().orElseThrow();
        assertThat(dearer.get("what").asString()).isEqualTo("PRICE");
        assertThat(dearer.get("words").asString()).contains("agreed at €", ", now €", "with tax");
        assertThat(dearer.get("ways")).isEmpty();
        decide(item, false);
        assertThat(line()).as("as it was").isEmpty();

        decide(item, true);
        agreeToAll(2);
        assertThat(line()).as("agreed to").isEmpty();
        decide(item, false);
        assertThat(line()).as("cheaper needs no telling").isEmpty();
    }

    @Test
    void whatTheOwnerLeftIsNoPartOfThePriceThatWasAgreedTo() {
        String item = freeItem();
        decide(item, true);
        ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok();
        ines.post("/api/jobs/%d/estimates/1/consents".formatted(job), """
                        {"lines": ["%s"], "answer": "LEFT", "saidBy": "Tamsin Orde", "on": "%s", "how": "PHONE",
                         "warning": "told", "signed": true}
                        """.formatted(item, TODAY))
                .ok();
        agreeToAllBut(item, 1);
        assertThat(line()).isEmpty();
        decide(item, true);
        assertThat(line().orElseThrow().get("what").asString())
                .as("it was in the first estimate, and left")
                .isEqualTo("PRICE");
    }

    @Test
    void aLaterEndIsToldWhileTheVehicleIsHere() {
        Client tamsin = Workbench.checkedIn(SERVER, job);
        assertThat(line()).isEmpty();
        Workbench.workUntil(tamsin, job, "undo:tensioner");
        Workbench.enter(tamsin, job, """
                        "type": "CONTINGENCY", "step": "undo:tensioner", "words": "stud sheared", "minutes": 120,
                        "part": "", "partMinor": 0
                        """).ok();
        JsonNode later = line().orElseThrow();
        assertThat(later.get("what").asString()).isEqualTo("READY");
        assertThat(later.get("movedTo").asString())
                .isGreaterThan(later.get("promised").asString());
        assertThat(ines.post(
                                "/api/told/" + later.get("id").asLong(),
                                "{\"how\": \"MESSAGE\", \"channel\": \"TEXT\", \"version\": %d}"
                                        .formatted(later.get("version").asInt()))
                        .errorAt("/channel"))
                .contains("how the workshop is reached");
        ines.post(
                        "/api/told/" + later.get("id").asLong(),
                        "{\"how\": \"PHONE\", \"version\": %d}"
                                .formatted(later.get("version").asInt()))
                .ok();
        assertThat(line()).isEmpty();
        Workbench.workUntil(tamsin, job, null);
        Workbench.enter(tamsin, job, "\"type\": \"COMPLETE\"").ok();
    }
}
