package knollfield.app.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.StreamSupport;
import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** The Desk's list: views with a name, CSV, orders, and what is offered to choose from. */
class SavedViewsTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    @Test
    void aViewIsKeptForItsOwnPersonReplacedByNameAndRemoved() {
        Client ines = SERVER.as("ines");
        ines.post("/api/desk/views", "{\"name\": \"vans\", \"query\": \"fleet=1\"}")
                .ok();
        JsonNode twice = ines.post("/api/desk/views", "{\"name\": \"vans\", \"query\": \"fleet=1&drive=BELT\"}")
                .ok()
                .json();

        assertThat(twice).hasSize(1);
        assertThat(twice.get(0).get("query").asString()).isEqualTo("fleet=1&drive=BELT");
        assertThat(SERVER.as("morwen").get("/api/desk/views").json()).isEmpty();
        long id = twice.get(0).get("id").asLong();
        SERVER.as("morwen").delete("/api/desk/views/" + id).problem(404, "not-found");
        assertThat(ines.post("/api/desk/views", "{\"name\": \" \", \"query\": \"q=x\"}")
                        .errorAt("/name"))
                .contains("missing");
        assertThat(ines.delete("/api/desk/views/" + id).ok().json()).isEmpty();
    }

    @Test
    void theCsvHoldsWhatTheListShowsInItsOrder() {
        Client ines = SERVER.as("ines");
        for (String query : List.of("order=ACT_BY", "drive=CHAIN&order=PER_HOUR", "status=COMING")) {
            List<String> shown = ines.get("/api/desk?limit=200&" + query)
                    .json()
                    .get("rows")
                    .valueStream()
                    .map(r -> r.get("registration").asString())
                    .toList();
            Client.Answer csv = ines.get("/api/desk/list.csv?" + query).ok();
            List<String> listed = csv.text()
                    .lines()
                    .skip(1)
                    .map(l -> l.substring(0, l.indexOf(',')))
                    .toList();

            assertThat(csv.contentType()).startsWith("text/csv");
            assertThat(listed).isNotEmpty().isEqualTo(shown);
        }
    }

    @Test
    void withinAStatusTheListStandsInTheOrderAskedFor() {
        JsonNode rows = SERVER.as("ines")
                .get("/api/desk?limit=200&status=COMING&order=ACT_BY")
                .json()
                .get("rows");
        List<String> dates = StreamSupport.stream(rows.spliterator(), false)
                .map(r -> r.get("actBy").asString())
                .toList();
        assertThat(dates).hasSizeGreaterThan(3).isSorted();

        JsonNode perHour = SERVER.as("ines")
                .get("/api/desk?limit=200&status=COMING&order=PER_HOUR")
                .json()
                .get("rows");
        List<Long> rates = perHour.valueStream()
                .filter(r -> r.has("exposurePerHourMinor"))
                .map(r -> -r.get("exposurePerHourMinor").asLong())
                .toList();
        assertThat(rates).hasSizeGreaterThan(3).isSorted();
    }

    @Test
    void eachSectionSaysHowManyOfTheListAreItsOwn() {
        JsonNode desk = SERVER.as("ines").get("/api/desk").json();
        int listed = desk.get("sections")
                .valueStream()
                .mapToInt(g -> g.get("listed").asInt())
                .sum();
        assertThat(listed).isEqualTo(desk.get("total").asInt());
        assertThat(desk.get("callBacks").asInt()).isEqualTo(1);
        assertThat(desk.get("aside").asInt()).isEqualTo(2);
    }

    @Test
    void formsAreOfferedTheWordsOfTheDesk() {
        JsonNode choices = SERVER.as("ines").get("/api/desk/choices").ok().json();
        assertThat(choices.get("fleets")).hasSize(6);
        assertThat(choices.get("families")).hasSize(24);
        assertThat(choices.get("evidence")
                        .valueStream()
                        .filter(e -> e.get("code").asString().equals("OIL_TOP"))
                        .findFirst()
                        .orElseThrow()
                        .get("advice")
                        .asString())
                .isNotBlank();
        assertThat(SERVER.as("jory").get("/api/desk/choices").ok().json().get("fleets"))
                .as("a fleet contact is offered the own fleet")
                .hasSize(1);
    }
}
