package knollfield.app.desk;

import static knollfield.app.Given.TODAY;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

/** Somebody looks at the Desk while somebody else works on its vehicles. */
class DeskUnderChangeTest {

    private static final int VEHICLES = 40;

    @RegisterExtension
    static final Server SERVER = Server.empty();

    @Test
    void noListThatWasBegunBeforeAChangeStandsAfterIt() throws InterruptedException {
        Client ines = SERVER.as("ines");
        List<Long> vehicles = new ArrayList<>();
        for (int i = 0; i < VEHICLES; i++) {
            vehicles.add(Given.vehicle(SERVER, ines, ""));
        }
        AtomicBoolean working = new AtomicBoolean(true);
        List<Thread> readers = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            Client reader = SERVER.as("ines");
            Thread thread = new Thread(() -> {
                while (working.get()) {
                    reader.get("/api/desk?aside=true&limit=200").ok();
                }
            });
            thread.start();
            readers.add(thread);
        }
        try {
            for (long id : vehicles) {
                ines.post("/api/vehicles/%d/calls".formatted(id), """
                                {"spokeWith": "Tamsin Orde", "note": "away", "askAgainOn": "%s"}
                                """.formatted(TODAY.plusDays(9)))
                        .ok();
                assertThat(aside(ines)).contains(id);
            }
        } finally {
            working.set(false);
            for (Thread reader : readers) {
                reader.join();
            }
        }
        assertThat(aside(ines)).containsAll(vehicles);
    }

    private static List<Long> aside(Client client) {
        return client.get("/api/desk?aside=true&limit=200")
                .json()
                .get("rows")
                .valueStream()
                .map(r -> r.get("vehicleId").asLong())
                .toList();
    }
}
