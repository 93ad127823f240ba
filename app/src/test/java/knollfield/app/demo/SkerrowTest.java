package knollfield.app.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import knollfield.app.Client;
import knollfield.app.Server;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class SkerrowTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    @Test
    void theIslandHasItsVehiclesFleetsAndEveryKindOfStanding() {
        JsonNode desk = SERVER.as("ines").get("/api/desk").ok().json();

        assertThat(desk.get("vehicles").asInt()).isEqualTo(252);
        assertThat(SERVER.as("ines").get("/api/desk/fleets").json()).hasSize(6);
        assertThat(desk.get("groups").valueStream().filter(g -> g.get("count").asInt() == 0))
                .as("kinds of standing nobody has")
                .isEmpty();
        assertThat(desk.get("rows").valueStream().map(r -> r.get("nextStep").asString()))
                .contains("RING", "ASK_OWNER", "PROMISE", "START", "SIGN");
    }

    @Test
    void oneIsAtTheBenchOneIsDoneAndOneToolSetIsWantedTwice() {
        JsonNode jobs = SERVER.as("ines").get("/api/jobs").ok().json();

        assertThat(jobs.valueStream().map(j -> j.get("stage").asString()))
                .contains("UNDER_WAY", "DONE", "PLANNED", "DRAFT");
        assertThat(jobs.valueStream()
                        .filter(j -> j.get("makeModel").asString().startsWith("Lamorn"))
                        .map(j -> j.get("stage").asString()))
                .containsExactlyInAnyOrder("PLANNED", "DRAFT");
    }

    @Test
    void familiesCoverTheDesignsAndSurviveTheirJson() {
        List<EngineFamily> families = SkerrowFamilies.all();
        JsonMapper json = SERVER.bean(JsonMapper.class);

        assertThat(families).hasSizeGreaterThanOrEqualTo(10);
        assertThat(families.stream().collect(Collectors.groupingBy(EngineFamily::drive, Collectors.counting())))
                .containsKeys(Drive.BELT, Drive.BELT_IN_OIL)
                .containsEntry(Drive.CHAIN, 6L);
        assertThat(families.stream().filter(f -> f.build().isPresent())).hasSize(12);
        assertThat(families)
                .allSatisfy(f -> assertThat(json.readValue(json.writeValueAsString(f), EngineFamily.class))
                        .isEqualTo(f));
    }

    @Test
    void theFindBoxTakesZeroForOAndSkipsSpaces() {
        Client ines = SERVER.as("ines");
        String registration = ines.get("/api/desk")
                .json()
                .get("rows")
                .get(0)
                .get("registration")
                .asString();
        String typed = registration
                .toLowerCase(java.util.Locale.ROOT)
                .replace(" ", "")
                .replace('0', 'o')
                .replace('1', 'i');

        assertThat(ines.get("/api/find?q=" + typed)
                        .json()
                        .get("vehicles")
                        .get(0)
                        .get("registration")
                        .asString())
                .isEqualTo(registration);
    }
}
