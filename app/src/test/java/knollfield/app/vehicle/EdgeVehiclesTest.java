package knollfield.app.vehicle;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.withinPercentage;

import java.util.List;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** Vehicles of which little or nothing is known: each shows something true and useful. */
class EdgeVehiclesTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;

    @BeforeEach
    void signIn() {
        ines = SERVER.as("ines");
    }

    private JsonNode dossier(long id) {
        return ines.get("/api/vehicles/" + id).ok().json();
    }

    private void renew(long id, int monthsAgo, int km) {
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, id, item, TODAY.minusMonths(monthsAgo), km, false)
                    .ok();
        }
    }

    @Test
    void withNoReadingsItsClassSpeaksAndTheWindowIsDrawnFromFirstRegistration() {
        JsonNode v = dossier(Given.vehicle(SERVER, ines, ""));

        assertThat(v.get("statusWords").asString()).isEqualTo("History unknown");
        assertThat(v.get("usage").has("observedKmPerYear")).isFalse();
        // a rate is never below zero, which lifts the mean of the class by a hair
        assertThat(v.get("usage").get("kmPerYear").asDouble())
                .isCloseTo(v.get("usage").get("classKmPerYear").asDouble(), withinPercentage(2));
        assertThat(v.get("window").get("known").asBoolean()).isFalse();
        assertThat(v.get("window").get("start").asString())
                .isEqualTo(TODAY.minusYears(9).toString());
        assertThat(v.get("sentence").asString()).isNotBlank();
    }

    @Test
    void withOneReadingTheDistanceIsKnownAndTheRateLeansOnTheClass() {
        long id = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, id, TODAY, "90000", "KM").ok();
        renew(id, 24, 60_000);
        JsonNode v = dossier(id);

        assertThat(v.get("items").get(0).get("usedKm").asDouble()).isEqualTo(30_000);
        assertThat(v.get("actBy").asString()).isGreaterThan(TODAY.toString());
    }

    @Test
    void withAllReadingsMarkedWrongItsAgeStillDecides() {
        long id = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, id, TODAY.minusDays(300), "90000", "KM").ok();
        renew(id, 71, 20_000);
        JsonNode before = dossier(id);
        before.get("readings")
                .forEach(r -> ines.put(
                                "/api/vehicles/%d/readings/%d/mark"
                                        .formatted(id, r.get("id").asLong()),
                                "{\"wrong\": true, \"version\": %d}"
                                        .formatted(dossier(id).get("version").asInt()))
                        .ok());
        JsonNode v = dossier(id);

        assertThat(v.get("readings").valueStream())
                .isNotEmpty()
                .allMatch(r -> r.get("markedWrong").asBoolean());
        JsonNode belt = v.get("items").get(0);
        assertThat(belt.get("usedMonths").asInt()).isEqualTo(71);
        assertThat(belt.get("actBy").asString())
                .isLessThanOrEqualTo(TODAY.plusMonths(1).toString());
    }

    @Test
    void firstRegistrationInTheFutureIsRefusedByHandAndByList() {
        assertThat(ines.post("/api/vehicles", """
                        {"registration": "FUT 1", "makeModel": "x", "ownerName": "x", "ownerPhone": "1",
                         "usageClass": "PRIVATE", "firstRegistered": "%s", "cameWithReading": false, "conditions": [],
                         "equipment": [], "heavy": false, "idleHoursPerYear": 0, "version": 0}
                        """.formatted(TODAY.plusDays(1))).errorAt("/firstRegistered"))
                .contains("future");
        JsonNode preview = ines.csv("/api/imports/preview", """
                        registration,make_model,engine_family,owner,phone,usage,first_registered
                        FUT 1,Calder Dunlin 1.6,,Tamsin Orde,0555 1,private,%s
                        """.formatted(TODAY.plusDays(1)))
                .ok()
                .json();
        assertThat(preview.toString()).contains("future");
    }

    @Test
    void aVehicleThatDoesNotRunGrowsOldAllTheSame() {
        long id = Given.vehicle(SERVER, ines, "");
        for (int back = 6; back >= 0; back--) {
            Given.reading(ines, id, TODAY.minusMonths(12L * back), "42000", "KM")
                    .ok();
        }
        renew(id, 60, 42_000);
        JsonNode v = dossier(id);
        JsonNode belt = v.get("items").get(0);

        assertThat(belt.get("usedKm").asDouble()).isLessThan(1);
        assertThat(belt.get("binding").asString()).isEqualTo("AGE");
        assertThat(v.get("window").get("crossing").get("wall").asString()).isEqualTo("AGE");
        JsonNode still = ines.get("/api/vehicles/%d/what-if?date=%s&kmPerYear=0".formatted(id, TODAY.plusDays(400)))
                .ok()
                .json();
        assertThat(still.get("odometerKm").asDouble()).isEqualTo(42_000);
        assertThat(still.get("statusThenWords").asString()).isEqualTo("Overdue");
    }

    @Test
    void aLimitThatWasPassedWhenItWasRenewedElsewhereIsJudgedFromTheRenewal() {
        long id = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, id, TODAY.minusMonths(2), "260000", "KM").ok();
        // the belt went on for twice its distance, then it was renewed
        renew(id, 2, 260_000);
        JsonNode belt = dossier(id).get("items").get(0);

        assertThat(belt.get("statusWords").asString()).isEqualTo("Clear");
        assertThat(belt.get("usedKm").asDouble()).isLessThan(10_000);
    }
}
