package knollfield.app.job.card;

import static knollfield.app.job.Workbench.card;
import static knollfield.app.job.Workbench.enter;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.Workbench;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** Parts and tools gone through at the bench, line by line and piece by piece. */
class InHandApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private final Client ines = SERVER.as("ines");

    private long job(String family) {
        long vehicle = Given.vehicle(SERVER, ines, family, "");
        return ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
    }

    private static JsonNode line(JsonNode card, String item) {
        return card.get("parts")
                .valueStream()
                .filter(p -> p.path("item").asString("").equals(item))
                .findFirst()
                .orElseThrow();
    }

    private static void signed(Client tamsin, long job) {
        Workbench.workUntil(tamsin, job, null);
        enter(tamsin, job, "\"type\": \"COMPLETE\", \"words\": \"\"").ok();
    }

    @Test
    void aPartInHandIsComparedWithWhatWasOrdered() {
        long job = job("CAL-16");
        Client tamsin = Workbench.checkedIn(SERVER, job);
        JsonNode before = line(card(tamsin, job), "belt");
        assertThat(before.get("number").asString()).isNotBlank();
        int teeth = before.get("book").get("teeth").asInt();
        assertThat(teeth).as("teeth of the belt, from the book's loop").isPositive();
        assertThat(before.has("seen")).isFalse();

        String part = "\"type\": \"PART\", \"item\": \"belt\"";
        assertThat(enter(tamsin, job, part + ", \"widthMm\": -1").errorAt("/widthMm"))
                .contains("Above 0");
        enter(tamsin, job, part).problem(422, "card-refused");
        enter(tamsin, job, "\"type\": \"PART\", \"item\": \"chain\", \"teeth\": 4")
                .problem(422, "card-refused");
        enter(tamsin, job, part + ", \"teeth\": %d".formatted(teeth + 1)).ok();
        JsonNode wrong = line(card(tamsin, job), "belt");
        assertThat(wrong.get("seen").get("teeth").asInt()).isEqualTo(teeth + 1);
        assertThat(wrong.get("wrong").get(0).asString())
                .isEqualTo("%d teeth or links, the book has %d".formatted(teeth + 1, teeth));
        enter(tamsin, job, part + ", \"teeth\": %d, \"side\": \"left\"".formatted(teeth))
                .ok();
        assertThat(line(card(tamsin, job), "belt").get("wrong")).isEmpty();

        // one-time bolts of the joints that are opened stand on the list too
        assertThat(card(tamsin, job).get("parts").valueStream().filter(p -> !p.has("item")))
                .isNotEmpty();
        signed(tamsin, job);
        assertThat(ines.get("/api/jobs/%d/record".formatted(job)).ok().json().toString())
                .contains("%d teeth or links, left".formatted(teeth));
    }

    @Test
    void aBrokenToolIsToldAtTheBenchAndTakesItsCopyOffTheBoard() {
        long job = job("CAL-16");
        Client tamsin = Workbench.checkedIn(SERVER, job);
        JsonNode tools = card(tamsin, job).get("tools");
        assertThat(tools).isNotEmpty();
        String piece = tools.get(0).get("name").asString();
        long usable = usable();
        enter(tamsin, job, "\"type\": \"TOOL_FAILED\", \"piece\": \"no such\", \"missing\": true, \"words\": \"\"")
                .problem(422, "card-refused");
        enter(
                        tamsin,
                        job,
                        "\"type\": \"TOOL_FAILED\", \"piece\": \"%s\", \"missing\": false, \"words\": \"tip bent\""
                                .formatted(piece))
                .ok();

        assertThat(card(tamsin, job).get("tools").get(0).get("failed").asString())
                .isEqualTo("broken, tip bent");
        assertThat(usable()).isEqualTo(usable - 1);
        assertThat(copies().toString()).contains("job %d: %s broken, tip bent".formatted(job, piece));
        long next = job("CAL-16");
        assertThat(ines.put("/api/jobs/%d/booking".formatted(next), """
                        {"technicianId": %d, "bayId": %d, "day": "%s", "time": "08:00", "version": 1}
                        """.formatted(
                                        Workbench.allRound(ines), Workbench.bay(SERVER), weekday()))
                        .errorAt("/day"))
                .as("the next job knows")
                .startsWith("No tool set");
        // a look that opens nothing needs no tool set
        long looked = Given.vehicle(SERVER, ines, "CAL-16", "");
        long look = ines.post("/api/jobs", "{\"vehicleId\": %d, \"inspectionMinutes\": 30}".formatted(looked))
                .ok()
                .json()
                .get("id")
                .asLong();
        ines.put("/api/jobs/%d/booking".formatted(look), """
                        {"technicianId": %d, "bayId": %d, "day": "%s", "time": "08:00", "version": 2}
                        """.formatted(
                                Workbench.allRound(ines), Workbench.bay(SERVER), weekday()))
                .ok();
        ines.delete("/api/jobs/%d/booking?version=3".formatted(look)).ok();
        signed(tamsin, job);
        assertThat(ines.get("/api/jobs/%d/record".formatted(job)).ok().json().toString())
                .contains("Tool: " + piece);
        JsonNode copy = copies().get(0);
        ines.put("/api/stores/tool-sets/" + copy.get("id").asLong(), """
                        {"state": "GOOD", "keptAt": "shelf 1", "note": "", "version": %d}
                        """.formatted(
                                copy.get("version").asInt()))
                .ok();
    }

    private static LocalDate weekday() {
        LocalDate day = Given.TODAY.plusDays(3);
        while (day.getDayOfWeek() != DayOfWeek.FRIDAY) {
            day = day.plusDays(1);
        }
        return day;
    }

    private JsonNode copies() {
        return ines.get("/api/stores")
                .ok()
                .json()
                .get("toolSets")
                .valueStream()
                .filter(t -> t.get("familyCode").asString().equals("CAL-16"))
                .findFirst()
                .orElseThrow()
                .get("copies");
    }

    private long usable() {
        return copies().valueStream().filter(c -> c.get("usable").asBoolean()).count();
    }
}
