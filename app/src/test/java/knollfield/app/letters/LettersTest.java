package knollfield.app.letters;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.InputStream;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** What is written to owners: shown before it goes, gone once, read back by others. */
class LettersTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    private static final AtomicInteger COUNTER = new AtomicInteger();
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final long PATIENCE_MILLIS = 20_000;

    private Client ines;

    @BeforeEach
    void aWorkshopThatCanBeReached() {
        ines = SERVER.as("ines");
        ObjectNode house = (ObjectNode) ines.get("/api/setup/house").ok().json();
        house.put("email", "desk@workshop.example").put("phone", "0555 900").put("outsideAddress", SERVER.address());
        ines.put("/api/setup/house", house.toString()).ok();
        mailServer("", 587);
    }

    private void mailServer(String host, int port) {
        JsonNode now = ines.get("/api/setup/mail-server").ok().json();
        ines.put("/api/setup/mail-server", """
                        {"host": "%s", "port": %d, "security": "NONE", "userName": "", "sender": "", "version": %d}
                        """.formatted(
                                host, port, now.get("version").asInt()))
                .ok();
    }

    /** An owner of one vehicle whose belt is due by age. */
    private record Owned(long owner, long vehicle, String registration, String name) {}

    private Owned owned(String name, String prefers, String language) {
        Given.family(SERVER);
        int n = COUNTER.incrementAndGet();
        String registration = "LET %d B".formatted(n);
        ines.csv("/api/imports", """
                        registration,make_model,engine_family,owner,phone,usage,first_registered
                        %s,Test vehicle,CAL-16,%s,0555 7%02d,private,%s
                        """.formatted(registration, name, n, TODAY.minusYears(9)))
                .ok();
        long vehicle = Given.find(ines, registration);
        Given.reading(ines, vehicle, TODAY.minusDays(40), "90000", "KM").ok();
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, vehicle, item, TODAY.minusMonths(71), 60_000, false)
                    .ok();
        }
        long owner = SERVER.jdbc()
                .sql("SELECT owner_id FROM vehicle WHERE id = :id")
                .param("id", vehicle)
                .query(Long.class)
                .single();
        ObjectNode o = (ObjectNode) ines.get("/api/owners/" + owner).ok().json().get("owner");
        o.put("email", "owner%d@home.example".formatted(n))
                .put("address", "Harbour Row %d\nSkerrow".formatted(n))
                .put("prefers", prefers)
                .put("language", language);
        ines.put("/api/owners/" + owner, o.toString()).ok();
        return new Owned(owner, vehicle, registration, name);
    }

    private JsonNode batch() {
        return ines.get("/api/letters/reminders").ok().json();
    }

    private static Optional<JsonNode> letter(JsonNode batch, Owned o) {
        return batch.get("letters")
                .valueStream()
                .filter(l -> l.get("ownerId").asLong() == o.owner())
                .findFirst();
    }

    private Client.Answer send(Owned o, String channel) {
        return ines.post("/api/letters/reminders", """
                {"letters": [{"ownerId": %d, "channel": "%s", "vehicles": [%d]}]}
                """.formatted(o.owner(), channel, o.vehicle()));
    }

    private List<JsonNode> messages(Owned o) {
        JsonNode outbox = ines.get("/api/outbox").ok().json();
        return Stream.concat(
                        outbox.get("open").valueStream(), outbox.get("ended").valueStream())
                .filter(m -> m.get("toName").asString().equals(o.name()))
                .toList();
    }

    private JsonNode message(Owned o) {
        List<JsonNode> all = messages(o);
        assertThat(all).hasSize(1);
        return all.get(0);
    }

    private JsonNode settled(Owned o, String state) throws InterruptedException {
        long until = System.currentTimeMillis() + PATIENCE_MILLIS;
        while (!message(o).get("state").asString().equals(state)) {
            assertThat(System.currentTimeMillis()).as(message(o).toString()).isLessThan(until);
            Thread.sleep(100);
        }
        return message(o);
    }

    private Path file(String name, JsonNode message) {
        String folder = ines.get("/api/outbox").ok().json().get("folder").asString();
        return Path.of(folder, name.formatted(message.get("id").asLong()));
    }

    private static MimeMessage read(Path file) throws Exception {
        try (InputStream in = Files.newInputStream(file)) {
            return new MimeMessage(Session.getInstance(new Properties()), in);
        }
    }

    @Test
    void aReminderIsShownBeforeItGoesAndGoesOnce() throws Exception {
        Owned o = owned("Åse Bø", "EMAIL", "");
        JsonNode shown = letter(batch(), o).orElseThrow();
        assertThat(shown.get("suggested").asString()).isEqualTo("EMAIL");
        assertThat(shown.get("lines").get(0).get("why").asString()).contains("act by", "first reminder");
        JsonNode preview = ines.get("/api/letters/reminders/" + o.owner()).ok().json();
        assertThat(preview.get("body").asString()).contains("Dear Åse Bø", o.registration(), "0555 900");

        ines.post("/api/letters/reminders", """
                        {"letters": [{"ownerId": %d, "channel": "EMAIL", "vehicles": [%d, 999999]}]}
                        """.formatted(o.owner(), o.vehicle()))
                .problem(409, "conflict");
        assertThat(messages(o)).as("not as it was shown").isEmpty();
        send(o, "EMAIL").ok();
        assertThat(letter(batch(), o)).isEmpty();
        assertThat(batch().get("kept")
                        .valueStream()
                        .filter(k -> k.get("vehicleId").asLong() == o.vehicle())
                        .findFirst()
                        .orElseThrow()
                        .get("whyWords")
                        .asString())
                .isEqualTo("written to lately");
        send(o, "EMAIL").problem(409, "conflict");

        JsonNode gone = settled(o, "SENT");
        assertThat(gone.get("stateWords").asString()).isEqualTo("written as a file");
        MimeMessage mail = read(file("mail-%06d.eml", gone));
        assertThat(mail.getSubject()).isEqualTo("Your timing belt or chain");
        assertThat(((InternetAddress) mail.getAllRecipients()[0]).getPersonal()).isEqualTo("Åse Bø");
        assertThat(((InternetAddress) mail.getFrom()[0]).getAddress()).isEqualTo("desk@workshop.example");
        assertThat(mail.getSentDate()).isNotNull();
        assertThat(mail.getMessageID()).contains("knollfield-");
        assertThat(mail.getContent().toString().replace("\r\n", "\n"))
                .isEqualTo(preview.get("body").asString());
        assertThat(ines.get("/api/vehicles/%d".formatted(o.vehicle())).ok().text())
                .contains("reminder by e-mail written", "reminder by e-mail gone");
    }

    @Test
    void whereNoRenewalIsOnFileTheLetterSaysSo() {
        long vehicle = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, vehicle, TODAY.minusDays(40), "170000", "KM").ok();
        long owner = SERVER.jdbc()
                .sql("SELECT owner_id FROM vehicle WHERE id = :id")
                .param("id", vehicle)
                .query(Long.class)
                .single();
        assertThat(ines.get("/api/letters/reminders/" + owner)
                        .ok()
                        .json()
                        .get("body")
                        .asString())
                .contains(": we have no record of its last renewal");
    }

    @Test
    void ofTwoWhoSendTheSameOneDoes() {
        Owned o = owned("Bettrys Coom", "LETTER", "");
        List<Integer> statuses = Stream.of(0, 1, 2, 3)
                .map(i -> CompletableFuture.supplyAsync(() -> {
                    Client own = SERVER.as("ines");
                    return own.post("/api/letters/reminders", """
                                    {"letters": [{"ownerId": %d, "channel": "LETTER", "vehicles": [%d]}]}
                                    """.formatted(o.owner(), o.vehicle()))
                            .status();
                }))
                .toList()
                .stream()
                .map(CompletableFuture::join)
                .sorted()
                .toList();
        assertThat(statuses).containsExactly(200, 409, 409, 409);
        assertThat(messages(o)).hasSize(1);
    }

    @Test
    void whoIsRungOrDoesNotWantToBeWrittenToIsNot() {
        Owned rung = owned("Corin Pell", "PHONE", "");
        assertThat(letter(batch(), rung).orElseThrow().get("suggested")).isNull();
        Owned unwilling = owned("Demelza Roe", "EMAIL", "");
        ObjectNode o = (ObjectNode)
                ines.get("/api/owners/" + unwilling.owner()).ok().json().get("owner");
        ines.put("/api/owners/" + unwilling.owner(), o.put("mayWrite", false).toString())
                .ok();
        assertThat(letter(batch(), unwilling)).isEmpty();
        send(unwilling, "EMAIL").problem(409, "conflict");
        Owned busy = owned("Eseld Vane", "EMAIL", "");
        ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(busy.vehicle())).ok();
        assertThat(letter(batch(), busy)).isEmpty();
        assertThat(ines.post("/api/letters/reminders", """
                                {"letters": [{"ownerId": %d, "vehicles": [%d]}]}
                                """.formatted(rung.owner(), rung.vehicle()))
                        .errorAt("/letters/0/channel"))
                .contains("By e-mail");
        assertThat(ines.post("/api/letters/reminders", "{\"letters\": []}").errorAt("/letters"))
                .contains("at least one");
    }

    @Test
    void aServerTakesItOnceAndWhatItRefusesIsTriedAgainAndThenShown() throws Exception {
        GreenMail mail = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
        mail.start();
        try {
            mailServer("127.0.0.1", mail.getSmtp().getPort());
            ines.post("/api/setup/mail-server/test", "{\"to\": \"me@home.example\"}")
                    .ok();
            assertThat(mail.waitForIncomingEmail(1)).isTrue();
            Owned o = owned("Ǧeorgios Παπάς", "EMAIL", "");
            send(o, "EMAIL").ok();
            settled(o, "SENT");
            assertThat(mail.waitForIncomingEmail(2)).isTrue();
            MimeMessage received = mail.getReceivedMessages()[1];
            assertThat(received.getContent().toString()).contains("Dear Ǧeorgios Παπάς", o.registration());
            Thread.sleep(3_000);
            assertThat(mail.getReceivedMessages()).hasSize(2);
        } finally {
            mail.stop();
        }
        Owned late = owned("Hedra Quill", "EMAIL", "");
        send(late, "EMAIL").ok();
        long until = System.currentTimeMillis() + PATIENCE_MILLIS;
        while (message(late).get("failure").asString().isEmpty()) {
            assertThat(System.currentTimeMillis()).isLessThan(until);
            Thread.sleep(100);
        }
        assertThat(message(late).get("state").asString()).isEqualTo("WAITING");
        assertThat(message(late).get("failure").asString()).contains("is not reached");
        assertThat(ines.post("/api/setup/mail-server/test", "{\"to\": \"me@home.example\"}")
                        .errorAt("/host"))
                .contains("is not reached");
        long id = message(late).get("id").asLong();
        ines.post("/api/outbox/%d/take-back".formatted(id), "{}").ok();
        ines.post("/api/outbox/%d/take-back".formatted(id), "{}").problem(409, "conflict");
        assertThat(letter(batch(), late)).as("taken back, it was never written").isPresent();
    }

    @Test
    void lettersAreReadBackInEveryScript() throws Exception {
        JsonNode texts = ines.get("/api/setup/letters").ok().json();
        assertThat(texts.get("texts")).hasSize(LetterText.values().length);
        String words = "Αγαπητέ {owner},\\n\\n{vehicles}\\n\\nУважаемый {owner}, Łódź, İzmir. {workshop}";
        ines.put("/api/setup/letters/texts/REMINDER", """
                        {"language": "el", "subject": "Ιμάντας χρονισμού", "body": "%s", "version": 0}
                        """.formatted(words)).ok();
        ines.put("/api/setup/letters/texts/REMINDER_AHEAD", """
                        {"language": "el", "subject": "", "body": "{registration}: έως {day}", "version": 0}
                        """).ok();
        Owned o = owned("Ἰωάννης Ђурђевак", "LETTER", "el-GR");
        send(o, "LETTER").ok();
        JsonNode m = message(o);
        assertThat(m.get("stateWords").asString()).isEqualTo("to print");
        byte[] pdf = ines.post(
                        "/api/outbox/print",
                        "{\"letters\": [%d]}".formatted(m.get("id").asLong()))
                .ok()
                .bytes();
        LocalDate actBy = LocalDate.parse(batch().get("kept")
                .valueStream()
                .filter(k -> k.get("vehicleId").asLong() == o.vehicle())
                .findFirst()
                .orElseThrow()
                .get("actBy")
                .asString());
        try (PDDocument document = Loader.loadPDF(pdf)) {
            assertThat(new PDFTextStripper().getText(document).replace("\n", " "))
                    .contains(
                            "Ιμάντας χρονισμού",
                            "Αγαπητέ Ἰωάννης Ђурђевак",
                            "Уважаемый",
                            "Łódź, İzmir",
                            o.registration() + ": έως " + actBy.getDayOfMonth(),
                            "Harbour Row",
                            "Page 1 of 1")
                    .doesNotContain("type has not");
        }
        assertThat(message(o).get("stateWords").asString()).isEqualTo("printed");
    }

    @Test
    void wordsAreCheckedBesideTheirField() {
        String put = "/api/setup/letters/texts/REMINDER";
        String body = "{\"language\": \"%s\", \"subject\": \"%s\", \"body\": \"%s\", \"version\": 0}";
        assertThat(ines.put(put, body.formatted("fr", "Sujet", "{vehicules}")).errorAt("/body"))
                .contains("{vehicules} is no field here", "{vehicles}");
        assertThat(ines.put(put, body.formatted("fr", "Sujet", "Bonjour {owner}"))
                        .errorAt("/body"))
                .contains("{vehicles} must stand in it");
        assertThat(ines.put(put, body.formatted("fr", "", "{vehicles}")).errorAt("/subject"))
                .contains("missing");
        assertThat(ines.put(put, body.formatted("fr", "S", "{vehicles} {")).errorAt("/body"))
                .contains("alone");
        assertThat(ines.put(put, body.formatted("no such tag", "S", "{vehicles}"))
                        .errorAt("/language"))
                .contains("no language");
        ines.put("/api/setup/letters/texts/NOTHING", body.formatted("fr", "S", "x"))
                .problem(404, "not-found");
        ines.put(put, body.formatted("fr", "Sujet", "{vehicles}")).ok();
        ines.put(put, body.formatted("fr", "Sujet", "{vehicles}!")).problem(409, "conflict");
        ines.delete(put + "?language=fr&version=1").ok();
        ines.delete(put + "?language=fr&version=1").problem(409, "conflict");

        assertThat(ines.put(
                                "/api/setup/letters/rule",
                                "{\"weeksBefore\": 99, \"weeksBetween\": 0, \"most\": 3, \"version\": 1}")
                        .errorAt("/weeksBetween"))
                .contains("1 to 52");
    }

    @Test
    void anEstimateGoesWithItsPrivatePageAndNoListHoldsItsAddress() throws Exception {
        Owned o = owned("Ines Kerrow", "EMAIL", "");
        long job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(o.vehicle()))
                .ok()
                .json()
                .get("id")
                .asLong();
        String page = "/api/jobs/%d/private-page".formatted(job);
        assertThat(ines.post(page + "/message", "{\"channel\": \"EMAIL\"}").errorAt("/estimate"))
                .contains("first");
        ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok();
        assertThat(ines.get(page).ok().json().get("ways")).hasSize(3);
        ines.post(page + "/message", "{\"channel\": \"EMAIL\"}").ok();
        JsonNode gone = settled(o, "SENT");
        assertThat(gone.get("body").asString()).contains("{private page}");
        String body = read(file("mail-%06d.eml", gone)).getContent().toString();
        Matcher address = Pattern.compile(Pattern.quote(SERVER.address()) + "/answer/\\S+")
                .matcher(body);
        assertThat(address.find()).isTrue();
        HttpResponse<String> opened = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(java.net.URI.create(address.group()))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        assertThat(opened.statusCode()).isEqualTo(200);
        assertThat(opened.body()).contains(o.registration());
        String secret = address.group().substring(address.group().lastIndexOf('/') + 1);
        assertThat(ines.get("/api/outbox").ok().text()).doesNotContain(secret);
        assertThat(SERVER.jdbc()
                        .sql("SELECT * FROM outbox_message")
                        .query()
                        .listOfRows()
                        .toString())
                .doesNotContain(secret);
    }

    @Test
    void aPasswordIsKeptForItsServerAndNeverReadOut() {
        JsonNode now = ines.get("/api/setup/mail-server").ok().json();
        String body = """
                {"host": "%s", "port": 587, "security": "STARTTLS", "userName": "desk", %s "sender": "", "version": %d}
                """;
        int v = now.get("version").asInt();
        JsonNode kept = ines.put(
                        "/api/setup/mail-server", body.formatted("mail.example", "\"password\": \"secret-word\",", v))
                .ok()
                .json();
        assertThat(kept.get("hasPassword").asBoolean()).isTrue();
        assertThat(JSON.writeValueAsString(kept)).doesNotContain("secret-word");
        assertThat(ines.put("/api/setup/mail-server", body.formatted("mail.example", "", v + 1))
                        .ok()
                        .json()
                        .get("hasPassword")
                        .asBoolean())
                .isTrue();
        ines.put("/api/setup/mail-server", body.formatted("mail.example", "", v + 1))
                .problem(409, "conflict");
        assertThat(ines.put("/api/setup/mail-server", body.formatted("elsewhere.example", "", v + 2))
                        .ok()
                        .json()
                        .get("hasPassword")
                        .asBoolean())
                .as("another server does not get it")
                .isFalse();
        assertThat(ines.put("/api/setup/mail-server", """
                                {"host": "a b", "port": 0, "security": "NONE", "userName": "", "sender": "x", "version": 9}
                                """).errorAt("/sender")).contains("an @");
    }

    @Test
    void afterTheDriveIsRenewedTheCountBeginsAnew() {
        Owned o = owned("Kerensa Lobb", "LETTER", "");
        send(o, "LETTER").ok();
        JdbcClient jdbc = SERVER.jdbc();
        jdbc.sql("UPDATE outbox_message SET made_at = DATEADD(DAY, -22, made_at) WHERE to_name = 'Kerensa Lobb'")
                .update();
        assertThat(letter(batch(), o)
                        .orElseThrow()
                        .get("lines")
                        .get(0)
                        .get("why")
                        .asString())
                .contains("second reminder, the last went on");
        jdbc.sql("UPDATE outbox_message SET made_at = DATEADD(YEAR, -6, made_at) WHERE to_name = 'Kerensa Lobb'")
                .update();
        assertThat(letter(batch(), o)
                        .orElseThrow()
                        .get("lines")
                        .get(0)
                        .get("why")
                        .asString())
                .as("what was written before the last renewal was about another one")
                .contains("first reminder");
    }

    @Test
    void aLetterIsPrintedAgainAsAnotherCopyAndNothingElseIs() throws Exception {
        Owned o = owned("Loveday Penn", "LETTER", "");
        send(o, "LETTER").ok();
        long id = message(o).get("id").asLong();
        String print = "{\"letters\": [%d]}".formatted(id);
        for (int copy = 1; copy <= 2; copy++) {
            try (PDDocument document =
                    Loader.loadPDF(ines.post("/api/outbox/print", print).ok().bytes())) {
                assertThat(new PDFTextStripper().getText(document)).contains("copy " + copy);
            }
        }
        assertThat(ines.get("/api/vehicles/%d".formatted(o.vehicle())).ok().text())
                .contains("reminder by letter printed", "printed again");
        ines.post("/api/outbox/%d/take-back".formatted(id), "{}").problem(409, "conflict");
        Owned mailed = owned("Massen Gell", "EMAIL", "");
        send(mailed, "EMAIL").ok();
        ines.post(
                        "/api/outbox/print",
                        "{\"letters\": [%d]}"
                                .formatted(message(mailed).get("id").asLong()))
                .problem(404, "not-found");
        assertThat(ines.post("/api/outbox/print", "{\"letters\": []}").errorAt("/letters"))
                .contains("at least one");
    }

    @Test
    void aWorkshopNobodyCanReachWritesToNobody() {
        Owned o = owned("Nessa Orchard", "LETTER", "");
        ObjectNode house = (ObjectNode) ines.get("/api/setup/house").ok().json();
        ines.put("/api/setup/house", house.put("email", "").put("phone", "").toString())
                .ok();
        assertThat(send(o, "LETTER").errorAt("/channel")).contains("how the workshop is reached");
        assertThat(messages(o)).isEmpty();
    }

    @Test
    void whoMayNotSendSeesNothingOfIt() {
        knollfield.app.job.Workbench.technician(ines, "hobb", "Hobb Trewin", "BELT");
        Client hobb = SERVER.as("hobb");
        for (String path : List.of(
                "/api/letters/reminders",
                "/api/outbox",
                "/api/outbox/counts",
                "/api/setup/letters",
                "/api/setup/mail-server",
                "/api/setup/reading-feeds",
                "/api/silent-feeds")) {
            hobb.get(path).problem(403, "not-allowed");
            assertThat(SERVER.stranger().get(path).status()).as(path).isEqualTo(401);
        }
    }
}
