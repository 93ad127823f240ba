package knollfield.app.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import knollfield.app.Client;
import knollfield.app.Server;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

class FleetPlaceTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private final Client ines = SERVER.as("ines");

    private JsonNode page(JsonNode row) {
        return ines.get("/api/fleets/" + row.get("id").asLong()).ok().json();
    }

    @Test
    void theYearIsTheSumOfItsLinesAndEachLineIsWhatDeskDossierAndAheadSay() {
        JsonNode fleets = ines.get("/api/fleets").ok().json();
        assertThat(fleets).hasSizeGreaterThan(3);
        for (JsonNode row : fleets) {
            JsonNode page = page(row);
            long id = row.get("id").asLong();
            Map<Long, JsonNode> lines = new HashMap<>();
            page.get("vehicles").forEach(v -> lines.put(v.get("vehicleId").asLong(), v));
            assertThat(lines).hasSize(row.get("vehicles").asInt());

            long money = 0;
            long minutes = 0;
            int vehicles = 0;
            for (int m = 0; m < 12; m++) {
                for (JsonNode v : page.get("months").get(m).get("vehicleIds")) {
                    JsonNode line = lines.get(v.asLong());
                    money += line.get("likelyMinor").asLong();
                    minutes += line.get("minutes").asLong();
                    vehicles++;
                }
            }
            assertThat(page.get("year")).isEqualTo(row.get("year"));
            assertThat(page.get("year").get("likelyMinor").asLong()).isEqualTo(money);
            assertThat(page.get("year").get("minutes").asLong()).isEqualTo(minutes);
            assertThat(page.get("year").get("vehicles").asInt()).isEqualTo(vehicles);
            assertThat(page.get("words").get(0).asString()).contains(vehicles + " of " + lines.size());

            JsonNode desk = ines.get(
                            "/api/desk?limit=200&status=STOP,OVERDUE,UNKNOWN_HISTORY,NO_BOOK,ACT_NOW,COMING,CLEAR"
                                    + "&fleet=" + id)
                    .ok()
                    .json()
                    .get("rows");
            assertThat(desk).isNotEmpty();
            for (JsonNode d : desk) {
                JsonNode line = lines.get(d.get("vehicleId").asLong());
                assertThat(line.path("actBy").asString("none"))
                        .isEqualTo(d.path("actBy").asString("none"));
                assertThat(line.get("statusWords").asString())
                        .isEqualTo(d.get("statusWords").asString());
            }
            JsonNode crossers = ines.get("/api/ahead/vehicles?date=%s&limit=200&fleet=%d"
                            .formatted(java.time.LocalDate.now().plusYears(5), id))
                    .ok()
                    .json()
                    .get("rows");
            assertThat(crossers).isNotEmpty();
            for (JsonNode c : crossers) {
                JsonNode line = lines.get(c.get("vehicleId").asLong());
                assertThat(line.get("likelyMinor")).isEqualTo(c.get("moneyMinor"));
                assertThat(line.get("minutes")).isEqualTo(c.get("minutes"));
                assertThat(line.get("median")).isEqualTo(c.get("crosses"));
            }
            JsonNode first = page.get("vehicles").get(0);
            JsonNode dossier = ines.get(
                            "/api/vehicles/" + first.get("vehicleId").asLong())
                    .ok()
                    .json();
            assertThat(dossier.get("status")).isEqualTo(first.get("status"));
            assertThat(dossier.path("actBy")).isEqualTo(first.path("actBy"));
        }
    }

    @Test
    void overdueAndUnknownStandInThisMonthByNameAndAsCsv() throws java.io.IOException {
        for (JsonNode row : ines.get("/api/fleets").ok().json()) {
            JsonNode page = page(row);
            List<Long> thisMonth = page.get("months")
                    .get(0)
                    .get("vehicleIds")
                    .valueStream()
                    .map(JsonNode::asLong)
                    .toList();
            int due = 0;
            for (JsonNode v : page.get("vehicles")) {
                if (List.of("STOP", "OVERDUE", "UNKNOWN_HISTORY", "ACT_NOW")
                        .contains(v.get("status").asString())) {
                    due++;
                    assertThat(v.get("dueNow").asBoolean()).isTrue();
                    assertThat(page.get("words").toString())
                            .contains(v.get("registration").asString());
                    if (!v.has("plannedOn")) {
                        assertThat(thisMonth).contains(v.get("vehicleId").asLong());
                    }
                }
            }
            assertThat(row.get("dueNow").asInt()).isEqualTo(due);

            List<CSVRecord> csv = CSVParser.parse(
                            ines.get("/api/fleets/%d/months.csv"
                                            .formatted(row.get("id").asLong()))
                                    .ok()
                                    .text(),
                            CSVFormat.RFC4180
                                    .builder()
                                    .setHeader()
                                    .setSkipHeaderRecord(true)
                                    .get())
                    .getRecords();
            assertThat(csv).hasSize(page.get("vehicles").size());
            assertThat(csv.stream().map(r -> r.get("registration")).toList())
                    .isEqualTo(page.get("vehicles")
                            .valueStream()
                            .map(v -> v.get("registration").asString())
                            .toList());
        }
    }

    @Test
    void aSoldVehicleIsNoLongerTheFleets() {
        JsonNode row = ines.get("/api/fleets").ok().json().get(0);
        JsonNode page = page(row);
        long sold = page.get("vehicles").get(0).get("vehicleId").asLong();
        String state = "/api/vehicles/%d/state".formatted(sold);
        String to = "{\"state\": \"%s\", \"since\": \"%s\", \"version\": %d}";
        ines.put(state, to.formatted("SOLD", java.time.LocalDate.now(), version(sold)))
                .ok();
        assertThat(page(row).get("vehicles"))
                .hasSize(page.get("vehicles").size() - 1)
                .noneMatch(v -> v.get("vehicleId").asLong() == sold);
        ines.put(state, to.formatted("IN_USE", java.time.LocalDate.now(), version(sold)))
                .ok();
        assertThat(page(row).get("vehicles")).hasSize(page.get("vehicles").size());
    }

    private int version(long vehicle) {
        return ines.get("/api/vehicles/%d/details".formatted(vehicle))
                .ok()
                .json()
                .get("version")
                .asInt();
    }

    @Test
    void aContactSeesTheOwnFleetAlone() {
        Client jory = SERVER.as("jory");
        JsonNode own = jory.get("/api/fleets").ok().json();
        assertThat(own).hasSize(1);
        String level = "/api/fleets/%d/level".formatted(own.get(0).get("id").asLong());
        jory.get(level).ok();
        assertThat(jory.post(level, "{\"moves\": []}").status()).isEqualTo(403);
        long id = own.get(0).get("id").asLong();
        jory.get("/api/fleets/" + id).ok();
        for (JsonNode row : ines.get("/api/fleets").ok().json()) {
            if (row.get("id").asLong() != id) {
                jory.get("/api/fleets/" + row.get("id").asLong()).problem(404, "not-found");
                jory.get("/api/fleets/%d/months.csv".formatted(row.get("id").asLong()))
                        .problem(404, "not-found");
            }
        }
        SERVER.stranger().get("/api/fleets").problem(401, "signed-out");
    }

    @Test
    void theReportOnPaperHoldsWhatThePageHoldsAndAContactSeesTheOwnOneAlone() throws IOException {
        Client jory = SERVER.as("jory");
        for (JsonNode row : ines.get("/api/fleets").ok().json()) {
            String path = "/api/fleets/" + row.get("id").asLong();
            JsonNode page = page(row);
            try (PDDocument document =
                    Loader.loadPDF(ines.get(path + "/report.pdf").ok().bytes())) {
                String text = new PDFTextStripper().getText(document).replaceAll("\\s+", " ");
                assertThat(text).contains(row.get("name").asString());
                page.get("words")
                        .forEach(w -> assertThat(text).contains(w.asString().replaceAll("[\\s\\u00a0]+", " ")));
                page.get("vehicles")
                        .forEach(v ->
                                assertThat(text).contains(v.get("registration").asString()));
            }
            boolean own = row.get("name").asString().equals("Harbour taxis");
            for (String file : List.of("/report.pdf", "/calendar.ics")) {
                assertThat(ines.get(path + file).status()).isEqualTo(200);
                assertThat(jory.get(path + file).status()).as(path + file).isEqualTo(own ? 200 : 404);
            }
        }
    }

    @Test
    void aFleetHasAsManyContactsAsItNeeds() {
        JsonNode row = ines.get("/api/fleets").ok().json().get(0);
        String path = "/api/fleets/%d/contacts".formatted(row.get("id").asLong());
        JsonNode before = ines.get(path).ok().json();
        String body = "{\"contacts\": [%s], \"version\": %d}";
        String night = "{\"name\": \"Åse Bø\", \"role\": \"night\", \"phone\": \"%s\", \"email\": \"%s\"}";
        int version = before.get("version").asInt();
        assertThat(ines.put(path, body.formatted(night.formatted("", ""), version))
                        .errorAt("/contacts/0/phone"))
                .contains("how is this one reached");
        assertThat(ines.put(path, body.formatted(night.formatted("", "no address"), version))
                        .errorAt("/contacts/0/email"))
                .contains("an @");
        JsonNode kept = ines.put(path, body.formatted(night.formatted("0555 9", ""), version))
                .ok()
                .json();
        assertThat(kept.get("contacts").get(0).get("name").asString()).isEqualTo("Åse Bø");
        ines.put(path, body.formatted("", version)).problem(409, "conflict");
        SERVER.as("hedra").put(path, body.formatted("", version + 1)).problem(403, "not-allowed");
        SERVER.as("jory").get(path).problem(404, "not-found");
        ines.put(path, body.formatted("", version + 1)).ok();
        assertThat(ines.get(path).ok().json().get("contacts")).isEmpty();
    }
}
