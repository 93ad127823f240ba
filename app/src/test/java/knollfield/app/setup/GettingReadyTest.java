package knollfield.app.setup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.Workbench;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** What a workshop of its own still lacks: true of what its own lists show. */
class GettingReadyTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static List<String> missing(JsonNode ready) {
        return ready.get("missing")
                .valueStream()
                .map(m -> m.get("code").asString())
                .toList();
    }

    @Test
    void eachThingIsMissingUntilItIsThereAndBlocksWhatNeedsIt() {
        Client ines = SERVER.as("ines");
        JsonNode bays = ines.get("/api/setup/bays").ok().json();
        boolean none = bays.valueStream().noneMatch(b -> b.get("active").asBoolean());
        JsonNode before = ines.get("/api/setup/ready").ok().json();
        assertThat(missing(before).contains("bays")).isEqualTo(none);
        assertThat(before.get("ready").toString().contains("PROMISE"))
                .isEqualTo(before.get("missing")
                        .valueStream()
                        .noneMatch(m -> m.get("blocks").toString().contains("PROMISE")));

        Workbench.bay(SERVER);
        Workbench.technician(ines, "ready", "Ready Hand", "BELT");
        long vehicle = Given.vehicle(SERVER, ines, "CAL-16", "");
        JsonNode after = ines.get("/api/setup/ready").ok().json();

        assertThat(missing(after))
                .doesNotContain("bays", "people", "vehicles", "engines")
                .contains("readings");
        assertThat(after.get("ready").toString()).contains("DUE_LIST", "ESTIMATE", "PROMISE", "CARD");
        String count = there(after, "readings");
        Given.reading(ines, vehicle, Given.TODAY.minusDays(3), "120000", "KM").ok();
        assertThat(there(ines.get("/api/setup/ready").ok().json(), "readings")).isNotEqualTo(count);
    }

    private static String there(JsonNode ready, String code) {
        return ready.get("missing")
                .valueStream()
                .filter(m -> m.get("code").asString().equals(code))
                .map(m -> m.get("there").asString())
                .findFirst()
                .orElse("nothing");
    }
}
