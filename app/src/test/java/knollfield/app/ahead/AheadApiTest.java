package knollfield.app.ahead;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** Every vehicle in one window, on the island of Skerrow. */
class AheadApiTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private final Client ines = SERVER.as("ines");

    private JsonNode ahead(String query) {
        return ines.get("/api/ahead?" + query).ok().json();
    }

    private JsonNode list(String query) {
        return ines.get("/api/ahead/vehicles?limit=200&" + query).ok().json();
    }

    private static int crossers(JsonNode view) {
        return (int) view.get("marks")
                .get("crossing")
                .valueStream()
                .filter(c -> c.asInt() == 1)
                .count();
    }

    private static int crossersAt(JsonNode view, int wall) {
        JsonNode marks = view.get("marks");
        int count = 0;
        for (int i = 0; i < marks.get("wall").size(); i++) {
            boolean here = marks.get("wall").get(i).asInt() == wall;
            count += here && marks.get("crossing").get(i).asInt() == 1 ? 1 : 0;
        }
        return count;
    }

    @Test
    void whoCrossesIsMarkedCountedListedAndSaidAlike() {
        for (int days : List.of(30, 90, 365)) {
            String on = "date=" + TODAY.plusDays(days);
            JsonNode view = ahead(on);
            JsonNode list = list(on);
            int atWalls = view.get("atDistance").asInt() + view.get("atAge").asInt();

            assertThat(crossers(view)).isEqualTo(atWalls).isPositive();
            assertThat(crossersAt(view, 0)).isEqualTo(view.get("atDistance").asInt());
            assertThat(crossersAt(view, 1)).isEqualTo(view.get("atAge").asInt());
            assertThat(list.get("total").asInt()).isEqualTo(atWalls);
            assertThat(list.get("minutes").asLong())
                    .isEqualTo(view.get("minutes").asLong());
            assertThat(list.get("moneyMinor").asLong())
                    .isEqualTo(view.get("moneyMinor").asLong())
                    .isPositive();
            assertThat(view.get("words").toString()).contains(atWalls + " cross a limit by");
            assertThat(list.get("rows").valueStream().map(r -> r.get("crosses").asString()))
                    .isSorted()
                    .allMatch(d -> d.compareTo(TODAY.toString()) > 0
                            && d.compareTo(TODAY.plusDays(days).toString()) <= 0);
        }
    }

    @Test
    void laterDaysOnlyAddToThoseThatCross() {
        Set<Long> before = new HashSet<>();
        for (int weeks = 1; weeks <= 30; weeks += 4) {
            Set<Long> now = new HashSet<>();
            list("date=" + TODAY.plusWeeks(weeks))
                    .get("rows")
                    .forEach(r -> now.add(r.get("vehicleId").asLong()));
            assertThat(now).containsAll(before);
            before = now;
        }
        assertThat(before).isNotEmpty();
    }

    @Test
    void theNextToCrossCrossesOnItsDayAndNotTheDayBefore() {
        JsonNode view = ahead("date=" + TODAY.plusDays(30));
        java.time.LocalDate next =
                java.time.LocalDate.parse(view.get("next").get("date").asString());
        int more = view.get("next").get("vehicles").asInt();

        assertThat(crossers(ahead("date=" + next.minusDays(1)))).isEqualTo(crossers(view));
        assertThat(crossers(ahead("date=" + next))).isEqualTo(crossers(view) + more);
    }

    @Test
    void everyVehicleThatIsPlannedIsInsideOrSaidToBeOutside() {
        JsonNode view = ahead("");
        int planned = ines.get("/api/desk").json().get("vehicles").asInt();
        assertThat(view.get("vehicles").asInt() + view.get("without").asInt()).isEqualTo(planned);
        assertThat(view.get("marks").get("vehicleId").size())
                .isEqualTo(view.get("vehicles").asInt());
        assertThat(view.has("density")).isFalse();
    }

    @Test
    void aBoxListsTheVehiclesInsideIt() {
        String on = "date=" + TODAY.plusDays(60);
        JsonNode view = ahead(on).get("marks");
        int expected = 0;
        for (int i = 0; i < view.get("age").size(); i++) {
            int age = view.get("age").get(i).asInt();
            int distance = view.get("distance").get(i).asInt();
            expected += age >= 400 && age <= 900 && distance >= 300 && distance <= 800 ? 1 : 0;
        }
        JsonNode inside = list(on + "&ageFrom=0.3995&ageTo=0.9005&distanceFrom=0.2995&distanceTo=0.8005");
        assertThat(inside.get("total").asInt()).isEqualTo(expected).isPositive();
    }

    @Test
    void filtersAndRolesNarrow() {
        JsonNode chains = ahead("drive=CHAIN");
        assertThat(chains.get("vehicles").asInt())
                .isPositive()
                .isLessThan(ahead("").get("vehicles").asInt());
        JsonNode jory = SERVER.as("jory").get("/api/ahead").ok().json();
        assertThat(jory.get("vehicles").asInt() + jory.get("without").asInt())
                .as("the harbour taxis")
                .isEqualTo(10);
    }

    @Test
    void theCsvHoldsTheListAndABadDayIsRefused() {
        String on = "date=" + TODAY.plusDays(200);
        List<String> lines =
                ines.get("/api/ahead/vehicles.csv?" + on).ok().text().lines().toList();
        assertThat(lines).hasSize(1 + list(on).get("total").asInt());
        assertThat(ines.get("/api/ahead?date=" + TODAY.minusDays(1)).errorAt("/date"))
                .contains("begins today");
        ines.get("/api/ahead?date=soon").problem(400, "invalid-input");
        assertThat(ines.get("/api/ahead/vehicles?ageFrom=0.5").errorAt("/ageFrom"))
                .contains("all four");
    }
}
