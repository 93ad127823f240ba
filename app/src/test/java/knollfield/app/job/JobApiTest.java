package knollfield.app.job;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

import com.google.zxing.BinaryBitmap;
import com.google.zxing.MultiFormatReader;
import com.google.zxing.NotFoundException;
import com.google.zxing.RGBLuminanceSource;
import com.google.zxing.common.HybridBinarizer;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Stream;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class JobApiTest {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;
    private Client hedra;
    private long technician;
    private long bay;
    private long vehicle;
    private LocalDate day;

    @BeforeEach
    void aVehicleThatIsDue() {
        ines = SERVER.as("ines");
        technician = technician("hedra", "Hedra Voss", "BELT");
        hedra = SERVER.as("hedra");
        bay = Workbench.bay(SERVER);
        vehicle = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, vehicle, TODAY.minusDays(40), "170000", "KM").ok();
        Given.renewal(ines, vehicle, "belt", TODAY.minusYears(5), 40_000, false).ok();
        Given.renewal(ines, vehicle, "tensioner", TODAY.minusYears(5), 40_000, false)
                .ok();
        day = Workbench.ownDay();
    }

    private long technician(String signIn, String name, String skill) {
        return Workbench.technician(ines, signIn, name, skill);
    }

    private long job() {
        return ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
    }

    private Client.Answer book(long job, long technicianId, LocalDate date, String time, int version) {
        return ines.put("/api/jobs/%d/booking".formatted(job), """
                {"technicianId": %d, "bayId": %d, "day": "%s", "time": "%s", "version": %d}
                """.formatted(technicianId, bay, date, time, version));
    }

    private long bookedJob() {
        long job = job();
        book(job, technician, day, "08:00", 1).ok();
        return job;
    }

    private static Client.Answer enter(Client who, long job, String key, long basedOn, String fields) {
        return Workbench.enter(who, job, key, basedOn, fields);
    }

    private Client.Answer enter(long job, String fields) {
        return Workbench.enter(hedra, job, fields);
    }

    private JsonNode card(long job) {
        return Workbench.card(hedra, job);
    }

    private static Stream<JsonNode> steps(JsonNode card) {
        return Workbench.steps(card);
    }

    private void start(long job) {
        enter(job, "\"type\": \"START\", \"odometer\": 171000, \"odometerUnit\": \"KM\"")
                .ok();
    }

    private void workUntil(long job, String step) {
        Workbench.workUntil(hedra, job, step);
    }

    @Test
    void aJobIsBuiltWithReasonsAndItsMinutesFollowTheLines() {
        long job = job();
        JsonNode view = ines.get("/api/jobs/" + job).ok().json();
        int minutes = view.get("minutes").asInt();
        JsonNode seals = line(view, "camseal");

        assertThat(line(view, "tensioner").get("rule").asString()).isEqualTo("REQUIRED");
        assertThat(seals.get("included").asBoolean()).isFalse();
        JsonNode changed = ines.put("/api/jobs/%d/scope".formatted(job), Given.scope("\"camseal\": {\"in\": true}", 1))
                .ok()
                .json();
        assertThat(changed.get("minutes").asInt())
                .isEqualTo(minutes + seals.get("minutes").asInt());
        assertThat(changed.get("totalMinor").asLong())
                .isEqualTo(changed.get("partsMinor").asLong()
                        + changed.get("labourMinor").asLong());
        ines.put("/api/jobs/%d/scope".formatted(job), Given.scope("", 1)).problem(409, "conflict");
        assertThat(ines.put("/api/jobs/%d/scope".formatted(job), Given.scope("\"wings\": {\"in\": true}", 2))
                        .errorAt("/decisions"))
                .contains("wings");
    }

    private static JsonNode line(JsonNode view, String code) {
        return view.get("lines")
                .valueStream()
                .filter(l -> l.get("code").asString().equals(code))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aVehicleHasOneOpenJob() {
        long job = job();
        ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle)).problem(409, "conflict");
        ines.delete("/api/jobs/%d?version=1".formatted(job)).ok();
        assertThat(job()).isGreaterThan(job);
    }

    @Test
    void aPlaceThatBreaksRulesIsRefusedInWords() {
        long first = bookedJob();
        String registration =
                ines.get("/api/jobs/" + first).json().get("registration").asString();
        aVehicleThatIsDue();
        long second = job();
        long chainOnly = technician("odo", "Odo Brack", "CHAIN");
        LocalDate sunday = day.plusDays(7 - day.getDayOfWeek().getValue());
        LocalDate taken = LocalDate.parse(ines.get("/api/jobs/" + first)
                .json()
                .get("booking")
                .get("start")
                .asString()
                .substring(0, 10));

        Client.Answer clash = book(second, technician, taken, "09:30", 1);
        assertThat(clash.errorAt("/technicianId")).startsWith("Hedra Voss has %s then, until ".formatted(registration));
        assertThat(clash.errorAt("/bayId")).startsWith("Bay 1 holds %s then, until ".formatted(registration));
        assertThat(clash.errorAt("/day")).contains("only tool set for").contains("is with " + registration);
        assertThat(book(second, chainOnly, day, "08:00", 1).errorAt("/technicianId"))
                .contains("does not do this work (belt)");
        assertThat(book(second, technician, sunday, "08:00", 1).errorAt("/day"))
                .contains("Hedra Voss does not work on Sunday");
        assertThat(book(second, technician, TODAY.minusDays(1), "08:00", 1).errorAt("/day"))
                .contains("passed");
        assertThat(book(second, technician, day, "12:15", 1).errorAt("/time")).contains("half-hour");
        assertThat(ines.get("/api/jobs/" + second).json().get("stage").asString())
                .isEqualTo("DRAFT");
    }

    @Test
    void theCardRefusesToBeSignedWithoutTheTwoTurns() {
        long job = bookedJob();
        start(job);
        workUntil(job, "turn:engine.1");

        assertThat(enter(job, "\"type\": \"COMPLETE\"")
                        .problem(422, "gate-shut")
                        .get("detail")
                        .asString())
                .isEqualTo("Two turns by hand: turn 1 of 2 not done.");
        enter(job, "\"type\": \"TURN\", \"step\": \"turn:engine.1\"").ok();
        assertThat(enter(job, "\"type\": \"COMPLETE\"")
                        .problem(422, "gate-shut")
                        .get("detail")
                        .asString())
                .isEqualTo("Two turns by hand: turn 2 of 2 not done.");
        enter(ines, job, "o1", 1_000_000, "\"type\": \"OVERRIDE\", \"gate\": \"TWO_TURNS\", \"words\": \"sure\"")
                .problem(403, "not-allowed-on-card");
        assertThat(ines.get("/api/vehicles/" + vehicle).json().get("openJobId").asLong())
                .isEqualTo(job);
    }

    @Test
    void onlyTheManagerOpensAGateAndWithWords() {
        long job = bookedJob();
        start(job);
        workUntil(job, "onetime");
        String override = "\"type\": \"OVERRIDE\", \"gate\": \"ONE_TIME_NEW\", \"words\": \"bolt on the ferry\"";

        enter(job, override).problem(403, "not-allowed-on-card");
        enter(ines, job, "o2", 1_000_000, override).ok();
        assertThat(card(job)
                        .get("gates")
                        .valueStream()
                        .filter(g -> g.get("kind").asString().equals("ONE_TIME_NEW")))
                .singleElement()
                .satisfies(g -> assertThat(g.get("overriddenWith").asString()).isEqualTo("bolt on the ferry"));
    }

    @Test
    void aTwelvefoldTorqueAsksForItsUnit() {
        long job = bookedJob();
        start(job);
        workUntil(job, "tighten:tensioner:1");
        String entry = "\"type\": \"TORQUE\", \"step\": \"tighten:tensioner:1\", \"value\": 53, \"unit\": \"%s\"";

        JsonNode question = enter(job, entry.formatted("POUND_FOOT")).problem(422, "unit-guard");
        assertThat(question.get("suggestion").asString()).isEqualTo("POUND_INCH");
        assertThat(steps(enter(job, entry.formatted("POUND_INCH")).ok().json())
                        .filter(s -> s.get("code").asString().equals("tighten:tensioner:1")))
                .singleElement()
                .satisfies(
                        s -> assertThat(s.get("answer").get("words").asString()).isEqualTo("53 lb·in = 5.99 N·m"));
    }

    @Test
    void anEntrySentTwiceCountsOnceAndAStaleOneSeesTheOther() {
        long job = bookedJob();
        start(job);
        long seen = card(job).get("seq").asLong();
        String tick = "\"type\": \"TICK\", \"step\": \"parts\"";
        enter(hedra, job, "same", seen, tick).ok();
        long once = card(job).get("seq").asLong();
        enter(hedra, job, "same", seen, tick).ok();
        assertThat(card(job).get("seq").asLong()).isEqualTo(once);

        JsonNode conflict = enter(ines, job, "other", seen, tick).problem(409, "conflict");
        assertThat(conflict.get("detail").asString()).contains("Hedra Voss").contains("\"done\"");
    }

    @Test
    void checkInTakesAnOdometerThatIsOne() {
        long job = bookedJob();
        String start = "\"type\": \"START\", \"odometer\": %s, \"odometerUnit\": \"KM\"";

        assertThat(enter(job, start.formatted("90000")).errorAt("/odometer")).contains("runs backwards");
        assertThat(enter(job, start.formatted("1234567890")).errorAt("/odometer"))
                .contains("is not one");
        assertThat(enter(job, "\"type\": \"START\"").errorAt("/odometerUnit")).contains("missing");
        assertThat(card(job).get("started").asBoolean()).isFalse();
        assertThat(ines.get("/api/jobs/" + job).json().get("stage").asString()).isEqualTo("PLANNED");
    }

    @Test
    void aJobWithoutASlotHasNoCardToWorkOn() {
        enter(job(), "\"type\": \"START\", \"odometer\": 171000, \"odometerUnit\": \"KM\"")
                .problem(409, "conflict");
    }

    /** Where age decides, the day the label says is the day dossier and Desk say to act by. */
    private void oneNextDue(JsonNode signed, JsonNode dossier) {
        JsonNode belt = dossier.get("items")
                .valueStream()
                .filter(i -> i.get("code").asString().equals("belt"))
                .findFirst()
                .orElseThrow();
        String next = signed.get("nextDueOn").asString();
        assertThat(belt.get("binding").asString()).isEqualTo("AGE");
        assertThat(belt.get("actBy").asString()).isEqualTo(next);
        assertThat(dossier.get("actBy").asString()).isEqualTo(next);
        String registration = dossier.get("registration").asString();
        assertThat(ines.get("/api/desk?status=CLEAR&limit=200")
                        .ok()
                        .json()
                        .get("rows")
                        .valueStream()
                        .filter(r -> r.get("registration").asString().equals(registration))
                        .map(r -> r.get("actBy").asString()))
                .containsExactly(next);
        JsonNode ahead = ines.get("/api/ahead/vehicles?limit=500&date="
                        + LocalDate.parse(next).plusYears(3))
                .ok()
                .json()
                .get("rows")
                .valueStream()
                .filter(r -> r.get("registration").asString().equals(registration))
                .findFirst()
                .orElseThrow();
        assertThat(ahead.get("actBy").asString()).isEqualTo(next);
    }

    private String labelText(long job) throws java.io.IOException {
        try (PDDocument document = Loader.loadPDF(
                hedra.get("/api/jobs/%d/card/label.pdf".formatted(job)).ok().bytes())) {
            return new PDFTextStripper().getText(document);
        }
    }

    @Test
    void signingRestartsTheClocksEndsTheEvidenceAndWritesTheLabel() throws Exception {
        // it runs little of late, so that age decides
        Given.reading(ines, vehicle, TODAY.minusYears(2), "160000", "KM").ok();
        ines.post(
                        "/api/vehicles/%d/evidence".formatted(vehicle),
                        "{\"kind\": \"OIL_TOP\", \"found\": \"%s\"}".formatted(TODAY))
                .ok();
        long job = bookedJob();
        hedra.get("/api/jobs/%d/card/label.pdf".formatted(job)).problem(409, "conflict");
        start(job);
        workUntil(job, null);
        String before = labelText(job);
        assertThat(ines.get("/api/jobs/%d/card".formatted(job))
                        .json()
                        .get("nextDueKm")
                        .asInt())
                .as("said before the signature, as the label has it")
                .isEqualTo(291_000);
        JsonNode signed = enter(job, "\"type\": \"COMPLETE\"").ok().json();

        assertThat(labelText(job))
                .as("written before its tick, and the same after")
                .isEqualTo(before);
        assertThat(signed.get("completedOn").asString()).isEqualTo(TODAY.toString());
        // 120,000 km on from 171,000 km
        assertThat(signed.get("nextDueKm").asInt()).isEqualTo(291_000);
        JsonNode after = ines.get("/api/vehicles/" + vehicle).json();
        assertThat(after.get("status").asString()).isEqualTo("CLEAR");
        oneNextDue(signed, after);
        assertThat(after.get("evidence").get(0).get("endedWhy").asString()).isEqualTo("ended by job " + job);
        Map<String, JsonNode> items = new java.util.HashMap<>();
        after.get("items").forEach(i -> items.put(i.get("code").asString(), i));
        assertThat(items.get("belt").get("renewedOn").asString()).isEqualTo(TODAY.toString());
        assertThat(items.get("belt").get("usedKm").asDouble()).isZero();
        assertThat(items.get("camseal").get("renewedKm").asInt())
                .as("the oil asked for the seals")
                .isEqualTo(171_000);
        assertThat(items.get("crankseal").has("renewedOn"))
                .as("left, so it keeps its clock")
                .isFalse();
        assertThat(after.get("log").valueStream().map(l -> l.get("what").asString()))
                .contains("job %d signed".formatted(job), "renewal of the belt");
        enter(job, "\"type\": \"TICK\", \"step\": \"parts\"").problem(422, "already-signed");

        Client.Answer pdf =
                hedra.get("/api/jobs/%d/card/label.pdf".formatted(job)).ok();
        assertThat(pdf.contentType()).isEqualTo("application/pdf");
        String registration = after.get("registration").asString();
        try (PDDocument document = Loader.loadPDF(pdf.bytes())) {
            assertThat(new PDFTextStripper().getText(document))
                    .contains(registration, "Timing belt", "at 171,000 km", "whichever first", "or 291,000 km");
            assertThat(qr(document)).contains(registration, "171,000", "291,000");
        }
    }

    @Test
    void whatASignedJobTookIsSetAgainstItsEstimateAndTeachesTheNextOne() {
        long job = bookedJob();
        ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok();
        JsonNode open = ines.get("/api/jobs/" + job).json();
        start(job);
        workUntil(job, null);
        enter(job, "\"type\": \"COMPLETE\"").ok();
        JsonNode view = ines.get("/api/jobs/" + job).json();
        int book = view.get("minutes").asInt();
        assertThat(view.get("totalMinor").asLong())
                .as("a signed job still shows what went in")
                .isEqualTo(open.get("totalMinor").asLong());
        int version = view.get("version").asInt();
        double before = ines.get("/api/jobs/%d/estimates".formatted(job))
                .json()
                .get("timeFactor")
                .asDouble();
        String took = "{\"minutes\": %d, \"partsMinor\": 20000, \"version\": %d}";
        assertThat(ines.put("/api/jobs/%d/actual".formatted(job), took.formatted(0, version))
                        .errorAt("/minutes"))
                .contains("above zero");

        ines.put("/api/jobs/%d/actual".formatted(job), took.formatted(book + 120, version))
                .ok();

        JsonNode after = ines.get("/api/jobs/%d/estimates".formatted(job)).json();
        JsonNode outcome = after.get("outcome");
        assertThat(outcome.get("minutes").asInt()).isEqualTo(book + 120);
        assertThat(outcome.get("costMinor").asLong()).isEqualTo(Math.round((book + 120) * 9_000 / 60.0) + 20_000);
        assertThat(outcome.get("differenceMinor").asLong())
                .isEqualTo(outcome.get("costMinor").asLong()
                        - outcome.get("estimatedMinor").asLong());
        assertThat(after.get("timeFactor").asDouble()).isGreaterThan(before);
        ines.put("/api/jobs/%d/actual".formatted(job), took.formatted(book, version))
                .problem(409, "conflict");
    }

    @Test
    void whatIsFoundAtTheBenchGoesOntoTheCardAndNothingComesOff() {
        long job = bookedJob();
        start(job);
        int steps = (int) steps(card(job)).count();
        hedra.post(
                        "/api/vehicles/%d/evidence".formatted(vehicle),
                        "{\"kind\": \"OIL_TOP\", \"found\": \"%s\"}".formatted(TODAY))
                .ok();
        JsonNode view = ines.get("/api/jobs/" + job).json();
        assertThat(line(view, "camseal").get("included").asBoolean()).isTrue();
        assertThat(line(view, "camseal").get("onCard").asBoolean()).isFalse();
        assertThat((int) steps(card(job)).count()).isEqualTo(steps);
        int version = view.get("version").asInt();

        ines.put("/api/jobs/%d/scope".formatted(job), Given.scope("", version)).ok();

        assertThat(steps(card(job)).map(s -> s.get("code").asString())).contains("fit:camseal");
        ines.put(
                        "/api/jobs/%d/scope".formatted(job),
                        Given.scope("\"pump\": {\"in\": false, \"reason\": \"no time\"}", version + 1))
                .problem(409, "conflict");
    }

    @Test
    void aPartialJobRestartsItsOwnClockAlone() {
        long job = bookedJob();
        ines.put("/api/jobs/%d/scope".formatted(job), """
                {"purpose": ["tensioner"], "decisions": {}, "parts": {}, "ownerSupplied": [], "variants": {},
                 "toolHireMinor": 0, "version": 2}""").ok();
        start(job);
        workUntil(job, null);
        JsonNode signed = enter(job, "\"type\": \"COMPLETE\"").ok().json();

        // 120,000 km on from the belt's own renewal at 40,000 km
        assertThat(signed.get("nextDueKm").asInt()).isEqualTo(160_000);
        Map<String, JsonNode> items = new java.util.HashMap<>();
        ines.get("/api/vehicles/" + vehicle)
                .json()
                .get("items")
                .forEach(i -> items.put(i.get("code").asString(), i));
        assertThat(items.get("tensioner").get("renewedOn").asString()).isEqualTo(TODAY.toString());
        assertThat(items.get("belt").get("renewedOn").asString())
                .isEqualTo(TODAY.minusYears(5).toString());
    }

    private static String qr(PDDocument document) throws IOException, NotFoundException {
        BufferedImage image = new PDFRenderer(document).renderImageWithDPI(0, 300);
        int[] pixels = image.getRGB(0, 0, image.getWidth(), image.getHeight(), null, 0, image.getWidth());
        RGBLuminanceSource source = new RGBLuminanceSource(image.getWidth(), image.getHeight(), pixels);
        return new MultiFormatReader()
                .decode(new BinaryBitmap(new HybridBinarizer(source)))
                .getText();
    }

    @Test
    void theWeekShowsWhoHasWhat() {
        long job = bookedJob();
        JsonNode week = ines.get("/api/jobs/week?from=" + day).ok().json();

        assertThat(week.get("jobs").valueStream().map(j -> j.get("jobId").asLong()))
                .contains(job);
        assertThat(week.get("technicians").valueStream().map(t -> t.get("name").asString()))
                .contains("Hedra Voss");
        assertThat(JSON.writeValueAsString(ines.get("/api/jobs").ok().json())).contains("\"id\":" + job);
        ines.get("/api/jobs/week?from=someday").problem(400, "invalid-input");
    }

    @Test
    void ofTwoJobsPromisedToTheSameSlotAtOnceOneGetsIt() throws Exception {
        long first = job();
        LocalDate slot = day;
        aVehicleThatIsDue();
        long second = job();
        java.util.concurrent.CountDownLatch go = new java.util.concurrent.CountDownLatch(1);
        List<java.util.concurrent.Future<Integer>> answers = new java.util.ArrayList<>();
        java.util.concurrent.ExecutorService both = java.util.concurrent.Executors.newFixedThreadPool(2);
        try {
            for (long job : new long[] {first, second}) {
                Client client = SERVER.as("ines");
                answers.add(both.submit(() -> {
                    go.await();
                    return client.put("/api/jobs/%d/booking".formatted(job), """
                                    {"technicianId": %d, "bayId": %d, "day": "%s", "time": "08:00", "version": 1}
                                    """.formatted(technician, bay, slot))
                            .status();
                }));
            }
            go.countDown();
            List<Integer> statuses =
                    List.of(answers.get(0).get(), answers.get(1).get());
            assertThat(statuses).containsExactlyInAnyOrder(200, 422);
        } finally {
            both.shutdownNow();
        }
    }

    @Test
    void twoAtOneCardLoseNoEntry() throws Exception {
        long job = bookedJob();
        start(job);
        workUntil(job, "find:crank-mark");
        long seen = card(job).get("seq").asLong();
        List<String> keys =
                Stream.generate(() -> UUID.randomUUID().toString()).limit(12).toList();
        java.util.concurrent.ExecutorService bench = java.util.concurrent.Executors.newFixedThreadPool(4);
        try {
            List<java.util.concurrent.Future<Client.Answer>> answers = keys.stream()
                    .map(k -> bench.submit(() -> enter(
                            SERVER.as("hedra"),
                            job,
                            k,
                            1_000_000,
                            "\"type\": \"INSPECT\", \"step\": \"look\", \"result\": \"as expected\"")))
                    .toList();
            for (java.util.concurrent.Future<Client.Answer> answer : answers) {
                answer.get().ok();
            }
        } finally {
            bench.shutdownNow();
        }
        assertThat(card(job).get("seq").asLong()).isEqualTo(seen + keys.size());
    }

    @Test
    void aCardIsTheSumOfItsEntriesAfterARestartOfItsReader() {
        long job = bookedJob();
        start(job);
        workUntil(job, "turn:engine.2");
        JsonNode once = card(job);
        JsonNode again = ines.get("/api/jobs/%d/card".formatted(job)).json();

        assertThat(again.get("phases")).isEqualTo(once.get("phases"));
        assertThat(again.get("seq")).isEqualTo(once.get("seq"));
        assertThat(again.get("mayOverride").asBoolean()).isTrue();
        assertThat(once.get("mayOverride").asBoolean()).isFalse();
    }

    @Test
    void aHardStopTakesTheTimingBackAndIsSaid() {
        long job = bookedJob();
        start(job);
        workUntil(job, "turn:engine.2");
        JsonNode stopped = enter(job, "\"type\": \"HARD_STOP\", \"words\": \"at a quarter\"")
                .ok()
                .json();

        assertThat(stopped.get("hardStop").asBoolean()).isTrue();
        assertThat(stopped.get("attempt").asInt()).isEqualTo(2);
        assertThat(stopped.get("nextStep").asString()).isEqualTo("mark:belt");
        workUntil(job, null);
        assertThat(card(job).get("hardStop").asBoolean()).isFalse();
        enter(job, "\"type\": \"COMPLETE\"").ok();
    }

    @Test
    void anUndoneEntryLeavesTheStepOpenAndOneReliedOnStays() {
        long job = bookedJob();
        start(job);
        workUntil(job, "turn:engine.2");

        enter(job, "\"type\": \"UNDO\", \"step\": \"turn:engine.1\"").ok();
        assertThat(card(job).get("nextStep").asString()).isEqualTo("turn:engine.1");
        enter(job, "\"type\": \"TURN\", \"step\": \"turn:engine.1\"").ok();
        assertThat(enter(job, "\"type\": \"UNDO\", \"step\": \"safe:battery\"")
                        .problem(422, "gate-shut")
                        .get("detail")
                        .asString())
                .contains("relying on this");
    }

    @Test
    void anEntryThatIsNoAnswerIsRefused() {
        long job = bookedJob();
        start(job);
        enter(job, "\"type\": \"TICK\", \"step\": \"no-such-step\"").problem(422, "card-refused");
        enter(job, "\"type\": \"TURN\", \"step\": \"parts\"").problem(422, "card-refused");
        enter(job, "\"type\": \"COUNT\", \"step\": \"move-over:tensioner-small\"")
                .problem(422, "invalid-input");
        enter(hedra, job, "", 0, "\"type\": \"TICK\", \"step\": \"parts\"").problem(422, "invalid-input");
    }

    @Test
    void aBookedJobThatGrowsMustStillFitAndOneTakenOffIsADraft() {
        long job = bookedJob();
        String end =
                ines.get("/api/jobs/" + job).json().get("booking").get("end").asString();
        JsonNode grown = ines.put("/api/jobs/%d/scope".formatted(job), Given.scope("\"camseal\": {\"in\": true}", 2))
                .ok()
                .json();
        assertThat(grown.get("booking").get("end").asString()).isGreaterThan(end);

        ines.delete("/api/jobs/%d/booking?version=%d"
                        .formatted(job, grown.get("version").asInt()))
                .ok();
        JsonNode off = ines.get("/api/jobs/" + job).ok().json();
        assertThat(off.get("stage").asString()).isEqualTo("DRAFT");
        assertThat(off.has("booking")).isFalse();
    }
}
