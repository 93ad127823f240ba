package knollfield.app.setup;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import knollfield.app.Client;
import knollfield.app.Server;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What a workshop says of itself, over HTTP: who it is, how it writes figures, when it works. */
class WorkshopApiTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    @RegisterExtension
    static final Server WITH_A_BOOK = Server.demo();

    private static final String HOURS = "/api/setup/hours";
    private static final String CLOSED = "/api/setup/closed-days";

    private Client ines;
    private ObjectNode before;

    @BeforeEach
    void theManager() {
        ines = SERVER.as("ines");
        before = house();
    }

    @AfterEach
    void asItWas() {
        before.put("version", house().get("version").asInt());
        ines.put("/api/setup/house", before.toString()).ok();
    }

    private ObjectNode house() {
        return (ObjectNode) ines.get("/api/setup/house").ok().json();
    }

    private Client.Answer change(String field, String value) {
        return ines.put("/api/setup/house", house().put(field, value).toString());
    }

    @Test
    void theWorkshopsOwnCurrencyStandsWithEveryAmount() {
        // Source: ISO 4217 lists NOK with two decimals
        change("currency", "NOK").ok();

        assertThat(ines.get("/api/me").json().get("currency").asString()).isEqualTo("NOK");
        assertThat(ines.get("/api/setup/workshop").json().get("labourRateMinor").asInt())
                .as("its figures stay")
                .isPositive();
    }

    @ParameterizedTest
    @ValueSource(strings = {"EURO", "XXA", "XAU"})
    void whatIsNoCurrencyIsRefusedAtItsField(String code) {
        assertThat(change("currency", code).errorAt("/currency")).contains("ISO 4217");
        assertThat(ines.get("/api/me").json().get("currency").asString())
                .isEqualTo(before.get("currency").asString());
    }

    @ParameterizedTest
    // Source: ISO 4217, minor units: JPY and ISK none, KWD three
    @CsvSource({"JPY, 0, 4201, JPY 4201", "ISK, 0, 4202, ISK 4202", "KWD, 3, 4203, KWD 4.203"})
    void amountsHaveTheDigitsTheirCurrencyHas(String code, int digits, long minor, String written) {
        change("currency", code).ok();

        assertThat(ines.get("/api/me").json().get("currencyDigits").asInt()).isEqualTo(digits);
        ObjectNode policy = (ObjectNode) ines.get("/api/setup/workshop").ok().json();
        ines.put("/api/setup/workshop", policy.put("labourRateMinor", minor).toString())
                .ok();
        assertThat(ines.get("/api/setup/assumptions")
                        .json()
                        .get("changes")
                        .valueStream()
                        .map(c -> c.get("after").asString()))
                .contains(written);
    }

    @Test
    void amountsThatAreKeptKeepTheirDecimals() {
        Client manager = WITH_A_BOOK.as("ines");
        ObjectNode house = (ObjectNode) manager.get("/api/setup/house").ok().json();
        String own = house.get("currency").asString();

        assertThat(manager.put("/api/setup/house", house.put("currency", "JPY").toString())
                        .errorAt("/currency"))
                .contains("other decimals");
        manager.put("/api/setup/house", house.put("currency", "NOK").toString()).ok();
        house.put("version", house.get("version").asInt() + 1);
        manager.put("/api/setup/house", house.put("currency", own).toString()).ok();
    }

    @ParameterizedTest
    @CsvSource({"name, ''", "email, desk", "email, a b@c", "zone, Atlantis/Capital", "taxNumber, " + LONG})
    void whatCannotBeIsRefusedAtItsField(String field, String value) {
        change(field, value).problem(422, "invalid-input");
        assertThat(change(field, value).errorAt("/" + field)).isNotEmpty();
        assertThat(house()).isEqualTo(before);
    }

    private static final String LONG = "00000000000000000000000000000000000000000";

    @Test
    void whoChangesSecondLearnsOfTheFirst() {
        int version = before.get("version").asInt();
        change("phone", "0555 010 99").ok();
        ines.put("/api/setup/house", before.put("version", version).toString()).problem(409, "conflict");
        assertThat(house().get("phone").asString()).isEqualTo("0555 010 99");
        before.put("phone", "");
    }

    /** Source: NIST SP 811, appendix B: one mile is 1.609344 km, so 160,934 km are 100,000 miles. */
    @ParameterizedTest
    @CsvSource({
        "KM, COMMA_POINT, '160,934 km'", "MILES, COMMA_POINT, '100,000 mi'",
        "MILES, POINT_COMMA, '100.000 mi'", "KM, SPACE_COMMA, '160 934 km'",
        "KM, APOSTROPHE_POINT, '160''934 km'"
    })
    void sentencesAreWrittenInTheWorkshopsUnitAndNumbers(String unit, String numbers, String written) {
        ines.put(
                        "/api/setup/house",
                        house().put("unit", unit).put("numbers", numbers).toString())
                .ok();
        JsonNode me = ines.get("/api/me").json();
        assertThat(me.get("unit").asString()).isEqualTo(unit);
        assertThat(me.get("numbers").asString()).isEqualTo(numbers);
        assertThat(SERVER.bean(knollfield.app.shared.Words.class).km(160_934).replace('\u00a0', ' '))
                .isEqualTo(written);
    }

    @Test
    void theWorkshopsDayIsThatOfItsZone() {
        // Source: IANA time zone database; Kiritimati is 25 hours ahead of Midway, so it is never the same day there
        change("zone", "Pacific/Kiritimati").ok();
        String east = ines.get("/api/me").json().get("today").asString();
        change("zone", "Pacific/Midway").ok();
        String west = ines.get("/api/me").json().get("today").asString();
        assertThat(LocalDate.parse(east)).isAfter(LocalDate.parse(west));
    }

    @Test
    void addressPhoneAndTaxNumberStandOnTheEstimate() throws IOException {
        ines.put(
                        "/api/setup/house",
                        house().put("address", "4 Quay Street\n\n  Hallow ")
                                .put("phone", "0555 010 99")
                                .put("email", "desk@workshop.example")
                                .put("taxNumber", "SK 123 456")
                                .toString())
                .ok();
        String text = paper();
        assertThat(text)
                .contains(
                        "4 Quay Street", "Hallow", "Phone 0555 010 99, desk@workshop.example", "Tax number SK 123 456");
    }

    private static String paper() {
        try {
            knollfield.app.settings.Houses houses = SERVER.bean(knollfield.app.settings.Houses.class);
            byte[] pdf = SERVER.bean(knollfield.app.security.CurrentPerson.class)
                    .as(
                            "test",
                            () -> SERVER.bean(knollfield.app.documents.RecordPrinter.class)
                                    .print(new knollfield.app.documents.RecordSheet(
                                            "Hallow Garage",
                                            houses.get().letterhead(),
                                            1,
                                            "SKR 1",
                                            "Any",
                                            "Owner",
                                            LocalDate.of(2026, 11, 28),
                                            "1 km",
                                            "later",
                                            java.util.List.of(),
                                            java.util.List.of())));
            try (var document = Loader.loadPDF(pdf)) {
                return new PDFTextStripper().getText(document);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Test
    void hoursComeBackAsTheyWereSentAndTheBoardHasTheirHalfHours() {
        JsonNode was = ines.get(HOURS).ok().json();
        ines.put(HOURS, """
                        {"days": [{"day": "MONDAY", "spans": [{"from": "06:30", "to": "11:00"}, {"from": "11:30", "to": "15:00"}]},
                                  {"day": "SATURDAY", "spans": [{"from": "09:00", "to": "12:00"}]}],
                         "version": %d}""".formatted(was.get("version").asInt())).ok();
        JsonNode days = ines.get(HOURS).json().get("days");
        assertThat(days.get(0).get("spans").get(1).get("to").asString()).startsWith("15:00");
        assertThat(days.get(1).get("spans")).isEmpty();
        assertThat(days.get(5).get("spans").get(0).get("from").asString()).startsWith("09:00");
        JsonNode times = ines.get("/api/board?days=7").ok().json().get("times");
        // 06:30 to 15:00; Saturday works through Monday's break
        assertThat(times).hasSize(17);
        assertThat(times.get(0).asString()).startsWith("06:30");
        ((ObjectNode) was).put("version", ines.get(HOURS).json().get("version").asInt());
        ines.put(HOURS, was.toString()).ok();
        assertThat(ines.get("/api/board?days=7").json().get("times")).hasSize(16);
    }

    @ParameterizedTest
    @CsvSource({
        "08:10, 12:00, /days/0/spans/0",
        "12:00, 08:00, /days/0/spans/0",
        "08:00, , /days/0/spans/0",
    })
    void hoursThatAreNoneAreRefusedAtTheirSpan(String from, String to, String at) {
        int version = ines.get(HOURS).json().get("version").asInt();
        assertThat(ines.put(HOURS, """
                        {"days": [{"day": "MONDAY", "spans": [{"from": "%s", "to": %s}]}], "version": %d}""".formatted(from, to == null ? "null" : '"' + to + '"', version))
                        .errorAt(at))
                .contains("half hour");
        assertThat(ines.put(HOURS, "{\"days\": [], \"version\": %d}".formatted(version))
                        .errorAt("/hours"))
                .contains("never works");
        ines.put(
                        HOURS,
                        "{\"days\": [{\"day\": \"MONDAY\", \"spans\": [{\"from\": \"08:00\", \"to\": \"12:00\"}]}], "
                                + "\"version\": %d}".formatted(version - 1))
                .problem(409, "conflict");
    }

    /** Source: RFC 5545, 3.6.1 (an all-day end is not part of the event), 3.8.5.3 (a yearly rule). */
    @Test
    void aFileOfHolidaysIsReadShownAndTakenInOnce() {
        LocalDate today =
                LocalDate.parse(ines.get("/api/me").json().get("today").asString());
        String file = """
                BEGIN:VCALENDAR\r
                VERSION:2.0\r
                PRODID:-//holidays//EN\r
                BEGIN:VEVENT\r
                UID:1\r
                DTSTAMP:20200101T000000Z\r
                DTSTART;VALUE=DATE:%s\r
                DTEND;VALUE=DATE:%s\r
                SUMMARY:Works holiday\r
                END:VEVENT\r
                BEGIN:VEVENT\r
                UID:2\r
                DTSTAMP:20200101T000000Z\r
                DTSTART;VALUE=DATE:20200101\r
                RRULE:FREQ=YEARLY\r
                SUMMARY:New Year\r
                END:VEVENT\r
                BEGIN:VEVENT\r
                UID:3\r
                DTSTAMP:20200101T000000Z\r
                DTSTART;VALUE=DATE:20200501\r
                SUMMARY:long past\r
                END:VEVENT\r
                END:VCALENDAR\r
                """.formatted(
                        today.plusDays(40).toString().replace("-", ""),
                        today.plusDays(43).toString().replace("-", ""));
        String body = tools.jackson.databind.json.JsonMapper.shared()
                .createObjectNode()
                .put("text", file)
                .toString();
        JsonNode read = ines.post(CLOSED + "/read", body).ok().json();
        assertThat(read.findValuesAsString("why"))
                .containsOnly("Works holiday", "New Year")
                .hasSize(3);
        JsonNode works = read.get(0).get("why").asString().equals("Works holiday") ? read.get(0) : read.get(1);
        assertThat(works.get("from").asString()).isEqualTo(today.plusDays(40).toString());
        assertThat(works.get("to").asString()).isEqualTo(today.plusDays(42).toString());
        assertThat(read.findValuesAsString("from"))
                .contains(today.getYear() + 1 + "-01-01", today.getYear() + 2 + "-01-01");
        assertThat(ines.get(CLOSED).json()).isEmpty();

        String days = "{\"days\": %s}".formatted(read.toString());
        assertThat(ines.post(CLOSED, days).ok().json()).hasSize(3);
        assertThat(ines.post(CLOSED, days).ok().json())
                .as("the same file twice")
                .hasSize(3);
        ines.get(CLOSED)
                .json()
                .forEach(c -> ines.delete(CLOSED + "/" + c.get("id").asLong()).ok());
        assertThat(ines.get(CLOSED).json()).isEmpty();
    }

    /** Source: RFC 5545, 3.3.5 (UTC, local and zoned moments), 3.3.6 and 3.6.1 (a duration in place of an end). */
    @ParameterizedTest(name = "{0} and {1} last {2} days")
    @CsvSource(delimiter = '|', textBlock = """
            DTSTART;VALUE=DATE:D0                    | DURATION:P3D                          | 3
            DTSTART:D0T000000                        | DTEND:D2T000000                       | 2
            DTSTART:D0T120000Z                       | DTEND:D1T120000Z                      | 2
            DTSTART;TZID=Atlantic/Faroe:D0T080000    | DTEND;TZID=Atlantic/Faroe:D0T170000   | 1
            DTSTART;VALUE=DATE:D0                    | RRULE:FREQ=YEARLY                     | 1
            DTSTART;TZID=Atlantic/Faroe:D0T080000    | RRULE:FREQ=YEARLY                     | 1
            DTSTART:D0T120000Z                       | RRULE:FREQ=YEARLY                     | 1
            """)
    void everyWayInWhichACalendarWritesItsDaysIsRead(String start, String more, int days) {
        LocalDate first = LocalDate.parse(
                        ines.get("/api/me").json().get("today").asString())
                .plusDays(30);
        String file = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//EN\r\nBEGIN:VEVENT\r\nUID:1\r\n"
                + "DTSTAMP:20200101T000000Z\r\n" + start + "\r\n" + more
                + "\r\nSUMMARY:Feast\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        for (int d = 0; d < 3; d++) {
            file = file.replace("D" + d, first.plusDays(d).toString().replace("-", ""));
        }
        String body = tools.jackson.databind.json.JsonMapper.shared()
                .createObjectNode()
                .put("text", file)
                .toString();
        JsonNode read = ines.post(CLOSED + "/read", body).ok().json();
        assertThat(read.get(0).get("from").asString()).isEqualTo(first.toString());
        assertThat(read.get(0).get("to").asString())
                .isEqualTo(first.plusDays(days - 1).toString());
        assertThat(read).hasSize(more.startsWith("RRULE") ? 2 : 1);
    }

    @Test
    void whatIsNoCalendarIsRefusedAtTheFile() {
        assertThat(ines.post(CLOSED + "/read", "{\"text\": \"registration;belt\\nA;1\"}")
                        .errorAt("/file"))
                .contains(".ics");
        assertThat(ines.post(CLOSED, "{\"days\": [{\"from\": \"2020-01-01\"}]}").errorAt("/days/0/to"))
                .contains("over already");
    }
}
