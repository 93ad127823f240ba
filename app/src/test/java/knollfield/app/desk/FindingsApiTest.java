package knollfield.app.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.core.due.EvidenceKind;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** One finding, one wording, one effect: on the dossier, in the reason, in the standing and on the Desk. */
class FindingsApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static final Map<String, String> STATUS =
            Map.of("do not run the engine", "STOP", "act now", "ACT_NOW", "act soon", "COMING");

    // Common practice, no source: what each of these asks of whoever finds it on an interference belt engine.
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = '|', textBlock = """
            BELT_FAILED              | do not run the engine
            GUIDE_BROKEN             | do not run the engine
            CRACKS                   | act now
            FRAYED_EDGE              | act now
            OIL_TOP                  | act now
            OIL_BOTTOM               | act now
            COOLANT_TRACE            | act now
            WHINE                    | act now
            BEARING_RUMBLE           | act now
            TENSIONER_OUT            | act now
            BEARING                  | act now
            SWOLLEN                  | act now
            CHAIN_RATTLE             | act soon
            CORRELATION_CODE         | act now
            DAMPER_LOOSE             | act now
            OUT_OF_TIME              | act now
            DAMPER_CRACKED           | the part goes into the next job; the date of the drive stays
            MOUNT_TORN               | the part goes into the next job; the date of the drive stays
            ACCESSORY_TENSIONER_WORN | the part goes into the next job; the date of the drive stays
            PIPE_BRITTLE             | the part goes into the next job; the date of the drive stays
            CLEARANCE_OUT            | noted; it moves no date
            INSPECTED_GOOD           | noted; it moves no date
            """)
    void everyFindingIsSaidTheSameEverywhere(EvidenceKind kind, String effect) {
        Client ines = SERVER.as("ines");
        long vehicle = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, vehicle, Given.TODAY, "171000", "KM").ok();
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, vehicle, item, Given.TODAY.minusMonths(14), 150_000, false)
                    .ok();
        }
        assertThat(dossier(ines, vehicle).get("status").asString()).isEqualTo("CLEAR");
        ines.post("/api/vehicles/%d/evidence".formatted(vehicle), """
                        {"kind": "%s", "found": "%s", "confidence": "SEEN", "note": ""}""".formatted(kind, Given.TODAY))
                .ok();

        JsonNode dossier = dossier(ines, vehicle);
        JsonNode line = dossier.get("evidence").get(0);
        assertThat(line.get("words").asString()).isEqualTo(kind.words());
        assertThat(line.get("effect").asString()).isEqualTo(effect);
        assertThat(dossier.get("status").asString()).isEqualTo(STATUS.getOrDefault(effect, "CLEAR"));
        assertThat(dossier.get("reasons").valueStream().map(r -> r.get("text").asString()))
                .filteredOn(text -> text.toLowerCase().startsWith(kind.words().toLowerCase() + ", seen on"))
                .singleElement()
                .satisfies(text -> assertThat(text)
                        .endsWith(effect.equals("act soon") ? "whichever comes first." : ": " + effect + "."));

        boolean now = effect.equals("act now");
        boolean stop = effect.equals("do not run the engine");
        assertThat(dossier.get("sentence").asString().contains(kind.words())).isEqualTo(now || stop);
        JsonNode row = ines.get(
                        "/api/desk?limit=200&status=" + dossier.get("status").asString())
                .ok()
                .json()
                .get("rows")
                .valueStream()
                .filter(r -> r.get("vehicleId").asLong() == vehicle)
                .findFirst()
                .orElseThrow();
        assertThat(row.get("note").asString().equals(kind.words())).isEqualTo(now);
    }

    private static JsonNode dossier(Client client, long vehicle) {
        return client.get("/api/vehicles/" + vehicle).ok().json();
    }
}
