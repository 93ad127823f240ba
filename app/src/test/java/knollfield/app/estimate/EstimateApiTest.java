package knollfield.app.estimate;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.shared.Words;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** From what goes in to what is agreed and what it cost. */
class EstimateApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;
    private long job;

    @BeforeEach
    void aJob() {
        ines = SERVER.as("ines");
        long vehicle = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, vehicle, TODAY.minusDays(40), "150000", "KM").ok();
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, vehicle, item, TODAY.minusYears(5), 40_000, false)
                    .ok();
        }
        job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
    }

    private JsonNode view() {
        return ines.get("/api/jobs/" + job).ok().json();
    }

    private JsonNode estimates() {
        return ines.get("/api/jobs/%d/estimates".formatted(job)).ok().json();
    }

    private JsonNode make() {
        return ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok().json();
    }

    private Client.Answer scope(String decisions, String more) {
        return ines.put(
                "/api/jobs/%d/scope".formatted(job),
                Given.scope(decisions, more, view().get("version").asInt()));
    }

    private Client.Answer say(int number, String answer, String lines, String warning, boolean signed) {
        return say(number, answer, lines, warning, signed, "Tamsin Orde", "");
    }

    private Client.Answer say(
            int number, String answer, String lines, String warning, boolean signed, String by, String more) {
        return ines.post("/api/jobs/%d/estimates/%d/consents".formatted(job, number), """
                {"lines": [%s], "answer": "%s", "saidBy": "%s", "on": "%s", "how": "PHONE",
                 "warning": "%s", "signed": %s%s}
                """.formatted(
                        lines, answer, by, TODAY, warning, signed, more));
    }

    private static String state(JsonNode estimates, String code) {
        return line(estimates.get("newest"), code).get("state").asString();
    }

    private static JsonNode line(JsonNode view, String code) {
        return view.get("lines")
                .valueStream()
                .filter(l -> l.get("code").asString().equals(code))
                .findFirst()
                .orElseThrow(() -> new AssertionError("no line " + code));
    }

    @Test
    void everyLineSaysWhatItCostsNowAndLaterAndWhy() {
        JsonNode view = view();

        assertThat(view.get("build").get("schools")).hasSize(3);
        assertThat(view.get("build").get("until").asString()).contains("next belt job");
        for (JsonNode line : view.get("lines")) {
            assertThat(line.get("reason").asString())
                    .isNotBlank()
                    .doesNotContain("{")
                    .endsWith(".");
        }
        JsonNode pump = line(view, "pump");
        assertThat(pump.get("rule").asString()).isEqualTo("REQUIRED");
        assertThat(pump.get("nowMinor").asLong()).isPositive();
        assertThat(pump.get("laterMinor").asLong())
                .isGreaterThan(pump.get("nowMinor").asLong());
        // the shown price of a free line is what the total then changes by
        JsonNode seals = line(view, "camseal");
        JsonNode grown = scope("\"camseal\": {\"in\": true}", "").ok().json();
        assertThat(grown.get("totalMinor").asLong() - view.get("totalMinor").asLong())
                .isEqualTo(seals.get("nowMinor").asLong());
    }

    @Test
    void theEstimateOnPaperHoldsEveryLineTotalAndItsValidity() throws IOException {
        JsonNode made = make().get("newest");
        Words words = SERVER.bean(Words.class);

        byte[] pdf = ines.get("/api/jobs/%d/estimates/1/estimate.pdf".formatted(job))
                .ok()
                .bytes();
        String text;
        try (PDDocument document = Loader.loadPDF(pdf)) {
            text = new PDFTextStripper().getText(document).replaceAll("\\s+", " ");
        }

        long sum = 0;
        for (JsonNode line : made.get("lines")) {
            sum += line.get("likelyMinor").asLong();
            assertThat(text).contains(line.get("name").asString());
            assertThat(text).contains(words.money(line.get("likelyMinor").asLong(), "EUR"));
        }
        JsonNode sums = made.get("sums");
        assertThat(sum).isEqualTo(sums.get("netMinor").asLong());
        assertThat(sum + sums.get("taxMinor").asLong())
                .isEqualTo(sums.get("totalMinor").asLong());
        assertThat(sums.get("taxMinor").asLong()).isEqualTo(Math.round(sum * 0.2));
        for (String which : List.of("netMinor", "taxMinor", "totalMinor", "lowMinor", "highMinor")) {
            assertThat(text).as(which).contains(words.money(sums.get(which).asLong(), "EUR"));
        }
        assertThat(text)
                .contains("Valid until " + words.day(TODAY.plusDays(30)))
                .contains("What is uncovered", "Why it costs that much", "What waiting costs")
                .contains("Tamsin Orde");
    }

    private static String words(byte[] pdf) throws IOException {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return new PDFTextStripper().getText(document).replaceAll("\\s+", " ");
        }
    }

    @Test
    void whatIsLeftIsPrintedToBeSignedWithWhatWasToldAndCopiesAreNumbered() throws IOException {
        make();
        String paper = "/api/jobs/%d/estimates/1/decline.pdf".formatted(job);
        assertThat(ines.get(paper).errorAt("/lines")).contains("is left");
        assertThat(words(ines.get(paper + "?lines=pump&told=It%20may%20weep%20f%C3%BCr%20Jahre")
                        .ok()
                        .bytes()))
                .contains("Water pump", "It may weep für Jahre", "What waiting costs", "signature", "copy 1")
                .doesNotContain("Tensioner");
        say(1, "LEFT", "\"pump\"", "told at the counter", true).ok();
        assertThat(words(ines.get(paper).ok().bytes()))
                .contains("Water pump", "told at the counter", "copy 2", "Told by Ines Carrow");
        assertThat(ines.get(paper + "?lines=nothing").errorAt("/lines")).contains("is left");
        String estimate = "/api/jobs/%d/estimates/1/estimate.pdf".formatted(job);
        assertThat(words(ines.get(estimate).ok().bytes())).contains("copy 1", "Page 1 of ");
        assertThat(words(ines.get(estimate).ok().bytes())).contains("copy 2");
    }

    @Test
    void consentIsLineByLineAndALaterFindingOpensItsLinesOnly() {
        JsonNode made = make();
        List<String> asked = new ArrayList<>();
        made.get("newest").get("lines").forEach(l -> {
            if (l.get("asked").asBoolean()) {
                asked.add('"' + l.get("code").asString() + '"');
            }
        });
        assertThat(made.get("open").asInt()).isEqualTo(asked.size());

        JsonNode agreed =
                say(1, "AGREED", String.join(", ", asked), "", false).ok().json();
        assertThat(agreed.get("open").asInt()).isZero();
        JsonNode belt = line(agreed.get("newest"), "belt").get("said").get(0);
        assertThat(belt.get("saidBy").asString()).isEqualTo("Tamsin Orde");
        assertThat(belt.get("howWords").asString()).isEqualTo("phone");

        long vehicle = view().get("vehicleId").asLong();
        ines.post("/api/vehicles/%d/evidence".formatted(vehicle), """
                {"kind": "OIL_TOP", "found": "%s", "note": ""}""".formatted(TODAY))
                .ok();
        assertThat(line(view(), "camseal").get("rule").asString()).isEqualTo("REQUIRED");
        assertThat(estimates().get("newest").get("current").asBoolean()).isFalse();
        JsonNode second = make();
        assertThat(second.get("newest").get("number").asInt()).isEqualTo(2);
        assertThat(second.get("open").asInt()).isEqualTo(1);
        assertThat(state(second, "camseal")).isEqualTo("NOT_ASKED");
        assertThat(state(second, "belt")).isEqualTo("AGREED");
    }

    @Test
    void aLineThatIsLeftGoesOutWithTheWarningThatWasGiven() {
        scope("\"camseal\": {\"in\": true}", "").ok();
        make();

        assertThat(say(1, "LEFT", "\"camseal\"", "", false).errorAt("/warning")).contains("risk");
        JsonNode left = say(1, "LEFT", "\"camseal\"", "may weep onto the new belt", false)
                .ok()
                .json();

        assertThat(left.get("left").get(0).get("consent").get("warning").asString())
                .contains("weep");
        JsonNode seals = line(view(), "camseal");
        assertThat(seals.get("included").asBoolean()).isFalse();
        assertThat(seals.get("decision").get("reason").asString()).contains("Tamsin Orde", "phone");
    }

    @Test
    void leavingARequiredLineNeedsASignatureAndWithoutTheBeltThereIsNoJob() {
        make();
        assertThat(say(1, "LEFT", "\"pump\"", "it turns with the belt", false).errorAt("/signed"))
                .contains("signed decline", "refused");
        assertThat(say(1, "LEFT", "\"belt\"", "told", true).errorAt("/lines")).contains("no job", "given up");
        assertThat(line(view(), "pump").get("included").asBoolean()).isTrue();

        say(1, "LEFT", "\"pump\"", "it turns with the belt", true).ok();
        assertThat(line(view(), "pump").get("included").asBoolean()).isFalse();
        assertThat(line(view(), "coolant").get("included").asBoolean()).isFalse();
    }

    @Test
    void aYesAfterANoBringsTheLineBackAndTheStoryIsKept() {
        scope("\"camseal\": {\"in\": true}", "").ok();
        make();
        say(1, "LEFT", "\"camseal\"", "may weep", false).ok();
        assertThat(state(estimates(), "camseal")).isEqualTo("LEFT");

        JsonNode agreed = say(1, "AGREED", "\"camseal\"", "", false).ok().json();
        assertThat(line(view(), "camseal").get("included").asBoolean()).isTrue();
        assertThat(state(agreed, "camseal")).isEqualTo("AGREED");
        assertThat(agreed.get("left")).isEmpty();
        assertThat(line(agreed.get("newest"), "camseal").get("said"))
                .extracting(c -> c.get("answer").asString())
                .containsExactly("AGREED", "LEFT");

        // the desk puts back in what the owner left: that has to be asked about
        say(1, "LEFT", "\"camseal\"", "may weep", false).ok();
        scope("\"camseal\": {\"in\": true}", "").ok();
        assertThat(state(estimates(), "camseal")).isEqualTo("LEFT_YET_IN");
        assertThat(estimates().get("left")).isEmpty();
    }

    @Test
    void aRefusedJobIsNotedAndGivenUp() {
        make();
        assertThat(say(1, "AGREED", "\"belt\"", "", false, "Tamsin Orde", ", \"refused\": true")
                        .errorAt("/refused"))
                .contains("by a no");
        assertThat(say(1, "LEFT", "\"belt\"", "", false, "Tamsin Orde", ", \"refused\": true")
                        .errorAt("/warning"))
                .contains("risk");
        JsonNode refused = say(1, "LEFT", "\"belt\"", "it may bend valves", false, "Tamsin Orde", ", \"refused\": true")
                .ok()
                .json();

        assertThat(view().get("stage").asString()).isEqualTo("CANCELLED");
        assertThat(state(refused, "belt")).isEqualTo("LEFT");
        assertThat(refused.get("left").valueStream().map(l -> l.get("code").asString()))
                .contains("belt");
        assertThat(line(refused.get("newest"), "belt")
                        .get("said")
                        .get(0)
                        .get("warning")
                        .asString())
                .isEqualTo("it may bend valves");
        say(1, "AGREED", "\"belt\"", "", false).problem(409, "conflict");
    }

    @Test
    void whereTheOwnerNamedWhoMaySpeakAnotherIsAskedAboutOnce() {
        make();
        long vehicle = view().get("vehicleId").asLong();
        long owner = ines.get("/api/vehicles/%d/details".formatted(vehicle))
                .ok()
                .json()
                .get("ownerId")
                .asLong();
        JsonNode on = ines.get("/api/owners/" + owner).ok().json().get("owner");
        String body = """
                {"name": "%s", "kind": "PERSON", "prefers": "PHONE", "mayWrite": true, "phones": [],
                 "speakers": ["%s"], "version": %d}
                """;
        assertThat(ines.put(
                                "/api/owners/" + owner,
                                body.formatted(
                                        on.get("name").asString(),
                                        " ",
                                        on.get("version").asInt()))
                        .errorAt("/speakers"))
                .contains("name");
        ines.put(
                        "/api/owners/" + owner,
                        body.formatted(
                                on.get("name").asString(),
                                "Davy Orde",
                                on.get("version").asInt()))
                .ok();
        assertThat(estimates().get("speakers").toString()).contains("Davy Orde");

        Client.Answer stranger = say(1, "AGREED", "\"belt\"", "", false, "Petra Vann", "");
        assertThat(stranger.errorAt("/saidBy")).contains("Davy Orde");
        assertThat(stranger.json().get("suggestion").asString()).isEqualTo("insist");
        assertThat(state(estimates(), "belt")).isEqualTo("NOT_ASKED");
        say(1, "AGREED", "\"belt\"", "", false, "davy orde ", "").ok();
        say(1, "AGREED", "\"pump\"", "", false, "Petra Vann", ", \"insist\": true")
                .ok();
        assertThat(state(estimates(), "pump")).isEqualTo("AGREED");
    }

    @Test
    void wrongConsentsAreRefusedAndNothingIsKept() {
        make();
        assertThat(say(1, "AGREED", "", "", false).errorAt("/lines")).contains("at least one");
        assertThat(say(1, "AGREED", "\"wings\"", "", false).errorAt("/lines")).contains("no line wings");
        say(2, "AGREED", "\"belt\"", "", false).problem(404, "not-found");
        assertThat(estimates()
                        .get("newest")
                        .get("lines")
                        .valueStream()
                        .filter(l -> !l.get("said").isEmpty()))
                .isEmpty();
    }

    @Test
    void theBookMinimumReusesWithReasonAndInspection() {
        String minimum = "\"school\": \"BOOK_MINIMUM\",";
        assertThat(scope("\"pump\": {\"in\": false}", minimum).errorAt("/decisions/pump/reason"))
                .contains("reason");
        assertThat(scope("\"pump\": {\"in\": false, \"reason\": \"new last year\"}", minimum)
                        .errorAt("/decisions/pump/inspection"))
                .contains("inspection");
        JsonNode reused = scope(
                        "\"pump\": {\"in\": false, \"reason\": \"new last year\", \"inspection\": \"dry, no play\"}",
                        minimum)
                .ok()
                .json();
        assertThat(line(reused, "pump").get("included").asBoolean()).isFalse();
    }

    @Test
    void aPartialJobAndTheFrontHalfLeaveTheOtherClocksRunning() {
        JsonNode partial =
                ines.put("/api/jobs/%d/scope".formatted(job), """
                {"purpose": ["tensioner"], "decisions": {}, "parts": {}, "ownerSupplied": [], "variants": {},
                 "toolHireMinor": 0, "version": 1}""").ok().json();
        assertThat(partial.get("lines")
                        .valueStream()
                        .filter(l -> l.get("included").asBoolean()
                                && l.get("kind").asString().equals("ITEM"))
                        .map(l -> l.get("code").asString()))
                .containsExactly("tensioner");

        JsonNode half = scope("\"pumpfront\": {\"in\": true, \"reason\": \"original part at hand\"}", "")
                .ok()
                .json();
        assertThat(line(half, "pumpfront").get("included").asBoolean()).isTrue();
        assertThat(line(half, "pump").get("included").asBoolean()).isFalse();
        assertThat(scope("\"pumpfront\": {\"in\": true}", "").errorAt("/decisions/pumpfront/reason"))
                .contains("needs a reason");
    }

    @Test
    void ownersPartsCostNothingAndAreMarked() {
        long before = view().get("partsMinor").asLong();
        long pump = line(view(), "pump").get("partsMinor").asLong();
        JsonNode changed =
                ines.put("/api/jobs/%d/scope".formatted(job), """
                {"purpose": [], "decisions": {}, "parts": {}, "ownerSupplied": ["pump"], "variants": {},
                 "toolHireMinor": 2500, "version": 1}""").ok().json();

        assertThat(changed.get("partsMinor").asLong()).isEqualTo(before - pump);
        JsonNode made = make().get("newest");
        assertThat(line(made, "pump").get("ownerSupplied").asBoolean()).isTrue();
        assertThat(made.get("lines").valueStream().map(l -> l.get("kind").asString()))
                .contains("TOOL_HIRE");
    }

    @Test
    void whatIsNotThereIsRefusedBesideItsField() {
        assertThat(ines.put("/api/jobs/%d/scope".formatted(job), """
                {"purpose": ["wings"], "decisions": {}, "parts": {"pump": "KF-NONE"}, "ownerSupplied": [],
                 "variants": {"crankbolt": "m99"}, "toolHireMinor": -1, "keptUntil": "2020-01-01", "version": 1}""")
                        .problem(422, "invalid-input")
                        .get("errors"))
                .extracting(e -> e.get("pointer").asString())
                .containsExactlyInAnyOrder(
                        "/purpose", "/parts/pump", "/variants/crankbolt", "/toolHireMinor", "/keptUntil");
    }

    @Test
    void aJobThatIsNotSignedHasNoActualCost() {
        ines.put("/api/jobs/%d/actual".formatted(job), "{\"minutes\": 300, \"partsMinor\": 0, \"version\": 1}")
                .problem(409, "conflict");
    }
}
