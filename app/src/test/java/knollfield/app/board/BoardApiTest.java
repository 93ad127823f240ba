package knollfield.app.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.app.Client;
import knollfield.app.Server;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** The board over HTTP, on the island: what it refuses and why, and that everything can be taken back. */
class BoardApiTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private final Client ines = SERVER.as("ines");

    private JsonNode board() {
        return ines.get("/api/board?days=42").ok().json();
    }

    private JsonNode block(long job) {
        return find(board(), "blocks", job)
                .orElseThrow(() -> new AssertionError("job %d is not on the board".formatted(job)));
    }

    private static Optional<JsonNode> find(JsonNode board, String list, long job) {
        return board.get(list)
                .valueStream()
                .filter(b -> b.get("jobId").asLong() == job)
                .findFirst();
    }

    private static Stream<JsonNode> blocks(JsonNode board, String... work) {
        return board.get("blocks")
                .valueStream()
                .filter(b -> Set.of(work).contains(b.get("work").asString()));
    }

    private JsonNode waiting() {
        return board().get("waiting").valueStream().findFirst().orElseThrow();
    }

    private int version(long job) {
        return ines.get("/api/board/jobs/" + job).ok().json().get("version").asInt();
    }

    private Client.Answer place(long job, JsonNode place, boolean promised, int version) {
        return ines.put("/api/board/jobs/%d/place".formatted(job), """
                {"technicianId": %d, "bayId": %d, "day": "%s", "time": "%s", "promised": %s, "version": %d}
                """.formatted(
                        place.get("technicianId").asLong(),
                        place.get("bayId").asLong(),
                        place.get("start").asString().substring(0, 10),
                        place.get("start").asString().substring(11, 16),
                        promised,
                        version));
    }

    private JsonNode offers(long job) {
        return ines.get("/api/board/jobs/%d/offers".formatted(job)).ok().json();
    }

    private Client.Answer ask(long job, long technician, LocalDateTime at) {
        return ines.get("/api/board/jobs/%d/ask?technicianId=%d&day=%s&time=%s"
                .formatted(job, technician, at.toLocalDate(), at.toLocalTime()));
    }

    private static String words(JsonNode asked) {
        return asked.get("broken")
                .valueStream()
                .map(b -> b.get("words").asString())
                .collect(Collectors.joining("|"));
    }

    @Test
    void aJobSaysWhichOthersAreWorthDoingWithItAndWhatTheyShare() {
        JsonNode board = board();
        Set<String> occasions = new TreeSet<>();
        Set<Long> listed = ines.get("/api/desk?only=WHILE_HERE&limit=500")
                .ok()
                .json()
                .get("rows")
                .valueStream()
                .map(r -> r.get("vehicleId").asLong())
                .collect(Collectors.toSet());
        Stream.of("blocks", "waiting")
                .flatMap(list -> board.get(list).valueStream())
                .map(b -> b.get("jobId").asLong())
                .distinct()
                .forEach(job -> {
                    JsonNode said =
                            ines.get("/api/board/jobs/" + job).ok().json().get("whileHere");
                    JsonNode own = vehicle(find(board, "blocks", job)
                            .or(() -> find(board, "waiting", job))
                            .orElseThrow()
                            .get("vehicleId")
                            .asLong());
                    assertThat(said.valueStream()).hasSizeLessThanOrEqualTo(5).allSatisfy(w -> {
                        assertThat(listed).contains(w.get("vehicleId").asLong());
                        JsonNode other = vehicle(w.get("vehicleId").asLong());
                        String occasion = w.get("occasion").asString();
                        String shared = occasion.equals("same fleet") ? "fleet" : "family";
                        assertThat(occasion).isIn("same fleet", "same tool set");
                        assertThat(other.get(shared)).isEqualTo(own.get(shared));
                        occasions.add(occasion);
                    });
                });
        assertThat(occasions).containsExactly("same fleet", "same tool set");
    }

    private JsonNode vehicle(long id) {
        return ines.get("/api/vehicles/" + id).ok().json();
    }

    @Test
    void twoWeeksStandUnderOneRuler() {
        JsonNode board = ines.get("/api/board").ok().json();
        assertThat(board.get("days")).hasSize(14);
        assertThat(board.get("times")).hasSize(16);
        board.get("days").valueStream().forEach(d -> {
            DayOfWeek day = LocalDate.parse(d.get("date").asString()).getDayOfWeek();
            assertThat(d.get("closed").asBoolean()).isEqualTo(day.getValue() > 5);
            assertThat(d.get("ferry").asBoolean()).isEqualTo(day == DayOfWeek.TUESDAY || day == DayOfWeek.FRIDAY);
        });
        assertThat(board.get("technicians")).hasSize(5);
        assertThat(board.get("bays")).hasSize(4);
        assertThat(blocks(board, "UNDER_WAY")
                        .findFirst()
                        .orElseThrow()
                        .get("workedTo")
                        .asInt())
                .isGreaterThan(0);
        assertThat(board.get("cost").get("unplannedJobs").asInt())
                .isEqualTo(board.get("waiting").size());
        assertThat(ines.get("/api/board?days=99").errorAt("/days")).contains("1 to 42");
    }

    @Test
    void anOfferIsPromisedInOneStepAndTakenBackInOne() {
        JsonNode job = waiting();
        long id = job.get("jobId").asLong();
        JsonNode offers = offers(id);
        assertThat(offers).hasSize(5);
        assertThat(offers.valueStream().map(o -> o.get("totalMinor").asLong())).isSorted();
        assertThat(offers.valueStream()
                        .map(o -> o.get("place").get("start").asString().substring(0, 10)))
                .doesNotHaveDuplicates();

        place(id, offers.get(0).get("place"), true, job.get("version").asInt()).ok();

        JsonNode block = block(id);
        assertThat(block.get("work").asString()).isEqualTo("PROMISED");
        assertThat(block.get("startsAt")).isEqualTo(offers.get(0).get("place").get("start"));
        assertThat(board().get("undo").get("what").asString())
                .contains(job.get("registration").asString());
        ines.post("/api/board/undo", "{}").ok();
        assertThat(find(board(), "waiting", id)).isPresent();
        assertThat(ines.get("/api/vehicles/%d".formatted(job.get("vehicleId").asLong()))
                        .ok()
                        .text())
                .contains("promised")
                .contains("taken back");
    }

    @Test
    void aPlaceThatIsTakenSaysByWhomBeforeAndAfterTheDrop() {
        JsonNode job = waiting();
        long id = job.get("jobId").asLong();
        JsonNode taken = blocks(board(), "PROMISED").findFirst().orElseThrow();
        LocalDateTime at = LocalDateTime.parse(taken.get("startsAt").asString());

        JsonNode asked = ask(id, taken.get("technicianId").asLong(), at).ok().json();
        assertThat(words(asked)).contains(taken.get("registration").asString() + " then, until");

        Client.Answer refused = ines.put("/api/board/jobs/%d/place".formatted(id), """
                {"technicianId": %d, "day": "%s", "time": "%s", "promised": false, "version": %d}
                """.formatted(
                        taken.get("technicianId").asLong(),
                        at.toLocalDate(),
                        at.toLocalTime(),
                        job.get("version").asInt()));
        assertThat(refused.errorAt("/technicianId"))
                .contains(taken.get("registration").asString());
        assertThat(find(board(), "waiting", id)).isPresent();
    }

    @Test
    void whatCannotBeAPlaceIsSaidAtItsField() {
        long id = waiting().get("jobId").asLong();
        String url = "/api/board/jobs/%d/ask?day=%s&time=%s";
        LocalDate today = LocalDate.now();
        assertThat(ines.get(url.formatted(id, today.plusDays(1), "12:15")).errorAt("/time"))
                .contains("half-hour");
        assertThat(ines.get(url.formatted(id, today.plusYears(1), "08:00")).errorAt("/day"))
                .startsWith("The board goes to");
        assertThat(ines.get(url.formatted(id, today.minusDays(9), "08:00")).errorAt("/day"))
                .contains("passed");
        assertThat(ines.get(url.formatted(id, today.plusDays(1), "08:00") + "&technicianId=99999")
                        .errorAt("/technicianId"))
                .contains("Choose");
        ines.get(url.formatted(99999, today.plusDays(1), "08:00")).problem(404, "not-found");
    }

    @Test
    void aFleetThatLendsNoVehicleIsRefusedInWordsAndItsDaysAreKept() {
        JsonNode board = board();
        JsonNode job = Stream.concat(board.get("waiting").valueStream(), blocks(board, "PLANNED", "PROMISED"))
                .filter(j -> j.has("fleet"))
                .findFirst()
                .orElseThrow();
        long id = job.get("jobId").asLong();
        JsonNode fleet = board.get("fleets")
                .valueStream()
                .filter(f -> f.get("name").equals(job.get("fleet")))
                .findFirst()
                .orElseThrow();
        String url = "/api/board/fleets/" + fleet.get("id").asLong();
        int version = fleet.get("version").asInt();
        LocalDate day = LocalDate.now().plusDays(35).with(DayOfWeek.WEDNESDAY);

        ines.put(url, "{\"cap\": 0, \"days\": [], \"version\": %d}".formatted(version))
                .ok();
        String asked = ines.get("/api/board/jobs/%d/ask?day=%s&time=08:00".formatted(id, day))
                .ok()
                .text();
        assertThat(asked).contains(fleet.get("name").asString() + ": 0 of 0 off the road on Wednesday");
        ines.put(url, "{\"cap\": 2, \"days\": [], \"version\": %d}".formatted(version))
                .problem(409, "conflict");
        assertThat(ines.put(url, "{\"cap\": -1, \"days\": [], \"version\": %d}".formatted(version + 1))
                        .errorAt("/cap"))
                .contains("0 to 999");

        ines.put(url, "{\"cap\": 9, \"days\": [\"MONDAY\"], \"version\": %d}".formatted(version + 1))
                .ok();
        assertThat(ines.get("/api/board/jobs/%d/ask?day=%s&time=08:00".formatted(id, day))
                        .ok()
                        .text())
                .contains("The vehicle cannot be here on Wednesday");
        ines.put(
                        url,
                        "{\"cap\": %d, \"days\": [], \"version\": %d}"
                                .formatted(fleet.get("cap").asInt(), version + 2))
                .ok();
    }

    @Test
    void theOwnersPossibleDaysDecideWhatIsOffered() {
        JsonNode job = waiting();
        long id = job.get("jobId").asLong();
        LocalDate notBefore = LocalDate.now().plusDays(9);
        String wish = "{\"notBefore\": %s, \"days\": %s, \"version\": %d}";

        ines.put(
                        "/api/board/jobs/%d/wishes".formatted(id),
                        wish.formatted("\"" + notBefore + "\"", "[\"TUESDAY\", \"WEDNESDAY\"]", version(id)))
                .ok();

        assertThat(offers(id)
                        .valueStream()
                        .map(o ->
                                LocalDateTime.parse(o.get("place").get("start").asString())))
                .isNotEmpty()
                .allSatisfy(s -> {
                    assertThat(s.getDayOfWeek()).isIn(DayOfWeek.TUESDAY, DayOfWeek.WEDNESDAY);
                    assertThat(s.toLocalDate()).isAfterOrEqualTo(notBefore);
                });
        assertThat(waitingOf(id).get("earliestWhy").asString()).contains("owner does not want it sooner");
        ines.put("/api/board/jobs/%d/wishes".formatted(id), wish.formatted("null", "[]", 1))
                .problem(409, "conflict");
        ines.put("/api/board/jobs/%d/wishes".formatted(id), wish.formatted("null", "[]", version(id)))
                .ok();
    }

    private JsonNode waitingOf(long job) {
        return find(board(), "waiting", job).orElseThrow();
    }

    @Test
    void twoWhoMoveOneJobAtOnceAreNotBothHeard() {
        JsonNode job = waiting();
        long id = job.get("jobId").asLong();
        int version = job.get("version").asInt();
        JsonNode offers = offers(id);
        place(id, offers.get(0).get("place"), false, version).ok();

        JsonNode problem = place(id, offers.get(1).get("place"), false, version).problem(409, "conflict");

        assertThat(problem.get("detail").asString()).contains("Ines Carrow");
        assertThat(block(id).get("startsAt"))
                .isEqualTo(offers.get(0).get("place").get("start"));
        ines.delete("/api/jobs/%d/booking?version=%d".formatted(id, version(id)))
                .ok();
        assertThat(find(board(), "waiting", id)).isPresent();
    }

    @Test
    void whatStoodInTheWayBeforeIsNoReasonNotToGoBackThere() {
        List<JsonNode> planned = blocks(board(), "PLANNED").limit(2).toList();
        long id = planned.get(0).get("jobId").asLong();
        long other = planned.get(1).get("jobId").asLong();
        String copy = "UPDATE job SET (technician_id, bay_id, start_at, end_at) ="
                + " (SELECT technician_id, bay_id, start_at, end_at FROM job WHERE id = :from) WHERE id = :to";
        // kept aside in a job that waits: both at one place, as work that grew leaves them
        long aside = waiting().get("jobId").asLong();
        SERVER.jdbc().sql(copy).param("from", id).param("to", aside).update();
        SERVER.jdbc().sql(copy).param("from", other).param("to", id).update();
        try {
            assertThat(block(id).get("clash")).isNotEmpty();
            JsonNode clashing = block(id).get("startsAt");
            ines.delete("/api/jobs/%d/booking?version=%d".formatted(id, version(id)))
                    .ok();
            ines.post("/api/board/undo", "{}").ok();
            assertThat(block(id).get("startsAt")).isEqualTo(clashing);

            // but not where somebody has come in between
            ines.delete("/api/jobs/%d/booking?version=%d".formatted(id, version(id)))
                    .ok();
            SERVER.jdbc().sql(copy).param("from", other).param("to", aside).update();
            assertThat(ines.post("/api/board/undo", "{}")
                            .problem(409, "conflict")
                            .toString())
                    .contains("cannot be taken back");
        } finally {
            SERVER.jdbc()
                    .sql("UPDATE job SET technician_id = :t, bay_id = :b, start_at = :s, end_at = :e WHERE id = :id")
                    .param("t", planned.get(0).get("technicianId").asLong())
                    .param("b", planned.get(0).get("bayId").asLong())
                    .param(
                            "s",
                            LocalDateTime.parse(planned.get(0).get("startsAt").asString()))
                    .param("e", LocalDateTime.parse(planned.get(0).get("endsAt").asString()))
                    .param("id", id)
                    .update();
            SERVER.jdbc()
                    .sql(
                            "UPDATE job SET technician_id = NULL, bay_id = NULL, start_at = NULL, end_at = NULL WHERE id = :id")
                    .param("id", aside)
                    .update();
        }
    }

    @Test
    void aPromiseIsGivenAndTakenBackWithoutMoving() {
        JsonNode planned = blocks(board(), "PLANNED").findFirst().orElseThrow();
        long id = planned.get("jobId").asLong();
        String url = "/api/board/jobs/%d/promise".formatted(id);

        ines.put(url, "{\"promised\": true, \"version\": %d}".formatted(version(id)))
                .ok();
        assertThat(block(id).get("work").asString()).isEqualTo("PROMISED");
        assertThat(ines.get("/api/board/jobs/" + id).text()).contains("the planner leaves it there");
        ines.put(url, "{\"promised\": false, \"version\": %d}".formatted(version(id)))
                .ok();

        assertThat(block(id).get("work").asString()).isEqualTo("PLANNED");
        assertThat(block(id).get("startsAt")).isEqualTo(planned.get("startsAt"));
        long waits = waiting().get("jobId").asLong();
        ines.put(
                        "/api/board/jobs/%d/promise".formatted(waits),
                        "{\"promised\": true, \"version\": %d}".formatted(version(waits)))
                .problem(409, "conflict");
    }

    @Test
    void aVehicleThatDidNotComeFreesItsSlotAndKeepsItsHistory() {
        JsonNode promised = blocks(board(), "PLANNED").reduce((a, b) -> b).orElseThrow();
        long id = promised.get("jobId").asLong();
        String url = "/api/board/jobs/%d/no-show".formatted(id);
        String body = "{\"note\": \"phone off\", \"version\": %d}";
        ines.post(url, body.formatted(version(id))).problem(409, "conflict");
        // its time has come and gone
        SERVER.jdbc().sql("""
                     UPDATE job
                     SET start_at = DATEADD(DAY, -90, start_at), end_at = DATEADD(DAY, -90, end_at)
                     WHERE id = :id
                     """).param("id", id).update();
        assertThat(waitingOf(id).get("missed").asBoolean()).isTrue();

        JsonNode after = ines.post(url, body.formatted(version(id))).ok().json();

        assertThat(after.get("noShows").get(0).get("note").asString()).isEqualTo("phone off");
        assertThat(waitingOf(id).get("noShows").asInt()).isEqualTo(1);
        assertThat(ines.get("/api/vehicles/%d"
                                .formatted(promised.get("vehicleId").asLong()))
                        .text())
                .contains("did not come");
    }

    @Test
    void whyHereAndWhyNotPlannedAreAnsweredInSentences() {
        long planned = blocks(board(), "PLANNED")
                .findFirst()
                .orElseThrow()
                .get("jobId")
                .asLong();
        assertThat(ines.get("/api/board/jobs/" + planned)
                        .ok()
                        .json()
                        .get("why")
                        .get(0)
                        .asString())
                .startsWith("Waiting until")
                .contains("off the road €");
        assertThat(ines.get("/api/board/jobs/" + waiting().get("jobId").asLong())
                        .ok()
                        .json()
                        .get("why")
                        .get(0)
                        .asString())
                .startsWith("Nothing forbids it");
        ines.get("/api/board/jobs/99999").problem(404, "not-found");
    }

    private static String ids(JsonNode changes) {
        return changes.valueStream().map(c -> c.get("jobId").asString()).collect(Collectors.joining(",", "[", "]"));
    }

    @Test
    void ifATechnicianIsAwayItIsShownBeforeAnythingChangesAndMadeSoAsSeen() {
        JsonNode before = board();
        JsonNode struck = blocks(before, "PLANNED", "PROMISED").findFirst().orElseThrow();
        LocalDate day = LocalDateTime.parse(struck.get("startsAt").asString()).toLocalDate();
        String absence = """
                {"kind": "TECHNICIAN", "technicianId": %d, "from": "%s", "to": "%s", "why": "ill"}
                """.formatted(struck.get("technicianId").asLong(), day, day);

        JsonNode answer = ines.post("/api/board/what-if", absence).ok().json();

        assertThat(answer.get("struck")
                        .valueStream()
                        .map(s -> s.get("registration").asString()))
                .contains(struck.get("registration").asString());
        // which of them comes first depends on how far the planner had come
        assertThat(answer.get("struck").valueStream())
                .anySatisfy(s -> assertThat(s.get("words").toString()).contains("does not work on"));
        assertThat(answer.get("after").get("unplannedJobs"))
                .isEqualTo(answer.get("before").get("unplannedJobs"));
        assertThat(board().get("blocks")).isEqualTo(before.get("blocks"));
        assertThat(board().get("absences")).isEqualTo(before.get("absences"));

        String accept = "{\"absence\": %s, \"jobIds\": %s}";
        ines.post("/api/board/what-if/accept", accept.formatted(absence, "[]")).problem(409, "conflict");
        ines.post("/api/board/what-if/accept", accept.formatted(absence, ids(answer.get("changes"))))
                .ok();

        JsonNode after = board();
        JsonNode moved = block(struck.get("jobId").asLong());
        assertThat(moved.get("clash")).isEmpty();
        assertThat(List.of(moved.get("technicianId"), moved.get("startsAt")))
                .isNotEqualTo(List.of(struck.get("technicianId"), struck.get("startsAt")));
        JsonNode entered = after.get("absences")
                .valueStream()
                .filter(a -> a.get("why").asString().equals("ill"))
                .findFirst()
                .orElseThrow();
        ines.delete("/api/board/absences/" + entered.get("id").asLong()).ok();
        ines.delete("/api/board/absences/" + entered.get("id").asLong()).problem(404, "not-found");
        ines.post("/api/board/undo", "{}").ok();
        assertThat(block(struck.get("jobId").asLong()).get("startsAt")).isEqualTo(struck.get("startsAt"));
    }

    @ParameterizedTest(name = "{0} {1}: {2}")
    @CsvSource({
        "BAY, '', /bayId",
        "TECHNICIAN, '', /technicianId",
        "TOOL_SET, ', \"familyCode\": \"NONE\"', /familyCode",
        "FERRY, backwards, /to",
        "WORKSHOP, over, /to"
    })
    void anAbsenceThatCannotBeIsRefusedAtItsField(String kind, String more, String pointer) {
        LocalDate today = LocalDate.now();
        LocalDate from = more.equals("over") ? today.minusDays(3) : today.plusDays(2);
        LocalDate to = more.isEmpty() || more.startsWith(",") ? from : today.minusDays(more.equals("over") ? 2 : -1);
        String body = "{\"kind\": \"%s\", \"from\": \"%s\", \"to\": \"%s\"%s}"
                .formatted(kind, from, to, more.startsWith(",") ? more : "");
        assertThat(ines.post("/api/board/what-if", body).errorAt(pointer)).isNotBlank();
    }

    @Test
    void aClosedBayAndABrokenToolSetStrikeWhatStandsThere() {
        JsonNode block = blocks(board(), "PLANNED", "PROMISED").findFirst().orElseThrow();
        String day = block.get("startsAt").asString().substring(0, 10);
        String span = "\"from\": \"%s\", \"to\": \"%s\", \"why\": \"\"}".formatted(day, day);
        String registration = block.get("registration").asString();

        String bay = ines.post(
                        "/api/board/what-if",
                        "{\"kind\": \"BAY\", \"bayId\": %d, %s"
                                .formatted(block.get("bayId").asLong(), span))
                .ok()
                .text();
        assertThat(bay).contains(registration).contains("is closed on");
        String set = ines.post(
                        "/api/board/what-if",
                        "{\"kind\": \"TOOL_SET\", \"familyCode\": \"%s\", %s"
                                .formatted(block.get("toolSet").asString(), span))
                .ok()
                .text();
        assertThat(set).contains("ool set");
    }

    private JsonNode finished(long id) throws InterruptedException {
        for (int i = 0; i < 600; i++) {
            JsonNode plan = ines.get("/api/board/plan").ok().json().get("plan");
            assertThat(plan.get("id").asLong()).isEqualTo(id);
            if (!plan.get("phase").asString().equals("RUNNING")) {
                return plan;
            }
            Thread.sleep(100);
        }
        throw new AssertionError("the plan was not done within a minute");
    }

    @Test
    void aPlanIsWorkedOutInTheBackgroundSeenByTwoAndAcceptedInPart() throws InterruptedException {
        assertThat(ines.post("/api/board/plan", "{\"steps\": 0}").errorAt("/steps"))
                .isNotBlank();
        CompletableFuture<JsonNode> other = CompletableFuture.supplyAsync(() -> SERVER.as("ines")
                .post("/api/board/plan", "{\"seed\": 5, \"steps\": 60000}")
                .ok()
                .json());
        JsonNode mine = ines.post("/api/board/plan", "{\"seed\": 5, \"steps\": 60000}")
                .ok()
                .json();
        assertThat(other.join().get("id")).isEqualTo(mine.get("id"));

        JsonNode plan = finished(mine.get("id").asLong());
        assertThat(plan.get("phase").asString()).isEqualTo("DONE");
        assertThat(plan.get("best").get("totalMinor").asLong())
                .isLessThan(plan.get("before").get("totalMinor").asLong());
        assertThat(plan.get("boardChanged").asBoolean()).isFalse();
        Set<Long> promised = blocks(board(), "PROMISED", "UNDER_WAY")
                .map(b -> b.get("jobId").asLong())
                .collect(Collectors.toSet());
        assertThat(plan.get("changes").valueStream().map(c -> c.get("jobId").asLong()))
                .isNotEmpty()
                .doesNotContainAnyElementsOf(promised);

        // same seed, steps and board: the same plan
        long again = ines.post("/api/board/plan", "{\"seed\": 5, \"steps\": 60000}")
                .ok()
                .json()
                .get("id")
                .asLong();
        assertThat(finished(again).get("changes")).isEqualTo(plan.get("changes"));

        String url = "/api/board/plan/%d/accept".formatted(again);
        assertThat(ines.post(url, "{\"jobIds\": []}").errorAt("/jobs")).contains("at least one");
        // one whose place does not wait for another to move out of it
        JsonNode change = null;
        Client.Answer answer = null;
        for (JsonNode c : plan.get("changes")) {
            if (!c.has("from") && (answer == null || answer.status() != 200)) {
                change = c;
                answer = ines.post(
                        url, "{\"jobIds\": [%d]}".formatted(c.get("jobId").asLong()));
            }
        }
        JsonNode accepted = Objects.requireNonNull(answer).ok().json();
        long job = Objects.requireNonNull(change).get("jobId").asLong();
        assertThat(accepted.get("boardChanged").asBoolean()).isTrue();
        assertThat(block(job).get("startsAt")).isEqualTo(change.get("to").get("start"));
        ines.post("/api/board/undo", "{}").ok();
        assertThat(find(board(), "waiting", job)).isPresent();
        ines.post("/api/board/plan/%d/accept".formatted(again + 7), "{\"jobIds\": [1]}")
                .problem(404, "not-found");
    }

    @Test
    void aChangeThatNoLongerFitsIsNamedAndNothingIsChanged() throws InterruptedException {
        long id = ines.post("/api/board/plan", "{\"seed\": 9, \"steps\": 1500}")
                .ok()
                .json()
                .get("id")
                .asLong();
        JsonNode plan = finished(id);
        // somebody gives the very place of a change to another job meanwhile
        JsonNode change = null;
        long rival = 0;
        for (JsonNode c : plan.get("changes")) {
            for (JsonNode w : board().get("waiting")) {
                long other = w.get("jobId").asLong();
                if (change == null
                        && !c.has("from")
                        && other != c.get("jobId").asLong()
                        && place(other, c.get("to"), false, version(other)).status() == 200) {
                    change = c;
                    rival = other;
                }
            }
        }
        assertThat(change).isNotNull();

        String refused = ines.post(
                        "/api/board/plan/%d/accept".formatted(id),
                        "{\"jobIds\": [%d]}".formatted(change.get("jobId").asLong()))
                .errorAt("/jobs/" + change.get("jobId").asLong());

        assertThat(refused)
                .contains("no longer fits there")
                .contains(block(rival).get("registration").asString());
        ines.post("/api/board/undo", "{}").ok();
    }

    @Test
    void aRunIsStoppedAndKeepsItsBest() throws InterruptedException {
        long id = ines.post("/api/board/plan", "{\"steps\": 9000000}")
                .ok()
                .json()
                .get("id")
                .asLong();
        assertThat(ines.post("/api/board/plan/%d/accept".formatted(id), "{\"jobIds\": [1]}")
                        .problem(409, "conflict")
                        .get("detail")
                        .asString())
                .contains("still being worked out");
        ines.post("/api/board/plan/%d/stop".formatted(id), "{}").ok();
        JsonNode plan = finished(id);
        assertThat(plan.get("stopped").asBoolean()).isTrue();
        assertThat(plan.get("done").asDouble()).isLessThan(1);
        assertThat(plan.get("best").get("totalMinor").asLong())
                .isLessThanOrEqualTo(plan.get("before").get("totalMinor").asLong());
    }

    @Test
    void theBoardIsReadBackAsCsv() throws IOException {
        JsonNode board = ines.get("/api/board").ok().json();
        List<CSVRecord> rows = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get()
                .parse(new StringReader(ines.get("/api/board/list.csv").ok().text()))
                .getRecords();
        assertThat(rows)
                .hasSize(board.get("blocks").size() + board.get("waiting").size());
        assertThat(rows.stream().filter(r -> r.get("state").equals("waiting")))
                .hasSize(board.get("waiting").size());
        JsonNode block = board.get("blocks").get(0);
        assertThat(rows.stream()
                        .filter(r -> r.get("job").equals(block.get("jobId").asString()))
                        .findFirst()
                        .orElseThrow()
                        .get("start"))
                .isEqualTo(block.get("startsAt").asString().substring(0, 16));
    }

    @ParameterizedTest(name = "{0} {1} {2}: {3}")
    @CsvSource({
        "hedra, GET, /api/board, 200",
        "hedra, POST, /api/board/undo, 403",
        "hedra, POST, /api/board/plan, 403",
        "hedra, GET, /api/board/feeds, 403",
        "morwen, POST, /api/board/plan, 403",
        "morwen, POST, /api/board/what-if, 403",
        "morwen, PUT, /api/board/fleets/1, 403",
        "morwen, POST, /api/board/feeds, 403",
        "morwen, GET, /api/board/plan, 200",
        "jory, GET, /api/board, 403",
        "jory, GET, /api/stores, 403",
        "hedra, GET, /api/stores, 200",
        "hedra, POST, /api/stores/orders, 403"
    })
    void everybodyMayDoTheirOwnPart(String who, String method, String path, int status) {
        Client client = SERVER.as(who);
        Client.Answer answer = switch (method) {
            case "GET" -> client.get(path);
            case "PUT" -> client.put(path, "{}");
            default -> client.post(path, "{}");
        };
        assertThat(answer.status()).isEqualTo(status);
    }

    @Test
    void aJobAtTheBenchStaysWhereItIs() {
        JsonNode atBench = blocks(board(), "UNDER_WAY").findFirst().orElseThrow();
        long id = atBench.get("jobId").asLong();
        ines.delete("/api/jobs/%d/booking?version=%d".formatted(id, version(id)))
                .problem(409, "conflict");
        assertThat(block(id).get("startsAt")).isEqualTo(atBench.get("startsAt"));
    }

    @Test
    void oneSlotIsNotGivenToTwoWhoAskAtOnce() {
        List<JsonNode> two = board().get("waiting").valueStream().limit(2).toList();
        // the first place that is free for both, each by itself
        JsonNode place = Stream.concat(
                        offers(two.get(0).get("jobId").asLong()).valueStream(),
                        offers(two.get(1).get("jobId").asLong()).valueStream())
                .map(o -> o.get("place"))
                .filter(p -> two.stream()
                        .allMatch(j -> words(ask(
                                                j.get("jobId").asLong(),
                                                p.get("technicianId").asLong(),
                                                LocalDateTime.parse(
                                                        p.get("start").asString()))
                                        .ok()
                                        .json())
                                .isEmpty()))
                .findFirst()
                .orElseThrow();
        List<CompletableFuture<Integer>> answers = two.stream()
                .map(j -> CompletableFuture.supplyAsync(() -> {
                    Client client = SERVER.as("ines");
                    return client.put(
                                    "/api/board/jobs/%d/place"
                                            .formatted(j.get("jobId").asLong()),
                                    """
                                    {"technicianId": %d, "bayId": %d, "day": "%s", "time": "%s", "promised": false,
                                     "version": %d}
                                    """.formatted(
                                            place.get("technicianId").asLong(),
                                            place.get("bayId").asLong(),
                                            place.get("start").asString().substring(0, 10),
                                            place.get("start").asString().substring(11, 16),
                                            j.get("version").asInt()))
                            .status();
                }))
                .toList();
        assertThat(answers.stream().map(CompletableFuture::join)).containsExactlyInAnyOrder(200, 422);
        ines.post("/api/board/undo", "{}").ok();
    }

    @Test
    void aChangeThatSomebodyMovedOnIsNotTakenBackAndNobodyTakesBackAnothersChange() {
        JsonNode job = waiting();
        long id = job.get("jobId").asLong();
        Client morwen = SERVER.as("morwen");
        morwen.post("/api/board/undo", "{}").problem(409, "conflict");
        place(id, offers(id).get(0).get("place"), false, job.get("version").asInt())
                .ok();
        assertThat(morwen.get("/api/board").ok().json().has("undo")).isFalse();
        morwen.put(
                        "/api/board/jobs/%d/promise".formatted(id),
                        "{\"promised\": true, \"version\": %d}".formatted(version(id)))
                .ok();

        JsonNode refused = ines.post("/api/board/undo", "{}").problem(409, "conflict");

        assertThat(refused.get("detail").asString())
                .contains(job.get("registration").asString())
                .contains("moved again since");
        morwen.post("/api/board/undo", "{}").ok();
        ines.post("/api/board/undo", "{}").ok();
        assertThat(find(board(), "waiting", id)).isPresent();
    }

    @Test
    void aJobWhosePartsAreGoneKeepsItsPlaceSaysSoAndIsPlannedAnew() throws InterruptedException {
        JsonNode job = waiting();
        long id = job.get("jobId").asLong();
        List<String> parts = ines.get("/api/stores")
                .ok()
                .json()
                .get("needs")
                .valueStream()
                .filter(n -> n.get("jobId").asLong() == id)
                .flatMap(n -> n.get("lines").valueStream())
                .map(l -> l.get("part").asString())
                .toList();
        for (String part : parts) {
            count(part, 50);
        }
        JsonNode place = offers(id)
                .valueStream()
                .map(o -> o.get("place"))
                .min(java.util.Comparator.comparing(p -> p.get("start").asString()))
                .orElseThrow();
        place(id, place, false, version(id)).ok();
        assertThat(block(id).get("clash")).isEmpty();
        for (String part : parts) {
            count(part, 0);
        }

        assertThat(block(id).get("startsAt")).isEqualTo(place.get("start"));
        assertThat(block(id).get("clash").get(0).asString())
                .startsWith("Not before")
                .contains("is not ordered yet");
        // an owner's no is noted all the same, and the job gets shorter where it stands
        String estimates = "/api/jobs/%d/estimates".formatted(id);
        JsonNode left = ines.post(estimates, "{}")
                .ok()
                .json()
                .get("newest")
                .get("lines")
                .valueStream()
                .filter(l -> l.get("asked").asBoolean()
                        && !l.get("purpose").asBoolean()
                        && l.get("minutes").asInt() > 0)
                .findFirst()
                .orElseThrow();
        JsonNode newest = ines.post("%s/%d/consents".formatted(estimates, newestOf(estimates)), """
                        {"lines": ["%s"], "answer": "LEFT", "saidBy": "Owner", "on": "%s", "how": "PHONE",
                         "warning": "told", "signed": true, "insist": true}
                        """.formatted(
                                left.get("code").asString(), LocalDate.now()))
                .ok()
                .json()
                .get("newest");
        assertThat(newest.get("lines")
                        .valueStream()
                        .filter(l -> l.get("code").equals(left.get("code")))
                        .map(l -> l.get("state").asString()))
                .containsExactly("LEFT");
        assertThat(block(id).get("startsAt")).isEqualTo(place.get("start"));
        assertThat(block(id).get("endsAt").asString())
                .isLessThanOrEqualTo(place.get("end").asString());
        // somebody else cannot be put there
        long other = board().get("waiting")
                .valueStream()
                .map(w -> w.get("jobId").asLong())
                .filter(w -> w != id)
                .findFirst()
                .orElseThrow();
        assertThat(words(ask(
                                other,
                                place.get("technicianId").asLong(),
                                LocalDateTime.parse(place.get("start").asString()))
                        .ok()
                        .json()))
                .contains(job.get("registration").asString());
        JsonNode plan = finished(ines.post("/api/board/plan", "{\"steps\": 300}")
                .ok()
                .json()
                .get("id")
                .asLong());
        JsonNode change = plan.get("changes")
                .valueStream()
                .filter(c -> c.get("jobId").asLong() == id)
                .findFirst()
                .orElseThrow();
        assertThat(change.get("from").get("start")).isEqualTo(place.get("start"));
        assertThat(change.get("to").get("start").asString())
                .isGreaterThan(place.get("start").asString());
        ines.delete("/api/jobs/%d/booking?version=%d".formatted(id, version(id)))
                .ok();
    }

    @Test
    void whatWasOnlyPlannedMovesWithoutAnybodyToTell() {
        long id = board().get("waiting")
                .valueStream()
                .map(w -> w.get("jobId").asLong())
                .filter(w -> told(w).isEmpty() && !offers(w).isEmpty())
                .findFirst()
                .orElseThrow();
        place(id, offers(id).get(0).get("place"), false, version(id)).ok();
        ines.delete("/api/jobs/%d/booking?version=%d".formatted(id, version(id)))
                .ok();
        assertThat(told(id)).isEmpty();
    }

    private int newestOf(String estimates) {
        return ines.get(estimates).ok().json().get("newest").get("number").asInt();
    }

    private void count(String part, int pieces) {
        int version = ines.get("/api/stores/stock")
                .ok()
                .json()
                .valueStream()
                .filter(s -> s.get("part").asString().equals(part))
                .map(s -> s.get("version").asInt())
                .findFirst()
                .orElse(0);
        ines.put("/api/stores/stock/" + part, "{\"pieces\": %d, \"version\": %d}".formatted(pieces, version))
                .ok();
    }

    @Test
    void aPromiseThatIsMovedStaysAPromiseAndTheVehiclesLogSaysFromWhereToWhere() {
        JsonNode promised = blocks(board(), "PROMISED")
                .filter(b -> b.get("clash").isEmpty())
                .reduce((a, b) -> b)
                .orElseThrow();
        long id = promised.get("jobId").asLong();
        JsonNode to = offers(id)
                .valueStream()
                .map(o -> o.get("place"))
                .filter(p -> !p.get("start").equals(promised.get("startsAt")))
                .findFirst()
                .orElseThrow();

        place(id, to, true, version(id)).ok();

        assertThat(block(id).get("work").asString()).isEqualTo("PROMISED");
        assertThat(ines.get("/api/vehicles/%d"
                                .formatted(promised.get("vehicleId").asLong()))
                        .text())
                .contains(written(promised.get("startsAt")))
                .contains(written(to.get("start")));
        JsonNode line = told(id).orElseThrow();
        assertThat(line.get("promised")).isEqualTo(promised.get("startsAt"));
        assertThat(line.get("movedTo")).isEqualTo(to.get("start"));
        assertThat(line.get("ownerPhone").asString()).isNotBlank();
        ines.post("/api/board/undo", "{}").ok();
        assertThat(block(id).get("startsAt")).isEqualTo(promised.get("startsAt"));
        assertThat(told(id)).as("the owner knows the time that stands").isEmpty();
    }

    private static String written(JsonNode time) {
        return LocalDateTime.parse(time.asString()).format(DateTimeFormatter.ofPattern("d MMM yyyy HH:mm", Locale.UK));
    }

    private Optional<JsonNode> told(long job) {
        return ines.get("/api/told")
                .ok()
                .json()
                .valueStream()
                .filter(t -> t.get("jobId").asLong() == job)
                .findFirst();
    }

    @Test
    void whoeverCountsOnATimeThatNoLongerStandsIsToldOnceOfTheLastOne() {
        JsonNode promised = blocks(board(), "PROMISED")
                .filter(b -> b.get("clash").isEmpty())
                .reduce((a, b) -> b)
                .orElseThrow();
        long id = promised.get("jobId").asLong();
        List<JsonNode> others = offers(id)
                .valueStream()
                .map(o -> o.get("place"))
                .filter(p -> !p.get("start").equals(promised.get("startsAt")))
                .toList();
        place(id, others.get(0), true, version(id)).ok();
        JsonNode seen = told(id).orElseThrow();
        place(id, others.get(1), true, version(id)).ok();

        JsonNode line = told(id).orElseThrow();
        assertThat(line.get("id")).isEqualTo(seen.get("id"));
        assertThat(line.get("promised")).isEqualTo(promised.get("startsAt"));
        assertThat(line.get("movedTo")).isEqualTo(others.get(1).get("start"));
        String tell = "{\"how\": \"%s\", \"note\": \"her daughter\", \"version\": %d}";
        String address = "/api/told/%d".formatted(line.get("id").asLong());
        ines.post(address, tell.formatted("PHONE", seen.get("version").asInt())).problem(409, "conflict");
        assertThat(SERVER.as("hedra")
                        .post(
                                address,
                                tell.formatted("PHONE", line.get("version").asInt()))
                        .status())
                .isEqualTo(403);
        ines.post(address, tell.formatted("PHONE", line.get("version").asInt())).ok();

        assertThat(told(id)).isEmpty();
        assertThat(ines.get("/api/vehicles/" + promised.get("vehicleId").asLong())
                        .json()
                        .get("log")
                        .toString())
                .contains("owner told by phone", "her daughter");
        ines.post(address, tell.formatted("PHONE", line.get("version").asInt())).problem(409, "conflict");
        ines.post("/api/board/undo", "{}").ok();
        assertThat(told(id).orElseThrow().get("promised"))
                .as("what was told is what the owner knows")
                .isEqualTo(others.get(1).get("start"));
        ines.post("/api/board/undo", "{}").ok();
        JsonNode back = told(id).orElseThrow();
        assertThat(back.get("movedTo")).isEqualTo(promised.get("startsAt"));
        String last = "/api/told/" + back.get("id").asLong();
        int version = back.get("version").asInt();
        assertThat(back.get("ways").valueStream().map(w -> w.get("channel").asString()))
                .contains("TEXT");
        ines.post(last, "{\"how\": \"MESSAGE\", \"channel\": \"TEXT\", \"version\": %d}".formatted(version))
                .ok();
        assertThat(ines.get("/api/outbox").ok().text())
                .contains(
                        "changed time",
                        promised.get("registration").asString(),
                        promised.get("startsAt").asString().substring(11, 16));
        ines.post(last, "{\"how\": \"MESSAGE\", \"channel\": \"TEXT\", \"version\": %d}".formatted(version))
                .problem(409, "conflict");
    }

    @Test
    void aChangeOfAPlanNamesThoseItNeedsAndIsMadeWithThem() throws InterruptedException {
        JsonNode plan = finished(ines.post("/api/board/plan", "{\"seed\": 3, \"steps\": 2500}")
                .ok()
                .json()
                .get("id")
                .asLong());
        Set<Long> moving = plan.get("changes")
                .valueStream()
                .map(c -> c.get("jobId").asLong())
                .collect(Collectors.toSet());
        String url = "/api/board/plan/%d/accept".formatted(plan.get("id").asLong());
        for (JsonNode change : plan.get("changes")) {
            List<Long> needs =
                    change.get("needs").valueStream().map(JsonNode::asLong).toList();
            assertThat(moving).containsAll(needs);
            Client.Answer alone = ines.post(
                    url, "{\"jobIds\": [%d]}".formatted(change.get("jobId").asLong()));
            assertThat(alone.status())
                    .as("%s, which needs %s", change.get("registration"), needs)
                    .isEqualTo(needs.isEmpty() ? 200 : 422);
            if (alone.status() == 200) {
                ines.post("/api/board/undo", "{}").ok();
            }
        }
        ines.post(url, "{\"jobIds\": %s}".formatted(ids(plan.get("changes")))).ok();
        ines.post("/api/board/undo", "{}").ok();
    }
}
