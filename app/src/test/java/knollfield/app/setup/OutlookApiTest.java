package knollfield.app.setup;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.Stream;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What a policy means before it is kept. */
class OutlookApiTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    private static Client ines;

    @BeforeAll
    static void aWorkshopsVehicles() {
        ines = SERVER.as("ines");
        for (int i = 0; i < 6; i++) {
            long vehicle = Given.vehicle(SERVER, ines, "");
            for (String item : List.of("belt", "tensioner", "idler", "pump")) {
                Given.renewal(ines, vehicle, item, TODAY.minusMonths(30), 60_000, true)
                        .ok();
            }
            Given.reading(ines, vehicle, TODAY.minusDays(20), String.valueOf(80_000 + 12_000 * i), "KM")
                    .ok();
        }
    }

    private static ObjectNode figures() {
        return (ObjectNode) ines.get("/api/setup/workshop").ok().json();
    }

    private static JsonNode outlook(ObjectNode figures) {
        return ines.post("/api/setup/workshop/outlook", figures.toString()).ok().json();
    }

    private static List<Double> of(JsonNode line, String figure) {
        return line.valueStream().map(p -> p.get("year").get(figure).asDouble()).toList();
    }

    @Test
    void theLinesRunFromCheapToSafeAndThePresentSettingStandsOnThem() {
        JsonNode f = outlook(figures().put("policy", "CAREFUL").put("stranding", 12_345));

        assertThat(f.get("vehicles").asInt()).isEqualTo(6);
        assertThat(of(f.get("early"), "breakdowns")).isSortedAccordingTo((a, b) -> Double.compare(b, a));
        // a cheap stranding lets more visits serve, so only the whole of this line need fall
        Stream.of("early", "careful").forEach(line -> {
            List<Double> breakdowns = of(f.get(line), "breakdowns");
            assertThat(breakdowns.get(0)).isGreaterThan(1.5 * breakdowns.get(breakdowns.size() - 1));
        });
        JsonNode chosen = f.get("careful")
                .valueStream()
                .filter(p -> p.get("amount").asDouble() == 12_345)
                .findFirst()
                .orElseThrow();
        assertThat(chosen.get("year")).isEqualTo(f.get("proposed"));
        assertThat(f.get("proposed").get("atVisits").asDouble())
                .isPositive()
                .isLessThan(f.get("proposed").get("jobs").asDouble());
        // six drives, each renewed once in its limit or a little sooner
        assertThat(f.get("proposed").get("jobs").asDouble()).isCloseTo(6 / 4.5, within(0.6));
        assertThat(figures().get("stranding").asDouble()).as("nothing is kept").isNotEqualTo(12_345);
    }

    @Test
    void thePriceOfAStrandingIsKeptWithThePolicy() {
        ObjectNode before = figures();
        ines.put(
                        "/api/setup/workshop",
                        before.deepCopy().put("stranding", 15_000).toString())
                .ok();

        assertThat(figures().get("stranding").asDouble()).isEqualTo(15_000);
        assertThat(ines.get("/api/setup/assumptions")
                        .ok()
                        .json()
                        .get("assumptions")
                        .valueStream())
                .filteredOn(a -> a.get("name").asString().equals("policy.stranding"))
                .singleElement()
                .satisfies(a -> assertThat(a.get("value").asDouble()).isEqualTo(15_000));
        assertThat(ines.put(
                                "/api/setup/workshop",
                                figures().put("stranding", -1).toString())
                        .errorAt("/stranding"))
                .contains("0 to 1,000,000");
        assertThat(ines.post(
                                "/api/setup/workshop/outlook",
                                figures().put("visitsPerYear", 400).toString())
                        .errorAt("/visitsPerYear"))
                .contains("52");
    }
}
