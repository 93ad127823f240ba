package knollfield.app.importing;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

class ImportTest {

    private static final String HEADER =
            "registration,make_model,engine_family,owner,phone,usage,first_registered,odometer,odometer_unit,odometer_date,"
                    + "belt_renewed_on,belt_renewed_odometer,conditions\n";

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;

    @BeforeEach
    void signIn() {
        ines = SERVER.as("ines");
        Given.family(SERVER);
    }

    private int vehicles() {
        return ines.get("/api/desk").json().get("vehicles").asInt();
    }

    @Test
    void aGoodListIsShownThenTakenWhole() {
        String a = Given.registration();
        String b = Given.registration();
        // a byte-order mark, quotes, a comma and a line break within a field: RFC 4180
        String csv = "\ufeff" + HEADER
                + "%s,Calder Dunlin 1.6,Calder 1.6,\"Orde, Tamsin\",0555 1,private,2018-05-01,138000,km,%s,2022-05-20,40000,dust\n"
                        .formatted(a, TODAY)
                + "%s,\"Calder\nPlover\",CAL-16,Ruan Keast,0555 2,taxi,2020-01-01,50000,miles,%s,,,\n"
                        .formatted(b, TODAY);
        int before = vehicles();

        JsonNode preview = ines.csv("/api/imports/preview", csv).ok().json();
        assertThat(preview.get("kind").asString()).isEqualTo("VEHICLES");
        assertThat(preview.get("good").asInt()).isEqualTo(2);
        assertThat(vehicles()).isEqualTo(before);

        assertThat(ines.csv("/api/imports", csv).ok().json().get("count").asInt())
                .isEqualTo(2);
        JsonNode first = ines.get("/api/vehicles/" + Given.find(ines, a)).json();
        assertThat(first.get("ownerName").asString()).isEqualTo("Orde, Tamsin");
        assertThat(first.get("status").asString()).isEqualTo("OVERDUE");
        assertThat(first.get("readings").valueStream().map(r -> r.get("km").asInt()))
                .as("the odometer, and the one stated with the renewal")
                .containsExactly(138_000, 40_000);
        JsonNode second = ines.get("/api/vehicles/" + Given.find(ines, b)).json();
        assertThat(second.get("readings").get(0).get("km").asInt()).isEqualTo(80_467);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', textBlock = """
            no registration        | ,M,CAL-16,O,0555,private,2018-05-01,,,,,,                      | registration     | is missing
            no such use            | %R,M,CAL-16,O,0555,racing,2018-05-01,,,,,,                     | usage            | "racing" is not one of
            no date                | %R,M,CAL-16,O,0555,private,spring,,,,,,                        | first_registered | is not a date
            a day that is two      | %R,M,CAL-16,O,0555,private,01/05/2018,,,,,,                    | first_registered | in two ways
            no day                 | %R,M,CAL-16,O,0555,private,31.02.2018,,,,,,                    | first_registered | no day
            registered tomorrow    | %R,M,CAL-16,O,0555,private,2999-01-01,,,,,,                    | first_registered | lies in the future
            ten-digit odometer     | %R,M,CAL-16,O,0555,private,2018-05-01,1234567890,km,2024-01-01,,, | odometer      | is not one
            odometer of words      | %R,M,CAL-16,O,0555,private,2018-05-01,many,km,2024-01-01,,,     | odometer         | "many" is not a number
            odometer without date  | %R,M,CAL-16,O,0555,private,2018-05-01,100,km,,,,                | odometer_date    | is missing
            reading in the future  | %R,M,CAL-16,O,0555,private,2018-05-01,100,km,2999-01-01,,,      | odometer_date    | lies in the future
            no such unit           | %R,M,CAL-16,O,0555,private,2018-05-01,100,verst,2024-01-01,,,   | odometer_unit    | neither km nor miles
            half a renewal         | %R,M,CAL-16,O,0555,private,2018-05-01,,,,2020-01-01,,           | belt_renewed_on  | needs both
            renewed above odometer | %R,M,CAL-16,O,0555,private,2018-05-01,100,km,2024-01-01,2020-01-01,900, | belt_renewed_odometer | above the odometer
            no such condition      | %R,M,CAL-16,O,0555,private,2018-05-01,,,,,,fog                  | conditions       | "fog" is not one of
            a line cut short       | %R,M,CAL-16,O,0555,private                                      | first_registered | is missing
            a value too many       | %R,M,CAL-16,O,0555,private,2018-05-01,,,,,,,more                | line             | has 14 values where the header has 13
            """)
    void eachProblemNamesLineAndColumnAndNothingIsTakenByHalves(
            String behaviour, String line, String column, String words) {
        String good = Given.registration();
        String csv = HEADER + "%s,M,CAL-16,O,0555,private,2018-05-01,,,,,,\n".formatted(good)
                + line.replace("%R", Given.registration()) + "\n";
        int before = vehicles();

        JsonNode bad =
                ines.csv("/api/imports/preview", csv).ok().json().get("lines").get(1);
        assertThat(bad.get("line").asInt()).isEqualTo(3);
        assertThat(bad.get("problems")
                        .valueStream()
                        .filter(p -> p.get("column").asString().equals(column))
                        .map(p -> p.get("detail").asString()))
                .anyMatch(d -> d.contains(words));

        assertThat(ines.csv("/api/imports", csv).errorAt("/3/" + column)).startsWith("Line 3, " + column);
        assertThat(vehicles()).isEqualTo(before);
    }

    @Test
    void aRegistrationTwiceIsAProblemAndOneOnFileIsLeftAsItIs() {
        String registration = Given.registration();
        String line = "%s,M,CAL-16,O,0555,private,2018-05-01,,,,,,\n".formatted(registration);
        JsonNode lines = ines.csv("/api/imports/preview", HEADER + line + line.replace(" ", ""))
                .json()
                .get("lines");
        assertThat(lines.get(1).get("problems").get(0).get("detail").asString()).contains("twice, first in line 2");

        ines.csv("/api/imports", HEADER + line).ok();
        JsonNode again = ines.csv("/api/imports", HEADER + line).ok().json();
        assertThat(again.get("count").asInt()).isZero();
        assertThat(again.get("left").asInt()).isEqualTo(1);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', textBlock = """
            empty             | ''                                   | The file is empty.
            only blanks       | '   '                                | The file is empty.
            only a header     | registration,date,odometer           | has a header and no lines
            """)
    void whatIsNoListIsSaid(String behaviour, String csv, String words) {
        String text = csv.replace("\\n", "\n");
        assertThat(ines.csv("/api/imports/preview", text).errorAt("/file")).contains(words);
        assertThat(ines.csv("/api/imports", text).errorAt("/file")).contains(words);
    }

    @Test
    void aColumnThatIsNeededIsAskedForAndOneThatIsNotKnownIsLeftAside() {
        String list = "registration;colour;date;odometer\nXX 1;red;2024-01-01;5\n";
        assertThat(ines.csv("/api/imports/preview", list)
                        .ok()
                        .json()
                        .get("missing")
                        .isEmpty())
                .isTrue();

        String without = "plate;colour\nXX 1;red\nXX 2;blue\n";
        JsonNode preview = ines.csv("/api/imports/preview", without).ok().json();
        assertThat(preview.get("missing").isEmpty()).isFalse();
        assertThat(preview.get("lines").isEmpty()).as("nothing is read yet").isTrue();
        Client.Answer refused = ines.csv("/api/imports", without);
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.json().get("errors").get(0).get("pointer").asString())
                .startsWith("/columns/");
    }

    @Test
    void whatIsNoTextIsSaid() {
        assertThat(ines.csv("/api/imports/preview", new byte[] {'a', 'b', 0, 'c', 'd', 'e'})
                        .errorAt("/file"))
                .contains("not text");
        assertThat(ines.csv("/api/imports/preview", new byte[] {'P', 'K', 3, 4, 1, 2})
                        .errorAt("/file"))
                .contains("spreadsheet cannot be read");
    }

    @Test
    void anEngineThatIsNotOnFileIsLeftOpenAndSaid() {
        String registration = Given.registration();
        String csv = HEADER + "%s,M,NONE,O,0555,private,2018-05-01,,,,,,\n".formatted(registration);

        assertThat(ines.csv("/api/imports/preview", csv)
                        .json()
                        .get("lines")
                        .get(0)
                        .get("warnings")
                        .get(0)
                        .get("detail")
                        .asString())
                .contains("no engine family \"NONE\"");
        ines.csv("/api/imports", csv).ok();
        assertThat(ines.get("/api/vehicles/" + Given.find(ines, registration))
                        .json()
                        .get("status")
                        .asString())
                .isEqualTo("NO_BOOK");
    }

    @Test
    void readingsOfVehiclesOnFileComeAsAListToo() {
        long vehicle = Given.vehicle(SERVER, ines, "");
        String registration =
                ines.get("/api/vehicles/" + vehicle).json().get("registration").asString();
        String csv =
                "registration,date,odometer,unit,source\n%s,2024-01-01,90000,km,telematics\n%s,2025-01-01,60000,miles,\n"
                        .formatted(registration, registration.replace(" ", "").toLowerCase(java.util.Locale.ROOT));

        assertThat(ines.csv("/api/imports", csv).ok().json().get("kind").asString())
                .isEqualTo("READINGS");
        JsonNode readings = ines.get("/api/vehicles/" + vehicle).json().get("readings");
        assertThat(readings.valueStream().map(r -> r.get("km").asInt())).containsExactly(96_561, 90_000);
        assertThat(ines.csv("/api/imports/preview", "registration,date,odometer\nNOBODY 1,2024-01-01,5\n")
                        .json()
                        .get("lines")
                        .get(0)
                        .get("problems")
                        .get(0)
                        .get("detail")
                        .asString())
                .contains("not on file");
    }

    @Test
    void aVinWhoseCheckDigitIsOddIsWarnedOfAndTaken() {
        Given.family(SERVER);
        String registration = Given.registration();
        String list = """
                registration,make_model,engine_family,vin,owner,phone,usage,first_registered
                %s,Calder Dunlin 1.6,CAL-16,1M8GDM9A1KP042788,Tamsin Orde,0555 1,private,2019-04-02
                """.formatted(registration);
        JsonNode preview = ines.csv("/api/imports/preview", list).ok().json();

        assertThat(preview.get("bad").asInt()).isZero();
        assertThat(preview.get("lines")
                        .get(0)
                        .get("warnings")
                        .get(0)
                        .get("detail")
                        .asString())
                .contains("check digit would be X");
        ines.csv("/api/imports", list).ok();
        assertThat(Given.find(ines, registration)).isPositive();
    }
}
