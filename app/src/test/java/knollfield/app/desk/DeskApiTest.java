package knollfield.app.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import knollfield.app.Client;
import knollfield.app.Server;
import knollfield.core.due.Status;
import knollfield.core.due.Urgency;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

class DeskApiTest {

    private static final String EVERYTHING =
            "status=STOP&status=OVERDUE&status=UNKNOWN_HISTORY&status=ACT_NOW&status=NO_BOOK&status=COMING&status=CLEAR";

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private Client ines;

    @BeforeEach
    void signIn() {
        ines = SERVER.as("ines");
    }

    private List<JsonNode> rows(String query) {
        return ines.get("/api/desk?" + query)
                .ok()
                .json()
                .get("rows")
                .valueStream()
                .toList();
    }

    @Test
    void pagesCoverTheListOnceEach() {
        Set<Long> seen = new HashSet<>();
        int offset = 0;
        while (true) {
            List<JsonNode> page = rows(EVERYTHING + "&limit=70&offset=" + offset);
            page.forEach(r -> assertThat(seen.add(r.get("vehicleId").asLong())).isTrue());
            if (page.isEmpty()) {
                break;
            }
            offset += page.size();
        }
        rows(EVERYTHING + "&limit=70&aside=true")
                .forEach(r -> assertThat(seen.add(r.get("vehicleId").asLong())).isTrue());
        assertThat(seen).hasSize(252);
    }

    @Test
    void whatAsksForADecisionStandsTogetherByWhatAWeekMayCost() {
        JsonNode desk = ines.get("/api/desk?limit=200").json();
        int row = 0;
        for (JsonNode section : desk.get("sections")) {
            double before = Double.POSITIVE_INFINITY;
            for (int i = 0; i < section.get("listed").asInt(); i++, row++) {
                JsonNode r = desk.get("rows").get(row);
                Urgency urgency = Urgency.of(Status.valueOf(r.get("status").asString()));
                assertThat(urgency.words()).isEqualTo(section.get("words").asString());
                double week = r.path("exposurePerWeekMinor").asDouble(0);
                if (r.has("exposurePerWeekMinor")) {
                    assertThat(week).isLessThanOrEqualTo(before);
                    before = week;
                }
            }
        }
        assertThat(row).isEqualTo(desk.get("rows").size());
        assertThat(desk.get("toDecide").asInt())
                .isEqualTo(desk.get("sections")
                        .valueStream()
                        .filter(x -> List.of("Must not run", "Decide now")
                                .contains(x.get("words").asString()))
                        .mapToInt(x -> x.get("listed").asInt())
                        .sum());
        // overdue, act now and unknown history stand among each other
        List<String> decide = desk.get("rows")
                .valueStream()
                .map(r -> r.get("status").asString())
                .filter(s -> Urgency.of(Status.valueOf(s)) == Urgency.DECIDE_NOW)
                .toList();
        assertThat(decide).contains("OVERDUE", "UNKNOWN_HISTORY", "ACT_NOW");
        assertThat(decide.stream().map(Status::valueOf).toList())
                .isNotEqualTo(decide.stream().map(Status::valueOf).sorted().toList());
        List<Status> byStatus = ines.get("/api/desk?limit=200&order=STATUS")
                .json()
                .get("rows")
                .valueStream()
                .map(r -> Status.valueOf(r.get("status").asString()))
                .toList();
        assertThat(byStatus).isSorted();
    }

    @Test
    void theCountsOfTheHeadingAreListsOfTheirOwn() {
        JsonNode desk = ines.get("/api/desk").json();
        JsonNode calls = ines.get("/api/desk?only=CALLS").json();
        assertThat(calls.get("total").asInt()).isEqualTo(desk.get("callBacks").asInt());
        assertThat(calls.get("rows").valueStream().map(r -> r.get("callBack").asBoolean()))
                .isNotEmpty()
                .containsOnly(true);
        JsonNode rechecks = ines.get("/api/desk?only=RECHECKS").json();
        assertThat(rechecks.get("total").asInt()).isEqualTo(desk.get("rechecks").asInt());
        assertThat(rechecks.get("rows").valueStream().allMatch(r -> r.has("recheck")))
                .isTrue();
    }

    @Test
    void countsAgreeWithTheRowsOfEachStanding() {
        JsonNode desk = ines.get("/api/desk").json();
        desk.get("groups").forEach(g -> {
            JsonNode one = ines.get(
                            "/api/desk?limit=200&status=" + g.get("status").asString())
                    .json();
            assertThat(one.get("total").asInt()).isEqualTo(g.get("count").asInt());
            assertThat(one.get("rows").valueStream().map(r -> r.get("status").asString()))
                    .allMatch(g.get("status").asString()::equals);
        });
    }

    @Test
    void theListAloneLeavesTheClearOnesOutAndAWordBringsThemBack() {
        // a clear one stands there only where something is to be looked at again
        assertThat(rows("limit=200")).noneMatch(r -> r.get("status").asString().equals("CLEAR") && !r.has("recheck"));
        assertThat(rows("limit=200")).anyMatch(r -> r.has("recheck"));
        assertThat(rows("limit=200&q=calder"))
                .anyMatch(r -> r.get("status").asString().equals("CLEAR"));
    }

    @Test
    void filtersNarrow() {
        long fleet = ines.get("/api/desk/fleets")
                .json()
                .valueStream()
                .filter(f -> f.get("name").asString().equals("School run"))
                .findFirst()
                .orElseThrow()
                .get("id")
                .asLong();
        assertThat(rows(EVERYTHING + "&fleet=" + fleet))
                .hasSize(7)
                .allMatch(r -> r.get("fleet").asString().equals("School run"));
        assertThat(rows(EVERYTHING + "&limit=200&drive=CHAIN"))
                .isNotEmpty()
                .allMatch(r -> r.get("drive").asString().equals("CHAIN"));
        assertThat(rows("q=nobody-is-called-this")).isEmpty();
    }

    @Test
    void anOwnersPhoneAndNameFindTheVehicle() {
        JsonNode row = rows("limit=1").get(0);
        JsonNode dossier =
                ines.get("/api/vehicles/" + row.get("vehicleId").asLong()).json();
        String phone = dossier.get("ownerPhone").asString();

        for (String asked : List.of(
                phone.replace(" ", ""), dossier.get("ownerName").asString().replace(" ", "%20"))) {
            assertThat(ines.get("/api/find?limit=50&q=" + asked)
                            .json()
                            .get("vehicles")
                            .valueStream()
                            .map(f -> f.get("vehicleId").asLong()))
                    .contains(row.get("vehicleId").asLong());
        }
        assertThat(ines.get("/api/find?q=%20").json().get("vehicles")).isEmpty();
        assertThat(ines.get("/api/find?q=zzzz").json().get("vehicles")).isEmpty();
    }

    @Test
    void everyDossierIsWholeAndAgreesWithItsRow() {
        for (JsonNode row : rows("limit=200")) {
            JsonNode d = ines.get("/api/vehicles/" + row.get("vehicleId").asLong())
                    .ok()
                    .json();
            assertThat(d.get("status").asString()).isEqualTo(row.get("status").asString());
            assertThat(d.path("actBy").asString(null))
                    .isEqualTo(row.path("actBy").asString(null));
            assertThat(d.path("exposurePerWeekMinor").asLong(-1))
                    .isEqualTo(row.path("exposurePerWeekMinor").asLong(-1));
            assertThat(d.get("sentence").asString()).isNotBlank().doesNotContain("{");
            assertThat(d.get("reasons")).isNotEmpty();
            d.get("reasons").forEach(r -> assertThat(r.get("text").asString()).doesNotContain("{", "}", "NaN"));
            JsonNode window = d.get("window");
            assertThat(window.get("today").get("km").asDouble())
                    .isLessThanOrEqualTo(window.get("spanKm").asDouble());
            assertThat(window.get("today").get("months").asDouble())
                    .isLessThanOrEqualTo(window.get("spanMonths").asDouble());
        }
    }

    @Test
    void theLifeStripIsTheDecidingItemsShareOfItsLimits() {
        for (JsonNode row : rows("limit=200&status=COMING&status=OVERDUE")) {
            JsonNode d =
                    ines.get("/api/vehicles/" + row.get("vehicleId").asLong()).json();
            JsonNode window = d.get("window");
            if (!row.get("life").has("distance") || !window.get("limit").has("km")) {
                continue;
            }
            double share = window.get("today").get("km").asDouble()
                    / window.get("limit").get("km").asDouble();
            assertThat(row.get("life").get("distance").asDouble()).isCloseTo(share, within(1e-9));
        }
    }

    @Test
    void aVehicleBeforeALongTripIsDoneBeforeItAndSaysSo() {
        List<JsonNode> travellers = rows("limit=200").stream()
                .map(r ->
                        ines.get("/api/vehicles/" + r.get("vehicleId").asLong()).json())
                .filter(d -> d.get("reasons")
                        .valueStream()
                        .anyMatch(r -> r.get("topic").asString().equals("Trip")
                                && r.get("text")
                                        .asString()
                                        .replace('\u00a0', ' ')
                                        .startsWith("9,000 km extra from ")))
                .toList();

        assertThat(travellers)
                .singleElement()
                .satisfies(d -> assertThat(d.get("actBy").asString())
                        .isEqualTo(LocalDate.now().plusDays(35).toString()));
    }

    @ParameterizedTest
    @ValueSource(strings = {"status=LATE", "fleet=many", "drive=ROPE", "offset=x"})
    void aQueryThatCannotBeReadIsNamed(String query) {
        JsonNode problem = ines.get("/api/desk?" + query).problem(400, "invalid-input");
        assertThat(problem.get("errors").get(0).get("pointer").asString())
                .isEqualTo("/" + query.substring(0, query.indexOf('=')));
    }

    @Test
    void whatIsNotThereIsNotFound() {
        ines.get("/api/vehicles/999999").problem(404, "not-found");
        ines.get("/api/jobs/999999").problem(404, "not-found");
        ines.get("/api/jobs/999999/card").problem(404, "not-found");
    }
}
