package knollfield.app.trust;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;

/** A disk that fills up while people work, and has room again. */
class DiskFullTest {

    /** What is filled, twice as much as there is above the reserve, so that others on the machine do not matter. */
    private static final int FILLED_MB = 400;

    @RegisterExtension
    static final Server SERVER =
            Server.fresh("--knollfield.disk.reserve-mb=" + (leftMb() - FILLED_MB / 2), "--knollfield.disk.low-mb=1");

    @TempDir
    Path place;

    private static long leftMb() {
        try {
            return Files.getFileStore(Path.of(System.getProperty("java.io.tmpdir")))
                            .getUsableSpace()
                    / 1_000_000;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Test
    void isSaidAndNothingIsHalfDoneAndWorkGoesOnByItselfWhenThereIsRoom() throws IOException {
        Client ines = SERVER.as("ines");
        long vehicle = Given.vehicle(SERVER, ines, "");
        String calls = "/api/vehicles/%d/calls".formatted(vehicle);
        String body = "{\"spokeWith\": \"Ona Pell\", \"note\": \"%s\"}";
        ines.get("/api/health").ok();

        Path filler = place.resolve("filler");
        try (OutputStream out = Files.newOutputStream(filler)) {
            byte[] megabyte = new byte[1_000_000];
            for (int i = 0; i < FILLED_MB; i++) {
                out.write(megabyte);
            }
        }
        assertThat(ines.post(calls, body.formatted("while full"))
                        .problem(507, "no-room")
                        .get("detail")
                        .asString())
                .startsWith("The disk is full: ")
                .contains("Nothing was saved", "Make room");
        assertThat(ines.get("/api/health").status()).isEqualTo(503);
        assertThat(ines.get("/api/vehicles/" + vehicle).ok().json().get("calls"))
                .isEmpty();

        Files.delete(filler);
        ines.post(calls, body.formatted("with room")).ok();
        assertThat(ines.get("/api/vehicles/" + vehicle).ok().json().get("calls").toString())
                .contains("with room")
                .doesNotContain("while full");
        ines.get("/api/health").ok();
    }
}
