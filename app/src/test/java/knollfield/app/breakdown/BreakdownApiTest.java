package knollfield.app.breakdown;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** A belt that let go, from the telling to the figures it changes. */
class BreakdownApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;
    private long vehicle;

    @BeforeEach
    void aVehicleOnItsSecondBelt() {
        ines = SERVER.as("ines");
        vehicle = Given.vehicle(SERVER, ines, "");
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, vehicle, item, TODAY.minusMonths(40), 100_000, true)
                    .ok();
        }
        Given.reading(ines, vehicle, TODAY.minusMonths(20), "120000", "KM").ok();
    }

    private Client.Answer broke(LocalDate on, int km, String more) {
        return ines.post("/api/vehicles/%d/breakdowns".formatted(vehicle), """
                {"item": "belt", "date": "%s", "value": %d, "unit": "KM", "what": "teeth stripped on the hill",
                 "declined": false, "insist": false%s}
                """.formatted(on, km, more));
    }

    private JsonNode dossier() {
        return ines.get("/api/vehicles/" + vehicle).ok().json();
    }

    private JsonNode told() {
        return ines.get("/api/setup/breakdowns").ok().json();
    }

    private String story() {
        return ines.get("/api/vehicles/%d/story".formatted(vehicle))
                .ok()
                .json()
                .toString()
                .replace('\u00a0', ' ');
    }

    @Test
    void itStopsTheEngineAndEndsInTheStory() {
        assertThat(dossier().get("status").asString()).isEqualTo("CLEAR");
        ines.post("/api/vehicles/%d/declines".formatted(vehicle), """
                        {"declinedBy": "Tamsin Orde", "told": "the engine may be lost", "until": "%s"}
                        """.formatted(TODAY.plusMonths(2)))
                .ok();
        broke(TODAY, 141_000, ", \"costMinor\": 412050").ok();

        JsonNode after = dossier();
        assertThat(after.get("status").asString()).isEqualTo("STOP");
        assertThat(after.get("readings").get(0).get("km").asInt()).isEqualTo(141_000);
        assertThat(story())
                .contains(
                        "Broke down at 141,000 km, timing belt: teeth stripped on the hill",
                        "4,120.50",
                        "had been declined");
        assertThat(broke(TODAY, 141_000, "").errorAt("/date")).contains("on file already");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', textBlock = """
            not of this engine     | "item": "turbo"                    | /item
            takes nothing with it  | "item": "coolant"                  | /item
            nothing said           | "what": " "                        | /what
            below zero             | "costMinor": -1                    | /costMinor
            beyond all reason      | "costMinor": 9223372036854775807   | /costMinor
            ahead of today         | "date": "2999-01-01"               | /date
            no odometer shows it   | "value": 5e9                       | /value
            it runs backwards      | "value": 90000                     | /value
            """)
    void whatCannotBeIsSaidBesideItsField(String what, String field, String pointer) {
        String sound = """
                {"item": "belt", "date": "%s", "value": 141000, "unit": "KM", "what": "stripped",
                 "declined": false, "insist": false}""".formatted(TODAY);
        String name = field.substring(0, field.indexOf(':'));
        String broken = sound.contains(name + ":")
                ? sound.replaceFirst(name + ": (\"[^\"]*\"|[0-9]+)", field)
                : sound.replace("}", ", " + field + "}");
        String error = ines.post("/api/vehicles/%d/breakdowns".formatted(vehicle), broken)
                .errorAt(pointer);
        assertThat(error).isNotBlank();
        assertThat(dossier().get("status").asString()).isEqualTo("CLEAR");
    }

    @Test
    void aFailureIsHeldAgainstWhatWasExpectedAndWhatItTeachesCountsOnceAccepted() {
        JsonNode before = told();
        int lives = before.get("learned").get("lives").asInt();
        int failures = before.get("learned").get("failures").asInt();
        long id = broke(TODAY.minusMonths(1), 139_000, "").ok().json().get("id").asLong();
        // it has a new belt since, so it runs
        Given.renewal(ines, vehicle, "belt", TODAY.minusDays(10), 139_100, true).ok();
        ines.post(
                        "/api/vehicles/%d/evidence/%d/withdrawal".formatted(vehicle, openEvidence()),
                        "{\"why\": \"renewed\"}")
                .ok();

        JsonNode learned = told().get("learned");
        assertThat(learned.get("failures").asInt()).isEqualTo(failures + 1);
        assertThat(learned.get("lives").asInt()).isGreaterThanOrEqualTo(lives);
        assertThat(learned.get("share").get("mean").asDouble())
                .isGreaterThan(before.get("learned").get("share").get("mean").asDouble());
        assertThat(told().get("families")
                        .valueStream()
                        .mapToInt(f -> f.get("total").get("happened").asInt()))
                .contains(failures + 1);
        assertThat(told().get("share").asDouble()).isEqualTo(0.02);

        String stale = accept(before.get("learned"), told());
        assertThat(ines.post("/api/setup/breakdowns/accept", stale).status()).isEqualTo(409);
        ines.post("/api/setup/breakdowns/accept", accept(learned, told())).ok();
        assertThat(ines.get("/api/setup/workshop")
                        .ok()
                        .json()
                        .get("shareFailedAtLimits")
                        .asDouble())
                .isCloseTo(learned.get("share").get("mean").asDouble(), within(1e-9));
        // what is learned does not start from what was accepted
        assertThat(told().get("learned").get("share").get("mean").asDouble())
                .isCloseTo(learned.get("share").get("mean").asDouble(), within(1e-5));

        assertThat(ines.post("/api/setup/breakdowns/%d/withdraw".formatted(id), "{\"why\": \" \"}")
                        .errorAt("/why"))
                .contains("missing");
        ines.post("/api/setup/breakdowns/%d/withdraw".formatted(id), "{\"why\": \"it was another van\"}")
                .ok();
        assertThat(told().get("learned").get("failures").asInt()).isEqualTo(failures);
        assertThat(story()).doesNotContain("Broke down");
    }

    private long openEvidence() {
        return dossier()
                .get("evidence")
                .valueStream()
                .filter(e -> !e.has("endedOn") || e.get("endedOn").isNull())
                .findFirst()
                .orElseThrow()
                .get("id")
                .asLong();
    }

    private static String accept(JsonNode learned, JsonNode told) {
        return "{\"share\": %s, \"shape\": %s, \"version\": %d}"
                .formatted(
                        learned.get("share").get("mean").asDouble(),
                        learned.get("shape").get("mean").asDouble(),
                        told.get("version").asInt());
    }
}
