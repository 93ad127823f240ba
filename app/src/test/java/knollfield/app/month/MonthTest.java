package knollfield.app.month;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.List;
import java.util.OptionalInt;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.Workbench;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

class MonthTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;

    @BeforeEach
    void signIn() {
        ines = SERVER.as("ines");
    }

    private JsonNode month(String query) {
        return ines.get("/api/month" + query).ok().json();
    }

    private JsonNode jobs(String query) {
        return month(query).get("jobs");
    }

    private static int count(JsonNode month, String timeliness) {
        return month.get("timeliness")
                .valueStream()
                .filter(t -> t.get("timeliness").asString().equals(timeliness))
                .findFirst()
                .orElseThrow()
                .get("jobs")
                .asInt();
    }

    /** A vehicle whose belt was renewed so many years ago at 120,000 km; its limits are six years and 120,000 km. */
    private long vehicle(OptionalInt years) {
        long vehicle = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, vehicle, TODAY.minusDays(40), "170000", "KM").ok();
        if (years.isPresent()) {
            for (String item : List.of("belt", "tensioner", "idler", "pump")) {
                Given.renewal(ines, vehicle, item, TODAY.minusYears(years.getAsInt()), 120_000, false)
                        .ok();
            }
        }
        return vehicle;
    }

    private long jobOf(long vehicle) {
        return ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
    }

    private void sign(long job) {
        Client tamsin = Workbench.checkedIn(SERVER, job);
        Workbench.workUntil(tamsin, job, null);
        Workbench.enter(tamsin, job, "\"type\": \"COMPLETE\"").ok();
    }

    private JsonNode row(JsonNode month, long job) {
        return month.get("jobs")
                .valueStream()
                .filter(j -> j.get("jobId").asLong() == job)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aRenewalIsInTimeByHowItsVehicleStoodBeforeIt() {
        JsonNode before = month("");
        long early = jobOf(vehicle(OptionalInt.of(3)));
        long late = jobOf(vehicle(OptionalInt.of(7)));
        long unknown = jobOf(vehicle(OptionalInt.empty()));
        for (long job : new long[] {early, late, unknown}) {
            sign(job);
        }

        JsonNode after = month("");
        assertThat(row(after, early).get("timeliness").asString()).isEqualTo("BEFORE_ACT_BY");
        assertThat(row(after, late).get("timeliness").asString()).isEqualTo("AFTER_LIMIT");
        assertThat(row(after, unknown).get("timeliness").asString()).isEqualTo("NO_RECORD");
        for (String t : List.of("BEFORE_ACT_BY", "AFTER_LIMIT", "NO_RECORD")) {
            assertThat(count(after, t)).as(t).isEqualTo(count(before, t) + 1);
        }
        int all = after.get("timeliness")
                .valueStream()
                .mapToInt(t -> t.get("jobs").asInt())
                .sum();
        assertThat(all).isEqualTo((int)
                after.get("jobs").valueStream().filter(j -> j.has("timeliness")).count());
        assertThat(after.get("words").toString())
                .contains("Jobs signed in", ": " + after.get("jobs").size() + ".");
    }

    @Test
    void hoursAndMoneyAreTheSumsOfTheirJobsAndAFilterTakesOnlyItsOwn() throws IOException {
        long vehicle = vehicle(OptionalInt.of(5));
        long job = jobOf(vehicle);
        ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok();
        sign(job);
        int version = ines.get("/api/jobs/" + job).ok().json().get("version").asInt();
        ines.put(
                        "/api/jobs/%d/actual".formatted(job),
                        "{\"minutes\": 420, \"partsMinor\": 12345, \"version\": %d}".formatted(version))
                .ok();

        JsonNode month = month("");
        JsonNode mine = row(month, job);
        assertThat(mine.get("takenMinutes").asInt()).isEqualTo(420);
        long rate = ines.get("/api/setup/workshop")
                .ok()
                .json()
                .get("labourRateMinor")
                .asLong();
        assertThat(mine.get("takenMinor").asLong()).isEqualTo(7 * rate + 12_345);
        assertThat(mine.get("estimatedMinor").asLong())
                .isEqualTo(ines.get("/api/jobs/%d/estimates".formatted(job))
                        .json()
                        .get("newest")
                        .get("sums")
                        .get("netMinor")
                        .asLong());
        assertThat(mine.get("bookMinutes").asInt()).isPositive();
        long estimated = 0;
        long taken = 0;
        int both = 0;
        for (JsonNode j : month.get("jobs")) {
            if (j.has("estimatedMinor") && j.has("takenMinor")) {
                both++;
                estimated += j.get("estimatedMinor").asLong();
                taken += j.get("takenMinor").asLong();
            }
        }
        assertThat(month.get("money").get("jobs").asInt()).isEqualTo(both);
        assertThat(month.get("money").get("left").asInt())
                .isEqualTo(month.get("jobs").size() - both);
        assertThat(month.get("money").get("estimatedMinor").asLong()).isEqualTo(estimated);
        assertThat(month.get("money").get("takenMinor").asLong()).isEqualTo(taken);
        JsonNode tamsin = month.get("byPerson").get(0);
        assertThat(tamsin.get("takenMinutes").asInt())
                .isEqualTo(month.get("jobs")
                        .valueStream()
                        .filter(j -> j.path("person")
                                .asString("")
                                .equals(tamsin.get("name").asString()))
                        .mapToInt(j -> j.path("takenMinutes").asInt(0))
                        .sum());

        assertThat(jobs("?family=CAL-16").size()).isEqualTo(month.get("jobs").size());
        assertThat(jobs("?family=none-such")).isEmpty();
        assertThat(jobs("?person=" + tamsin.get("code").asString()))
                .hasSize(tamsin.get("jobs").asInt());
        assertThat(jobs("?fleet=999")).isEmpty();

        List<CSVRecord> csv = CSVParser.parse(
                        ines.get("/api/month/jobs.csv?person="
                                        + tamsin.get("code").asString())
                                .ok()
                                .text(),
                        CSVFormat.RFC4180
                                .builder()
                                .setHeader()
                                .setSkipHeaderRecord(true)
                                .get())
                .getRecords();
        assertThat(csv).hasSize(tamsin.get("jobs").asInt());
        assertThat(csv.stream()
                        .filter(r -> r.get("job").equals(Long.toString(job)))
                        .findFirst()
                        .orElseThrow()
                        .get("minutes_taken"))
                .isEqualTo("420");
    }

    @Test
    void aFleetsPastIsThatOfItsOwnVehiclesYearByYear() {
        String name = "Past " + Given.registration();
        long fleet = Given.fleet(ines, name);
        String past = "/api/fleets/%d/past".formatted(fleet);
        assertThat(ines.get(past).ok().json()).isEmpty();
        long late = vehicle(OptionalInt.of(7));
        String details = "/api/vehicles/%d/details".formatted(late);
        String on = ines.get(details).ok().text();
        ines.put(details, on.substring(0, on.lastIndexOf('}')) + ", \"fleetId\": %d}".formatted(fleet))
                .ok();
        sign(jobOf(late));

        JsonNode years = ines.get(past).ok().json();
        assertThat(years).hasSize(1);
        JsonNode year = years.get(0);
        assertThat(year.get("year").asInt()).isEqualTo(TODAY.getYear());
        assertThat(List.of("jobs", "renewals", "inTime", "pastLimit"))
                .extracting(f -> year.get(f).asInt())
                .containsExactly(1, 1, 0, 1);
        assertThat(year.get("slipped").get(0).asString())
                .isEqualTo(ines.get("/api/vehicles/" + late)
                        .json()
                        .get("registration")
                        .asString());
        ines.get("/api/fleets/999999/past").problem(404, "not-found");
    }

    @Test
    void aNoIsFollowedToWhatBecameOfIt() {
        long stands = vehicle(OptionalInt.of(5));
        long done = vehicle(OptionalInt.of(5));
        long broke = vehicle(OptionalInt.of(5));
        for (long v : new long[] {stands, done, broke}) {
            ines.post("/api/vehicles/%d/declines".formatted(v), """
                            {"declinedBy": "Owner", "told": "it may bend valves", "until": "%s"}
                            """.formatted(TODAY.plusDays(90)))
                    .ok();
        }
        Given.renewal(ines, stands, "pump", TODAY, 171_000, false).ok();
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, done, item, TODAY, 171_000, false).ok();
        }
        ines.post("/api/vehicles/%d/breakdowns".formatted(broke), """
                        {"item": "belt", "date": "%s", "value": 171000, "unit": "KM", "what": "teeth stripped",
                         "declined": true, "insist": false}
                        """.formatted(TODAY))
                .ok();

        JsonNode month = month("");
        assertThat(became(month, stands)).isEqualTo("STANDS");
        assertThat(became(month, done)).isEqualTo("DONE");
        assertThat(became(month, broke)).isEqualTo("BROKE_DOWN");
        assertThat(month.get("breakdowns")
                        .valueStream()
                        .map(b -> b.get("vehicleId").asLong()))
                .contains(broke);

        long lines = vehicle(OptionalInt.of(5));
        long job = jobOf(lines);
        ines.post("/api/jobs/%d/estimates".formatted(job), "{}").ok();
        String say = """
                {"lines": ["pump"], "answer": "%s", "saidBy": "Owner", "on": "%s", "how": "PHONE", "warning": "told",
                 "signed": true}
                """;
        String consents = "/api/jobs/%d/estimates/1/consents".formatted(job);
        ines.post(consents, say.formatted("LEFT", TODAY)).ok();
        assertThat(became(month(""), lines)).isEqualTo("STANDS");
        ines.post(consents, say.formatted("AGREED", TODAY)).ok();
        assertThat(became(month(""), lines)).isEqualTo("WITHDRAWN");

        long refused = vehicle(OptionalInt.of(5));
        long given = jobOf(refused);
        ines.post("/api/jobs/%d/estimates".formatted(given), "{}").ok();
        ines.post("/api/jobs/%d/estimates/1/consents".formatted(given), """
                        {"lines": ["belt"], "answer": "LEFT", "saidBy": "Owner", "on": "%s", "how": "PHONE",
                         "warning": "told", "signed": false, "refused": true}
                        """.formatted(TODAY))
                .ok();
        assertThat(became(month(""), refused)).isEqualTo("STANDS");
    }

    private static String became(JsonNode month, long vehicle) {
        return month.get("noes")
                .valueStream()
                .filter(n -> n.get("vehicleId").asLong() == vehicle)
                .findFirst()
                .orElseThrow()
                .get("became")
                .asString();
    }

    @Test
    void aJobThatComesBackIsNamedBesideTheOneItDoesAgain() {
        long job = jobOf(vehicle(OptionalInt.of(5)));
        sign(job);
        assertThat(row(month(""), job).has("againId")).isFalse();
        long again = ines.post(
                        "/api/jobs/%d/rework".formatted(job), "{\"items\": [\"belt\"], \"reason\": \"it squeals\"}")
                .ok()
                .json()
                .get("id")
                .asLong();
        JsonNode mine = row(month(""), job);
        assertThat(mine.get("againId").asLong()).isEqualTo(again);
        assertThat(mine.get("againWhy").asString()).isEqualTo("it squeals");
    }

    @Test
    void exposureIsWorkedOutForEachDayByWhatWasKnownThen() {
        long vehicle = vehicle(OptionalInt.of(2));
        List<JsonNode> days =
                ines.get("/api/month/exposure").ok().json().valueStream().toList();
        assertThat(days.get(0).get("on").asString())
                .isEqualTo(YearMonth.from(TODAY).atDay(1).toString());
        assertThat(days).hasSize(TODAY.getDayOfMonth());
        double before = days.get(days.size() - 1).get("perDayMinor").asDouble();

        ines.post("/api/vehicles/%d/evidence".formatted(vehicle), """
                        {"kind": "BELT_FAILED", "found": "%s", "note": ""}
                        """.formatted(TODAY))
                .ok();

        List<JsonNode> then =
                ines.get("/api/month/exposure").ok().json().valueStream().toList();
        assertThat(then.get(then.size() - 1).get("perDayMinor").asDouble()).isGreaterThan(before + 1_000);
        for (int d = 0; d + 1 < then.size(); d++) {
            assertThat(then.get(d)).as("day %d", d + 1).isEqualTo(days.get(d));
        }
    }

    @Test
    void aMonthWithoutWorkSaysSoAndOneThatHasNotBegunIsRefused() {
        JsonNode quiet = month("?month=" + YearMonth.from(TODAY).minusYears(3));
        assertThat(quiet.get("jobs")).isEmpty();
        assertThat(quiet.get("over").asBoolean()).isTrue();
        assertThat(quiet.get("words").get(0).asString()).startsWith("No job was signed");
        assertThat(quiet.get("coming")).hasSize(6);
        assertThat(LocalDate.parse(quiet.get("coming").get(0).get("month").asString()))
                .isEqualTo(YearMonth.from(TODAY).atDay(1));
        assertThat(ines.get("/api/month?month=" + YearMonth.from(TODAY).plusMonths(1))
                        .errorAt("/month"))
                .contains("not begun");
        assertThat(ines.get("/api/month?month=November").errorAt("/month")).contains("written like");
        assertThat(ines.get("/api/month/exposure?month=x").errorAt("/month")).contains("written like");
    }
}
