package knollfield.app.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.function.Consumer;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** A family written down on one page, over HTTP, in a workshop without the demo. */
class EngineFormApiTest {

    private static final String FORMS = "/api/setup/engine-forms";

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;

    @BeforeEach
    void theManager() {
        ines = SERVER.as("ines");
    }

    private ObjectNode begin(String query) {
        return (ObjectNode) ines.get(FORMS + "/begin?" + query).ok().json();
    }

    private static String answers(String from, ObjectNode form) {
        return "{%s, \"form\": %s}".formatted(from, form);
    }

    private static ObjectNode line(ObjectNode form, String list, String code) {
        return (ObjectNode) form.get(list)
                .valueStream()
                .filter(l -> l.get("code").asString().equals(code))
                .findFirst()
                .orElseThrow();
    }

    /** A keyed four with a pump, with what its belt needs. */
    private ObjectNode keyedFour(String code) {
        ObjectNode form = begin("like=e01&extras=WATER_PUMP&extras=IDLER");
        form.put("code", code).put("name", "Own four " + code).put("interference", "YES");
        form.put("origin", "own book, page 7");
        line(form, "loops", "belt").put("teeth", 127);
        line(form, "items", "belt").put("km", 105_000).put("months", 72).put("priceMinor", 4_950);
        line(form, "joints", "tens").put("torqueNm", 43.5);
        line(form, "fluids", "coolant").put("litres", 6.2);
        line(form, "looks", "twist").put("low", 65).put("high", 75);
        return form;
    }

    private static final String LIKE = "\"like\": \"e01\", \"extras\": [\"WATER_PUMP\", \"IDLER\"]";

    @Test
    void aFamilyOfAKindIsFiledProvenAndAVehicleIsDueByIt() {
        ObjectNode form = keyedFour("OWN-4");

        JsonNode check = ines.post(FORMS + "/check", answers(LIKE, form)).ok().json();
        assertThat(check.get("purposes").valueStream())
                .allMatch(p -> p.get("proven").asBoolean());
        assertThat(check.get("gaps").valueStream().map(g -> g.get("what").asString()))
                .contains("Drawing")
                .noneMatch(w -> w.startsWith("Limits"));
        assertThat(ines.post(FORMS, answers(LIKE, form)).ok().json().get("code").asString())
                .isEqualTo("OWN-4");

        JsonNode filed = ines.get("/api/engines/OWN-4").ok().json();
        assertThat(filed.at("/family/build/looks")
                        .valueStream()
                        .filter(k -> k.get("code").asString().equals("twist"))
                        .findFirst()
                        .orElseThrow()
                        .get("low")
                        .asDouble())
                .as("the workshop's window, never the kind's")
                .isEqualTo(65);
        assertThat(filed.path("path").isMissingNode() || filed.get("path").isNull())
                .as("no drawing is made up")
                .isTrue();
        assertThat(filed.get("gaps").valueStream().map(g -> g.get("what").asString()))
                .contains("Drawing");
        assertThat(ines.get("/api/engines/OWN-4/proof")
                        .ok()
                        .json()
                        .get("purposes")
                        .valueStream())
                .isNotEmpty()
                .allMatch(p -> p.get("proven").asBoolean());
        long vehicle =
                Given.vehicle(SERVER, ines, "OWN-4", ",odometer,odometer_date|,98000," + Given.TODAY.minusDays(9));
        assertThat(ines.get("/api/vehicles/" + vehicle)
                        .ok()
                        .json()
                        .at("/window/limit/km")
                        .asInt())
                .isEqualTo(105_000);
        assertThat(ines.get("/api/practice/OWN-4?seed=1").status())
                .as("nothing to practise on without a drawing")
                .isEqualTo(422);
    }

    @Test
    void aSecondFamilyOfThatCodeIsRefusedBesideItsField() {
        ines.post(FORMS, answers(LIKE, keyedFour("TWICE"))).ok();

        Client.Answer again = ines.post(FORMS, answers(LIKE, keyedFour("twice")));

        assertThat(again.status()).isEqualTo(422);
        assertThat(again.json().get("errors").get(0).get("pointer").asString()).isEqualTo("/form/code");
    }

    @Test
    void whatIsMissingIsNamedAllAtOnceAndNothingIsFiled() {
        ObjectNode form = begin("like=e01");
        line(form, "joints", "tens").put("torqueNm", 40);

        Client.Answer refused = ines.post(FORMS, answers("\"like\": \"e01\"", form));

        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.json()
                        .get("errors")
                        .valueStream()
                        .map(e -> e.get("pointer").asString()))
                .containsExactlyInAnyOrder(
                        "/form/code", "/form/name", "/form/origin", "/form/loops/0/teeth", "/form/looks/0/low");
    }

    @ParameterizedTest
    @CsvSource({
        "items, belt, km, 0, km",
        "items, belt, severeKm, 200000, severeKm",
        "items, belt, severeMonths, 100, severeMonths",
        "joints, pulley, angleDegrees, 90, angleDegrees",
        "joints, tens, torqueNm, 5000, torqueNm",
        "joints, tens, bolts, 0, bolts",
        "loops, belt, teeth, 4, teeth",
        "fluids, coolant, litres, 99, litres",
        "looks, twist, high, 60, high",
        "steps, belt, minutes, -5, minutes",
    })
    void aFigureNoEngineHasIsRefusedAtItsField(String list, String code, String field, double value, String at) {
        ObjectNode form = keyedFour("ODD-1");
        ObjectNode line = line(form, list, code);
        if (value == Math.rint(value)) {
            line.put(field, (long) value);
        } else {
            line.put(field, value);
        }

        Client.Answer refused = ines.post(FORMS, answers(LIKE, form));

        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.json()
                        .get("errors")
                        .valueStream()
                        .map(e -> e.get("pointer").asString()))
                .singleElement()
                .satisfies((Consumer<String>)
                        p -> assertThat(p).startsWith("/form/" + list).endsWith("/" + at));
        assertThat(ines.get("/api/engines/ODD-1").status()).isEqualTo(404);
    }

    @Test
    void aFamilyIsBegunFromAnotherWithItsFiguresAndDrawing() {
        Given.family(SERVER);
        ObjectNode form = begin("copy=CAL-16");
        assertThat(line(form, "items", "belt").get("km").isNumber()).isTrue();
        form.put("code", "CAL-COPY").put("name", "The same with another belt");
        form.put("origin", "own book");
        line(form, "items", "belt").put("km", 77_000).putNull("severeKm").putNull("severeMonths");

        ines.post(FORMS, answers("\"copy\": \"CAL-16\"", form)).ok();

        JsonNode copy = ines.get("/api/engines/CAL-COPY").ok().json();
        assertThat(copy.get("family")
                        .get("items")
                        .valueStream()
                        .filter(i -> i.get("code").asString().equals("belt"))
                        .findFirst()
                        .orElseThrow()
                        .get("schedule")
                        .get("normal")
                        .get("km")
                        .asInt())
                .isEqualTo(77_000);
        assertThat(copy.get("path").get("teeth").asInt())
                .isEqualTo(ines.get("/api/engines/CAL-16")
                        .json()
                        .get("path")
                        .get("teeth")
                        .asInt());
    }
}
