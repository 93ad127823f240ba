package knollfield.app.job;

import static knollfield.app.job.Workbench.card;
import static knollfield.app.job.Workbench.enter;
import static knollfield.app.job.Workbench.workUntil;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;

/** An inspection over HTTP: from the vehicle's page to what it leaves there. */
class InspectionApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;
    private Client tamsin;

    @BeforeEach
    void people() {
        ines = SERVER.as("ines");
    }

    private long inspection(long vehicle) {
        return ines.post("/api/jobs", "{\"vehicleId\": %d, \"inspectionMinutes\": 45}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
    }

    private void signed(long job, String end) {
        workUntil(tamsin, job, "end");
        enter(
                        tamsin,
                        job,
                        "\"type\": \"CHOOSE\", \"step\": \"end\", \"option\": \"%s\", \"words\": \"quiet and dry\""
                                .formatted(end))
                .ok();
        enter(tamsin, job, "\"type\": \"COMPLETE\", \"words\": \"\", \"minutes\": 40")
                .ok();
    }

    @Test
    void aChainIsLookedAtForItsPriceAndFoundGoodAndItsInspectionClockStartsAgain() {
        long vehicle = Given.vehicle(SERVER, ines, "SOR-22", "");
        Given.reading(ines, vehicle, Given.TODAY.minusDays(40), "170000", "KM").ok();
        long job = inspection(vehicle);
        ines.put("/api/jobs/%d/inspection".formatted(job), "{\"minutes\": 0, \"version\": 2}")
                .errorAt("/minutes");
        ines.put("/api/jobs/%d/inspection".formatted(job), "{\"minutes\": 60, \"version\": 1}")
                .problem(409, "conflict");
        JsonNode view = ines.put("/api/jobs/%d/inspection".formatted(job), "{\"minutes\": 60, \"version\": 2}")
                .ok()
                .json();
        assertThat(view.get("inspection").valueStream().map(JsonNode::asString))
                .anyMatch(l -> l.startsWith("Guides and chain by borescope"));
        assertThat(view.get("lines")).isEmpty();
        // one hour at the workshop's rate, and the tax on it
        long rate = view.get("labourRateMinor").asLong();
        assertThat(view.get("labourMinor").asLong()).isEqualTo(rate);
        JsonNode estimate =
                ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok().json();
        assertThat(estimate.get("draft").get("netMinor").asLong()).isEqualTo(rate);

        tamsin = Workbench.checkedIn(SERVER, job);
        JsonNode card = card(tamsin, job);
        assertThat(card.get("inspection").asBoolean()).isTrue();
        assertThat(card.get("gates")).isEmpty();
        assertThat(card.get("items")).isEmpty();
        ines.put(
                        "/api/jobs/%d/scope".formatted(job),
                        Given.scope("", card.get("seq").asInt()))
                .problem(409, "conflict");
        tamsin.post("/api/jobs/%d/card/lines".formatted(job), "{\"items\": [\"chain\"]}")
                .problem(409, "conflict");
        signed(job, "NOTHING");

        JsonNode dossier = ines.get("/api/vehicles/" + vehicle).ok().json();
        assertThat(dossier.get("evidence").get(0).get("effect").asString()).contains("inspection clock");
        assertThat(ines.get("/api/jobs/%d/record".formatted(job)).ok().json().toString())
                .contains("nothing to do: quiet and dry")
                .doesNotContain("same parts", "Old parts", "Deviations");
        assertThat(ines.get("/api/vehicles/%d/story".formatted(vehicle))
                        .ok()
                        .json()
                        .toString())
                .contains("Inspected, nothing opened: nothing to do, quiet and dry");
        tamsin.get("/api/jobs/%d/card/label.pdf".formatted(job)).problem(409, "conflict");
        ines.post("/api/jobs/%d/rework".formatted(job), "{\"items\": [], \"reason\": \"x\"}")
                .problem(409, "conflict");
    }

    @Test
    void whatABeltShowsStandsOnTheVehicleAndTheEndOnTheDesk() {
        long vehicle = Given.vehicle(SERVER, ines, "CAL-16", "");
        long job = inspection(vehicle);
        tamsin = Workbench.checkedIn(SERVER, job);
        workUntil(tamsin, job, "wet");
        enter(tamsin, job, "\"type\": \"INSPECT\", \"step\": \"wet\", \"result\": \"oil from the top\"")
                .ok();
        assertThat(open(vehicle)).containsExactly("OIL_TOP");
        enter(tamsin, job, "\"type\": \"UNDO\", \"step\": \"wet\"").ok();
        assertThat(open(vehicle))
                .as("a look that was taken back has found nothing")
                .isEmpty();
        assertThat(card(tamsin, job).get("findings")).isEmpty();
        workUntil(tamsin, job, "window");
        enter(tamsin, job, "\"type\": \"INSPECT\", \"step\": \"window\", \"result\": \"cracks or glazing\"")
                .ok();
        assertThat(card(tamsin, job).get("offers"))
                .as("nothing is fitted in it")
                .isEmpty();
        signed(job, "FULL_SET");

        JsonNode dossier = ines.get("/api/vehicles/" + vehicle).ok().json();
        assertThat(dossier.get("evidence").get(0).get("effect").asString()).isEqualTo("act now");
        assertThat(dossier.has("openJobId")).isFalse();
        JsonNode left =
                ines.get("/api/vehicles/%d/aftercare".formatted(vehicle)).ok().json();
        assertThat(left.get("followUps")).singleElement().satisfies(f -> {
            assertThat(f.get("what").asString()).isEqualTo("Inspected: the full set. quiet and dry");
            assertThat(f.get("urgent").asBoolean()).isTrue();
        });
        assertThat(left.get("rechecks")).isEmpty();
    }

    @Test
    void aJobKeptBeforeThereWereInspectionsIsNone() {
        long vehicle = Given.vehicle(SERVER, ines, "CAL-16", "");
        long job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
        JdbcClient jdbc = SERVER.jdbc();
        ines.put("/api/jobs/%d/scope".formatted(job), Given.scope("", 1)).ok();
        String scope = jdbc.sql("SELECT scope FROM job WHERE id = :id")
                .param("id", job)
                .query(String.class)
                .single();
        assertThat(scope).contains("inspectionMinutes");
        jdbc.sql("UPDATE job SET scope = :scope WHERE id = :id")
                .param("scope", scope.replaceAll(",?\"inspectionMinutes\":null", ""))
                .param("id", job)
                .update();
        JsonNode view = ines.get("/api/jobs/" + job).ok().json();
        assertThat(view.has("inspection")).isFalse();
        assertThat(view.get("lines")).isNotEmpty();
    }

    @Test
    void aDayToLookAgainIsKept() {
        long vehicle = Given.vehicle(SERVER, ines, "CAL-16", "");
        long job = inspection(vehicle);
        tamsin = Workbench.checkedIn(SERVER, job);
        signed(job, "AGAIN_IN_3");
        assertThat(SERVER.bean(Jobs.class).get(job).actual()).isPresent();
        assertThat(SERVER.bean(Jobs.class).past("CAL-16"))
                .as("a look has no book time to learn from")
                .noneMatch(j -> j.id() == job);
        JsonNode left =
                ines.get("/api/vehicles/%d/aftercare".formatted(vehicle)).ok().json();
        assertThat(left.get("rechecks"))
                .singleElement()
                .satisfies(r -> assertThat(r.get("due").asString())
                        .isEqualTo(Given.TODAY.plusMonths(3).toString()));
        long usual = ines.post(
                        "/api/jobs",
                        "{\"vehicleId\": %d, \"inspection\": true}"
                                .formatted(Given.vehicle(SERVER, ines, "CAL-16", "")))
                .ok()
                .json()
                .get("id")
                .asLong();
        assertThat(ines.get("/api/jobs/" + usual).ok().json().get("minutes").asInt())
                .isEqualTo(45);
        ines.post("/api/jobs", "{\"vehicleId\": %d, \"inspectionMinutes\": 500}".formatted(vehicle))
                .errorAt("/inspectionMinutes");
    }

    /** Kinds of what stands on the vehicle. */
    private List<String> open(long vehicle) {
        return ines.get("/api/vehicles/" + vehicle)
                .ok()
                .json()
                .get("evidence")
                .valueStream()
                .filter(e -> !e.has("endedOn"))
                .map(e -> e.get("kind").asString())
                .toList();
    }
}
