package knollfield.app.setup;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import knollfield.app.Client;
import knollfield.app.Server;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What the judgement rests on can be changed, is previewed before, and is told afterwards. */
class AssumptionsApiTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private final Client ines = SERVER.as("ines");

    private JsonNode view() {
        return ines.get("/api/setup/assumptions").ok().json();
    }

    private JsonNode one(String name) {
        return view().get("assumptions")
                .valueStream()
                .filter(a -> a.get("name").asString().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private String change(String name, double amount) {
        return "{\"amounts\": {\"%s\": %s}, \"version\": %d}"
                .formatted(name, amount, view().get("version").asInt());
    }

    @AfterEach
    void asUsual() {
        view().get("assumptions")
                .valueStream()
                .filter(a -> a.get("value").asDouble() != a.get("usual").asDouble())
                .forEach(a -> ines.put(
                                "/api/setup/assumptions",
                                change(a.get("name").asString(), a.get("usual").asDouble()))
                        .ok());
    }

    @Test
    void aPreviewSaysWhatMovesAndChangesNothing() {
        String name = "class.mean.PRIVATE";
        double usual = one(name).get("usual").asDouble();
        String desk = ines.get("/api/desk?limit=200").text();
        JsonNode preview = ines.post("/api/setup/assumptions/preview", change(name, 3 * usual))
                .ok()
                .json();

        assertThat(preview.get("vehicles").asInt()).isPositive();
        assertThat(preview.get("moves")).isNotEmpty();
        assertThat(preview.get("newStatus").asInt())
                .isLessThanOrEqualTo(preview.get("vehicles").asInt());
        assertThat(ines.get("/api/desk?limit=200").text()).isEqualTo(desk);
        assertThat(one(name).get("value").asDouble()).isEqualTo(usual);
    }

    @Test
    void whatThePreviewSaidIsWhatMovesAndTheDeskSaysSo() {
        String change = change("class.mean.PRIVATE", 40_000);
        int said = ines.post("/api/setup/assumptions/preview", change)
                .ok()
                .json()
                .get("vehicles")
                .asInt();
        ines.put("/api/setup/assumptions", change).ok();
        JsonNode moved = ines.get("/api/desk").json().get("moved");

        assertThat(moved.get("count").asInt()).isEqualTo(said).isPositive();
        assertThat(moved.get("why").asString()).isEqualTo("with the changed assumptions");
        assertThat(ines.get("/api/desk/moves").json().size()).isEqualTo(Math.min(100, said));
        JsonNode one = one("class.mean.PRIVATE");
        assertThat(one.get("changedBy").asString()).isEqualTo("Ines Carrow");
        assertThat(one.has("changedAt")).isTrue();
        JsonNode last = view().get("changes").get(0);
        assertThat(last.get("by").asString()).isEqualTo("Ines Carrow");
        assertThat(last.get("after").asString()).contains("40");
    }

    @Test
    void aDearerStrandingActsEarlierOnAVehicleActedOnByItsCheapestDay() {
        long id = clearBelt();
        LocalDate book = actedOn(id, "BOOK");
        LocalDate careful = actedOn(id, "CAREFUL");
        assertThat(careful).isBeforeOrEqualTo(book);
        assertThat(reasons(id)).contains("Careful: ");

        ines.put("/api/setup/assumptions", change("policy.stranding", 400_000)).ok();
        LocalDate dear = LocalDate.parse(vehicle(id).get("actBy").asString());
        assertThat(dear).isBefore(book).isBefore(careful.plusDays(1));
        assertThat(reasons(id)).contains("costs least").contains("400,000");
        // asked what if, it says the same day
        JsonNode then = ines.get(
                        "/api/vehicles/%d/what-if?date=%s".formatted(id, dear.isBefore(today()) ? today() : dear))
                .ok()
                .json();
        assertThat(then.get("statusThen").asString()).isEqualTo("ACT_NOW");
        actedOn(id, null);
        assertThat(reasons(id)).as("the workshop's own").contains("Careful");
        actedOn(id, "BOOK");
        assertThat(reasons(id)).doesNotContain("Careful");
        ines.put("/api/setup/assumptions", change("policy.stranding", 10_000)).ok();
    }

    private LocalDate today() {
        return LocalDate.parse(ines.get("/api/desk").json().get("today").asString());
    }

    /** A vehicle with a day far ahead and nothing found on it. */
    private long clearBelt() {
        return ines.get("/api/desk?status=CLEAR&drive=BELT&limit=200")
                .json()
                .get("rows")
                .valueStream()
                .filter(r -> r.has("actBy")
                        && LocalDate.parse(r.get("actBy").asString()).isAfter(today().plusYears(1)))
                .findFirst()
                .orElseThrow()
                .get("vehicleId")
                .asLong();
    }

    private JsonNode vehicle(long id) {
        return ines.get("/api/vehicles/" + id).ok().json();
    }

    private String reasons(long id) {
        return vehicle(id).get("reasons").toString();
    }

    private LocalDate actedOn(long id, @Nullable String kind) {
        String own = kind == null ? "null" : "\"" + kind + "\"";
        ines.put("/api/vehicles/%d/own-timing".formatted(id), """
                        {"kind": %s, "share": 0.9, "reason": "tried out", "version": %d}
                        """.formatted(
                                own, vehicle(id).get("version").asInt()))
                .ok();
        return LocalDate.parse(vehicle(id).get("actBy").asString());
    }

    @Test
    void moreWearExposesMore() {
        JsonNode row = ines.get("/api/desk?status=COMING&drive=BELT")
                .json()
                .get("rows")
                .get(0);
        String path = "/api/vehicles/" + row.get("vehicleId").asLong();
        long before = ines.get(path).json().get("exposurePerWeekMinor").asLong();
        ines.put("/api/setup/assumptions", change("wear.share.TIMING_BELT", 0.2))
                .ok();
        assertThat(ines.get(path).json().get("exposurePerWeekMinor").asLong()).isGreaterThan(before);
    }

    @ParameterizedTest
    @CsvSource({"no.such, 1", "odometer.maxKmPerDay, 99999", "wear.share.TIMING_BELT, 0", "odometer.trust.CUSTOMER, 1.5"
    })
    void anAmountThatCannotBeIsRefusedBesideItsField(String name, double amount) {
        int version = view().get("version").asInt();
        String message =
                ines.put("/api/setup/assumptions", change(name, amount)).errorAt("/amounts/" + name);
        assertThat(message).isNotBlank();
        assertThat(view().get("version").asInt()).isEqualTo(version);
    }

    @Test
    void whatIsWrittenCarriesItsUnit() {
        assertThat(ines.put("/api/setup/assumptions", change("wear.share.TIMING_BELT", 1.5))
                        .errorAt("/amounts/wear.share.TIMING_BELT"))
                .isEqualTo("Must be 0.01 to 90 %.");
        String currency = ines.get("/api/me").json().get("currency").asString();
        assertThat(ines.put("/api/setup/assumptions", change("plan.move", -1)).errorAt("/amounts/plan.move"))
                .isEqualTo("Must be 0 to 10,000 " + currency + ".");
        ines.put("/api/setup/assumptions", change("estimate.low", 0.85)).ok();
        JsonNode last = view().get("changes").get(0);
        assertThat(last.get("after").asString()).isEqualTo("85 % of the likely one");
    }

    @Test
    void aVersionThatIsOldIsRefused() {
        ines.put("/api/setup/assumptions", "{\"amounts\": {\"odometer.idleKmPerHour\": 60}, \"version\": 0}")
                .problem(409, "conflict");
        ines.post("/api/setup/workshop/preview", ines.get("/api/setup/workshop").text())
                .ok();
    }

    @Test
    void classesSayWhetherTheyHaveLearned() {
        assertThat(view().get("classes").valueStream())
                .anySatisfy(c -> {
                    assertThat(c.get("learned").asBoolean()).isTrue();
                    assertThat(c.get("vehicles").asInt())
                            .isGreaterThanOrEqualTo(c.get("needed").asInt());
                })
                .anyMatch(c -> !c.get("learned").asBoolean());
    }

    @Test
    void othersMayNotLook() {
        for (String who : new String[] {"morwen", "hedra", "jory"}) {
            SERVER.as(who).get("/api/setup/assumptions").problem(403, "not-allowed");
        }
    }
}
