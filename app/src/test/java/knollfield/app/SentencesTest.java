package knollfield.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** Everything a person can read in the demo is written out: no place where a figure belongs is left, nor a null. */
class SentencesTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private static final Pattern LEFT = Pattern.compile("\\{\\d*}|%[sd]|\\bnull\\b|Optional[\\[.]|\\w@[0-9a-f]{5,}");

    private final Client ines = SERVER.as("ines");
    private final Map<String, String> unwritten = new TreeMap<>();
    private int read;

    private void read(String at, JsonNode node) {
        if (node.isString()) {
            read++;
            if (LEFT.matcher(node.asString()).find()) {
                unwritten.put(at, node.asString());
            }
        }
        node.properties().forEach(p -> read(at + "/" + p.getKey(), p.getValue()));
        for (int i = 0; i < (node.isArray() ? node.size() : 0); i++) {
            read(at + "/" + i, node.get(i));
        }
    }

    private JsonNode open(String path) {
        JsonNode json = ines.get(path).ok().json();
        read(path, json);
        return json;
    }

    private static List<String> all(JsonNode list, String field) {
        return list.valueStream().map(n -> n.get(field).asString()).toList();
    }

    @Test
    void noReasonCardEstimateOrRecordShowsATemplate() {
        JsonNode desk = open("/api/desk?limit=200&status=STOP,OVERDUE,ACT_NOW,COMING,UNKNOWN_HISTORY,NO_BOOK,CLEAR");
        List<String> vehicles = new ArrayList<>(all(desk.get("rows"), "vehicleId"));
        assertThat(vehicles).hasSizeGreaterThan(100);
        vehicles.forEach(v -> {
            open("/api/vehicles/" + v);
            open("/api/vehicles/%s/aftercare".formatted(v));
            open("/api/vehicles/%s/story".formatted(v));
        });
        for (JsonNode job : open("/api/jobs")) {
            String at = "/api/jobs/" + job.get("id").asString();
            open(at);
            open(at + "/estimates");
            for (String page : List.of("/card", "/record")) {
                if (ines.get(at + page).status() == 200) {
                    open(at + page);
                }
            }
        }
        for (JsonNode family : open("/api/engines")) {
            open("/api/engines/%s/proof".formatted(family.get("code").asString()));
        }
        List.of(
                        "/api/ahead",
                        "/api/board",
                        "/api/stores",
                        "/api/setup/assumptions",
                        "/api/desk/choices",
                        "/api/setup/ready")
                .forEach(this::open);
        assertThat(read).isGreaterThan(20_000);
        assertThat(unwritten).isEmpty();
    }
}
