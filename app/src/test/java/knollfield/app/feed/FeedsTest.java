package knollfield.app.feed;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.stream.IntStream;
import knollfield.app.Client;
import knollfield.app.Elsewhere;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Readings that come by themselves: taken by the same rules, and nothing that comes with them keeps the others out. */
class FeedsTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    private static final JsonMapper JSON = JsonMapper.builder().build();

    private Client ines;
    private String fleet;
    private long fleetId;
    private String key;
    private JsonNode feed;

    @BeforeEach
    void aFeed() {
        ines = SERVER.as("ines");
        fleet = "Fleet " + Given.registration();
        fleetId = Given.fleet(ines, fleet);
        JsonNode made = ines.post("/api/setup/reading-feeds", """
                        {"fleetId": %d, "name": "Units ÅB", "silentDays": 3}
                        """.formatted(fleetId))
                .ok()
                .json();
        key = made.get("key").asString();
        feed = made.get("feeds").valueStream().reduce((a, b) -> b).orElseThrow();
    }

    private String vehicle() {
        Given.family(SERVER);
        String registration = Given.registration();
        ines.csv("/api/imports", """
                        registration,make_model,engine_family,owner,phone,usage,first_registered,fleet
                        %s,Van,CAL-16,%s,0555 1,courier,%s,%s
                        """.formatted(registration, fleet, TODAY.minusYears(4), fleet))
                .ok();
        return registration;
    }

    private HttpResponse<String> push(String withKey, String json) {
        try {
            return HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create(SERVER.address() + "/api/readings"))
                                    .header("Authorization", "Bearer " + withKey)
                                    .header("Content-Type", "application/json")
                                    .POST(HttpRequest.BodyPublishers.ofString(json))
                                    .build(),
                            HttpResponse.BodyHandlers.ofString());
        } catch (java.io.IOException | InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    private JsonNode pushed(String json) {
        HttpResponse<String> answer = push(key, json);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        return JSON.readTree(answer.body());
    }

    private List<JsonNode> readings(String registration) {
        long id = Given.find(ines, registration);
        return ines.get("/api/vehicles/" + id)
                .ok()
                .json()
                .get("readings")
                .valueStream()
                .toList();
    }

    @Test
    void goodOnesAreTakenAndNonsenseIsRefusedLineByLine() {
        String van = vehicle();
        String other = vehicle();
        Given.reading(ines, Given.find(ines, other), TODAY.minusDays(1), "50000", "KM")
                .ok();
        String foreign = Given.vehicle(SERVER, ines, "") > 0 ? "TST" : "";
        JsonNode answer = pushed("""
                {"readings": [
                  {"vehicle": "%s", "at": "%s", "value": 40000.4, "unit": "km"},
                  {"vehicle": "%s", "at": "%s", "value": 12, "unit": "km"},
                  {"vehicle": "%s", "value": 1e999999999},
                  {"vehicle": "%s", "at": "2999-01-01", "value": 41000},
                  {"vehicle": "%s", "at": "yesterday", "value": 41000},
                  {"vehicle": "%s", "value": 41000, "unit": "furlongs"},
                  {"vehicle": "%s", "value": 41000}
                ]}
                """.formatted(van, TODAY.minusDays(2), other, TODAY, van, van, van, van, foreign));
        assertThat(answer.get("taken").asInt()).isEqualTo(1);
        List<String> why = answer.get("refused")
                .valueStream()
                .map(r -> r.get("line").asInt() + " " + r.get("why").asString())
                .toList();
        assertThat(why).hasSize(6);
        assertThat(why.get(0)).startsWith("1 ").contains("runs backwards");
        assertThat(why.get(1)).startsWith("2 ").contains("is no odometer reading");
        assertThat(why.get(2)).contains("lies in the future");
        assertThat(why.get(3)).contains("is no moment");
        assertThat(why.get(4)).contains("is no unit");
        assertThat(why.get(5)).contains("is no vehicle of this fleet");

        JsonNode reading = readings(van).get(0);
        assertThat(reading.toString()).contains("\"km\":40000", "telematics");
        JsonNode seen = ines.get("/api/setup/reading-feeds")
                .ok()
                .json()
                .get("feeds")
                .valueStream()
                .filter(f -> f.get("id").equals(feed.get("id")))
                .findFirst()
                .orElseThrow();
        assertThat(seen.get("refused")).hasSize(6);
        assertThat(seen.get("lastHeard")).isNotNull();
        assertThat(push(key, "{\"readings\": []}").statusCode()).isEqualTo(422);
    }

    @Test
    void unitsAndClocksAreReadAsTheyAreMeantAndTwiceIsOnce() {
        String van = vehicle();
        ZoneId zone = ZoneId.systemDefault();
        // an hour into today by the workshop's clock, told by one that stands on the other side of the world
        String told = TODAY.atStartOfDay(zone)
                .plusHours(1)
                .withZoneSameInstant(ZoneId.of("Pacific/Auckland"))
                .toOffsetDateTime()
                .toString();
        String body = "{\"readings\": [{\"vehicle\": \"%s\", \"at\": \"%s\", \"value\": 10000, \"unit\": \"mi\"}]}"
                .formatted(van.replace(" ", "").toLowerCase(java.util.Locale.ROOT), told);
        assertThat(pushed(body).get("taken").asInt()).isEqualTo(1);
        JsonNode again = pushed(body);
        assertThat(again.get("taken").asInt()).isZero();
        assertThat(again.get("known").asInt()).isEqualTo(1);
        assertThat(readings(van).stream().filter(r -> r.toString().contains("telematics")))
                .singleElement()
                .satisfies(r -> {
                    assertThat(LocalDate.parse(r.get("date").asString())).isEqualTo(TODAY);
                    // 10,000 international miles (1959) of 1.609344 km
                    assertThat(r.toString()).contains("\"km\":16093");
                });
    }

    @Test
    void aKeyOpensItsFleetAloneAndEndsWithItsFeed() {
        String van = vehicle();
        String body = "{\"readings\": [{\"vehicle\": \"%s\", \"value\": 40000}]}".formatted(van);
        assertThat(push("wrong", body).statusCode()).isEqualTo(401);
        JsonNode other = ines.post(
                        "/api/setup/reading-feeds", """
                        {"fleetId": %d, "name": "Other", "silentDays": 3}
                        """.formatted(Given.fleet(ines, "Fleet " + Given.registration())))
                .ok()
                .json();
        HttpResponse<String> foreign = push(other.get("key").asString(), body);
        assertThat(foreign.body()).contains("is no vehicle of this fleet");
        ines.delete("/api/setup/reading-feeds/" + feed.get("id").asLong()).ok();
        assertThat(push(key, body).statusCode()).isEqualTo(401);
        ines.delete("/api/setup/reading-feeds/" + feed.get("id").asLong()).problem(404, "not-found");
        assertThat(SERVER.jdbc()
                        .sql("SELECT * FROM reading_feed")
                        .query()
                        .listOfRows()
                        .toString())
                .doesNotContain(key);
        assertThat(ines.post("/api/setup/reading-feeds", "{\"fleetId\": 0, \"name\": \"\", \"silentDays\": 0}")
                        .errorAt("/fleetId"))
                .contains("Choose a fleet");
        Elsewhere there = new Elsewhere("127.0.0.8");
        assertThat(IntStream.range(0, 50).map(i -> there.status(SERVER, "/api/readings", body)))
                .contains(429);
    }

    @Test
    void aFileDroppedInTheFolderIsReadOnceAndSaysWhatItRefused() throws Exception {
        String van = vehicle();
        Path folder = Files.createDirectories(Path.of(feed.get("folder").asString()));
        Path good = folder.resolve("monday.csv");
        Files.writeString(good, "\uFEFFVIN;Plate;Date;Odometer\n;%s;%s;40000\n;NOBODY;;1\n".formatted(van, TODAY));
        Path bad = folder.resolve("notes.txt");
        Files.writeString(bad, "just words");
        for (Path f : List.of(good, bad)) {
            Files.setLastModifiedTime(f, FileTime.from(Instant.now().minusSeconds(60)));
        }
        Path writing = folder.resolve("writing.csv");
        Files.writeString(writing, "registration,value\n%s,4".formatted(van));
        SERVER.bean(DropFolder.class).look();

        assertThat(good).doesNotExist();
        assertThat(folder.resolve("done/monday.csv")).exists();
        assertThat(Files.readString(folder.resolve("done/monday.csv.why.txt")))
                .contains("1 taken", "row 3, NOBODY", "is no vehicle of this fleet");
        assertThat(Files.readString(folder.resolve("refused/notes.txt.why.txt")))
                .contains("first row must name");
        assertThat(writing).as("somebody is still writing it").exists();
        assertThat(readings(van).get(0).toString()).contains("\"km\":40000", "telematics");
        Files.delete(writing);
    }

    @Test
    void aFeedThatFallsSilentIsSaid() {
        assertThat(ines.get("/api/silent-feeds").ok().text()).doesNotContain(fleet);
        SERVER.jdbc()
                .sql("UPDATE reading_feed SET made_at = DATEADD(DAY, -4, made_at) WHERE id = :id")
                .param("id", feed.get("id").asLong())
                .update();
        assertThat(ines.get("/api/silent-feeds").ok().text()).contains(fleet, "Units ÅB");
        String van = vehicle();
        pushed("{\"readings\": [{\"vehicle\": \"%s\", \"value\": 40000}]}".formatted(van));
        assertThat(ines.get("/api/silent-feeds").ok().text()).doesNotContain(fleet);
    }

    @Test
    void theStandInSaysWhatUseLetsExpectAndASecondTimeChangesNothing() {
        String van = vehicle();
        Given.reading(ines, Given.find(ines, van), TODAY.minusDays(30), "40000", "KM")
                .ok();
        ines.post("/api/setup/reading-feeds", """
                        {"fleetId": %d, "name": "Stand-in", "silentDays": 3, "standIn": true}
                        """.formatted(fleetId)).ok();
        TelematicsRun run = SERVER.bean(TelematicsRun.class);
        run.run();
        List<JsonNode> once = readings(van);
        run.run();
        assertThat(readings(van)).isEqualTo(once);
        // now and then a unit says nothing; one that speaks says no less than was read a month ago
        once.stream()
                .filter(r -> r.get("source").asString().equals("TELEMATICS"))
                .forEach(r -> assertThat(r.get("km").asInt()).isBetween(40_000, 60_000));
    }

    @Test
    void moreLinesThanAFleetHasAreRefusedAsAWhole() {
        String line = "{\"vehicle\": \"X\", \"value\": 1}";
        String many = IntStream.rangeClosed(0, Feeds.MOST_LINES)
                .mapToObj(i -> line)
                .collect(java.util.stream.Collectors.joining(","));
        HttpResponse<String> answer = push(key, "{\"readings\": [%s]}".formatted(many));
        assertThat(answer.statusCode()).isEqualTo(422);
        assertThat(answer.body()).contains("At most 5,000");
    }
}
