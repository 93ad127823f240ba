package knollfield.app.stores;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.time.LocalDate;
import java.util.Optional;
import java.util.stream.Collectors;
import knollfield.app.Client;
import knollfield.app.Server;
import org.apache.commons.csv.CSVFormat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** What coming jobs need of the stores, on the island. */
class StoresApiTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private final Client ines = SERVER.as("ines");

    private JsonNode stores() {
        return ines.get("/api/stores").ok().json();
    }

    private JsonNode waiting(long job) {
        return ines.get("/api/board")
                .ok()
                .json()
                .get("waiting")
                .valueStream()
                .filter(w -> w.get("jobId").asLong() == job)
                .findFirst()
                .orElseThrow();
    }

    private static String order(String part, int pieces) {
        return "{\"lines\": [{\"part\": \"%s\", \"pieces\": %d}]}".formatted(part, pieces);
    }

    @Test
    void whatIsShortIsOrderedAndItsArrivalLetsTheJobStartSooner() {
        JsonNode before = stores();
        JsonNode job = before.get("needs")
                .valueStream()
                .filter(n -> !n.has("start") && !n.get("ready").asBoolean())
                .findFirst()
                .orElseThrow();
        long id = job.get("jobId").asLong();
        String missing = job.get("lines")
                .valueStream()
                .filter(l -> l.get("supply").asString().equals("TO_ORDER"))
                .map(l -> l.get("part").asString())
                .collect(Collectors.joining(","));
        assertThat(missing).isNotEmpty();
        assertThat(waiting(id).get("earliestWhy").asString()).contains("is not ordered yet");

        for (JsonNode s : before.get("shorts")) {
            ines.post(
                            "/api/stores/orders",
                            order(s.get("part").asString(), s.get("pieces").asInt()))
                    .ok();
        }
        JsonNode ordered = stores();
        assertThat(ordered.get("shorts")).isEmpty();
        assertThat(ordered.get("orders").size())
                .isEqualTo(before.get("orders").size() + before.get("shorts").size());
        assertThat(waiting(id).get("earliestWhy").asString()).contains("is ordered and comes with the delivery");
        String promised = waiting(id).get("earliest").asString();

        for (JsonNode o : ordered.get("orders")) {
            ines.post(
                            "/api/stores/orders/%d/arrived?version=%d"
                                    .formatted(
                                            o.get("id").asLong(),
                                            o.get("version").asInt()),
                            "{}")
                    .ok();
        }
        JsonNode after = stores();
        assertThat(after.get("needs")
                        .valueStream()
                        .filter(n -> n.get("jobId").asLong() == id)
                        .findFirst()
                        .orElseThrow()
                        .get("ready")
                        .asBoolean())
                .isTrue();
        assertThat(waiting(id).get("earliest").asString()).isLessThan(promised);
        JsonNode first = after.get("orders").get(0);
        ines.post(
                        "/api/stores/orders/%d/cancelled?version=%d"
                                .formatted(first.get("id").asLong(), 1),
                        "{}")
                .problem(409, "conflict");
    }

    @Test
    void aCancelledFerryMovesWhatItWasToBring() {
        String part = "KF-SOR-22-1";
        ines.post("/api/stores/orders", order(part, 1)).ok();
        JsonNode mine = stores().get("orders")
                .valueStream()
                .reduce((a, b) -> b.get("part").asString().equals(part) ? b : a)
                .orElseThrow();
        LocalDate promised = LocalDate.parse(mine.get("promised").asString());
        String absence = "{\"kind\": \"FERRY\", \"from\": \"%s\", \"to\": \"%s\", \"why\": \"storm\"}"
                .formatted(promised, promised);
        JsonNode answer = ines.post("/api/board/what-if", absence).ok().json();
        String ids = answer.get("changes")
                .valueStream()
                .map(c -> c.get("jobId").asString())
                .collect(Collectors.joining(",", "[", "]"));
        ines.post("/api/board/what-if/accept", "{\"absence\": %s, \"jobIds\": %s}".formatted(absence, ids))
                .ok();

        JsonNode late = stores().get("orders")
                .valueStream()
                .filter(o -> o.get("id").equals(mine.get("id")))
                .findFirst()
                .orElseThrow();

        assertThat(late.get("promised").asString()).isEqualTo(promised.toString());
        assertThat(LocalDate.parse(late.get("expected").asString())).isAfter(promised);
        assertThat(ines.get("/api/board").text()).contains("\"ferryCancelled\":true");
    }

    @Test
    void whatCannotBeOrderedIsRefused() {
        assertThat(ines.post("/api/stores/orders", "{\"lines\": []}").errorAt("/lines"))
                .contains("at least one");
        assertThat(ines.post("/api/stores/orders", order("KF-CAL-16-1", 0)).errorAt("/lines/0/pieces"))
                .contains("1 to 1,000");
        ines.post("/api/stores/orders", order("NONE", 1)).problem(404, "not-found");
    }

    private Optional<JsonNode> shelf(String part) {
        return ines.get("/api/stores/stock")
                .ok()
                .json()
                .valueStream()
                .filter(s -> s.get("part").asString().equals(part))
                .findFirst();
    }

    @Test
    void aShelfIsCountedByOneAtATime() {
        JsonNode before = shelf("KF-KES-18-1").orElseThrow();
        String body = "{\"pieces\": 7, \"version\": %d}"
                .formatted(before.get("version").asInt());
        ines.put("/api/stores/stock/KF-KES-18-1", body).ok();
        assertThat(shelf("KF-KES-18-1").orElseThrow().get("pieces").asInt()).isEqualTo(7);
        ines.put("/api/stores/stock/KF-KES-18-1", body).problem(409, "conflict");
        assertThat(ines.put("/api/stores/stock/KF-KES-18-1", "{\"pieces\": -1, \"version\": 2}")
                        .errorAt("/pieces"))
                .contains("0 to 1,000");
    }

    @Test
    void aBrokenToolSetNeedsWordsAndIsNotPlannedWith() {
        JsonNode set = stores().get("toolSets")
                .valueStream()
                .filter(t -> t.get("copies").size() == 1
                        && t.get("bookings").valueStream().anyMatch(b -> !b.has("start")))
                .findFirst()
                .orElseThrow();
        JsonNode copy = set.get("copies").get(0);
        long job = set.get("bookings")
                .valueStream()
                .filter(b -> !b.has("start"))
                .findFirst()
                .orElseThrow()
                .get("jobId")
                .asLong();
        String url = "/api/stores/tool-sets/" + copy.get("id").asLong();
        String body = "{\"state\": \"%s\", \"keptAt\": \"tool store\", \"note\": \"%s\", \"version\": %d}";
        int version = copy.get("version").asInt();

        assertThat(ines.put(url, body.formatted("BROKEN", "", version)).errorAt("/note"))
                .contains("what is wrong");
        ines.put(url, body.formatted("BROKEN", "crank pin bent", version)).ok();
        ines.put(url, body.formatted("GOOD", "", version)).problem(409, "conflict");
        LocalDate day = LocalDate.now().plusDays(35).with(java.time.DayOfWeek.WEDNESDAY);
        assertThat(ines.get("/api/board/jobs/%d/ask?day=%s&time=08:00".formatted(job, day))
                        .ok()
                        .text())
                .contains("No tool set for %s can be used"
                        .formatted(set.get("family").asString()));

        ines.post(
                        "/api/stores/tool-sets",
                        "{\"familyCode\": \"%s\"}"
                                .formatted(set.get("familyCode").asString()))
                .ok();
        assertThat(ines.get("/api/board/jobs/%d/ask?day=%s&time=08:00".formatted(job, day))
                        .ok()
                        .text())
                .doesNotContain("No tool set");
        ines.post("/api/stores/tool-sets", "{\"familyCode\": \"NONE\"}").problem(404, "not-found");
    }

    @Test
    void aSetThatOthersHaveWhileADueJobWaitsIsAClash() {
        JsonNode clash = stores().get("toolSets").get(0);
        assertThat(clash.get("clash").asBoolean()).isTrue();
        assertThat(clash.get("waiting").asInt()).isPositive();
        assertThat(clash.get("bookings")
                        .valueStream()
                        .filter(b -> b.has("start"))
                        .count())
                .isGreaterThanOrEqualTo(clash.get("copies").size());
    }

    @Test
    void whatGoesToTheBenchLeavesTheShelf() {
        JsonNode promised = ines.get("/api/board?days=42")
                .ok()
                .json()
                .get("blocks")
                .valueStream()
                .filter(b -> b.get("work").asString().equals("PROMISED"))
                .findFirst()
                .orElseThrow();
        long id = promised.get("jobId").asLong();
        String part = stores().get("needs")
                .valueStream()
                .filter(n -> n.get("jobId").asLong() == id)
                .flatMap(n -> n.get("lines").valueStream())
                .map(l -> l.get("part").asString())
                .findFirst()
                .orElseThrow();
        int version = shelf(part).map(s -> s.get("version").asInt()).orElse(0);
        ines.put("/api/stores/stock/" + part, "{\"pieces\": 5, \"version\": %d}".formatted(version))
                .ok();

        SERVER.as("hedra")
                .post("/api/jobs/%d/card/events".formatted(id), """
                        {"clientKey": "%s", "basedOn": 1000000, "type": "START", "odometer": 999999,
                         "odometerUnit": "KM", "insist": true}
                        """.formatted(java.util.UUID.randomUUID()))
                .ok();

        assertThat(shelf(part).orElseThrow().get("pieces").asInt()).isEqualTo(4);
        assertThat(stores().get("needs").valueStream().map(n -> n.get("jobId").asLong()))
                .doesNotContain(id);
    }

    @Test
    void theShortListIsReadBackAsCsv() throws IOException {
        assertThat(CSVFormat.RFC4180
                        .builder()
                        .setHeader()
                        .setSkipHeaderRecord(true)
                        .get()
                        .parse(new StringReader(
                                ines.get("/api/stores/short.csv").ok().text()))
                        .getRecords())
                .hasSize(stores().get("shorts").size());
    }
}
