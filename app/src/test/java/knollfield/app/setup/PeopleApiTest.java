package knollfield.app.setup;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;
import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** People, their hours and their sessions, and usage classes, over HTTP. */
class PeopleApiTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private final Client ines = SERVER.as("ines");

    private ObjectNode person(String signIn) {
        return StreamSupport.stream(ines.get("/api/setup/people").ok().json().spliterator(), false)
                .filter(p -> p.get("signIn").asString().equals(signIn))
                .map(ObjectNode.class::cast)
                .findFirst()
                .orElseThrow();
    }

    private static String weekWith(String spans) {
        return Arrays.stream(DayOfWeek.values())
                .map(d -> "{\"day\": \"%s\", \"spans\": %s}".formatted(d, d.getValue() < 6 ? spans : "[]"))
                .collect(Collectors.joining(",", "[", "]"));
    }

    private Client.Answer hours(ObjectNode person, String hours) {
        String body = person.toString();
        return ines.put(
                "/api/setup/people/" + person.get("id").asLong(),
                body.substring(0, body.length() - 1) + ", \"hours\": " + hours + "}");
    }

    @Test
    void ownHoursStandOnTheBoardAndAPromiseKeepsThem() {
        JsonNode board = ines.get("/api/board?days=14").ok().json();
        JsonNode promised = StreamSupport.stream(board.get("blocks").spliterator(), false)
                .filter(b -> b.get("work").asString().equals("PROMISED"))
                .filter(b -> LocalDateTime.parse(b.get("startsAt").asString())
                        .toLocalDate()
                        .isAfter(LocalDate.parse(board.get("today").asString())))
                .findFirst()
                .orElseThrow();
        ObjectNode with = StreamSupport.stream(
                        ines.get("/api/setup/people").json().spliterator(), false)
                .filter(p ->
                        p.get("id").asLong() == promised.get("technicianId").asLong())
                .map(ObjectNode.class::cast)
                .findFirst()
                .orElseThrow();
        assertThat(hours(with, weekWith("[{\"from\": \"20:00\", \"to\": \"22:00\"}]"))
                        .errorAt("/workingDays"))
                .contains("On the board outside these hours", "another place first");
        ObjectNode noDays = with.deepCopy();
        noDays.putArray("workingDays");
        assertThat(ines.put("/api/setup/people/" + with.get("id").asLong(), noDays.toString())
                        .errorAt("/workingDays"))
                .contains("On the board outside");

        assertThat(hours(with, weekWith("[]")).errorAt("/hours")).contains("at least one day");
        // it could begin when it was promised, and would end on another day
        LocalDateTime starts = LocalDateTime.parse(promised.get("startsAt").asString());
        String upToIt = "[{\"from\": \"%s\", \"to\": \"%s\"}]"
                .formatted(starts.toLocalTime(), starts.plusMinutes(30).toLocalTime());
        assertThat(hours(with, weekWith(upToIt)).errorAt("/workingDays"))
                .contains(promised.get("registration").asString());
        String list = "person,signs in as,working days\n%s,%s,Sun\n"
                .formatted(with.get("name").asString(), with.get("signIn").asString());
        assertThat(ines.csv(
                                "/api/imports?as="
                                        + java.net.URLEncoder.encode(
                                                "{\"existing\": \"UPDATE\"}", java.nio.charset.StandardCharsets.UTF_8),
                                list)
                        .errorAt("/workingDays"))
                .contains("On the board outside");

        hours(with, weekWith("[{\"from\": \"07:00\", \"to\": \"12:00\"}, {\"from\": \"13:00\", \"to\": \"17:00\"}]"))
                .ok();
        JsonNode wider = ines.get("/api/board?days=14").json();
        assertThat(wider.get("times").get(0).asString()).startsWith("07:00");
        assertThat(StreamSupport.stream(wider.get("blocks").spliterator(), false)
                        .map(b -> b.get("startsAt").asString()))
                .as("who stood where still stands there")
                .containsAll(StreamSupport.stream(board.get("blocks").spliterator(), false)
                        .map(b -> b.get("startsAt").asString())
                        .toList());
        ObjectNode back = person(with.get("signIn").asString());
        back.remove("hours");
        ines.put("/api/setup/people/" + back.get("id").asLong(), back.toString())
                .ok();
        assertThat(ines.get("/api/board?days=14").json().get("times")).hasSize(16);
    }

    @Test
    void aNewPasswordAndSigningOutEverywhereEndOtherSessions() {
        ines.post("/api/setup/people", """
                        {"signIn": "bench.two", "name": "Second Bench", "role": "FRONT_DESK", "skills": [],
                         "workingDays": [], "password": "first-of-lamorna-7"}""").ok();
        Client bay = SERVER.stranger().signIn("bench.two", "first-of-lamorna-7");
        Client office = SERVER.stranger().signIn("bench.two", "first-of-lamorna-7");
        office.put("/api/me/password", "{\"current\": \"first-of-lamorna-7\", \"password\": \"second-of-lamorna-8\"}")
                .ok();
        office.get("/api/desk").ok();
        bay.get("/api/desk").problem(401, "signed-out");

        Client again = SERVER.stranger().signIn("bench.two", "second-of-lamorna-8");
        again.post("/api/me/sign-out-everywhere", "{}").ok();
        again.get("/api/desk").problem(401, "signed-out");
        office.get("/api/desk").problem(401, "signed-out");

        Client last = SERVER.stranger().signIn("bench.two", "second-of-lamorna-8");
        long id = person("bench.two").get("id").asLong();
        ines.post("/api/setup/people/%d/sign-out".formatted(id), "{}").ok();
        last.get("/api/desk").problem(401, "signed-out");

        Client off = SERVER.stranger().signIn("bench.two", "second-of-lamorna-8");
        ines.put(
                        "/api/setup/people/" + id,
                        person("bench.two").put("active", false).toString())
                .ok();
        off.get("/api/desk").problem(401, "signed-out");
    }

    @Test
    void usageClassesAreMadeChangedAndGivenUpWhileNoVehicleHasThem() {
        String classes = "/api/setup/usage-classes";
        JsonNode made = ines.post(classes, "{\"name\": \"Night courier\", \"meanKm\": 60000, \"sdKm\": 9000}")
                .ok()
                .json();
        JsonNode night = StreamSupport.stream(made.spliterator(), false)
                .filter(c -> c.get("name").asString().equals("Night courier"))
                .findFirst()
                .orElseThrow();
        String code = night.get("code").asString();
        assertThat(ines.get("/api/desk/choices").ok().text()).contains(code, "Night courier");
        assertThat(ines.post(classes, "{\"name\": \"night COURIER\", \"meanKm\": 1, \"sdKm\": 9000}")
                        .errorAt("/name"))
                .contains("already");
        assertThat(ines.post(classes, "{\"name\": \"x\", \"meanKm\": -1, \"sdKm\": 9000}")
                        .errorAt("/meanKm"))
                .contains("300,000");
        ines.put(classes + "/" + code, "{\"name\": \"Night run\", \"meanKm\": 61000, \"sdKm\": 9000, \"version\": 1}")
                .ok();
        ines.put(classes + "/" + code, "{\"name\": \"Day run\", \"meanKm\": 61000, \"sdKm\": 9000, \"version\": 1}")
                .problem(409, "conflict");
        assertThat(ines.delete(classes + "/PRIVATE?version=1").errorAt("/code")).contains("another class first");
        // an assumption of the same figure is the same figure, wherever it is changed
        int version = ines.get("/api/setup/assumptions").json().get("version").asInt();
        ines.put(
                        "/api/setup/assumptions",
                        "{\"amounts\": {\"class.mean.%s\": 50000}, \"version\": %d}".formatted(code, version))
                .ok();
        assertThat(mean(classes, code)).isEqualTo(50_000);
        ines.put(classes + "/" + code, "{\"name\": \"Night run\", \"meanKm\": 40000, \"sdKm\": 9000, \"version\": 2}")
                .ok();
        assertThat(mean(classes, code)).isEqualTo(40_000);
        ines.delete(classes + "/" + code + "?version=3").ok();
        assertThat(ines.get(classes).json().findValuesAsString("code")).doesNotContain(code);
        assertThat(ines.get("/api/setup/assumptions").json().get("changes").toString())
                .contains("Night run", "given up");
    }

    private double mean(String classes, String code) {
        return StreamSupport.stream(ines.get(classes).ok().json().spliterator(), false)
                .filter(c -> c.get("code").asString().equals(code))
                .mapToDouble(c -> c.get("meanKmPerYear").asDouble())
                .findFirst()
                .orElseThrow();
    }
}
