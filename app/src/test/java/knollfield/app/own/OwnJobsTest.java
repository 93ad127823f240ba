package knollfield.app.own;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Collectors;
import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** Jory speaks for the taxis, and for nobody else. */
class OwnJobsTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private final Client ines = SERVER.as("ines");
    private final Client jory = SERVER.as("jory");

    private List<Long> vehiclesOf(Client who) {
        return who.get("/api/desk?limit=200&status=STOP,OVERDUE,UNKNOWN_HISTORY,NO_BOOK,ACT_NOW,COMING,CLEAR")
                .ok()
                .json()
                .get("rows")
                .valueStream()
                .map(r -> r.get("vehicleId").asLong())
                .toList();
    }

    /** A vehicle of the taxis, or of others, without an open job, and a job for it with its estimate. */
    private long job(boolean own) {
        List<Long> taxis = vehiclesOf(jory);
        for (long v : own ? taxis : vehiclesOf(ines)) {
            if (own == taxis.contains(v)) {
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

    private Optional<JsonNode> mine(long job) {
        return jory.get("/api/own/jobs")
                .ok()
                .json()
                .valueStream()
                .filter(j -> j.get("jobId").asLong() == job)
                .findFirst();
    }

    private Client.Answer answer(long job, int number, List<String> agree, List<String> leave, boolean refused) {
        return jory.post(
                "/api/own/jobs/%d/answer".formatted(job), """
                {"number": %d, "agree": [%s], "leave": [%s], "refused": %s}
                """.formatted(number, quoted(agree), quoted(leave), refused));
    }

    private static String quoted(List<String> codes) {
        return codes.stream().map(c -> '"' + c + '"').collect(Collectors.joining(", "));
    }

    private static List<String> codes(JsonNode job) {
        return job.get("estimate")
                .get("lines")
                .valueStream()
                .map(l -> l.get("code").asString())
                .toList();
    }

    @Test
    void anEstimateIsAnsweredLineByLineAndStandsAtTheDeskAsConsent() {
        long job = job(true);
        JsonNode before = mine(job).orElseThrow();
        assertThat(before.get("open").asInt()).isEqualTo(codes(before).size());
        JsonNode estimate = before.get("estimate");
        assertThat(estimate.get("plain").toString())
                .contains("What waiting costs")
                .doesNotContain(" %");
        long lines = estimate.get("lines")
                .valueStream()
                .mapToLong(l -> l.get("likelyMinor").asLong())
                .sum();
        assertThat(lines + estimate.get("othersMinor").asLong())
                .isEqualTo(estimate.get("netMinor").asLong());

        String required = estimate.get("lines")
                .valueStream()
                .filter(l -> !l.get("mayLeave").asBoolean())
                .findFirst()
                .orElseThrow()
                .get("code")
                .asString();
        assertThat(answer(job, 1, List.of(), List.of(required), false).errorAt("/leave"))
                .contains("ring");
        assertThat(answer(job, 1, List.of(), List.of(), false).errorAt("/agree"))
                .contains("at least one");
        assertThat(answer(job, 1, List.of(required), List.of(required), false).errorAt("/leave"))
                .contains("not both");
        assertThat(answer(job, 1, List.of(), List.of("wings"), false).errorAt("/leave"))
                .contains("no line");
        assertThat(answer(job, 1, List.of("wings"), List.of(), false).errorAt("/agree"))
                .contains("no line");
        assertThat(mine(job).orElseThrow().get("open")).isEqualTo(before.get("open"));

        JsonNode after = answer(job, 1, codes(before), List.of(), false).ok().json();
        assertThat(after.get("open").asInt()).isZero();
        JsonNode desk = ines.get("/api/jobs/%d/estimates".formatted(job)).ok().json();
        assertThat(desk.get("open").asInt()).isZero();
        JsonNode said = desk.get("newest")
                .get("lines")
                .valueStream()
                .filter(l -> !l.get("said").isEmpty())
                .findFirst()
                .orElseThrow()
                .get("said")
                .get(0);
        assertThat(said.get("saidBy").asString()).isEqualTo("Jory Pask");
        assertThat(said.get("howWords").asString()).isEqualTo("by the fleet itself");

        ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok();
        answer(job, 1, codes(before), List.of(), false).problem(409, "conflict");
    }

    @Test
    void aLineThatIsLeftGoesOutWithTheWarningThatWasShownAndARefusedJobIsGivenUp() {
        long job = job(true);
        JsonNode view = ines.get("/api/jobs/" + job).ok().json();
        String free = view.get("lines")
                .valueStream()
                .filter(l -> l.get("kind").asString().equals("ITEM")
                        && !l.get("included").asBoolean()
                        && !l.get("rule").asString().equals("EXCLUDED"))
                .map(l -> l.get("code").asString())
                .findFirst()
                .orElseThrow();
        ines.put(
                        "/api/jobs/%d/scope".formatted(job),
                        knollfield.app.Given.scope(
                                "\"%s\": {\"in\": true, \"reason\": \"while we are there\"}".formatted(free),
                                view.get("version").asInt()))
                .ok();
        ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok();
        JsonNode line = mine(job)
                .orElseThrow()
                .get("estimate")
                .get("lines")
                .valueStream()
                .filter(l -> l.get("code").asString().equals(free))
                .findFirst()
                .orElseThrow();
        assertThat(line.get("mayLeave").asBoolean()).isTrue();

        answer(job, 2, List.of(), List.of(free), false).ok();
        JsonNode left = ines.get("/api/jobs/%d/estimates".formatted(job))
                .ok()
                .json()
                .get("left")
                .get(0);
        assertThat(left.get("code").asString()).isEqualTo(free);
        assertThat(left.get("consent").get("warning")).isEqualTo(line.get("warning"));

        String refusal = mine(job).orElseThrow().get("estimate").get("refusal").asString();
        answer(job, 2, List.of(), List.of(), true).ok();
        assertThat(ines.get("/api/jobs/" + job).json().get("stage").asString()).isEqualTo("CANCELLED");
        assertThat(mine(job)).as("no longer open").isEmpty();
        assertThat(ines.get("/api/jobs/%d/estimates".formatted(job)).json().toString())
                .contains(refusal);
        answer(job, 2, List.of(), List.of(), true).problem(409, "conflict");
    }

    @Test
    void nothingOfAnotherFleetShowsOrCanBeTouched() {
        long other = job(false);
        TreeSet<Long> taxis = new TreeSet<>(vehiclesOf(jory));
        assertThat(jory.get("/api/own/jobs").ok().json().valueStream())
                .isNotEmpty()
                .allMatch(j -> taxis.contains(j.get("vehicleId").asLong()));
        assertThat(mine(other)).isEmpty();
        answer(other, 1, List.of("belt"), List.of(), false).problem(404, "not-found");
        answer(999_999, 1, List.of("belt"), List.of(), false).problem(404, "not-found");
        jory.put("/api/own/jobs/%d/wishes".formatted(other), "{\"version\": 1}").problem(404, "not-found");
        assertThat(ines.get("/api/own/jobs").status()).as("for contacts alone").isEqualTo(403);
        for (JsonNode fleet : ines.get("/api/fleets").ok().json()) {
            boolean seen = fleet.get("name").asString().equals("Harbour taxis");
            for (String of : List.of("", "/level", "/months.csv", "/past")) {
                assertThat(jory.get("/api/fleets/%d%s".formatted(fleet.get("id").asLong(), of))
                                .status())
                        .isEqualTo(seen ? 200 : 404);
            }
        }

        String registration =
                ines.get("/api/jobs/" + other).json().get("registration").asString();
        String own = jory.get("/api/own/jobs").json().get(0).get("registration").asString();
        String sheet = """
                {"unit": "KM", "source": "WORKSHOP", "lines": [{"registration": "%s", "value": %d, "insist": true}]}
                """;
        assertThat(jory.post("/api/vehicle-readings", sheet.formatted(registration, 99_999))
                        .errorAt("/lines/0/registration"))
                .contains("not on file");
        jory.post("/api/vehicle-readings", sheet.formatted(own, 99_999)).ok();
        long vehicle = jory.get("/api/own/jobs").json().get(0).get("vehicleId").asLong();
        JsonNode readings = ines.get("/api/vehicles/" + vehicle).ok().json().get("readings");
        assertThat(readings.toString()).contains("fleet list");
    }

    @Test
    void whatTheHouseNotesForItselfIsNotShownOutside() {
        long vehicle = vehiclesOf(jory).get(0);
        String address = "/api/vehicles/" + vehicle;
        ines.post(address + "/calls", "{\"spokeWith\": \"Jory\", \"note\": \"pays late\"}")
                .ok();
        ines.post(address + "/evidence", """
                        {"kind": "OIL_TOP", "found": "%s", "note": "neglected"}
                        """.formatted(TODAY)).ok();
        SERVER.jdbc().sql("""
                        INSERT INTO follow_up (vehicle_id, what, urgent, noted_on, noted_by)
                        VALUES (:vehicle, 'argue about the bill', FALSE, :on, 'Ines')
                        """).param("vehicle", vehicle).param("on", TODAY).update();

        assertThat(ines.get(address).ok().text()).contains("pays late", "neglected");
        JsonNode seen = jory.get(address).ok().json();
        assertThat(seen.toString()).doesNotContain("pays late", "neglected");
        assertThat(seen.get("log")).isEmpty();
        assertThat(seen.get("evidence").valueStream().map(e -> e.get("kind").asString()))
                .contains("OIL_TOP");
        assertThat(ines.get(address + "/aftercare").ok().text()).contains("argue");
        for (String of : List.of("/story", "/aftercare", "/details")) {
            assertThat(jory.get(address + of).ok().text()).doesNotContain("pays late", "neglected", "argue");
        }
    }

    @Test
    void daysAreAskedForAndStandInTheJob() {
        long job = job(true);
        JsonNode now = mine(job).orElseThrow();
        String wish = "{\"notBefore\": \"%s\", \"days\": [\"TUESDAY\"], \"version\": %d}";
        String address = "/api/own/jobs/%d/wishes".formatted(job);
        int version = now.get("version").asInt();
        assertThat(jory.put(address, wish.formatted(TODAY.minusDays(1), version))
                        .errorAt("/notBefore"))
                .contains("passed");
        LocalDate from = TODAY.plusDays(10);
        JsonNode asked = jory.put(address, wish.formatted(from, version)).ok().json();
        assertThat(asked.get("notBefore").asString()).isEqualTo(from.toString());
        assertThat(asked.get("days").get(0).asString()).isEqualTo("TUESDAY");
        jory.put(address, wish.formatted(from, version)).problem(409, "conflict");
        assertThat(ines.get("/api/board")
                        .ok()
                        .json()
                        .get("waiting")
                        .valueStream()
                        .filter(w -> w.get("jobId").asLong() == job)
                        .map(JsonNode::toString))
                .singleElement()
                .satisfies(w -> assertThat(w).contains(from.toString()));
    }

    @Test
    void theNextStepIsInWordsForWhoeverOwnsTheVehicle() {
        List<String> words = jory.get("/api/desk?limit=200&status=STOP,OVERDUE,UNKNOWN_HISTORY,ACT_NOW,COMING")
                .ok()
                .json()
                .get("rows")
                .valueStream()
                .map(r -> r.get("nextStepWords").asString())
                .toList();
        assertThat(words).isNotEmpty().doesNotContain("sign", "promise", "start", "ring");
    }
}
