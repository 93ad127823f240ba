package knollfield.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** The real server as a process of its own, killed in the middle of work. */
class KillTest {

    private static final int KILL_AFTER = 20;

    @TempDir
    Path folder;

    @Test
    void nothingAcknowledgedIsLostWhenTheServerIsKilled() throws Exception {
        int port = freePort();
        String address = "http://localhost:" + port;
        Process first = start(port);
        int acknowledged = 0;
        try {
            await(address, first);
            Client client = new Client(address);
            client.post("/api/first-run", """
                            {"code": "1", "signIn": "ines", "name": "Ines Carrow", "password": "%s"}
                            """.formatted(Server.DEMO_PASSWORD)).ok();
            client.signIn("ines", Server.DEMO_PASSWORD);
            client.csv("/api/imports", """
                            registration,make_model,owner,phone,usage,first_registered
                            SKR 1 A,Calder Dunlin 1.6,Tamsin Orde,0555 1,private,2015-01-01
                            """).ok();
            acknowledged = readingsUntilItDies(client, first);
        } finally {
            first.destroyForcibly();
        }
        assertThat(acknowledged).as("readings written before the kill").isGreaterThanOrEqualTo(KILL_AFTER);

        Process second = start(port);
        try {
            await(address, second);
            Client client = new Client(address).signIn("ines", Server.DEMO_PASSWORD);
            List<Integer> kept = client.get("/api/vehicles/1")
                    .ok()
                    .json()
                    .get("readings")
                    .valueStream()
                    .map(r -> r.get("km").asInt())
                    .toList();
            assertThat(kept)
                    .containsAll(IntStream.rangeClosed(1, acknowledged).boxed().toList());
            JsonNode log = client.get("/api/vehicles/1").json().get("log");
            assertThat(log).isNotEmpty();
        } finally {
            second.destroyForcibly();
        }
    }

    /** Writes one reading after the other while the server is killed; returns how many it said yes to. */
    private static int readingsUntilItDies(Client client, Process server) {
        LocalDate date = LocalDate.now();
        for (int km = 1; ; km++) {
            if (km == KILL_AFTER + 1) {
                // SIGKILL from beside, so that it falls into the middle of a request
                new Thread(server::destroyForcibly).start();
            }
            try {
                Given.reading(client, 1, date, Integer.toString(km), "KM").ok();
            } catch (java.io.UncheckedIOException e) {
                return km - 1;
            }
        }
    }

    private Process start(int port) throws IOException {
        return new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:TieredStopAtLevel=1",
                        "-XX:+UseSerialGC",
                        // where the small letter of I is not i, the file of before must be known all the same
                        "-Duser.language=tr",
                        "-Duser.country=TR",
                        "-cp",
                        System.getProperty("surefire.test.class.path", System.getProperty("java.class.path")),
                        "knollfield.app.KnollfieldApplication",
                        "--knollfield.port=" + port,
                        "--knollfield.data=" + folder.resolve("data"),
                        "--knollfield.first-run-code=1")
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("log-" + System.nanoTime()).toFile())
                .start();
    }

    private static void await(String address, Process process) throws InterruptedException {
        Instant end = Instant.now().plus(Duration.ofSeconds(120));
        while (Instant.now().isBefore(end)) {
            assertThat(process.isAlive()).as("the server runs").isTrue();
            try {
                if (new Client(address).get("/api/me").status() == 200) {
                    return;
                }
            } catch (java.io.UncheckedIOException e) {
                TimeUnit.MILLISECONDS.sleep(200);
            }
        }
        throw new AssertionError("the server did not start");
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }
}
