package knollfield.app.estimate;

import static org.assertj.core.api.Assertions.assertThat;

import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.Workbench;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** What signed jobs say of the book's times, over HTTP. */
class LearnedApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static final String FAMILY = "HOL-12";

    private final Client ines = SERVER.as("ines");

    private long signed() {
        long vehicle = Given.vehicle(SERVER, ines, FAMILY, "");
        long job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
        Client tamsin = Workbench.checkedIn(SERVER, job);
        Workbench.workUntil(tamsin, job, null);
        Workbench.enter(tamsin, job, "\"type\": \"COMPLETE\", \"words\": \"\", \"minutes\": 600")
                .ok();
        return job;
    }

    private JsonNode minutes() {
        return ines.get("/api/engines/%s/minutes".formatted(FAMILY)).ok().json();
    }

    private long timed() {
        return minutes().valueStream().filter(s -> s.get("jobs").asInt() > 0).count();
    }

    @Test
    void aJobWorkedAtTheBenchTeachesAndOneTickedInAMomentDoesNot() {
        Given.family(SERVER);
        long before = timed();
        long job = signed();
        assertThat(timed()).as("all its entries in one minute").isEqualTo(before);

        // the same job, had a day gone by between its entries
        SERVER.jdbc().sql("""
                        UPDATE card_event SET at = DATEADD('SECOND', 60 * seq, TIMESTAMP WITH TIME ZONE '2026-01-05 08:00:00+00')
                        WHERE job_id = :job
                        """).param("job", job).update();
        JsonNode belt = minutes()
                .valueStream()
                .filter(s -> s.get("code").asString().equals("belt"))
                .findFirst()
                .orElseThrow();
        assertThat(belt.get("jobs").asInt()).isEqualTo(1);
        int book = belt.get("bookMinutes").asInt();
        // ten hours as told are more than the book has, so that its own share is more, too
        assertThat(belt.get("factor").asDouble()).isGreaterThan(1);
        assertThat(belt.get("expectedMinutes").asInt())
                .isEqualTo((int) Math.round(book * belt.get("factor").asDouble()));
        ines.get("/api/engines/NO-1/minutes").problem(404, "not-found");
    }
}
