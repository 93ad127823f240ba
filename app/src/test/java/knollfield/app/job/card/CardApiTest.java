package knollfield.app.job.card;

import static knollfield.app.job.Workbench.card;
import static knollfield.app.job.Workbench.enter;
import static knollfield.app.job.Workbench.step;
import static knollfield.app.job.Workbench.workUntil;
import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import javax.imageio.ImageIO;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.Jobs;
import knollfield.app.job.Workbench;
import knollfield.app.record.JobRecords;
import knollfield.app.standins.Outside;
import knollfield.core.due.EvidenceKind;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;

/** The bench over HTTP: gates, findings, pictures, waiting, and what a signature leaves. */
class CardApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static final Set<String> NEVER = Set.of("PINS_OUT", "TWO_TURNS", "REFERENCES_TRUE");

    private Client ines;
    private Client hedra;
    private Client perran;
    private long technician;

    @BeforeEach
    void people() {
        ines = SERVER.as("ines");
        technician = Workbench.technician(ines, "hedra", "Hedra Voss", "BELT", "CHAIN", "BELT_IN_OIL");
        Workbench.technician(ines, "perran", "Perran Voss", "BELT");
        hedra = SERVER.as("hedra");
        perran = SERVER.as("perran");
    }

    /** A vehicle of the family at the bench, checked in; purpose empty for the belt or chain. */
    private long atTheBench(String family, String purpose) {
        return atTheBench(family, purpose, Workbench.ownDay());
    }

    /** A day for jobs that are signed before the next one is promised there, so that the board's days last. */
    private static final LocalDate SIGNED = Workbench.ownDay();

    private long atTheBench(String family, String purpose, LocalDate day) {
        long vehicle = Given.vehicle(SERVER, ines, family, "");
        Given.reading(ines, vehicle, Given.TODAY.minusDays(40), "170000", "KM").ok();
        long job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
        int version = 1;
        if (!purpose.isEmpty()) {
            ines.put("/api/jobs/%d/scope".formatted(job), """
                    {"purpose": ["%s"], "school": "BOOK_MINIMUM", "decisions": {}, "parts": {}, "ownerSupplied": [],
                     "variants": {}, "toolHireMinor": 0, "version": 1}""".formatted(purpose))
                    .ok();
            version = 2;
        }
        ines.put("/api/jobs/%d/booking".formatted(job), """
                        {"technicianId": %d, "bayId": %d, "day": "%s", "time": "08:00", "version": %d}
                        """.formatted(technician, Workbench.bay(SERVER), day, version))
                .ok();
        enter(
                        hedra,
                        job,
                        "\"type\": \"START\", \"odometer\": 171000, \"odometerUnit\": \"KM\", \"keys\": \"hook 2\", "
                                + "\"codes\": \"none\", \"words\": \"scratch on the sill\"")
                .ok();
        return job;
    }

    private long vehicleOf(long job) {
        return ines.get("/api/jobs/" + job).json().get("vehicleId").asLong();
    }

    @ParameterizedTest
    @ValueSource(strings = {"CAL-16", "OST-20", "HOL-16", "SOR-22"})
    void everyGateOfACardHoldsOnTheServer(String family) {
        long job = atTheBench(family, "");
        Set<String> seen = new HashSet<>();
        while (true) {
            JsonNode card = card(hedra, job);
            String next = card.path("nextStep").asString(null);
            if (next == null) {
                break;
            }
            JsonNode step = step(card, next);
            String gate = step.path("gate").asString(null);
            if (gate != null && !gate.equals("LABEL") && seen.add(gate)) {
                String words = gateOf(card, gate).get("words").asString();
                if (!gate.equals("CRITICAL_TORQUES")) {
                    assertThat(enter(hedra, job, "\"type\": \"TICK\", \"step\": \"label:car\"")
                                    .problem(422, "gate-shut")
                                    .get("detail")
                                    .asString())
                            .startsWith(words + ": ");
                }
                String override = "\"type\": \"OVERRIDE\", \"gate\": \"%s\", \"words\": \"seen\"".formatted(gate);
                enter(hedra, job, override).problem(403, "not-allowed-on-card");
                if (NEVER.contains(gate)) {
                    enter(ines, job, override).problem(403, "not-allowed-on-card");
                }
                enter(hedra, job, "\"type\": \"COMPLETE\"").problem(422, "gate-shut");
            }
            Workbench.answer(hedra, job, step).ok();
        }
        Set<String> all = new HashSet<>();
        card(hedra, job).get("gates").forEach(g -> all.add(g.get("kind").asString()));
        all.remove("LABEL");
        assertThat(seen).isEqualTo(all).containsAll(NEVER);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();
    }

    private static JsonNode gateOf(JsonNode card, String kind) {
        return card.get("gates")
                .valueStream()
                .filter(g -> g.get("kind").asString().equals(kind))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aTensionerOnlyCardHoldsTheBeltAndDoesNotLayIt() {
        long job = atTheBench("HOL-12", "tensioner");
        List<String> gates = new ArrayList<>();
        card(hedra, job).get("gates").forEach(g -> gates.add(g.get("kind").asString()));

        assertThat(gates)
                .contains("TENSIONER_SET", "TWO_TURNS", "FIT_CHECK", "LABEL", "CAMS_HELD", "REFERENCES_TRUE")
                .doesNotContain("SLACK_AT_TENSIONER", "COOLANT_LEVEL");
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();
    }

    @Test
    void aBeltFoundOutOfTimeIsTimedFromScratch() {
        long job = atTheBench("HOL-16", "");
        workUntil(hedra, job, "find:crank-mark");
        JsonNode off = enter(
                        hedra,
                        job,
                        "\"type\": \"MARKS\", \"step\": \"find:crank-mark\", \"wrong\": [\"inlet cam mark\"]")
                .ok()
                .json();
        assertThat(step(off, "find:crank-mark").get("answer").get("hint").asString())
                .contains("found out of time");
        JsonNode scratch = enter(hedra, job, "\"type\": \"OUT_OF_TIME\", \"words\": \"inlet a tooth behind\"")
                .ok()
                .json();

        assertThat(scratch.get("outOfTime").asBoolean()).isTrue();
        workUntil(hedra, job, "safepos");
        assertThat(step(scratch, "safepos").get("notes").get(0).asString()).isNotBlank();
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();
        assertThat(hedra.get("/api/jobs/%d/record".formatted(job)).ok().text()).contains("timed from scratch");
    }

    @Test
    void anOwnersAnswerIsAwaitedOnlyForWhatWasFound() {
        long job = atTheBench("CAL-16", "");
        long vehicle = vehicleOf(job);
        workUntil(hedra, job, "look");
        JsonNode found = enter(
                        hedra, job, "\"type\": \"INSPECT\", \"step\": \"look\", \"result\": \"oil from the top\"")
                .ok()
                .json();
        assertThat(ines.get("/api/vehicles/" + vehicle)
                        .json()
                        .get("evidence")
                        .get(0)
                        .get("kind")
                        .asString())
                .isEqualTo("OIL_TOP");
        assertThat(found.get("offers").valueStream().map(o -> o.get("code").asString()))
                .contains("camseal");
        assertThat(found.get("findings").get(0).get("advice").asString()).isNotBlank();

        JsonNode wider = hedra.post("/api/jobs/%d/card/lines".formatted(job), "{\"items\": [\"camseal\"]}")
                .ok()
                .json();
        assertThat(wider.get("awaiting").get(0).get("code").asString()).isEqualTo("camseal");
        assertThat(step(wider, "fit:camseal").get("awaitsOwner").asBoolean()).isTrue();
        // nothing is taken off for it before they have spoken
        String first = Workbench.steps(wider)
                .filter(s -> s.get("awaitsOwner").asBoolean())
                .findFirst()
                .orElseThrow()
                .get("code")
                .asString();
        workUntil(hedra, job, first);
        enter(hedra, job, "\"type\": \"TICK\", \"step\": \"%s\"".formatted(first))
                .problem(422, "awaits-owner");
        enter(hedra, job, "\"type\": \"COMPLETE\"").problem(422, "gate-shut");
        JsonNode row = row(vehicle);
        assertThat(row.get("nextStepWords").asString()).isEqualTo("ask owner");
        assertThat(row.get("waits").asString()).isEqualTo("the owner's answer: cam seals");

        // leaving it needs the warning that was given
        String answer = """
                {"lines": ["camseal"], "agreed": %s, "saidBy": "Tamsin Orde", "warning": "%s", "signed": false}""";
        assertThat(hedra.post("/api/jobs/%d/card/owner-answer".formatted(job), answer.formatted("false", ""))
                        .errorAt("/warning"))
                .isNotBlank();
        // who put it on the card does not agree for the owner as well
        assertThat(hedra.post("/api/jobs/%d/card/owner-answer".formatted(job), answer.formatted("true", ""))
                        .errorAt("/saidBy"))
                .contains("somebody else notes");
        ines.post("/api/jobs/%d/card/owner-answer".formatted(job), answer.formatted("true", ""))
                .ok();
        ines.post("/api/jobs/%d/card/owner-answer".formatted(job), answer.formatted("true", ""))
                .problem(409, "conflict");
        assertThat(card(hedra, job).get("awaiting")).isEmpty();
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();

        assertThat(hedra.get("/api/jobs/%d/record".formatted(job)).ok().text())
                .contains("Cam seals", "agreed", "Tamsin Orde, phone");
        assertThat(ines.get("/api/vehicles/" + vehicle)
                        .json()
                        .get("evidence")
                        .get(0)
                        .get("endedWhy")
                        .asString())
                .isEqualTo("ended by job " + job);
    }

    @Test
    void whatTheOwnerLeavesGoesOffTheCardAgain() {
        long job = atTheBench("CAL-16", "");
        workUntil(hedra, job, "release:belt");
        hedra.post("/api/jobs/%d/card/lines".formatted(job), "{\"items\": [\"crankseal\"]}")
                .ok();
        assertThat(hedra.post("/api/jobs/%d/card/lines".formatted(job), "{\"items\": [\"wing\"]}")
                        .errorAt("/items"))
                .contains("Choose items");
        hedra.post("/api/jobs/%d/card/owner-answer".formatted(job), """
                {"lines": ["crankseal"], "agreed": false, "saidBy": "Tamsin Orde", "warning": "may weep", "signed": true}""").ok();

        JsonNode card = card(hedra, job);
        assertThat(Workbench.steps(card).map(s -> s.get("code").asString())).doesNotContain("fit:crankseal");
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();
        assertThat(ines.get("/api/vehicles/" + vehicleOf(job))
                        .json()
                        .get("items")
                        .valueStream()
                        .filter(i -> i.get("code").asString().equals("crankseal"))
                        .noneMatch(i -> i.has("renewedOn")))
                .isTrue();
    }

    private JsonNode row(long vehicle) {
        String registration =
                ines.get("/api/vehicles/" + vehicle).json().get("registration").asString();
        // others may hold the same letters and figures
        return ines.get("/api/desk?limit=200&q=" + registration.replace(" ", "%20"))
                .ok()
                .json()
                .get("rows")
                .valueStream()
                .filter(r -> r.get("vehicleId").asLong() == vehicle)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aJobThatWaitsSaysForWhatAndHandOversAndTimeAreKept() {
        long job = atTheBench("CAL-16", "");
        JsonNode waiting = enter(hedra, job, "\"type\": \"PAUSE\", \"why\": \"FERRY\", \"words\": \"bolt on Friday\"")
                .ok()
                .json();
        assertThat(waiting.get("paused").get("whyWords").asString()).isEqualTo("the delivery");
        assertThat(ines.get("/api/jobs")
                        .json()
                        .valueStream()
                        .filter(j -> j.get("id").asLong() == job)
                        .findFirst()
                        .orElseThrow()
                        .get("waits")
                        .asString())
                .isEqualTo("the delivery: bolt on Friday");
        enter(hedra, job, "\"type\": \"TICK\", \"step\": \"parts\"").problem(422, "job-waits");
        enter(perran, job, "\"type\": \"RESUME\"").ok();
        enter(hedra, job, "\"type\": \"HAND_OVER\", \"option\": \"Perran Voss\", \"words\": \"covers are off\"")
                .ok();
        enter(hedra, job, "\"type\": \"HAND_OVER\", \"option\": \"Hedra Voss\"").problem(422, "card-refused");
        enter(perran, job, "\"type\": \"JOIN\"").ok();
        enter(perran, job, "\"type\": \"LEAVE\"").ok();
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\", \"minutes\": 290, \"oldParts\": \"KEPT\"")
                .ok();

        assertThat(hedra.get("/api/jobs/%d/record".formatted(job)).ok().text())
                .contains(
                        "Waited for the delivery",
                        "Hedra Voss to Perran Voss: covers are off",
                        "kept in the workshop",
                        "keys: hook 2",
                        "took 4.8 h");
        assertThat(ines.get("/api/jobs/" + job)
                        .json()
                        .get("actual")
                        .get("minutes")
                        .asInt())
                .isEqualTo(290);
    }

    @Test
    void whatIsLeftToLookAtStandsOnTheDeskUntilSomebodyHasLooked() {
        long job = atTheBench("CAL-16", "");
        long vehicle = vehicleOf(job);
        enter(hedra, job, "\"type\": \"SIDE_FINDING\", \"words\": \"brake hose chafed\", \"urgent\": true")
                .ok();
        enter(hedra, job, "\"type\": \"RECHECK\", \"words\": \"wheel fasteners\", \"days\": 0")
                .ok();
        enter(hedra, job, "\"type\": \"RECHECK\", \"words\": \"too late\", \"days\": 400")
                .problem(422, "card-refused");
        enter(
                        hedra,
                        job,
                        "\"type\": \"CONTINGENCY\", \"step\": \"undo:tensioner\", \"words\": \"stud sheared\", \"minutes\": 45, "
                                + "\"part\": \"stud\", \"partMinor\": 350")
                .ok();
        workUntil(hedra, job, "check:engine");
        enter(hedra, job, "\"type\": \"DEFER\", \"step\": \"check:engine\"").ok();
        workUntil(hedra, job, null);
        assertThat(card(hedra, job).get("contingencyMinutes").asInt()).isEqualTo(45);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();

        JsonNode left =
                ines.get("/api/vehicles/%d/aftercare".formatted(vehicle)).ok().json();
        assertThat(left.get("rechecks").valueStream().map(r -> r.get("what").asString()))
                .containsExactly("wheel fasteners", "Coolant level, cold");
        assertThat(left.get("rechecks").get(1).get("due").asString())
                .isEqualTo(Given.TODAY.plusDays(1).toString());
        assertThat(left.get("followUps").get(0).get("urgent").asBoolean()).isTrue();
        JsonNode row = row(vehicle);
        assertThat(row.get("recheck").asString()).isEqualTo("wheel fasteners");
        assertThat(row.get("nextStepWords").asString()).isEqualTo("recheck");

        String path = "/api/vehicles/%d/aftercare/rechecks/%d/done"
                .formatted(vehicle, left.get("rechecks").get(0).get("id").asLong());
        assertThat(hedra.post(path, "{\"result\": \" \", \"version\": 1}").errorAt("/result"))
                .contains("missing");
        hedra.post(path, "{\"result\": \"all tight\", \"version\": 1}").ok();
        hedra.post(path, "{\"result\": \"again\", \"version\": 1}").problem(409, "conflict");
        hedra.post(
                        "/api/vehicles/%d/aftercare/follow-ups/%d/settled"
                                .formatted(
                                        vehicle,
                                        left.get("followUps").get(0).get("id").asLong()),
                        "{\"result\": \"hose renewed\", \"version\": 1}")
                .ok();
        assertThat(row(vehicle).has("recheck")).isFalse();
        assertThat(ines.get("/api/vehicles/%d/story".formatted(vehicle)).ok().text())
                .contains("Rechecked, wheel fasteners: all tight", "hose renewed", "job record");
    }

    @Test
    void aBrokenStudIsAStepAndAPartThatIsTheWrongOneGoesBackAndIsAFollowUp() {
        long job = atTheBench("CAL-16", "", SIGNED);
        workUntilCompared(job);
        JsonNode undoing = stepWithJoint(card(hedra, job));
        String joint = undoing.get("joints").get(0).get("code").asString();
        String stud =
                "\"type\": \"CONTINGENCY\", \"step\": \"%s\", \"words\": \"stud broke\", \"minutes\": 60, \"joint\": \"%s\"";
        enter(hedra, job, stud.formatted(undoing.get("code").asString(), "no-such"))
                .problem(422, "card-refused");
        enter(hedra, job, stud.formatted(undoing.get("code").asString(), joint)).ok();
        assertThat(codes(card(hedra, job))).contains("repair:" + joint);
        enter(hedra, job, "\"type\": \"UNDO\", \"step\": \"repair:%s\"".formatted(joint))
                .ok();
        assertThat(codes(card(hedra, job))).doesNotContain("repair:" + joint);

        JsonNode may = card(hedra, job).get("mayGoBack");
        List<String> items =
                may.valueStream().map(i -> i.get("code").asString()).toList();
        String left = items.stream().filter(i -> !i.equals("belt")).findFirst().orElseThrow();
        enter(hedra, job, "\"type\": \"GOES_BACK\", \"words\": \"too wide\"").problem(422, "invalid-input");
        enter(hedra, job, "\"type\": \"GOES_BACK\", \"item\": \"%s\", \"words\": \" \"".formatted(left))
                .problem(422, "card-refused");
        // a belt that came off unmarked cannot go back: the law is named, and nothing is entered
        long seq = card(hedra, job).get("seq").asLong();
        enter(hedra, job, "\"type\": \"GOES_BACK\", \"item\": \"belt\", \"words\": \"a tooth too long\"")
                .problem(409, "card-not-proven");
        assertThat(card(hedra, job).get("seq").asLong()).isEqualTo(seq);
        enter(hedra, job, "\"type\": \"GOES_BACK\", \"item\": \"%s\", \"words\": \"too wide\"".formatted(left))
                .ok();
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();

        assertThat(hedra.get("/api/jobs/%d/record".formatted(job)).ok().text())
                .contains("left: the old one went back, too wide");
        assertThat(ines.get("/api/vehicles/%d/aftercare".formatted(vehicleOf(job)))
                        .json()
                        .get("followUps")
                        .valueStream()
                        .map(u -> u.get("what").asString()))
                .anyMatch(w -> w.endsWith("the old one went back, too wide"));
    }

    @Test
    void moreWorkThanPlannedHoldsTheBayForLongerAndIsALineTheOwnerAnswers() {
        long job = atTheBench("CAL-16", "", SIGNED);
        workUntilCompared(job);
        JsonNode undoing = stepWithJoint(card(hedra, job));
        LocalDateTime end = ends(job);
        String stud = "\"type\": \"CONTINGENCY\", \"step\": \"%s\", \"words\": \"stud broke\", \"minutes\": 90, "
                        .formatted(undoing.get("code").asString())
                + "\"part\": \"stud\", \"partMinor\": 900, \"joint\": \"%s\""
                        .formatted(undoing.get("joints").get(0).get("code").asString());
        enter(hedra, job, stud).ok();
        LocalDateTime later = ends(job);
        assertThat(later).isAfter(end);
        enter(
                        hedra,
                        job,
                        "\"type\": \"UNDO\", \"step\": \"repair:%s\""
                                .formatted(
                                        undoing.get("joints").get(0).get("code").asString()))
                .ok();
        assertThat(ends(job)).isEqualTo(end);
        assertThat(card(hedra, job).get("contingencies")).isEmpty();
        enter(hedra, job, stud).ok();
        enter(
                        hedra,
                        job,
                        "\"type\": \"CONTINGENCY\", \"step\": \"%s\", \"words\": \"bracket bent\", \"minutes\": 31"
                                .formatted(undoing.get("code").asString()))
                .ok();
        assertThat(ends(job)).isAfter(later);

        String estimates = "/api/jobs/%d/estimates".formatted(job);
        ines.post(estimates, "{}").ok();
        List<JsonNode> lines = ines.get(estimates)
                .ok()
                .json()
                .get("newest")
                .get("lines")
                .valueStream()
                .filter(l -> l.get("kind").asString().equals("MORE_WORK"))
                .toList();
        assertThat(lines.stream().map(l -> l.get("name").asString()))
                .containsExactly("stud broke, stud", "bracket bent");
        assertThat(lines.stream().map(l -> l.get("minutes").asInt())).containsExactly(90, 31);
        String said = """
                {"lines": ["%s"], "answer": "%s", "saidBy": "Tamsin Orde", "on": "%s", "how": "PHONE",
                 "warning": "told", "signed": true}""";
        String code = lines.get(0).get("code").asString();
        // a no to its price is noted; what broke is put right all the same, and a yes may follow
        JsonNode no = ines.post(estimates + "/1/consents", said.formatted(code, "LEFT", Given.TODAY))
                .ok()
                .json();
        assertThat(no.get("left").get(0).get("name").asString()).isEqualTo("stud broke, stud");
        assertThat(card(hedra, job).get("contingencies")).hasSize(2);
        JsonNode yes = ines.post(estimates + "/1/consents", said.formatted(code, "AGREED", Given.TODAY))
                .ok()
                .json();
        assertThat(yes.get("left")).isEmpty();
        assertThat(yes.get("newest")
                        .get("lines")
                        .valueStream()
                        .filter(l -> l.get("code").asString().equals(code)))
                .extracting(l -> l.get("state").asString())
                .containsExactly("AGREED");
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();
    }

    private void workUntilCompared(long job) {
        workUntil(
                hedra,
                job,
                codes(card(hedra, job)).stream()
                        .filter(c -> c.startsWith("compare:"))
                        .findFirst()
                        .orElseThrow());
    }

    private LocalDateTime ends(long job) {
        return SERVER.bean(Jobs.class).get(job).booking().orElseThrow().end();
    }

    @Test
    void aSignedJobIsFoundByBatchByItsJointsValueAndByTheVersionOfTheBook() {
        long job = atTheBench("CAL-16", "", SIGNED);
        enterBatch(job, "belt", " B-2207 ").ok();
        enterBatch(job, "belt", "B-2208").ok();
        enterBatch(job, "no-such", "B-2208").problem(422, "card-refused");
        enterBatch(job, "belt", "x".repeat(61)).problem(422, "card-refused");
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();
        JsonNode signed = ines.get("/api/jobs/" + job).json();
        long vehicle = signed.get("vehicleId").asLong();

        assertThat(recalled(recall("by=BATCH&q=b2208"))).containsExactly(vehicle);
        assertThat(recall("by=BATCH&q=b2207")).isEmpty();
        assertThat(ines.get("/api/jobs/%d/record".formatted(job)).ok().text()).contains("batch B-2208");

        JsonNode choices = ines.get("/api/recall/choices?family=CAL-16").ok().json();
        assertThat(choices.get("joints").valueStream().map(j -> j.get("code").asString()))
                .contains("crank");
        assertThat(choices.get("versions").get(0).asInt()).isEqualTo(1);
        List<JsonNode> joint = recall("by=JOINT&family=CAL-16&joint=crank");
        assertThat(recalled(joint)).contains(vehicle);
        assertThat(joint.get(0).get("what").asString()).contains("the book then 130 N·m + 90°");
        assertThat(recall("by=JOINT&family=CAL-16&joint=crank&newtonMetres=130"))
                .hasSameSizeAs(joint);
        assertThat(recall("by=JOINT&family=CAL-16&joint=crank&newtonMetres=128"))
                .isEmpty();
        assertThat(ines.get("/api/recall?by=JOINT&family=NONE&joint=crank").errorAt("/family"))
                .contains("NONE");

        assertThat(recalled(recall("by=BOOK&family=CAL-16&version=1"))).contains(vehicle);
        assertThat(recall("by=BOOK&family=CAL-16&version=7")).isEmpty();
        assertThat(ines.post("/api/recall/follow-ups", """
                        {"targets": [{"vehicleId": %d, "jobId": %d}], "words": "look at it", "urgent": false}
                        """.formatted(Given.vehicle(SERVER, ines, ""), job))
                        .errorAt("/targets"))
                .contains("not one of its vehicle");
        hedra.get("/api/recall?by=BATCH&q=b2208").problem(403, "not-allowed");
    }

    private Client.Answer enterBatch(long job, String item, String batch) {
        return enter(hedra, job, "\"type\": \"BATCH\", \"item\": \"%s\", \"words\": \"%s\"".formatted(item, batch));
    }

    private List<JsonNode> recall(String query) {
        return ines.get("/api/recall?" + query).ok().json().valueStream().toList();
    }

    private static List<Long> recalled(List<JsonNode> rows) {
        return rows.stream().map(r -> r.get("vehicleId").asLong()).toList();
    }

    @Test
    void aDayWithoutTabletsIsPrintedInOrderAndTypedInAtOnceOrNotAtAll() throws Exception {
        long job = atTheBench("CAL-16", "", SIGNED);
        JsonNode card = card(hedra, job);
        try (PDDocument paper = Loader.loadPDF(
                hedra.get("/api/jobs/%d/card/paper.pdf".formatted(job)).ok().bytes())) {
            String text = new PDFTextStripper().getText(paper).replaceAll("\\s+", " ");
            int at = 0;
            for (JsonNode s : Workbench.steps(card).toList()) {
                int found = text.indexOf(s.get("title").asString().substring(0, 12), at);
                assertThat(found).as(s.get("title").asString()).isGreaterThan(0);
                at = found;
            }
            assertThat(text)
                    .contains("GATE, not past it before: Two turns by hand")
                    .contains("Book: 130 N·m (96 lb·ft) + 90°")
                    .contains("Odometer ____");
        }

        List<String> entries = new ArrayList<>();
        Workbench.steps(card).filter(s -> !s.get("settled").asBoolean()).forEach(s -> {
            int times = s.get("task").asString().equals("PASSES")
                    ? s.get("pattern").get("passes").asInt()
                    : 1;
            for (int i = 0; i < times; i++) {
                entries.add("{\"clientKey\": \"%s\", \"basedOn\": 0, \"step\": \"%s\", %s}"
                        .formatted(UUID.randomUUID(), s.get("code").asString(), Workbench.goodAnswer(s)));
            }
        });
        String body = "{\"workedBy\": \"Perran Loy\", \"entries\": [%s]}";
        String url = "/api/jobs/%d/card/paper".formatted(job);
        long seq = card.get("seq").asLong();
        List<String> shuffled = new ArrayList<>(entries);
        shuffled.add(0, shuffled.remove(shuffled.size() - 1));
        hedra.post(url, body.formatted(String.join(",", shuffled))).problem(422, "gate-shut");
        assertThat(card(hedra, job).get("seq").asLong()).isEqualTo(seq);
        assertThat(hedra.post(url, body.formatted("")).errorAt("/entries")).contains("Nothing");
        assertThat(hedra.post(url, body.formatted("{\"clientKey\": \"k\", \"basedOn\": 0, \"type\": \"COMPLETE\"}"))
                        .errorAt("/entries"))
                .contains("Only answers");

        hedra.post(url, body.formatted(String.join(",", entries))).ok();
        assertThat(card(hedra, job).path("nextStep").asString("none")).isEqualTo("none");
        // sent once more, because the answer was lost: nothing is entered twice
        long after = card(hedra, job).get("seq").asLong();
        hedra.post(url, body.formatted(String.join(",", entries))).ok();
        assertThat(card(hedra, job).get("seq").asLong()).isEqualTo(after);
        enter(hedra, job, "\"type\": \"COMPLETE\", \"workedMinutes\": 300").ok();
        assertThat(hedra.get("/api/jobs/%d/record".formatted(job)).ok().text())
                .contains("Perran Loy on paper, typed in by Hedra Voss");
    }

    @Test
    void aLookFindsSeveralThingsAtOnceAndEachIsOnTheRecordAndTheVehicleOnce() {
        long job = atTheBench("CAL-16", "", SIGNED);
        workUntil(hedra, job, "look");
        String several = "\"type\": \"INSPECT\", \"step\": \"look\", \"result\": \"%s\", \"also\": [\"%s\"]";
        enter(hedra, job, several.formatted("as expected", "frayed edge")).problem(422, "card-refused");
        enter(hedra, job, several.formatted("frayed edge", "no such thing")).problem(422, "card-refused");
        enter(hedra, job, several.formatted("coolant pipe brittle", "frayed edge"))
                .ok();
        enter(hedra, job, "\"type\": \"UNDO\", \"step\": \"look\"").ok();
        enter(hedra, job, several.formatted("frayed edge", "coolant pipe brittle"))
                .ok();
        assertThat(openEvidence(job)).containsExactlyInAnyOrder("FRAYED_EDGE", "PIPE_BRITTLE");
        assertThat(card(hedra, job).toString()).contains("frayed edge, coolant pipe brittle");
        for (EvidenceKind kind : EvidenceKind.offered()) {
            if (kind.effect() != EvidenceKind.Effect.STOP) {
                enter(hedra, job, "\"type\": \"FOUND\", \"evidence\": \"%s\", \"words\": \"%s\"".formatted(kind, kind))
                        .ok();
            }
        }
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();

        String record = hedra.get("/api/jobs/%d/record".formatted(job)).ok().text();
        JsonNode after =
                ines.get("/api/vehicles/%d/aftercare".formatted(vehicleOf(job))).json();
        assertThat(EvidenceKind.offered())
                .filteredOn(k -> k.effect() != EvidenceKind.Effect.STOP)
                .allSatisfy(k -> {
                    assertThat(record).contains(k.words() + ": " + k);
                    boolean stays = openEvidence(job).contains(k.name());
                    assertThat(after.get("rechecks").toString().toLowerCase().contains(k.words()))
                            .as("%s", k)
                            .isEqualTo(stays);
                });
        assertThat(openEvidence(job)).contains("PIPE_BRITTLE", "MOUNT_TORN").doesNotContain("FRAYED_EDGE");
    }

    @Test
    void oilFoundOnTheBeltOutlivesTheJobUntilItsCauseIsRenewedOrTheOwnerDeclinesIt() {
        String oil = "\"type\": \"FOUND\", \"step\": \"look\", \"evidence\": \"OIL_TOP\", \"words\": \"wet\"";
        long left = atTheBench("CAL-16", "", SIGNED);
        workUntil(hedra, left, "look");
        enter(hedra, left, oil).ok();
        workUntil(hedra, left, null);
        assertThat(card(hedra, left)
                        .get("offers")
                        .valueStream()
                        .map(o -> o.get("reason").asString()))
                .isNotEmpty()
                .noneMatch(r -> r.contains("{"));
        enter(hedra, left, "\"type\": \"COMPLETE\"").ok();

        JsonNode after = ines.get("/api/vehicles/%d/aftercare".formatted(vehicleOf(left)))
                .json();
        assertThat(after.get("followUps").get(0).get("what").asString())
                .startsWith("Oil on the belt, wet from the top: its cause is left (cam seals");
        assertThat(after.get("rechecks").valueStream().map(r -> r.get("what").asString()))
                .anyMatch(w -> w.startsWith("Oil on the belt"));
        assertThat(openEvidence(left)).containsExactly("OIL_TOP");
        assertThat(hedra.get("/api/jobs/%d/record".formatted(left)).ok().text())
                .contains("its cause is left")
                .doesNotContain("{0}");

        long declined = atTheBench("CAL-16", "", SIGNED);
        workUntil(hedra, declined, "look");
        enter(hedra, declined, oil).ok();
        List<String> seals = card(hedra, declined)
                .get("offers")
                .valueStream()
                .map(o -> o.get("code").asString())
                .filter(c -> c.contains("seal") || c.contains("gasket"))
                .toList();
        String lines = seals.stream().map(s -> '"' + s + '"').collect(java.util.stream.Collectors.joining(", "));
        hedra.post("/api/jobs/%d/card/lines".formatted(declined), "{\"items\": [%s]}".formatted(lines))
                .ok();
        hedra.post(
                        "/api/jobs/%d/card/owner-answer".formatted(declined),
                        "{\"lines\": [%s], \"agreed\": false, \"saidBy\": \"Tamsin Orde\", \"warning\": \"oil eats the belt\", \"signed\": true}"
                                .formatted(lines))
                .ok();
        workUntil(hedra, declined, null);
        enter(hedra, declined, "\"type\": \"COMPLETE\"").ok();
        assertThat(openEvidence(declined)).isEmpty();
        assertThat(ines.get("/api/vehicles/%d/aftercare".formatted(vehicleOf(declined)))
                        .json()
                        .get("followUps"))
                .isEmpty();
    }

    private List<String> openEvidence(long job) {
        return ines.get("/api/vehicles/" + vehicleOf(job))
                .json()
                .get("evidence")
                .valueStream()
                .filter(e -> !e.has("endedOn"))
                .map(e -> e.get("kind").asString())
                .toList();
    }

    @Test
    void whereEveryOldPartGoesBackTheCardIsSignedAsNothingRenewed() {
        long job = atTheBench("CAL-16", "", SIGNED);
        for (JsonNode item : card(hedra, job).get("mayGoBack")) {
            enter(
                            hedra,
                            job,
                            "\"type\": \"GOES_BACK\", \"item\": \"%s\", \"words\": \"the wrong kit\""
                                    .formatted(item.get("code").asString()))
                    .ok();
        }
        assertThat(card(hedra, job).get("items")).isEmpty();
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();

        JsonNode after = ines.get("/api/vehicles/" + vehicleOf(job)).ok().json();
        assertThat(after.get("renewals")).isEmpty();
        assertThat(hedra.get("/api/jobs/%d/record".formatted(job)).ok().text())
                .contains("the same parts put back", "the old one went back, the wrong kit");
    }

    @Test
    void whatWaitedForTheNetworkIsNoConflictWithOneselfAndAPictureSentTwiceCountsOnce() throws IOException {
        long job = atTheBench("CAL-16", "", SIGNED);
        long seen = card(hedra, job).get("seq").asLong();
        String tick = "\"type\": \"TICK\", \"step\": \"parts\"";
        enter(hedra, job, "a" + job, seen, tick).ok();
        enter(hedra, job, "b" + job, seen, "\"type\": \"UNDO\", \"step\": \"parts\"")
                .ok();
        enter(hedra, job, "c" + job, seen, tick).ok();
        enter(perran, job, "d" + job, seen, tick).problem(409, "conflict");

        String path = "/api/jobs/%d/card/photos".formatted(job);
        Map<String, String> fields = Map.of("step", "parts", "caption", "box", "clientKey", "p" + job);
        hedra.file(path, "box.png", "image/png", png(600, 400), fields).ok();
        hedra.file(path, "box.png", "image/png", png(600, 400), fields).ok();
        assertThat(card(hedra, job).get("photos")).hasSize(1);
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();
    }

    private static JsonNode stepWithJoint(JsonNode card) {
        return card.get("phases")
                .valueStream()
                .flatMap(p -> p.get("steps").valueStream())
                .filter(s -> !s.get("joints").isEmpty())
                .findFirst()
                .orElseThrow();
    }

    private static List<String> codes(JsonNode card) {
        return card.get("phases")
                .valueStream()
                .flatMap(p -> p.get("steps").valueStream())
                .map(s -> s.get("code").asString())
                .toList();
    }

    @Test
    void picturesAreCheckedShrunkKeptAndShown() throws IOException {
        long job = atTheBench("CAL-16", "");
        String path = "/api/jobs/%d/card/photos".formatted(job);
        JsonNode card = hedra.file(
                        path, "look.png", "image/png", png(2400, 1200), Map.of("step", "look", "caption", "worn"))
                .ok()
                .json();
        JsonNode photo = card.get("photos").get(0);
        assertThat(photo.get("width").asInt()).isEqualTo(1600);
        assertThat(photo.get("height").asInt()).isEqualTo(800);
        assertThat(photo.get("caption").asString()).isEqualTo("worn");
        Client.Answer shown =
                hedra.get("%s/%d.jpg".formatted(path, photo.get("id").asLong())).ok();
        assertThat(shown.contentType()).isEqualTo("image/jpeg");
        assertThat(ImageIO.read(new ByteArrayInputStream(shown.bytes())).getWidth())
                .isEqualTo(1600);

        byte[] text = "no picture".getBytes(java.nio.charset.StandardCharsets.UTF_8);
        assertThat(hedra.file(path, "a.png", "image/png", text, Map.of("step", "look"))
                        .errorAt("/file"))
                .isEqualTo("This is no JPEG or PNG picture.");
        byte[] cut = java.util.Arrays.copyOf(png(400, 300), 200);
        assertThat(hedra.file(path, "a.png", "image/png", cut, Map.of("step", "look"))
                        .errorAt("/file"))
                .contains("cannot be read");
        assertThat(hedra.file(path, "a.png", "image/png", new byte[0], Map.of("step", "look"))
                        .errorAt("/file"))
                .contains("empty");
        hedra.file(path, "a.png", "image/png", png(40, 30), Map.of("step", "no-such-step"))
                .problem(422, "card-refused");
        assertThat(card(hedra, job).get("photos")).hasSize(1);

        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();
        try (PDDocument record = Loader.loadPDF(
                hedra.get("/api/jobs/%d/record.pdf".formatted(job)).ok().bytes())) {
            assertThat(new PDFTextStripper().getText(record))
                    .contains("Job record " + job, "dust, tensioner: worn", "turn 2 done", "measured; book 130 N");
        }
    }

    private static byte[] png(int width, int height) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB), "png", out);
        return out.toByteArray();
    }

    @Test
    void whatTheManagerLetPassIsPrintedOnTheRecord() {
        long job = atTheBench("CAL-16", "");
        workUntil(hedra, job, "onetime");
        JsonNode points = step(card(hedra, job), "onetime").get("points");
        enter(
                        hedra,
                        job,
                        "\"type\": \"CHECK\", \"step\": \"onetime\", \"wrong\": [\"%s\"]"
                                .formatted(points.get(0).asString()))
                .ok();
        assertThat(enter(hedra, job, "\"type\": \"TICK\", \"step\": \"raise:car\"")
                        .problem(422, "gate-shut")
                        .get("detail")
                        .asString())
                .contains("old one goes back: " + points.get(0).asString());
        enter(ines, job, "\"type\": \"OVERRIDE\", \"gate\": \"ONE_TIME_NEW\", \"words\": \"new one on Friday\"")
                .ok();
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();

        hedra.get("/api/jobs/999999/record.pdf").problem(404, "not-found");
        assertThat(hedra.get("/api/jobs/%d/record".formatted(job)).ok().text())
                .contains("opened by the manager: new one on Friday", "old one goes back");
    }

    @Test
    void aJobThatComesBackKeepsTheFirstRecordAndItsClocks() {
        long first = atTheBench("CAL-16", "");
        ines.post("/api/jobs/%d/rework".formatted(first), "{\"items\": [], \"reason\": \"whines\"}")
                .problem(409, "conflict");
        workUntil(hedra, first, null);
        enter(hedra, first, "\"type\": \"COMPLETE\"").ok();
        long vehicle = vehicleOf(first);
        String record = hedra.get("/api/jobs/%d/record".formatted(first)).ok().text();
        assertThat(ines.post("/api/jobs/%d/rework".formatted(first), "{\"items\": [], \"reason\": \"\"}")
                        .errorAt("/reason"))
                .contains("missing");

        long again = ines.post("/api/jobs/%d/rework".formatted(first), "{\"items\": [], \"reason\": \"whines\"}")
                .ok()
                .json()
                .get("id")
                .asLong();
        ines.put("/api/jobs/%d/booking".formatted(again), """
                        {"technicianId": %d, "bayId": %d, "day": "%s", "time": "08:00", "version": 1}
                        """.formatted(
                                technician, Workbench.bay(SERVER), Workbench.ownDay()))
                .ok();
        enter(hedra, again, "\"type\": \"START\", \"odometer\": 171200, \"odometerUnit\": \"KM\"")
                .ok();
        assertThat(card(hedra, again).get("rework").get("of").asLong()).isEqualTo(first);
        workUntil(hedra, again, "refit");
        enter(hedra, again, "\"type\": \"CHOOSE\", \"step\": \"refit\", \"option\": \"same\", \"words\": \"a day old\"")
                .ok();
        workUntil(hedra, again, null);
        enter(hedra, again, "\"type\": \"COMPLETE\"").ok();

        assertThat(hedra.get("/api/jobs/%d/record".formatted(first)).ok().text())
                .isEqualTo(record);
        JsonNode belt = ines.get("/api/vehicles/" + vehicle)
                .json()
                .get("items")
                .valueStream()
                .filter(i -> i.get("code").asString().equals("belt"))
                .findFirst()
                .orElseThrow();
        assertThat(belt.get("renewedKm").asInt()).isEqualTo(171_000);
        hedra.get("/api/jobs/%d/card/label.pdf".formatted(again)).problem(409, "conflict");
        assertThat(ines.get("/api/vehicles/%d/story".formatted(vehicle)).ok().text())
                .contains("Came back from job %d: whines".formatted(first), "put back with the same parts");
    }

    @Test
    void aFigureThatAStandInSaidStaysMarkedWhoeverTypesIt() {
        long job = atTheBench("CAL-16", "");
        workUntil(hedra, job, "drain:coolant");
        SERVER.bean(Outside.class).simulated(job, 5.3);

        enter(hedra, job, "\"type\": \"MEASURE\", \"step\": \"drain:coolant\", \"value\": 5.3")
                .ok();

        assertThat(card(hedra, job)
                        .get("phases")
                        .valueStream()
                        .flatMap(p -> p.get("steps").valueStream())
                        .filter(s -> s.get("code").asString().equals("drain:coolant"))
                        .findFirst()
                        .orElseThrow()
                        .get("answer")
                        .get("words")
                        .asString())
                .endsWith("(simulated by the meter)");
    }

    @Test
    void twoTechniciansAndAManagerAtOneCardLoseNothingAndTheLoserSeesBothValues() throws Exception {
        long job = atTheBench("CAL-16", "");
        workUntil(hedra, job, "drain:coolant");
        long seen = card(hedra, job).get("seq").asLong();
        List<Client> three = List.of(hedra, perran, ines);
        ExecutorService bench = Executors.newFixedThreadPool(3);
        List<Future<List<Integer>>> all = new ArrayList<>();
        try {
            for (Client who : three) {
                all.add(bench.submit(() -> {
                    List<Integer> statuses = new ArrayList<>();
                    for (int i = 0; i < 8; i++) {
                        statuses.add(enter(who, job, "\"type\": \"SIDE_FINDING\", \"words\": \"seen %d\"".formatted(i))
                                .status());
                    }
                    return statuses;
                }));
            }
            for (Future<List<Integer>> one : all) {
                assertThat(one.get()).containsOnly(200);
            }
        } finally {
            bench.shutdownNow();
        }
        assertThat(card(hedra, job).get("seq").asLong()).isEqualTo(seen + 24);
        assertThat(card(hedra, job).get("sideFindings")).hasSize(24);

        long based = card(hedra, job).get("seq").asLong();
        String volume = "\"type\": \"MEASURE\", \"step\": \"drain:coolant\", \"value\": %s";
        enter(hedra, job, UUID.randomUUID().toString(), based, volume.formatted("5.2"))
                .ok();
        String loser = enter(perran, job, UUID.randomUUID().toString(), based, volume.formatted("4.1"))
                .problem(409, "conflict")
                .get("detail")
                .asString();
        assertThat(loser).contains("Hedra Voss", "\"5.2 L\"", "\"4.1 L\"");
        assertThat(step(card(hedra, job), "drain:coolant")
                        .get("answer")
                        .get("words")
                        .asString())
                .isEqualTo("5.2 L");
    }

    @Test
    void entriesWrittenBeforeCardsHeldMoreAreStillRead() {
        long job = atTheBench("CAL-16", "");
        JdbcClient jdbc = SERVER.jdbc();
        jdbc.sql("UPDATE card_event SET body = :body WHERE job_id = :job AND seq = 1")
                .param("body", "{\"type\": \"started\", \"odometerKm\": 171000, \"stateFound\": \"as then\"}")
                .param("job", job)
                .update();

        JsonNode card = card(hedra, job);
        assertThat(card.get("odometerKm").asInt()).isEqualTo(171_000);
        workUntil(hedra, job, null);
        enter(hedra, job, "\"type\": \"COMPLETE\"").ok();
        jdbc.sql("UPDATE card_event SET body = :body WHERE job_id = :job AND body LIKE '%completed%'")
                .param("body", "{\"type\": \"completed\", \"note\": \"signed long ago\"}")
                .param("job", job)
                .update();
        // and its record was not kept then
        jdbc.sql("DELETE FROM job_record WHERE job_id = :job").param("job", job).update();
        assertThat(hedra.get("/api/jobs/%d/record".formatted(job)).ok().text())
                .contains("signed long ago", "as then", "shown and scrapped");
        // until the workshop is started once more
        SERVER.bean(JobRecords.class).keepThoseSignedBefore();
        assertThat(jdbc.sql("SELECT body FROM job_record WHERE job_id = :job")
                        .param("job", job)
                        .query(String.class)
                        .single())
                .contains("signed long ago");
    }

    @Test
    void theMeterReadsNearTheWindowAndEntersNothing() {
        long job = atTheBench("HOL-16", "");
        long before = card(hedra, job).get("seq").asLong();
        hedra.post("/api/jobs/%d/card/frequency".formatted(job), "{}").problem(409, "conflict");
        meter(true);
        JsonNode read = hedra.post("/api/jobs/%d/card/frequency".formatted(job), "{}")
                .ok()
                .json();

        assertThat(read.get("hertz").asDouble()).isBetween(70.0, 100.0);
        double hertz = read.get("hertz").asDouble();
        // By rules.md section 8, T = 4·m·L²·f² with the family's 0.16 kg/m and 0.12 m
        assertThat(read.get("newtons").asDouble())
                .isCloseTo(4 * 0.16 * 0.12 * 0.12 * hertz * hertz, org.assertj.core.api.Assertions.within(1e-6));
        assertThat(card(hedra, job).get("seq").asLong()).isEqualTo(before);
        long other = atTheBench("CAL-16", "");
        hedra.post("/api/jobs/%d/card/frequency".formatted(other), "{}").problem(409, "conflict");
        assertThat(read.get("simulated").asBoolean()).isTrue();
        meter(false);
    }

    private void meter(boolean standIn) {
        int version = ines.get("/api/setup/outside").json().get("version").asInt();
        ines.put(
                        "/api/setup/outside",
                        "{\"faultCodes\": false, \"beltMeter\": %s, \"parts\": false, \"deliveryName\": \"delivery\", \"version\": %d}"
                                .formatted(standIn, version))
                .ok();
    }

    /** What is missing is named by its field, for each kind of entry by its own. */
    @ParameterizedTest
    @CsvSource({
        "TICK, /step",
        "INSPECT, /step",
        "CHOOSE, /step",
        "COUNT, /step",
        "CHECK, /step",
        "MEASURE, /step",
        "RUNS, /step",
        "PASS, /step",
        "TORQUE, /step",
        "FILE_TORQUE, /step",
        "TURN, /step",
        "MARKS, /step",
        "UNDO, /step",
        "DEVIATE, /step",
        "DEFER, /step",
        "CONTINGENCY, /step",
        "TICK_PHASE, /phase",
        "OVERRIDE, /gate",
        "PAUSE, /why",
        "HAND_OVER, /option",
        "FOUND, /evidence",
        "RECHECK, /days"
    })
    void anEntryThatMissesWhatItNeedsNamesTheField(String type, String field) {
        assertThat(enter(hedra, benchForErrors(), "\"type\": \"%s\"".formatted(type))
                        .problem(422, "invalid-input")
                        .get("errors")
                        .get(0)
                        .get("pointer")
                        .asString())
                .isEqualTo(field);
    }

    @Test
    void anEntryOfAKindNobodyKnowsNamesItsType() {
        for (String body : List.of("\"type\": \"NOD\"", "\"step\": \"look\"")) {
            assertThat(enter(hedra, benchForErrors(), body)
                            .problem(400, "invalid-input")
                            .get("errors")
                            .get(0)
                            .get("pointer")
                            .asString())
                    .isEqualTo("/type");
        }
    }

    private static long errors;

    private long benchForErrors() {
        if (errors == 0) {
            errors = atTheBench("CAL-16", "");
        }
        return errors;
    }
}
