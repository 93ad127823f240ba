package knollfield.app.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** The fault-code reader feeds evidence. */
class FaultCodesTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    @Test
    void aCodeThatSpeaksOfTheDriveBecomesEvidenceOnceAndOthersDoNot() {
        Client hedra = SERVER.as("hedra");
        List<Long> chains = new ArrayList<>();
        hedra.get("/api/desk?limit=200&drive=CHAIN&q=e")
                .json()
                .get("rows")
                .forEach(r -> chains.add(r.get("vehicleId").asLong()));
        int speaking = 0;
        int silent = 0;
        for (long id : chains) {
            String path = "/api/vehicles/%d/fault-codes".formatted(id);
            int before = hedra.get("/api/vehicles/" + id).json().get("evidence").size();
            JsonNode codes = hedra.post(path, "").ok().json().get("codes");
            long recorded = codes.valueStream()
                    .filter(c -> c.get("recorded").asBoolean())
                    .count();
            JsonNode evidence = hedra.get("/api/vehicles/" + id).json().get("evidence");
            assertThat(evidence).hasSize(before + (int) recorded);
            for (JsonNode code : codes) {
                boolean ours = code.get("code").asString().matches("P001[6-9]");
                assertThat(code.get("recorded").asBoolean()).isEqualTo(ours);
                assertThat(code.has("meaning")).isEqualTo(ours);
                speaking += ours ? 1 : 0;
                silent += ours ? 0 : 1;
                if (ours) {
                    assertThat(evidence.get(0).get("source").asString()).isEqualTo("fault-code reader, simulated");
                    assertThat(evidence.get(0).get("note").asString())
                            .startsWith(code.get("code").asString());
                }
            }
            assertThat(hedra.post(path, "").ok().json().get("codes").valueStream())
                    .noneMatch(c -> c.get("recorded").asBoolean());
        }
        assertThat(speaking).isPositive();
        assertThat(silent).isPositive();
        SERVER.as("jory")
                .post("/api/vehicles/%d/fault-codes".formatted(chains.get(0)), "")
                .problem(403, "not-allowed");
    }
}
