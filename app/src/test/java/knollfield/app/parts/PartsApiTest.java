package knollfield.app.parts;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

class PartsApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static int count;

    private Client ines;
    private String number;

    @BeforeEach
    void book() {
        ines = SERVER.as("ines");
        Given.family(SERVER);
        count++;
        number = "T-PUMP-" + count;
    }

    private static String part(String number, String more, int price, int version) {
        return """
               {"number": "%s", "name": "Pump", "familyCode": "CAL-16", "itemCode": "pump", "grade": "PLAIN",
                "priceMinor": %d, "expectedKm": 43000, "leadDays": 4, %s "version": %d}
               """.formatted(number, price, more, version);
    }

    private static JsonNode find(JsonNode list, String number) {
        return list.valueStream()
                .filter(p -> p.get("number").asString().equals(number))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aPartIsFiledChangedAndOfferedWithWhatItsLifeCosts() {
        JsonNode filed = find(
                ines.post("/api/parts", part(number, "\"widthMm\": 22.5,", 1_920, 0))
                        .ok()
                        .json(),
                number);
        assertThat(filed.get("widthMm").asDouble()).isEqualTo(22.5);
        assertThat(filed.get("version").asInt()).isEqualTo(1);

        ines.put("/api/parts/" + number, part(number, "", 2_000, 1)).ok();
        ines.put("/api/parts/" + number, part(number, "", 2_100, 1)).problem(409, "conflict");
        assertThat(find(ines.get("/api/parts").json(), number).get("priceMinor").asInt())
                .isEqualTo(2_000);

        long vehicle = Given.vehicle(SERVER, ines, "");
        long job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
        JsonNode pump = find(ines.get("/api/jobs/" + job).json(), "pump", "lines");
        JsonNode offer = find(pump.get("offers"), number);
        long share = Math.round(pump.get("minutes").asInt() * 9_000 / 60.0);
        assertThat(offer.get("per10000KmMinor").asLong()).isEqualTo(Math.round((2_000 + share) / 4.3));

        JsonNode chosen = ines.put("/api/jobs/%d/scope".formatted(job), """
                {"purpose": [], "decisions": {}, "parts": {"pump": "%s"}, "ownerSupplied": [], "variants": {},
                 "toolHireMinor": 0, "version": 1}""".formatted(number))
                .ok()
                .json();
        assertThat(find(chosen, "pump", "lines").get("partsMinor").asLong()).isEqualTo(2_000);
        assertThat(find(chosen, "pump", "lines").get("part").asString()).isEqualTo(number);
    }

    private static JsonNode find(JsonNode view, String code, String list) {
        return view.get(list)
                .valueStream()
                .filter(l -> l.get("code").asString().equals(code))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void whatIsOrderedComesOnAWorkingDayAndTheSameIsSaidTwice() {
        ines.post("/api/parts", part(number, "", 1_920, 0)).ok();
        JsonNode first = find(ines.get("/api/parts").json(), number);
        JsonNode again = find(ines.get("/api/parts").json(), number);
        LocalDate here = LocalDate.parse(first.get("here").asString());

        assertThat(here).isAfter(Given.TODAY);
        assertThat(here.getDayOfWeek()).isNotIn(DayOfWeek.SATURDAY, DayOfWeek.SUNDAY);
        assertThat(again).isEqualTo(first);
    }

    @Test
    void wrongPartsAreRefusedBesideTheirFields() {
        assertThat(ines.post("/api/parts", """
                {"number": " ", "name": "", "familyCode": "NONE", "itemCode": "pump", "grade": "PLAIN",
                 "priceMinor": -1, "expectedKm": 0, "leadDays": 999, "teeth": 0, "version": 0}""").problem(422, "invalid-input").get("errors"))
                .extracting(e -> e.get("pointer").asString())
                .containsExactlyInAnyOrder(
                        "/number", "/name", "/familyCode", "/priceMinor", "/expectedKm", "/leadDays", "/teeth");
        ines.post("/api/parts", part(number, "", 1, 0)).ok();
        assertThat(ines.post("/api/parts", part(number, "", 1, 0)).errorAt("/number"))
                .contains("already");
        ines.put("/api/parts/T-NONE", part("T-NONE", "", 1, 1)).problem(404, "not-found");
    }

    @Test
    void aFrontHalfIsOnlyFittedAsTheOriginal() {
        String half = part(number, "", 900, 0).replace("\"pump\"", "\"pumpfront\"");
        ines.post("/api/parts", half).ok();
        long vehicle = Given.vehicle(SERVER, ines, "");
        long job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
        assertThat(ines.put("/api/jobs/%d/scope".formatted(job), """
                {"purpose": [], "decisions": {}, "parts": {"pumpfront": "%s"}, "ownerSupplied": [], "variants": {},
                 "toolHireMinor": 0, "version": 1}""".formatted(number))
                        .errorAt("/parts/pumpfront"))
                .contains("original maker");
    }

    @Test
    void aPartThatIsNotLikeTheBooksSaysWhatDiffers() {
        String own = "KF-CAL-16-4";
        ines.post("/api/parts", part(own, "\"widthMm\": 25.4,", 3_200, 0));
        ines.post("/api/parts", part(number, "\"widthMm\": 20.0,", 1_000, 0)).ok();
        long vehicle = Given.vehicle(SERVER, ines, "");
        long job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();

        JsonNode offers =
                find(ines.get("/api/jobs/" + job).json(), "pump", "lines").get("offers");

        assertThat(find(offers, own).get("misfits")).isEmpty();
        assertThat(find(offers, number).get("misfits").get(0).asString())
                .isEqualTo("width 20.0 mm, the book has 25.4 mm");
    }
}
