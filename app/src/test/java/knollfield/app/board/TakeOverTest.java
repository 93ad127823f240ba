package knollfield.app.board;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.job.Workbench;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** Somebody falls ill with a vehicle on the lift. */
class TakeOverTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    private static LocalDate workday(LocalDate from, int step) {
        LocalDate day = from;
        while (day.getDayOfWeek().getValue() > DayOfWeek.FRIDAY.getValue()) {
            day = day.plusDays(step);
        }
        return day;
    }

    @Test
    void whoIsFreeAndKnowsTheWorkTakesOverOrItStaysOpen() {
        Client ines = SERVER.as("ines");
        long vehicle = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, vehicle, TODAY.minusDays(40), "170000", "KM").ok();
        long job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
        Workbench.checkedIn(SERVER, job);
        long tamsin = Workbench.allRound(ines);
        long odile = Workbench.technician(ines, "odile", "Odile Roe", "BELT");
        long chains = Workbench.technician(ines, "corin", "Corin Pell", "CHAIN");
        // it was begun before today and goes on for days
        LocalDate last = workday(TODAY.plusDays(3), 1);
        SERVER.jdbc()
                .sql("UPDATE job SET start_at = :start, end_at = :end WHERE id = :id")
                .param("start", workday(TODAY.minusDays(1), -1).atTime(8, 0))
                .param("end", last.atTime(12, 0))
                .param("id", job)
                .update();
        String absence = """
                {"kind": "TECHNICIAN", "technicianId": %d, "from": "%s", "to": "%s", "why": "ill"}
                """.formatted(tamsin, last, last);

        JsonNode answer = ines.post("/api/board/what-if", absence).ok().json();
        assertThat(answer.get("struck")).isEmpty();
        JsonNode lift = answer.get("onLift").get(0);
        assertThat(lift.get("jobId").asLong()).isEqualTo(job);
        assertThat(lift.get("technician").asString()).isEqualTo("Tamsin Hale");
        assertThat(lift.get("minutesLeft").asInt()).isGreaterThanOrEqualTo(240);
        assertThat(lift.get("takers")
                        .valueStream()
                        .map(t -> t.get("technicianId").asLong()))
                .containsExactly(odile);

        String accept = "{\"absence\": %s, \"jobIds\": [], \"takeOver\": [{\"jobId\": %d, \"technicianId\": %d}]}";
        ines.post("/api/board/what-if/accept", accept.formatted(absence, job, chains))
                .problem(409, "conflict");
        ines.post("/api/board/what-if/accept", accept.formatted(absence, job + 1, odile))
                .problem(409, "conflict");
        ines.post("/api/board/what-if/accept", accept.formatted(absence, job, odile))
                .ok();

        Job.Booking now = SERVER.bean(Jobs.class).get(job).booking().orElseThrow();
        assertThat(now.technicianId()).isEqualTo(odile);
        assertThat(now.end()).isEqualTo(last.atTime(12, 0));
        assertThat(ines.get("/api/vehicles/" + vehicle).ok().text()).contains("taken over by Odile Roe");
        assertThat(ines.post("/api/board/what-if", absence).ok().json().get("onLift"))
                .isEmpty();
    }
}
