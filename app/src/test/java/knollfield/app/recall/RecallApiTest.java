package knollfield.app.recall;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** Who has a part, a batch, a joint's value or a version of the book. */
class RecallApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private final Client ines = SERVER.as("ines");

    private List<JsonNode> find(String query) {
        return ines.get("/api/recall?" + query).ok().json().valueStream().toList();
    }

    @Test
    void aPartFittedElsewhereIsFoundHoweverItsNumberIsSpelledAndBecomesOneFollowUpOnce() {
        long vehicle = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, vehicle, Given.TODAY.minusDays(10), "90000", "KM").ok();
        ines.post("/api/vehicles/%d/renewals".formatted(vehicle), """
                        {"item": "belt", "date": "%s", "km": 80000, "grade": "STATED", "part": "QX 55-A",
                         "betterPart": false, "countsAsReading": false}
                        """.formatted(Given.TODAY.minusYears(1)))
                .ok();

        JsonNode row = find("by=PART&q=qx55a").get(0);
        assertThat(row.get("vehicleId").asLong()).isEqualTo(vehicle);
        assertThat(row.get("km").asInt()).isEqualTo(80_000);
        assertThat(row.get("ownerPhone").asString()).isEqualTo("0555 1");
        assertThat(row.get("what").asString()).contains("QX 55-A");
        assertThat(row.get("what").asString()).doesNotContain("since");
        Given.renewal(ines, vehicle, "belt", Given.TODAY.minusDays(20), 89_000, false)
                .ok();
        assertThat(find("by=PART&q=QX55A").get(0).get("what").asString()).contains("renewed again since");
        assertThat(find("by=PART&q=QX55B")).isEmpty();
        assertThat(ines.get("/api/recall?by=PART&q=%20-").errorAt("/q")).contains("look for");

        String make = """
                {"targets": [{"vehicleId": %d}], "words": "belt recalled by its maker", "urgent": true}""".formatted(vehicle);
        assertThat(ines.post("/api/recall/follow-ups", make)
                        .ok()
                        .json()
                        .get("made")
                        .asInt())
                .isEqualTo(1);
        JsonNode again = ines.post("/api/recall/follow-ups", make).ok().json();
        assertThat(again.get("made").asInt()).isZero();
        assertThat(again.get("open").asInt()).isEqualTo(1);
        JsonNode followUps = ines.get("/api/vehicles/%d/aftercare".formatted(vehicle))
                .ok()
                .json()
                .get("followUps");
        assertThat(followUps).hasSize(1);
        assertThat(followUps.get(0).get("urgent").asBoolean()).isTrue();
        assertThat(ines.get("/api/vehicles/%d/story".formatted(vehicle)).ok().text())
                .contains("recalled by its maker");
        assertThat(ines.post("/api/recall/follow-ups", make.replace("belt recalled by its maker", " "))
                        .errorAt("/words"))
                .isNotBlank();
    }
}
