package knollfield.app.importing;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.net.URLEncoder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;

/** Lists as garages have them go in without editing the file, each value as it was meant, and can be taken back. */
class GarageFilesTest {

    private static final Charset WESTERN = Charset.forName("windows-1252");

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;
    private String a;
    private String b;

    @BeforeEach
    void theManager() {
        ines = SERVER.as("ines");
        Given.family(SERVER);
        a = Given.registration();
        b = Given.registration();
    }

    private JsonNode preview(byte[] file, String as) {
        return ines.csv("/api/imports/preview" + query(as), file).ok().json();
    }

    private JsonNode take(byte[] file, String as) {
        return ines.csv("/api/imports" + query(as), file).ok().json();
    }

    private static String query(String as) {
        return as.isEmpty() ? "" : "?as=" + URLEncoder.encode(as, StandardCharsets.UTF_8);
    }

    private JsonNode vehicle(String registration) {
        return ines.get("/api/vehicles/" + Given.find(ines, registration)).ok().json();
    }

    private static List<Integer> kilometres(JsonNode vehicle) {
        return vehicle.get("readings")
                .valueStream()
                .map(r -> r.get("km").asInt())
                .toList();
    }

    /** A row with its pictures as what they hold. */
    private static String words(Map<String, Object> row) {
        Map<String, Object> plain = new TreeMap<>(row);
        plain.replaceAll((column, value) -> value instanceof byte[] bytes ? Arrays.hashCode(bytes) : value);
        return plain.toString();
    }

    /** Every row of every table but those that tell of imports. */
    private static Map<String, List<String>> database() {
        JdbcClient jdbc = SERVER.jdbc();
        Map<String, List<String>> all = new TreeMap<>();
        jdbc
                .sql("SELECT table_name FROM information_schema.tables WHERE table_schema = 'PUBLIC'")
                .query(String.class)
                .list()
                .stream()
                .filter(t -> !t.startsWith("IMPORT_") && !t.contains("SESSION"))
                .forEach(t -> all.put(
                        t,
                        jdbc.sql("SELECT * FROM \"%s\"".formatted(t)).query().listOfRows().stream()
                                .map(GarageFilesTest::words)
                                .sorted()
                                .toList()));
        return all;
    }

    /** Common practice, no source: what office programs write in countries of the decimal comma. */
    private byte[] semicolons() {
        return """
               Fahrzeugliste Stand November;;;;;;;;
               Kennzeichen;Marke;Modell;Halter;Telefon;Erstzulassung;km-Stand;Stand vom;Motor
               %s;Calder;Dunlin;Müller & Söhne;0555 / 12;30.04.2019;64.785;03.11.2026;Calder 1.6
               %s;Calder;Plover;Jürgen Groß;0555 / 13;01.12.2017;121.004,5;28.10.2026;
               """.formatted(a, b).getBytes(WESTERN);
    }

    @Test
    void semicolonsWindowsLettersPointsInDatesAndCommasInNumbers() {
        JsonNode preview = preview(semicolons(), "");
        assertThat(preview.get("encoding").asString()).isEqualTo("windows-1252");
        assertThat(preview.get("separator").asString()).isEqualTo(";");
        assertThat(preview.get("headerRow").asInt()).isEqualTo(2);
        assertThat(preview.get("style").asString()).isEqualTo("COMMA");
        assertThat(preview.get("order").asString()).isEqualTo("DAY_FIRST");
        assertThat(preview.get("unit").asString()).isEqualTo("KM");
        assertThat(preview.get("lines").get(0).get("line").asInt())
                .as("the file's own count")
                .isEqualTo(3);

        assertThat(take(semicolons(), "").get("made").asInt()).isEqualTo(2);

        JsonNode first = vehicle(a);
        assertThat(first.get("makeModel").asString()).isEqualTo("Calder Dunlin");
        assertThat(first.get("ownerName").asString()).isEqualTo("Müller & Söhne");
        assertThat(first.get("firstRegistered").asString()).isEqualTo("2019-04-30");
        assertThat(first.get("family").asString()).isEqualTo("Calder 1.6");
        assertThat(kilometres(first)).containsExactly(64_785);
        assertThat(first.get("readings").get(0).get("date").asString()).isEqualTo("2026-11-03");
        assertThat(kilometres(vehicle(b))).containsExactly(121_005);
    }

    @Test
    void utf16ByTabs() {
        String text = "Plate\tVehicle\tOwner\tPhone\tFirst registration\tOdometer (km)\tDate of reading\n"
                + "%s\tFulmar 2.0\tÅse Bø\t0555 20\t2016-02-29\t98 450\t2026-10-01\n".formatted(a);
        for (byte[] file : List.of(
                ("\ufeff" + text).getBytes(StandardCharsets.UTF_16LE),
                text.getBytes(StandardCharsets.UTF_16LE),
                ("\ufeff" + text).getBytes(StandardCharsets.UTF_16BE))) {
            JsonNode preview = preview(file, "");
            assertThat(preview.get("encoding").asString()).startsWith("UTF-16");
            assertThat(preview.get("separator").asString()).isEqualTo("\t");
            assertThat(preview.get("lines").get(0).get("problems").valueStream())
                    .isEmpty();
        }

        take(text.getBytes(StandardCharsets.UTF_16LE), "");

        JsonNode v = vehicle(a);
        assertThat(v.get("ownerName").asString()).isEqualTo("Åse Bø");
        assertThat(v.get("firstRegistered").asString()).isEqualTo("2016-02-29");
        assertThat(kilometres(v)).containsExactly(98_450);
    }

    @Test
    void commasQuotesAndLineBreaksWithinAField() {
        String csv = """
                     reg no,"make and model",customer,"first registered",mileage,"read on"
                     %s,"Fulmar ""Estate""\n2.0, long","Orde, Tamsin",4 May 2015,"88,120",12 Nov 2026
                     %s,Plover,"Keast, Ruan",soon,"12,000",12 Nov 2026
                     """.formatted(a, b);

        JsonNode preview = preview(csv.getBytes(StandardCharsets.UTF_8), "");
        assertThat(preview.get("bad").asInt()).isEqualTo(1);
        JsonNode bad = preview.get("lines").get(1);
        assertThat(bad.get("line").asInt())
                .as("a field of two lines counts as two")
                .isEqualTo(4);
        assertThat(bad.get("problems").get(0).get("column").asString()).isEqualTo("first registered");

        JsonNode taken = take(csv.getBytes(StandardCharsets.UTF_8), "{\"takeGood\": true}");
        assertThat(taken.get("made").asInt()).isEqualTo(1);
        assertThat(taken.get("bad").asInt()).isEqualTo(1);
        JsonNode v = vehicle(a);
        assertThat(v.get("makeModel").asString()).isEqualTo("Fulmar \"Estate\" 2.0, long");
        assertThat(v.get("ownerName").asString()).isEqualTo("Orde, Tamsin");
        assertThat(v.get("firstRegistered").asString()).isEqualTo("2015-05-04");
        assertThat(kilometres(v)).containsExactly(88_120);

        String mend = ines.csv("/api/imports/bad-lines", csv).text();
        assertThat(mend).contains(b).contains("\"soon\"").doesNotContain(a);
        take(mend.replace("soon", "5 May 2015").getBytes(StandardCharsets.UTF_8), "");
        assertThat(vehicle(b).get("firstRegistered").asString()).isEqualTo("2015-05-05");
    }

    @Test
    void milesAndTheMonthFirst() {
        String csv = """
                     License Plate,Model,Owner Name,First Registered,Mileage,Last visit
                     %s,Fulmar,Tamsin Orde,04/30/2019,"40,255",11/03/2026
                     %s,Plover,Ruan Keast,03/04/2018,100000,10/28/2026
                     """.formatted(a, b);
        JsonNode preview = preview(csv.getBytes(StandardCharsets.UTF_8), "");
        assertThat(preview.get("order").asString()).isEqualTo("MONTH_FIRST");
        assertThat(preview.get("unit").asString()).isEqualTo("MILES");

        take(csv.getBytes(StandardCharsets.UTF_8), "");

        assertThat(vehicle(a).get("firstRegistered").asString()).isEqualTo("2019-04-30");
        // Source: NIST SP 811, appendix B: a mile is 1.609344 km; 40,255 of them are 64,784.1 km
        assertThat(kilometres(vehicle(a))).containsExactly(64_784);
        assertThat(vehicle(b).get("firstRegistered").asString()).isEqualTo("2018-03-04");
        assertThat(kilometres(vehicle(b))).containsExactly(160_934);
    }

    private byte[] spreadsheet() throws java.io.IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (Workbook book = new Workbook(out, "Test", "1.0")) {
            Worksheet sheet = book.newWorksheet("Fleet");
            List<String> header = List.of(
                    "Registration", "Model", "Owner", "Phone", "First registered", "Odometer", "Read on", "Fleet");
            IntStream.range(0, header.size()).forEach(i -> sheet.value(0, i, header.get(i)));
            sheet.value(1, 0, a);
            sheet.value(1, 1, "Calder Dunlin");
            sheet.value(1, 2, "Tamsin Orde");
            sheet.value(1, 3, "0555 1");
            sheet.value(1, 4, LocalDate.of(2019, 4, 30));
            sheet.style(1, 4).format("dd/mm/yyyy").set();
            sheet.value(1, 5, 64_785.4);
            sheet.value(1, 6, LocalDate.of(2026, 11, 3));
            sheet.style(1, 6).format("d mmm yy").set();
            sheet.value(1, 7, "Carriers of " + a);
        }
        return out.toByteArray();
    }

    @Test
    void aSpreadsheetWithItsOwnDaysAndNumbersAndAFleetThatIsNew() throws java.io.IOException {
        JsonNode preview = preview(spreadsheet(), "");
        assertThat(preview.get("spreadsheet").asBoolean()).isTrue();
        assertThat(preview.get("bad").asInt()).isZero();
        assertThat(preview.get("lines")
                        .get(0)
                        .get("warnings")
                        .get(0)
                        .get("detail")
                        .asString())
                .contains("is made");

        take(spreadsheet(), "");

        JsonNode v = vehicle(a);
        assertThat(v.get("firstRegistered").asString()).isEqualTo("2019-04-30");
        assertThat(kilometres(v)).containsExactly(64_785);
        assertThat(v.get("readings").get(0).get("date").asString()).isEqualTo("2026-11-03");
        assertThat(v.get("fleet").asString()).isEqualTo("Carriers of " + a);
    }

    @Test
    void theSameFileTwiceChangesNothing() throws java.io.IOException {
        String update = "{\"existing\": \"UPDATE\"}";
        for (byte[] file : List.of(semicolons(), spreadsheet())) {
            take(file, update);
            Map<String, List<String>> before = database();

            assertThat(take(file, "").get("count").asInt()).isZero();
            assertThat(take(file, update).get("count").asInt()).isZero();

            assertThat(database()).isEqualTo(before);
        }
        String readings = "registration,date,odometer\n%s,2026-11-10,65000\n%s,2026-11-10,\"65,000\"\n".formatted(a, a);
        assertThat(take(readings.getBytes(StandardCharsets.UTF_8), "")
                        .get("made")
                        .asInt())
                .as("the same reading on two lines is one")
                .isEqualTo(1);
        Map<String, List<String>> before = database();
        take(readings.getBytes(StandardCharsets.UTF_8), "");
        assertThat(database()).isEqualTo(before);
    }

    @Test
    void anImportTakenBackLeavesTheDatabaseAsItWas() throws java.io.IOException {
        take(semicolons(), "");
        Map<String, List<String>> before = database();
        String changes = """
                         Kennzeichen;Modell;Halter;Erstzulassung;km-Stand;Stand vom;Fuhrpark
                         %s;Other model;Other owner;30.04.2019;66.000;20.11.2026;New fleet of %s
                         %s;Third;Third owner;01.02.2020;1.000;20.11.2026;
                         """.formatted(a, a, Given.registration());

        JsonNode taken = take(changes.getBytes(WESTERN), "{\"existing\": \"UPDATE\"}");
        assertThat(taken.get("made").asInt()).isEqualTo(1);
        assertThat(taken.get("changed").asInt()).isEqualTo(1);
        assertThat(vehicle(a).get("ownerName").asString()).isEqualTo("Other owner");
        assertThat(kilometres(vehicle(a))).containsExactly(66_000, 64_785);

        ines.post("/api/imports/%d/take-back".formatted(taken.get("batch").asLong()), "")
                .ok();

        assertThat(database()).isEqualTo(before);
        assertThat(vehicle(a).get("ownerName").asString()).isEqualTo("Müller & Söhne");
        assertThat(kilometres(vehicle(a))).containsExactly(64_785);
    }

    @Test
    void anImportThatSomethingRestsOnStaysAndSaysWhat() {
        long batch = take(semicolons(), "").get("batch").asLong();
        Given.reading(ines, Given.find(ines, a), Given.TODAY, "70000", "KM").ok();
        Map<String, List<String>> before = database();

        Client.Answer refused = ines.post("/api/imports/%d/take-back".formatted(batch), "");

        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.json().get("detail").asString()).contains(a).contains("another reading");
        assertThat(database()).isEqualTo(before);
    }

    @Test
    void whatIsFoundOutCanBeSaidOtherwise() {
        String csv = "plate,model,owner,registered on,stand\n%s,Fulmar,Orde,03/04/2019,\"64,785\"\n".formatted(a);
        JsonNode asked = preview(csv.getBytes(StandardCharsets.UTF_8), "");
        assertThat(asked.get("bad").asInt())
                .as("a day that could be two is asked about")
                .isEqualTo(1);

        take(csv.getBytes(StandardCharsets.UTF_8), """
                {"order": "MONTH_FIRST", "unit": "MILES", "readOn": "2026-10-01", "usageClass": "TAXI",
                 "columns": {"REGISTRATION": 0, "MAKE_MODEL": 1, "OWNER": 2, "FIRST_REGISTERED": 3, "ODOMETER": 4}}
                """);

        JsonNode v = vehicle(a);
        assertThat(v.get("firstRegistered").asString()).isEqualTo("2019-03-04");
        assertThat(kilometres(v)).containsExactly(104_261);
        assertThat(v.get("readings").get(0).get("date").asString()).isEqualTo("2026-10-01");
        assertThat(v.get("usage").get("usageClass").asString()).isEqualTo("taxi");
    }

    @Test
    void partsWithPricesComeInAndAreUpdatedAndTakenBack() {
        String list = "Artikelnummer;Bezeichnung;Motor;Teil;Preis\n%s;Riemen;Calder 1.6;Timing belt;1.049,50 €\n"
                .formatted("P " + a);
        JsonNode preview = preview(list.getBytes(WESTERN), "");
        assertThat(preview.get("kind").asString()).isEqualTo("PARTS");
        take(list.getBytes(WESTERN), "");
        assertThat(part("P " + a).get("priceMinor").asInt()).isEqualTo(104_950);
        Map<String, List<String>> before = database();

        String dearer = list.replace("1.049,50", "1.100,00");
        assertThat(take(dearer.getBytes(WESTERN), "").get("count").asInt()).isZero();
        JsonNode taken = take(dearer.getBytes(WESTERN), "{\"existing\": \"UPDATE\"}");
        assertThat(part("P " + a).get("priceMinor").asInt()).isEqualTo(110_000);

        ines.post("/api/imports/%d/take-back".formatted(taken.get("batch").asLong()), "")
                .ok();
        assertThat(database()).isEqualTo(before);
    }

    private JsonNode part(String number) {
        return ines.get("/api/parts")
                .ok()
                .json()
                .valueStream()
                .filter(p -> p.get("number").asString().equals(number))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void renewalsComeInOnceAndRestartTheClock() {
        take(semicolons(), "");
        String list = "Kennzeichen;Arbeit;Datum;km-Stand\n%s;Timing belt;15.03.2024;41.200\n".formatted(a);
        JsonNode preview = preview(list.getBytes(WESTERN), "");
        assertThat(preview.get("kind").asString()).isEqualTo("RENEWALS");

        take(list.getBytes(WESTERN), "");

        assertThat(vehicle(a).at("/window/start").asString()).isEqualTo("2024-03-15");
        assertThat(take(list.getBytes(WESTERN), "").get("count").asInt()).isZero();
    }

    @Test
    void aTemplateGoesInAsItIsFilled() {
        String template = ines.get("/api/imports/template?kind=VEHICLES").text().replace("ABC 123", a);

        JsonNode preview = preview(template.getBytes(StandardCharsets.UTF_8), "");
        assertThat(preview.get("missing").isEmpty()).isTrue();
        assertThat(preview.get("bad").asInt()).isZero();
        assertThat(preview.get("columns").size())
                .isEqualTo(preview.get("fields").size());
    }

    @Test
    void aListAboutVehiclesOnFileBringsTheirRenewalsToo() {
        take(semicolons(), "");
        String list = "Kennzeichen;Zahnriemen;Zahnriemen km;hard use\n%s;15.03.2024;41.200;dust\n".formatted(a);
        String update = """
                {"kind": "VEHICLES", "existing": "UPDATE", "columns":
                  {"REGISTRATION": 0, "BELT_RENEWED_ON": 1, "BELT_RENEWED_ODOMETER": 2, "CONDITIONS": 3}}
                """;

        assertThat(take(list.getBytes(WESTERN), update).get("changed").asInt()).isEqualTo(1);

        JsonNode v = vehicle(a);
        assertThat(v.at("/window/start").asString()).isEqualTo("2024-03-15");
        assertThat(v.get("makeModel").asString())
                .as("what the list leaves empty stays")
                .isEqualTo("Calder Dunlin");
        assertThat(v.toString()).contains("dust");
        Map<String, List<String>> before = database();
        take(list.getBytes(WESTERN), update);
        assertThat(database()).as("the same twice changes nothing").isEqualTo(before);
    }

    @Test
    void aRenewalWhoseOdometerIsOnFileAddsNoSecondReading() {
        take(semicolons(), "");
        String list = "Kennzeichen;Arbeit;Datum;km-Stand\n%s;Timing belt;03.11.2026;64.785\n".formatted(a);
        take(list.getBytes(WESTERN), "");
        assertThat(kilometres(vehicle(a))).containsExactly(64_785);
    }

    @Test
    void aFleetThatWasGivenUpIsGivenUpAgainWhenTheImportIsTakenBack() throws java.io.IOException {
        String name = "Carriers of " + a;
        ines.post("/api/setup/fleets", "{\"name\": \"%s\", \"offRoadCap\": 3, \"days\": []}".formatted(name))
                .ok();
        JsonNode fleet = ines.get("/api/setup/fleets")
                .json()
                .valueStream()
                .filter(f -> f.get("name").asString().equals(name))
                .findFirst()
                .orElseThrow();
        ines.delete("/api/setup/fleets/%d?version=%d"
                        .formatted(
                                fleet.get("id").asLong(), fleet.get("version").asInt()))
                .ok();
        Map<String, List<String>> before = database();

        JsonNode taken = take(spreadsheet(), "");
        assertThat(vehicle(a).get("fleet").asString()).isEqualTo(name);
        ines.post("/api/imports/%d/take-back".formatted(taken.get("batch").asLong()), "")
                .ok();

        assertThat(database()).isEqualTo(before);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            {"usageClass": "RACING"}       | /usageClass
            {"separator": "x"}             | /separator
            {"encoding": "no such"}        | /encoding
            {"columns": "all"}             | /as
            """)
    void whatIsSaidOfAListAndCannotBeIsRefusedAtItsField(String as, String pointer) {
        assertThat(ines.csv("/api/imports/preview" + query(as), semicolons()).errorAt(pointer))
                .isNotBlank();
    }

    @Test
    void aColumnThatIsSaidToBeNoneIsNone() {
        JsonNode preview = preview(semicolons(), "{\"columns\": {\"REGISTRATION\": 0, \"OWNER\": null}}");
        assertThat(preview.get("columns").has("OWNER")).isFalse();
    }

    @Test
    void aPartThatTheCatalogueWouldRefuseIsSaidInItsLine() {
        String list = "Artikelnummer;Motor;Teil;Preis;Lieferzeit\nX %s;Calder 1.6;Timing belt;12,50;999\n".formatted(a);
        JsonNode line = preview(list.getBytes(WESTERN), "").get("lines").get(0);
        assertThat(line.get("action").asString()).isEqualTo("BAD");
        assertThat(line.get("problems").get(0).get("column").asString()).isEqualTo("Lieferzeit");
    }

    @Test
    void makeAndModelTogetherFitTheirColumn() {
        String long60 = "M".repeat(60);
        String list = "Kennzeichen;Marke;Modell;Erstzulassung\n%s;%s;%s;30.04.2019\n".formatted(a, long60, long60);
        assertThat(preview(list.getBytes(WESTERN), "").get("bad").asInt()).isEqualTo(1);
    }
}
