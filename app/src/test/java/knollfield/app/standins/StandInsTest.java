package knollfield.app.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.Evidence;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** Devices and services of a workshop of its own: not connected until somebody says so, and simulated then. */
class StandInsTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;

    @BeforeEach
    void theManager() {
        ines = SERVER.as("ines");
        Given.family(SERVER);
    }

    @AfterEach
    void disconnected() {
        outside(false, "delivery", "");
    }

    private void outside(boolean standIns, String name, String days) {
        int version = ines.get("/api/setup/outside").json().get("version").asInt();
        ines.put("/api/setup/outside", """
                {"faultCodes": %s, "beltMeter": %s, "parts": %s, "deliveryName": "%s", "deliveryDays": [%s],
                 "version": %d}
                """.formatted(standIns, standIns, standIns, name, days, version))
                .ok();
    }

    @Test
    void nothingAnswersUntilItIsConnected() {
        long vehicle = Given.vehicle(SERVER, ines, "");

        assertThat(ines.get("/api/desk/choices").json().get("faultCodeReader").asBoolean())
                .isFalse();
        Client.Answer codes = ines.post("/api/vehicles/%d/fault-codes".formatted(vehicle), "");
        assertThat(codes.status()).isEqualTo(409);
        assertThat(codes.json().get("detail").asString()).contains("by hand");
        assertThat(SERVER.bean(VehicleService.class)
                        .historyForForecast(vehicle)
                        .orElseThrow()
                        .evidence())
                .isEmpty();
    }

    @Test
    void whatIsOrderedAfterTheCutOffComesADayLater() {
        String everyDay = java.util.Arrays.stream(java.time.DayOfWeek.values())
                .map(d -> '"' + d.name() + '"')
                .collect(java.util.stream.Collectors.joining(","));
        JsonNode taken = ines.post("/api/parts/of-books/" + Given.family(SERVER), "{}")
                .ok()
                .json();
        assertThat(taken.get("parts")).isNotEmpty();
        outside(false, "delivery", everyDay);
        LocalDate before = here();
        int version = ines.get("/api/setup/outside").json().get("version").asInt();
        ines.put("/api/setup/outside", """
                {"faultCodes": false, "beltMeter": false, "parts": false, "deliveryName": "delivery",
                 "deliveryDays": [%s], "cutOff": "00:00", "version": %d}""".formatted(everyDay, version)).ok();
        assertThat(here()).isEqualTo(before.plusDays(1));
        ines.post("/api/parts/removals", taken.get("taken").toString()).ok();
    }

    private LocalDate here() {
        return LocalDate.parse(
                ines.get("/api/parts").ok().json().get(0).get("here").asString());
    }

    @Test
    void whatTheReadersStandInSaysIsSimulatedAndMakesNothingDue() {
        outside(true, "delivery", "");
        boolean recorded = false;
        for (int i = 0; i < 80 && !recorded; i++) {
            long vehicle = Given.vehicle(
                    SERVER,
                    ines,
                    "SOR-22",
                    ",belt_renewed_on,belt_renewed_odometer|," + Given.TODAY.minusYears(1) + ",90000");
            String before = judged(vehicle);
            JsonNode read = ines.post("/api/vehicles/%d/fault-codes".formatted(vehicle), "")
                    .ok()
                    .json();
            assertThat(read.get("simulated").asBoolean()).isTrue();
            List<knollfield.app.vehicle.StoredEvidence> evidence = SERVER.bean(VehicleService.class)
                    .historyForForecast(vehicle)
                    .orElseThrow()
                    .evidence();
            assertThat(evidence)
                    .allSatisfy(e -> assertThat(e.evidence().confidence()).isEqualTo(Evidence.Confidence.SIMULATED));
            assertThat(judged(vehicle)).as("judged as before").isEqualTo(before);
            recorded = !evidence.isEmpty();
        }
        assertThat(recorded)
                .as("a code that speaks of the drive was among them")
                .isTrue();
    }

    private String judged(long vehicle) {
        JsonNode v = ines.get("/api/vehicles/" + vehicle).ok().json();
        return v.get("status").asString() + v.get("sentence").asString() + v.get("actBy");
    }

    @Test
    void nobodyCanClaimASimulatedFindingByHandAsMeasuredChoice() {
        assertThat(ines.get("/api/desk/choices")
                        .json()
                        .get("confidences")
                        .valueStream()
                        .map(c -> c.get("code").asString()))
                .containsExactlyInAnyOrder("MEASURED", "SEEN", "SAID");
    }

    @Test
    void withoutASupplierStockIsUnknownAndPartsComeOnTheDaysThatWereSaid() {
        String number = "SI " + Given.registration();
        ines.post("/api/parts", """
                {"number": "%s", "name": "Belt", "familyCode": "CAL-16", "itemCode": "belt", "grade": "EQUAL",
                 "priceMinor": 100, "leadDays": 2, "version": 0}
                """.formatted(number)).ok();

        assertThat(part(number).get("stock").asInt()).isZero();
        assertThat(here(number).getDayOfWeek().getValue())
                .as("Monday to Friday")
                .isLessThan(6);

        outside(false, "boat", "\"WEDNESDAY\"");
        assertThat(here(number).getDayOfWeek().name()).isEqualTo("WEDNESDAY");
        assertThat(here(number)).isAfter(Given.TODAY.plusDays(2));
        assertThat(ines.get("/api/desk/choices").json().get("delivery").asString())
                .isEqualTo("boat");
    }

    private JsonNode part(String number) {
        return ines.get("/api/parts")
                .ok()
                .json()
                .valueStream()
                .filter(p -> p.get("number").asString().equals(number))
                .findFirst()
                .orElseThrow();
    }

    private LocalDate here(String number) {
        return LocalDate.parse(part(number).get("here").asString());
    }

    @Test
    void twoPeopleCannotConnectOverEachOther() {
        int version = ines.get("/api/setup/outside").json().get("version").asInt();
        outside(false, "first", "");
        Client.Answer late = ines.put(
                "/api/setup/outside",
                "{\"faultCodes\": true, \"beltMeter\": false, \"parts\": false, \"deliveryName\": \"second\", \"version\": %d}"
                        .formatted(version));
        assertThat(late.status()).isEqualTo(409);
        assertThat(ines.get("/api/desk/choices").json().get("delivery").asString())
                .isEqualTo("first");
    }
}
