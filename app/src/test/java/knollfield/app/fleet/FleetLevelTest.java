package knollfield.app.fleet;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** Vans that were renewed together come due together; the fleet lends one a day. */
class FleetLevelTest {

    private static final int VANS = 30;

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;
    private String fleet;

    @BeforeEach
    void vansRenewedTogether() {
        ines = SERVER.as("ines");
        Given.family(SERVER);
        String name = "Vans " + Given.registration();
        fleet = "/api/fleets/" + Given.fleet(ines, name);
        String lines = IntStream.range(0, VANS)
                .mapToObj(i -> "%s,Van,CAL-16,%s,0555 9,private,%s,%s,%s,30000,%s,%d"
                        .formatted(
                                Given.registration(),
                                name,
                                TODAY.minusYears(5),
                                name,
                                TODAY.minusYears(3),
                                TODAY.minusDays(7),
                                30_000 + 3 * 12_000))
                .collect(Collectors.joining("\n"));
        ines.csv(
                        "/api/imports",
                        "registration,make_model,engine_family,owner,phone,usage,first_registered,fleet,belt_renewed_on,"
                                + "belt_renewed_odometer,odometer_date,odometer\n" + lines)
                .ok();
    }

    private JsonNode level(String query) {
        return ines.get(fleet + "/level" + query).ok().json();
    }

    private JsonNode page() {
        return ines.get(fleet).ok().json();
    }

    private static JsonNode vehicle(JsonNode page, JsonNode move) {
        return page.get("vehicles")
                .valueStream()
                .filter(v -> v.get("vehicleId").equals(move.get("vehicleId")))
                .findFirst()
                .orElseThrow();
    }

    private static String accept(List<JsonNode> moves) {
        return "{\"moves\": [%s]}"
                .formatted(moves.stream()
                        .map(m -> "{\"vehicleId\": %d, \"from\": %s, \"to\": %s}"
                                .formatted(m.get("vehicleId").asLong(), m.get("from"), m.get("to")))
                        .collect(Collectors.joining(", ")));
    }

    @Test
    void whatIsTooMuchIsBroughtForwardSeenFirstAndAcceptedInPart() {
        JsonNode before = page();
        assertThat(before.get("months").valueStream().filter(m -> m.get("over").asBoolean()))
                .isNotEmpty();
        JsonNode seen = level("");
        assertThat(page()).as("looking changes nothing").isEqualTo(before);

        List<JsonNode> moves = seen.get("moves").valueStream().toList();
        assertThat(moves).isNotEmpty().allSatisfy(m -> {
            assertThat(m.get("to").asString()).isLessThan(m.get("from").asString());
            assertThat(m.get("costMinor").asLong()).isPositive();
        });
        assertThat(moves.stream().mapToLong(m -> m.get("costMinor").asLong()).sum())
                .isEqualTo(seen.get("costMinor").asLong());
        assertThat(seen.get("best").asBoolean()).isTrue();
        assertThat(seen.get("words").toString()).contains("every month has room", "Worked out to the end");
        long vehicles = 0;
        for (int m = 0; m < 24; m++) {
            JsonNode month = seen.get("months").get(m);
            assertThat(month.get("daysLevel").asInt())
                    .isLessThanOrEqualTo(month.get("spare").asInt());
            assertThat(month.get("daysLeft").asInt())
                    .isEqualTo(before.get("months")
                            .get(m)
                            .get("sum")
                            .get("offRoadDays")
                            .asInt());
            vehicles += month.get("daysLeft").asInt() - month.get("daysLevel").asInt();
        }
        assertThat(vehicles).as("none is lost").isZero();

        List<JsonNode> some = moves.subList(0, 2);
        JsonNode after = ines.post(fleet + "/level", accept(some)).ok().json();
        for (JsonNode m : some) {
            JsonNode now = vehicle(after, m);
            LocalDate actBy = LocalDate.parse(now.get("actBy").asString());
            assertThat(actBy).isEqualTo(end(m.get("to").asString()));
            assertThat(now.get("forwardFrom")).isEqualTo(vehicle(before, m).get("actBy"));
            JsonNode dossier = ines.get("/api/vehicles/" + m.get("vehicleId").asLong())
                    .ok()
                    .json();
            assertThat(dossier.get("actBy")).isEqualTo(now.get("actBy"));
            assertThat(dossier.get("reasons").toString()).contains("Brought forward from");
            assertThat(dossier.get("log").toString()).contains("brought forward");
        }
        assertThat(vehicle(after, moves.get(2)).get("actBy"))
                .isEqualTo(vehicle(before, moves.get(2)).get("actBy"));

        // seen by two: who comes second is told, and nothing of it is done
        ines.post(fleet + "/level", accept(List.of(moves.get(2), some.get(0)))).problem(409, "conflict");
        assertThat(page()).isEqualTo(after);

        ines.delete(fleet + "/level/" + some.get(0).get("vehicleId").asLong()).ok();
        assertThat(vehicle(page(), some.get(0))).isEqualTo(vehicle(before, some.get(0)));
        ines.delete(fleet + "/level/" + some.get(0).get("vehicleId").asLong()).problem(404, "not-found");
        ines.delete(fleet + "/level/" + some.get(1).get("vehicleId").asLong()).ok();
        assertThat(page()).isEqualTo(before);
    }

    private static LocalDate end(String month) {
        LocalDate first = LocalDate.parse(month);
        return first.plusDays(first.lengthOfMonth() - 1);
    }

    @Test
    void aDriveThatWasRenewedSinceStandsWhereItsClocksHaveIt() {
        JsonNode move = level("").get("moves").get(0);
        ines.post(fleet + "/level", accept(List.of(move))).ok();
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, move.get("vehicleId").asLong(), item, TODAY, 66_500, false)
                    .ok();
        }
        JsonNode renewed =
                ines.get("/api/vehicles/" + move.get("vehicleId").asLong()).ok().json();
        assertThat(LocalDate.parse(renewed.get("actBy").asString())).isAfter(TODAY.plusYears(1));
        assertThat(renewed.get("reasons").toString()).doesNotContain("Brought forward");
    }

    @Test
    void hoursOfTheWorkshopAreRoomTooAndWhatCannotBeIsSaidAtItsField() {
        JsonNode free = level("");
        JsonNode tight = level("?hours=30");
        assertThat(tight.get("moves").size()).isGreaterThan(free.get("moves").size());
        assertThat(tight.get("costMinor").asLong())
                .isGreaterThan(free.get("costMinor").asLong());
        assertThat(tight.get("months").valueStream())
                .allSatisfy(m -> assertThat(m.get("minutesLevel").asLong()).isLessThanOrEqualTo(30 * 60));
        assertThat(ines.get(fleet + "/level?hours=0").errorAt("/hours")).contains("above zero");

        JsonNode move = free.get("moves").get(0);
        assertThat(ines.post(fleet + "/level", "{\"moves\": []}").errorAt("/moves"))
                .contains("at least one");
        String one = "{\"moves\": [{\"vehicleId\": %d, \"from\": %s, \"to\": \"%s\"}]}";
        long id = move.get("vehicleId").asLong();
        assertThat(ines.post(fleet + "/level", one.formatted(id, move.get("from"), TODAY.minusMonths(1)))
                        .errorAt("/moves/0/to"))
                .contains("soonest");
        assertThat(ines.post(
                                fleet + "/level",
                                one.formatted(
                                        id, move.get("from"), move.get("from").asString()))
                        .errorAt("/moves/0/to"))
                .contains("before its own");
        assertThat(ines.post(
                                fleet + "/level",
                                one.formatted(
                                        999_999,
                                        move.get("from"),
                                        move.get("to").asString()))
                        .errorAt("/moves/0/vehicleId"))
                .contains("no such vehicle");
    }
}
