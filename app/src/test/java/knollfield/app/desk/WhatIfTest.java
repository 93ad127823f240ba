package knollfield.app.desk;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What happens if she waits? */
class WhatIfTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;
    private long vehicle;

    @BeforeEach
    void aVehicle() {
        ines = SERVER.as("ines");
        vehicle = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, vehicle, TODAY, "138000", "KM").ok();
        for (String item : List.of("belt", "tensioner", "idler", "pump")) {
            Given.renewal(ines, vehicle, item, TODAY.minusMonths(54), 40_000, false)
                    .ok();
        }
    }

    private JsonNode ask(LocalDate date, String more) {
        return ines.get("/api/vehicles/%d/what-if?date=%s%s".formatted(vehicle, date, more))
                .ok()
                .json();
    }

    @Test
    void aYearAtAStatedDistanceIsThatDistanceFurther() {
        JsonNode a = ask(TODAY.plusDays(365), "&kmPerYear=20000");

        assertThat(a.get("odometerKm").asDouble()).isCloseTo(138_000 + 20_000 * 365 / 365.25, within(0.01));
        assertThat(a.get("sinceKm").asDouble()).isCloseTo(98_000 + 20_000 * 365 / 365.25, within(0.01));
        assertThat(a.get("kmPerYear").asDouble()).isEqualTo(20_000);
        assertThat(a.get("lowKm").asDouble()).isLessThan(a.get("odometerKm").asDouble());
        assertThat(a.get("highKm").asDouble()).isGreaterThan(a.get("odometerKm").asDouble());
        assertThat(a.get("sentence").asString()).startsWith("Wait until ").contains("exposure");
    }

    @Test
    void waitingLongerExposesMoreAndEndsOverdue() {
        long last = 0;
        for (int months = 1; months <= 24; months++) {
            JsonNode a = ask(TODAY.plusMonths(months), "");
            assertThat(a.get("exposureMinor").asLong()).isGreaterThanOrEqualTo(last);
            last = a.get("exposureMinor").asLong();
        }
        assertThat(last).isPositive();
        assertThat(ask(TODAY.plusMonths(24), "").get("statusThenWords").asString())
                .isEqualTo("Overdue");
    }

    @Test
    void nothingIsSaved() {
        String before = ines.get("/api/vehicles/" + vehicle).text();
        ask(TODAY.plusYears(3), "&kmPerYear=90000");
        assertThat(ines.get("/api/vehicles/" + vehicle).text()).isEqualTo(before);
    }

    @ParameterizedTest
    @CsvSource({
        "-1, '', /date, today",
        "6000, '', /date, fifteen",
        "30, &kmPerYear=-1, /kmPerYear, 0 to",
        "30, &kmPerYear=400000, /kmPerYear, 0 to"
    })
    void whatCannotBeAskedIsSaidBesideItsField(int days, String more, String pointer, String words) {
        String path = "/api/vehicles/%d/what-if?date=%s%s".formatted(vehicle, TODAY.plusDays(days), more);
        assertThat(ines.get(path).errorAt(pointer).replace("15 years", "fifteen"))
                .contains(words);
    }
}
