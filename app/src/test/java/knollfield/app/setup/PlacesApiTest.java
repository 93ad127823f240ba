package knollfield.app.setup;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.List;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.Workbench;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Bays and fleets of a workshop that has none, over HTTP. */
class PlacesApiTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    private Client ines;

    @BeforeEach
    void theManager() {
        ines = SERVER.as("ines");
    }

    private static JsonNode named(JsonNode list, String name) {
        return list.valueStream()
                .filter(b -> b.get("name").asString().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private Client.Answer changeBay(JsonNode bay, String name, int lift, boolean active) {
        return ines.put(
                "/api/setup/bays/" + bay.get("id").asLong(),
                "{\"name\": \"%s\", \"note\": \"\", \"liftClass\": %d, \"active\": %s, \"version\": %d}"
                        .formatted(name, lift, active, bay.get("version").asInt()));
    }

    /** In a workshop that no other test touches any working day is free. */
    private static LocalDate workingDay() {
        LocalDate day = Given.TODAY.plusDays(1);
        while (day.getDayOfWeek().getValue() > DayOfWeek.THURSDAY.getValue()) {
            day = day.plusDays(1);
        }
        return day;
    }

    private JsonNode bay(String name, int lift) {
        return named(
                ines.post(
                                "/api/setup/bays",
                                "{\"name\": \"%s\", \"note\": \"two posts, 3 t\", \"liftClass\": %d}"
                                        .formatted(name, lift))
                        .ok()
                        .json(),
                name);
    }

    @Test
    void aBayIsMadeTakesWorkAndCannotVanishWhileItHasAny() {
        JsonNode made = bay("Ramp north", 2);
        long technician = Workbench.technician(ines, "places", "Piran Places", "BELT");
        long vehicle = Given.vehicle(SERVER, ines, "CAL-16", "");
        long job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
        ines.put("/api/jobs/%d/booking".formatted(job), """
                        {"technicianId": %d, "bayId": %d, "day": "%s", "time": "08:00", "version": 1}
                        """.formatted(
                                technician, made.get("id").asLong(), workingDay()))
                .ok();

        assertThat(changeBay(made, "Ramp north", 2, false)
                        .problem(422, "invalid-input")
                        .get("detail")
                        .asString())
                .startsWith("Ramp north has work promised in it: ");
        JsonNode renamed = named(changeBay(made, "Ramp one", 2, true).ok().json(), "Ramp one");
        // the loser of two changes is told so
        changeBay(made, "Ramp two", 2, true).problem(409, "conflict");

        assertThat(renamed.get("active").asBoolean()).isTrue();
    }

    @Test
    void aBayGivenUpTakesNoWorkAndCanBeTakenBack() {
        JsonNode gone = bay("Ramp east", 1);
        changeBay(gone, "Ramp east", 1, false).ok();
        assertThat(ines.get("/api/jobs/week?from=" + workingDay())
                        .ok()
                        .json()
                        .get("bays")
                        .toString())
                .doesNotContain("Ramp east");
        JsonNode back = named(ines.get("/api/setup/bays").ok().json(), "Ramp east");
        assertThat(back.get("active").asBoolean()).isFalse();
        assertThat(named(changeBay(back, "Ramp east", 1, true).ok().json(), "Ramp east")
                        .get("active")
                        .asBoolean())
                .isTrue();
    }

    @ParameterizedTest
    @CsvSource({"'', 1, /name", "Ramp, 3, /liftClass", "Ramp, 0, /liftClass"})
    void whatIsWrongIsSaidAtItsField(String name, int lift, String field) {
        assertThat(ines.post(
                                "/api/setup/bays",
                                "{\"name\": \"%s\", \"note\": \"\", \"liftClass\": %d}".formatted(name, lift))
                        .problem(422, "invalid-input")
                        .get("errors")
                        .get(0)
                        .get("pointer")
                        .asString())
                .isEqualTo(field);
    }

    @Test
    void aFleetIsMadeChangedAndGivenUpOnceItIsEmpty() {
        String body = "{\"name\": \"%s\", \"offRoadCap\": 2, \"contactName\": \"Loveday Tonkin\", "
                + "\"phone\": \"0555 12\", \"days\": [\"MONDAY\"]%s}";
        JsonNode made = named(
                ines.post("/api/setup/fleets", body.formatted("Harbour boats", ""))
                        .ok()
                        .json(),
                "Harbour boats");
        ines.post("/api/setup/fleets", body.formatted("harbour BOATS", "")).problem(422, "invalid-input");
        String path = "/api/setup/fleets/" + made.get("id").asLong();
        JsonNode changed = named(
                ines.put(path, body.formatted("Harbour vans", ", \"version\": " + made.get("version")))
                        .ok()
                        .json(),
                "Harbour vans");
        ines.delete(path + "?version=" + made.get("version")).problem(409, "conflict");
        // somebody signs in for it
        ines.post("/api/setup/people", """
                        {"signIn": "loveday", "name": "Loveday Tonkin", "role": "FLEET_CONTACT", "fleetId": %d,
                         "skills": [], "workingDays": [], "password": "long-enough-word-9"}
                        """.formatted(made.get("id").asLong())).ok();
        String now = path + "?version=" + changed.get("version");
        assertThat(ines.delete(now).errorAt("/id")).contains("still has 1");
        JsonNode loveday = named(ines.get("/api/setup/people").ok().json(), "Loveday Tonkin");
        ines.put("/api/setup/people/" + loveday.get("id").asLong(), """
                        {"name": "Loveday Tonkin", "role": "FLEET_CONTACT", "fleetId": %d, "skills": [],
                         "workingDays": [], "active": false, "version": %d}
                        """.formatted(
                                made.get("id").asLong(), loveday.get("version").asInt()))
                .ok();
        List<String> left = ines.delete(path + "?version=" + changed.get("version"))
                .ok()
                .json()
                .valueStream()
                .map(f -> f.get("name").asString())
                .toList();
        assertThat(left).doesNotContain("Harbour vans");
        // of the same name it comes back
        assertThat(named(
                                ines.post("/api/setup/fleets", body.formatted("Harbour vans", ""))
                                        .ok()
                                        .json(),
                                "Harbour vans")
                        .get("id"))
                .isEqualTo(made.get("id"));
    }

    @Test
    void aFleetGoesByItsNewNameEverywhereAtOnce() {
        long fleet = Given.fleet(ines, "Quay carts");
        long vehicle = Given.vehicle(SERVER, ines, ",fleet|,Quay carts");
        JsonNode dossier = ines.get("/api/vehicles/" + vehicle).ok().json();
        assertThat(dossier.get("fleet").asString()).isEqualTo("Quay carts");
        int version = named(ines.get("/api/setup/fleets").ok().json(), "Quay carts")
                .get("version")
                .asInt();

        ines.put("/api/setup/fleets/" + fleet, """
                        {"name": "Pier carts", "offRoadCap": 1, "contactName": "Kerra Vane", "phone": "0555 77",
                         "days": [], "version": %d}
                        """.formatted(version)).ok();

        JsonNode then = ines.get("/api/vehicles/" + vehicle).ok().json();
        assertThat(then.get("fleet").asString()).isEqualTo("Pier carts");
        assertThat(then.get("fleetContact").asString()).isEqualTo("Kerra Vane, 0555 77");
        assertThat(ines.get("/api/desk?q=pier%20carts").ok().json().get("rows"))
                .as("found on the Desk by its new name")
                .hasSize(1);
        assertThat(ines.get("/api/desk?q=quay%20carts").ok().json().get("rows")).isEmpty();
    }

    @Test
    void aBodyThatLeavesFieldsOutIsSaidAtItsFieldAndNoFailure() {
        for (String path : List.of("/api/setup/bays", "/api/setup/fleets")) {
            assertThat(ines.post(path, "{\"liftClass\": 1, \"offRoadCap\": 1}").errorAt("/name"))
                    .contains("missing");
        }
        assertThat(ines.put("/api/me/password", "{}").errorAt("/current")).contains("missing");
    }
}
