package knollfield.app.job.card;

import static knollfield.app.job.Workbench.card;
import static knollfield.app.job.Workbench.enter;
import static knollfield.app.job.Workbench.step;
import static knollfield.app.job.Workbench.steps;
import static knollfield.app.job.Workbench.workUntil;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.Workbench;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Cards worked out from the book, over HTTP: proven before they are handed out, kept as they were begun and signed. */
class KeptCardTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static LocalDate nextDay = Given.TODAY.plusDays(7);
    private static boolean second = true;

    private Client ines;
    private Client wenna;
    private long technician;
    private long other;

    @BeforeEach
    void people() {
        ines = SERVER.as("ines");
        technician = Workbench.technician(ines, "wenna", "Wenna Tressick", "BELT", "CHAIN", "BELT_IN_OIL");
        other = Workbench.technician(ines, "tegen", "Tegen Loy", "BELT", "CHAIN", "BELT_IN_OIL");
        wenna = SERVER.as("wenna");
    }

    /** Days of its own for every two jobs of this server, which stand in two bays. */
    private static synchronized LocalDate ownDay() {
        second = !second;
        if (second) {
            return nextDay;
        }
        // a long job stands for days
        do {
            nextDay = nextDay.plusDays(3);
        } while (nextDay.getDayOfWeek().getValue() > DayOfWeek.WEDNESDAY.getValue());
        return nextDay;
    }

    /** A bay that no other test of this server books. */
    private static long ownBay() {
        String name = second ? "Far bay, back" : "Far bay";
        JdbcClient jdbc = SERVER.jdbc();
        if (jdbc.sql("SELECT COUNT(*) FROM bay WHERE name = :name")
                        .param("name", name)
                        .query(Long.class)
                        .single()
                == 0) {
            jdbc.sql("INSERT INTO bay (name, note, lift_class) VALUES (:name, 'two posts', 2)")
                    .param("name", name)
                    .update();
        }
        return jdbc.sql("SELECT id FROM bay WHERE name = :name")
                .param("name", name)
                .query(Long.class)
                .single();
    }

    private long promised(String family, String purpose) {
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
        LocalDate day = ownDay();
        ines.put("/api/jobs/%d/booking".formatted(job), """
                        {"day": "%s", "technicianId": %d, "bayId": %d, "time": "08:00", "version": %d}
                        """.formatted(
                                day, second ? other : technician, ownBay(), version))
                .ok();
        return job;
    }

    private Client.Answer checkIn(long job) {
        return enter(
                wenna,
                job,
                "\"type\": \"START\", \"odometer\": 171000, \"odometerUnit\": \"KM\", \"keys\": \"\", \"codes\": \"\", "
                        + "\"words\": \"\"");
    }

    private long atTheBench(String family, String purpose) {
        long job = promised(family, purpose);
        checkIn(job).ok();
        return job;
    }

    @ParameterizedTest
    @ValueSource(strings = {"DRE-20D", "MER-10", "ZEL-32V", "CAR-40V"})
    void aCardIsWorkedToItsSignatureAndEveryStepSaysWhyItStandsThere(String family) {
        long job = atTheBench(family, "");
        JsonNode card = card(wenna, job);
        assertThat(steps(card).filter(s -> s.has("why"))).hasSizeGreaterThan(10);
        assertThat(steps(card).filter(s -> s.get("mayBeDoneNow").asBoolean())).isNotEmpty();
        workUntil(wenna, job, null);
        enter(wenna, job, "\"type\": \"COMPLETE\", \"words\": \"quiet\", \"oldParts\": \"KEPT\"")
                .ok();
        JsonNode record = ines.get("/api/jobs/%d/record".formatted(job)).ok().json();
        assertThat(record.get("sections").valueStream().map(s -> s.get("title").asString()))
                .contains("Renewed, left, moved over", "Timing", "Joints");
    }

    @Test
    void eachBankIsHandledAtItsOwnCrankPosition() {
        long job = atTheBench("ZEL-32V", "");
        JsonNode card = card(wenna, job);
        List<String> codes = steps(card).map(s -> s.get("code").asString()).toList();
        assertThat(codes).containsSubsequence("bring:a", "bring:b", "lay:b", "bring:a:2", "lay:a", "turn:engine.1");
        assertThat(step(card, "bring:b").get("notes").toString()).contains("600° on");
        assertThat(step(card, "bring:a:2").get("notes").toString()).contains("120° on");
    }

    @Test
    void aTurnIsRefusedWhileAPinIsNotCountedOut() {
        long job = atTheBench("DRE-20D", "");
        JsonNode card = card(wenna, job);
        String out = steps(card)
                .filter(s -> s.path("gate").asString("").equals("PINS_OUT"))
                .findFirst()
                .orElseThrow()
                .get("code")
                .asString();
        workUntil(wenna, job, out);
        enter(wenna, job, "\"type\": \"CHECK\", \"step\": \"%s\", \"wrong\": [\"cam pin\"]".formatted(out))
                .ok();
        assertThat(enter(wenna, job, "\"type\": \"TURN\", \"step\": \"turn:engine.1\"")
                        .problem(422, "gate-shut")
                        .get("detail")
                        .asString())
                .contains("cam pin");
        enter(ines, job, "\"type\": \"OVERRIDE\", \"gate\": \"PINS_OUT\", \"words\": \"seen\"")
                .problem(403, "not-allowed-on-card");
    }

    @Test
    void aCardThatWasBegunKeepsItsPlan() {
        long job = atTheBench("DRE-20D", "");
        JdbcClient jdbc = SERVER.jdbc();
        // as if today's code laid another card: what was kept is what is worked
        assertThat(jdbc.sql("""
                        UPDATE card_plan SET body = REPLACE(body, 'Battery earth off', 'Battery earth off, as begun')
                        WHERE job_id = :job AND seq = 1
                        """).param("job", job).update()).isEqualTo(1);
        assertThat(step(card(wenna, job), "safe:battery").get("title").asString())
                .isEqualTo("Battery earth off, as begun");
        workUntil(wenna, job, null);
        enter(wenna, job, "\"type\": \"COMPLETE\", \"words\": \"quiet\", \"oldParts\": \"KEPT\"")
                .ok();
        assertThat(jdbc.sql("SELECT layout FROM card_plan WHERE job_id = :job")
                        .param("job", job)
                        .query(Integer.class)
                        .list())
                .containsOnly(3);
    }

    @Test
    void whatWasFoundOutOfTimeKeepsThePlanLaidThen() {
        long job = atTheBench("PEL-14", "");
        String finding = steps(card(wenna, job))
                .filter(s -> s.path("gate").asString("").equals("REFERENCE_FOUND"))
                .findFirst()
                .orElseThrow()
                .get("code")
                .asString();
        workUntil(wenna, job, finding);
        enter(wenna, job, "\"type\": \"OUT_OF_TIME\", \"words\": \"head was off\", \"planned\": true")
                .ok();
        assertThat(card(wenna, job).get("outOfTimePlanned").asBoolean()).isTrue();
        JdbcClient jdbc = SERVER.jdbc();
        assertThat(jdbc.sql("SELECT COUNT(*) FROM card_plan WHERE job_id = :job")
                        .param("job", job)
                        .query(Integer.class)
                        .single())
                .isEqualTo(2);
        List<String> codes =
                steps(card(wenna, job)).map(s -> s.get("code").asString()).toList();
        assertThat(codes).containsSubsequence("loop-off:belt", "safepos", "marksin", "lay:belt", "turn:engine.1");
        workUntil(wenna, job, null);
        enter(wenna, job, "\"type\": \"COMPLETE\", \"words\": \"quiet\", \"oldParts\": \"KEPT\"")
                .ok();
        assertThat(ines.get("/api/jobs/%d/record".formatted(job)).ok().text())
                .contains("Head or cams were out")
                .doesNotContain("Found out of time");
    }

    @Test
    void aSignedRecordStaysAsItWasSigned() {
        long job = atTheBench("PEL-14", "");
        long vehicle = ines.get("/api/jobs/" + job).json().get("vehicleId").asLong();
        workUntil(wenna, job, null);
        enter(wenna, job, "\"type\": \"COMPLETE\", \"words\": \"quiet\", \"oldParts\": \"KEPT\"")
                .ok();
        String signed =
                ines.get("/api/jobs/%d/record".formatted(job)).ok().json().toString();
        JdbcClient jdbc = SERVER.jdbc();
        jdbc.sql("UPDATE vehicle SET owner_id = NULL, registration = 'NEW 1' WHERE id = :id")
                .param("id", vehicle)
                .update();
        assertThat(ines.get("/api/jobs/%d/record".formatted(job)).ok().json().toString())
                .isEqualTo(signed);
        jdbc.sql("UPDATE job_record SET body = REPLACE(body, 'renewed', 'looked at') WHERE job_id = :job")
                .param("job", job)
                .update();
        assertThat(ines.get("/api/jobs/%d/record".formatted(job))
                        .problem(409, "conflict")
                        .get("detail")
                        .asString())
                .contains("hash does not fit");
    }

    @Test
    void aCardThatIsNotProvenIsNotHandedOutAndNamesLawAndPlace() {
        long job = promised("NAN-20", "");
        JsonNode problem = checkIn(job).problem(409, "card-not-proven");
        assertThat(problem.get("detail").asString()).contains("does not say what renewing timing chain takes");
        assertThat(problem.get("errors").get(0).get("detail").asString()).contains("law 2");
        JsonNode proof = ines.get("/api/engines/NAN-20/proof").ok().json();
        assertThat(proof.get("purposes")
                        .get(0)
                        .get("breaches")
                        .get(0)
                        .get("pointer")
                        .asString())
                .isEqualTo("/build/renews");
    }

    @Test
    void everyBookOfTheDemoIsProvenAsOneLooks() {
        Given.family(SERVER);
        Set<String> unproven = new HashSet<>();
        for (String code : List.of(
                "PEL-14", "DRE-20D", "QUE-30V", "DRE-16D", "TRE-25V", "MER-10", "GOS-18", "ZEL-32V", "CAL-16",
                "CAL-20D", "OST-20", "OST-24V", "LAM-27V", "TAV-19D", "BRE-14", "HOL-12", "HOL-16", "WIN-15", "SOR-22",
                "KES-18")) {
            JsonNode proof =
                    ines.get("/api/engines/%s/proof".formatted(code)).ok().json();
            proof.get("purposes")
                    .valueStream()
                    .filter(p -> !p.get("proven").asBoolean())
                    .forEach(p -> unproven.add(code + " " + p.get("name").asString()));
        }
        assertThat(unproven).isEmpty();
    }

    @Test
    void aCorrectedBookIsSaidOnCardsUnderWayAndSendsSignedOnesToBeLookedAt() {
        copy("GOS-18", "GOS-19");
        long signed = atTheBench("GOS-19", "");
        workUntil(wenna, signed, null);
        enter(wenna, signed, "\"type\": \"COMPLETE\", \"words\": \"quiet\", \"oldParts\": \"KEPT\"")
                .ok();
        long underWay = atTheBench("GOS-19", "");
        String record = wenna.get("/api/jobs/%d/record".formatted(signed)).ok().text();
        assertThat(card(wenna, underWay).get("corrections")).isEmpty();

        tensionerTorque("GOS-19", 80);

        assertThat(card(wenna, underWay)
                        .get("corrections")
                        .valueStream()
                        .map(c -> c.get("words").asString()))
                .singleElement()
                .asString()
                .contains("75 N·m on this card, 80 N·m in the book now");
        assertThat(card(wenna, signed).get("corrections")).isEmpty();
        long vehicle =
                ines.get("/api/jobs/" + signed).ok().json().get("vehicleId").asLong();
        assertThat(followUps(vehicle)).singleElement().asString().contains("Book corrected", "80 N·m in the book now");
        assertThat(wenna.get("/api/jobs/%d/record".formatted(signed)).ok().text())
                .isEqualTo(record);

        // another correction does not send it once more
        note("GOS-19", "a name");
        assertThat(followUps(vehicle)).hasSize(1);
    }

    /** A family that no other test of this server reads. */
    private void copy(String family, String code) {
        Given.family(SERVER);
        ObjectNode document = (ObjectNode)
                ines.get("/api/engines/" + family + "/document").ok().json();
        ((ObjectNode) document.get("family")).put("code", code);
        ines.text("/api/engines/documents?preview=false", document.toString()).ok();
    }

    private List<String> followUps(long vehicle) {
        return ines.get("/api/vehicles/%d/aftercare".formatted(vehicle))
                .ok()
                .json()
                .get("followUps")
                .valueStream()
                .map(f -> f.get("what").asString())
                .toList();
    }

    private void tensionerTorque(String family, double newtonMetres) {
        change(
                family,
                book -> book.get("build")
                        .get("joints")
                        .valueStream()
                        .filter(j -> j.get("code").asString().equals("tens"))
                        .forEach(j ->
                                ((ObjectNode) j.get("stages").get(0).get("torque")).put("newtonMetres", newtonMetres)));
    }

    private void note(String family, String name) {
        change(family, book -> book.put("name", name));
    }

    private void change(String family, java.util.function.Consumer<ObjectNode> change) {
        JsonNode now = ines.get("/api/engines/" + family).ok().json();
        ObjectNode book = (ObjectNode) now.get("family");
        change.accept(book);
        ObjectNode body = book.objectNode();
        body.set("family", book);
        body.put("version", now.get("newest").asInt());
        body.put("note", "corrected");
        ines.put("/api/engines/" + family, body.toString()).ok();
    }
}
