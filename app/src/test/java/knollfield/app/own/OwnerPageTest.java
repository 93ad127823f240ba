package knollfield.app.own;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import knollfield.app.Client;
import knollfield.app.Elsewhere;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.Jobs;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** An owner has no account: an address, a page, one answer. */
class OwnerPageTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private static final String OUTSIDE = "https://garage.example";
    private static final Set<Long> TAKEN = new TreeSet<>();

    private final HttpClient browser = HttpClient.newHttpClient();
    private final Client ines = SERVER.as("ines");

    @BeforeEach
    void reachableFromOutside() {
        reachable(OUTSIDE);
    }

    private Client.Answer house(String address) {
        ObjectNode house = (ObjectNode) ines.get("/api/setup/house").ok().json();
        return ines.put("/api/setup/house", house.put("outsideAddress", address).toString());
    }

    private void reachable(String address) {
        house(address).ok();
    }

    /** A job on a vehicle of no fleet, with its estimate. */
    private long job() {
        for (JsonNode row : ines.get("/api/desk?limit=200&status=OVERDUE,ACT_NOW,COMING,CLEAR")
                .ok()
                .json()
                .get("rows")) {
            long v = row.get("vehicleId").asLong();
            if (TAKEN.add(v)) {
                Client.Answer made = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(v));
                if (made.status() < 300) {
                    long job = made.json().get("id").asLong();
                    ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok();
                    return job;
                }
            }
        }
        throw new AssertionError("no vehicle without a job");
    }

    private String address(long job) {
        String address = ines.post("/api/jobs/%d/private-page".formatted(job), "{}")
                .ok()
                .json()
                .get("address")
                .asString();
        assertThat(address).startsWith(OUTSIDE + "/answer/");
        return address.substring(OUTSIDE.length());
    }

    private HttpResponse<String> send(HttpRequest.Builder request) {
        try {
            return browser.send(request.build(), HttpResponse.BodyHandlers.ofString());
        } catch (java.io.IOException | InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    private HttpResponse<String> open(String path) {
        return send(HttpRequest.newBuilder(URI.create(SERVER.address() + path)));
    }

    private HttpResponse<String> answer(String path, String... fields) {
        String form = IntStream.range(0, fields.length / 2)
                .mapToObj(i -> fields[2 * i] + "=" + URLEncoder.encode(fields[2 * i + 1], StandardCharsets.UTF_8))
                .collect(Collectors.joining("&"));
        return send(HttpRequest.newBuilder(URI.create(SERVER.address() + path))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString(form)));
    }

    private static List<String> values(HttpResponse<String> page, String name) {
        return Pattern.compile("name=\"%s\" value=\"([^\"]+)\"".formatted(name))
                .matcher(page.body())
                .results()
                .map((MatchResult m) -> m.group(1))
                .toList();
    }

    private static String[] ticked(List<String> codes, String... more) {
        return Stream.concat(codes.stream().flatMap(c -> Stream.of("agree", c)), Arrays.stream(more))
                .toArray(String[]::new);
    }

    private List<JsonNode> said(long job) {
        return ines.get("/api/jobs/%d/estimates".formatted(job))
                .ok()
                .json()
                .get("newest")
                .get("lines")
                .valueStream()
                .filter(l -> l.get("asked").asBoolean())
                .flatMap(l -> l.get("said").valueStream())
                .toList();
    }

    @Test
    void nothingIsOfferedUntilSetupSaysWherePeopleOutsideReachIt() {
        long job = job();
        assertThat(house("garage.example").errorAt("/outsideAddress")).contains("https://");
        assertThat(house("https://garage.example/app").errorAt("/outsideAddress"))
                .contains("nothing behind");
        reachable("");
        String page = "/api/jobs/%d/private-page".formatted(job);
        assertThat(ines.get(page).ok().json().get("offered").asBoolean()).isFalse();
        assertThat(ines.post(page, "{}").errorAt("/outsideAddress")).contains("Setup");
        SERVER.as("hedra").get(page).problem(403, "not-allowed");
        SERVER.as("jory").post(page, "{}").problem(403, "not-allowed");
        reachable(OUTSIDE + "/");
        assertThat(address(job)).startsWith("/answer/");
    }

    @Test
    void thePageHoldsTheEstimateInPlainWordsAndNothingElse() {
        long job = job();
        JsonNode desk = ines.get("/api/jobs/" + job).ok().json();
        HttpResponse<String> page = open(address(job));

        assertThat(page.statusCode()).isEqualTo(200);
        assertThat(page.headers().firstValue("Cache-Control")).hasValue("no-store");
        assertThat(page.headers().firstValue("X-Robots-Tag").orElseThrow()).contains("noindex");
        assertThat(page.headers().firstValue("Referrer-Policy")).hasValue("no-referrer");
        assertThat(page.headers().firstValue("Set-Cookie")).isEmpty();
        assertThat(page.body())
                .contains(
                        desk.get("registration").asString(), "What waiting costs", "If it is left", "with tax, likely")
                .doesNotContain("<script", desk.get("ownerName").asString(), "stake", "p50");
        // every line that is asked about has a box, and none is ticked beforehand
        JsonNode lines = ines.get("/api/jobs/%d/estimates".formatted(job))
                .ok()
                .json()
                .get("newest")
                .get("lines");
        assertThat(values(page, "agree"))
                .isEqualTo(lines.valueStream()
                        .filter(l -> l.get("asked").asBoolean())
                        .map(l -> l.get("code").asString())
                        .toList());
        assertThat(page.body()).doesNotContain(" checked>Tim").doesNotContainPattern("name=\"agree\"[^>]*checked");
    }

    @Test
    void anAnswerLandsAsConsentAndOnTheBoardAndEndsTheAddress() {
        long job = job();
        String path = address(job);
        HttpResponse<String> page = open(path);
        List<String> codes = values(page, "agree");
        List<String> slots = values(page, "slot");
        assertThat(slots).isNotEmpty().hasSizeLessThanOrEqualTo(5).isSorted();

        HttpResponse<String> thanks = answer(path, ticked(codes, "name", "Ada Ößt", "slot", slots.get(0)));
        assertThat(thanks.statusCode()).as(thanks.body()).isEqualTo(200);
        assertThat(thanks.body()).contains("Thank you, Ada Ößt", "You agreed to", "We expect the vehicle on");

        assertThat(said(job)).hasSameSizeAs(codes).allSatisfy(s -> {
            assertThat(s.get("saidBy").asString()).isEqualTo("Ada Ößt");
            assertThat(s.get("howWords").asString()).isEqualTo("on the private page");
            assertThat(s.get("answer").asString()).isEqualTo("AGREED");
        });
        JsonNode booked = ines.get("/api/board/jobs/" + job).ok().json();
        assertThat(booked.toString()).contains("\"promised\":true");
        assertThat(SERVER.bean(Jobs.class).get(job).booking().orElseThrow().start())
                .isEqualTo(LocalDateTime.parse(slots.get(0)));

        assertThat(open(path).statusCode()).isEqualTo(410);
        assertThat(answer(path, ticked(codes, "name", "Ada")).statusCode()).isEqualTo(410);
        assertThat(said(job)).hasSameSizeAs(codes);
        JsonNode link = ines.get("/api/jobs/%d/private-page".formatted(job))
                .ok()
                .json()
                .get("links")
                .get(0);
        assertThat(link.get("ended").asString()).isEqualTo("answered");
    }

    @Test
    void whatIsLeftUntickedIsLeftWithItsWarningAndWhatTheJobNeedsIsAskedFor() {
        long job = job();
        String free = ines.get("/api/jobs/" + job)
                .ok()
                .json()
                .get("lines")
                .valueStream()
                .filter(l -> l.get("kind").asString().equals("ITEM")
                        && !l.get("included").asBoolean()
                        && !l.get("rule").asString().equals("EXCLUDED"))
                .map(l -> l.get("code").asString())
                .findFirst()
                .orElseThrow();
        JsonNode view = ines.get("/api/jobs/" + job).ok().json();
        ines.put(
                        "/api/jobs/%d/scope".formatted(job),
                        Given.scope(
                                "\"%s\": {\"in\": true, \"reason\": \"while we are there\"}".formatted(free),
                                view.get("version").asInt()))
                .ok();
        ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok();
        String path = address(job);
        List<String> codes = values(open(path), "agree");
        assertThat(codes).contains(free);

        HttpResponse<String> nothing = answer(path, "name", "Ada");
        assertThat(nothing.statusCode()).isEqualTo(422);
        assertThat(nothing.body()).contains("Nothing was sent yet", "Tick it, or say no");
        HttpResponse<String> nameless = answer(path, ticked(codes, "name", " "));
        assertThat(nameless.statusCode()).isEqualTo(422);
        assertThat(nameless.body())
                .contains("Your name")
                .containsPattern("value=\"%s\" checked".formatted(codes.get(0)));
        HttpResponse<String> gone = answer(path, ticked(codes, "name", "<b>Ada", "slot", "2031-01-01T08:00"));
        assertThat(gone.statusCode()).isEqualTo(422);
        assertThat(gone.body()).contains("That time has gone", "&lt;b&gt;Ada").doesNotContain("<b>Ada");
        assertThat(said(job)).isEmpty();

        List<String> rest = codes.stream().filter(c -> !c.equals(free)).toList();
        assertThat(answer(path, ticked(rest, "name", "Ada")).body()).contains("You left");
        JsonNode left = said(job).stream()
                .filter(s -> s.get("answer").asString().equals("LEFT"))
                .findFirst()
                .orElseThrow();
        assertThat(left.get("warning").asString()).contains("opens the same covers again");
    }

    @Test
    void aRefusedJobIsGivenUp() {
        long job = job();
        String path = address(job);
        HttpResponse<String> thanks = answer(path, "name", "Ada", "refused", "yes");
        assertThat(thanks.body()).contains("no to the whole job");
        assertThat(ines.get("/api/jobs/" + job).ok().json().get("stage").asString())
                .isEqualTo("CANCELLED");
    }

    @Test
    void wrongOldAndTakenBackAddressesOpenNothing() {
        long job = job();
        String first = address(job);
        String second = address(job);
        HttpResponse<String> wrong = open("/answer/" + "x".repeat(43));
        assertThat(wrong.statusCode()).isEqualTo(404);
        assertThat(open(first).statusCode()).isEqualTo(404);
        assertThat(open(first).body()).as("nobody learns which").isEqualTo(wrong.body());

        ines.delete("/api/jobs/%d/private-page".formatted(job)).ok();
        assertThat(open(second).statusCode()).isEqualTo(404);
        assertThat(answer(second, "name", "Ada", "refused", "yes").statusCode()).isEqualTo(404);

        String third = address(job);
        JdbcClient jdbc = SERVER.jdbc();
        jdbc.sql("UPDATE owner_link SET valid_until = valid_until - 400 WHERE job_id = :job")
                .param("job", job)
                .update();
        assertThat(open(third).statusCode()).isEqualTo(410);
        assertThat(open(third).body()).contains("is over");

        String fourth = address(job);
        ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok();
        assertThat(open(fourth).body()).contains("newer estimate");
        assertThat(answer(fourth, "name", "Ada", "refused", "yes").statusCode()).isEqualTo(410);
        assertThat(ines.get("/api/jobs/" + job).ok().json().get("stage").asString())
                .isEqualTo("DRAFT");

        String kept = jdbc.sql("SELECT * FROM owner_link").query().listOfRows().toString();
        assertThat(kept).doesNotContain(fourth.substring("/answer/".length()));
    }

    @Test
    void ofTwoAnswersAtOnceOneIsNoted() {
        long job = job();
        String path = address(job);
        List<String> codes = values(open(path), "agree");
        List<Integer> statuses = Stream.of("Ada", "Bo")
                .map(name -> CompletableFuture.supplyAsync(
                        () -> answer(path, ticked(codes, "name", name)).statusCode()))
                .toList()
                .stream()
                .map(CompletableFuture::join)
                .sorted()
                .toList();
        assertThat(statuses).containsExactly(200, 410);
        assertThat(said(job)).hasSameSizeAs(codes);
    }

    @Test
    void whoMaySpeakForAnOwnerIsNotToldToWhoeverAsks() {
        long job = job();
        long vehicle = ines.get("/api/jobs/" + job).ok().json().get("vehicleId").asLong();
        long owner = SERVER.jdbc()
                .sql("SELECT owner_id FROM vehicle WHERE id = :id")
                .param("id", vehicle)
                .query(Long.class)
                .single();
        JsonNode o = ines.get("/api/owners/" + owner).ok().json().get("owner");
        ObjectNode changed = (ObjectNode) o;
        changed.putArray("speakers").add("Cousin Wren");
        ines.put("/api/owners/" + owner, changed.toString()).ok();

        String path = address(job);
        List<String> codes = values(open(path), "agree");
        HttpResponse<String> stranger = answer(path, ticked(codes, "name", "Somebody"));
        assertThat(stranger.statusCode()).isEqualTo(422);
        assertThat(stranger.body()).contains("not among them").doesNotContain("Wren");
        assertThat(answer(path, ticked(codes, "name", "cousin wren")).statusCode())
                .isEqualTo(200);
    }

    @Test
    void fiftyTriesAMinuteAreTooMany() {
        // from an address of its own, so that the other tests keep theirs
        Elsewhere there = new Elsewhere("127.0.0.7");
        List<Integer> statuses = IntStream.range(0, 50)
                .mapToObj(i -> there.status(SERVER, "/answer/" + i, ""))
                .toList();
        assertThat(statuses.subList(0, 25)).containsOnly(404);
        assertThat(statuses.subList(45, 50)).contains(429);
    }

    @Test
    void aPromisedJobSaysItsTimeAndOffersNone() {
        long job = job();
        JsonNode offer = ines.get("/api/board/jobs/%d/offers".formatted(job))
                .ok()
                .json()
                .get(0)
                .get("place");
        int version = ines.get("/api/jobs/" + job).ok().json().get("version").asInt();
        ines.put("/api/board/jobs/%d/place".formatted(job), """
                        {"technicianId": %d, "bayId": %d, "day": "%s", "time": "%s", "promised": true, "version": %d}
                        """.formatted(
                                offer.get("technicianId").asLong(),
                                offer.get("bayId").asLong(),
                                offer.get("start").asString().substring(0, 10),
                                offer.get("start").asString().substring(11, 16),
                                version))
                .ok();
        String path = address(job);
        HttpResponse<String> page = open(path);
        assertThat(page.body()).contains("The vehicle is expected on").doesNotContain("When shall it come?");
        HttpResponse<String> moved = answer(
                path,
                ticked(
                        values(page, "agree"),
                        "name",
                        "Ada",
                        "slot",
                        offer.get("start").asString()));
        assertThat(moved.statusCode()).as("a promise is not moved from here").isEqualTo(422);
        assertThat(answer(path, ticked(values(page, "agree"), "name", "Ada")).body())
                .contains("We expect the vehicle on");
    }

    @Test
    void whatHasBrokenAtTheBenchIsAnsweredButNoLongerRefused() {
        long job = job();
        String path = address(job);
        SERVER.jdbc()
                .sql("UPDATE job SET stage = 'UNDER_WAY', items = 'belt' WHERE id = :job")
                .param("job", job)
                .update();
        HttpResponse<String> page = open(path);
        assertThat(page.statusCode()).isEqualTo(200);
        assertThat(page.body()).doesNotContain("No to the whole job", "If it is left");
        assertThat(answer(path, "name", "Ada", "refused", "yes").statusCode()).isEqualTo(422);
        SERVER.jdbc()
                .sql("UPDATE job SET stage = 'CANCELLED' WHERE id = :job")
                .param("job", job)
                .update();
        assertThat(open(path).statusCode()).isEqualTo(410);
    }
}
