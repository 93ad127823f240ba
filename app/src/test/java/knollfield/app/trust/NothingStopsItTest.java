package knollfield.app.trust;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.CRC32;
import java.util.zip.DeflaterOutputStream;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.picture.ShrunkPicture;
import knollfield.app.problem.InvalidInput;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** One request, one row and one slow client stop nobody else. */
class NothingStopsItTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    @Test
    void aVehicleThatCannotBeJudgedIsSetAsideWithWhyAndTheRestIsJudged() {
        Client ines = SERVER.as("ines");
        long good = Given.vehicle(SERVER, ines, "");
        long bad = Given.vehicle(SERVER, ines, "");
        // as an older version took it: a trip that never ends
        SERVER.jdbc()
                .sql(
                        "INSERT INTO trip (vehicle_id, from_date, to_date, extra_km) VALUES (:id, DATE '2026-12-01', DATE '999999999-12-31', 2147483647)")
                .param("id", bad)
                .update();
        SERVER.bean(knollfield.app.due.Forecasts.class).forget();

        JsonNode desk = ines.get("/api/desk").ok().json();
        assertThat(desk.get("unjudged")
                        .valueStream()
                        .map(u -> u.get("vehicleId").asLong()))
                .containsExactly(bad);
        assertThat(desk.get("unjudged").get(0).get("why").asString()).contains("known trips");
        assertThat(ines.get("/api/vehicles/" + bad).json().get("unjudged").asString())
                .isEqualTo(desk.get("unjudged").get(0).get("why").asString());
        assertThat(ines.get("/api/vehicles/" + good).json().has("unjudged")).isFalse();
        for (String page : List.of(
                "/api/ahead",
                "/api/board",
                "/api/jobs",
                "/api/stores",
                "/api/vehicles/" + good,
                "/api/vehicles/" + bad)) {
            ines.get(page).ok();
        }
        long trip = ines.get("/api/vehicles/" + bad)
                .ok()
                .json()
                .get("trips")
                .get(0)
                .get("id")
                .asLong();
        ines.delete("/api/vehicles/%d/trips/%d".formatted(bad, trip)).ok();
        assertThat(ines.get("/api/desk").ok().json().get("unjudged")).isEmpty();
    }

    @Test
    void aListWithNothingInAPlaceSaysWhich() {
        assertThat(SERVER.as("ines")
                        .post("/api/parts/removals", "[{\"number\": \"x\", \"version\": 1}, null]")
                        .errorAt("/1"))
                .contains("missing");
    }

    @ParameterizedTest
    @CsvSource({"as=%ff, x=1", "as=x, x=%ff%zz", "as=%ff, '\"Harbour\"'"})
    void aFormWhoseFieldsAreNoTextIsRefusedAndTheAnswerIsWhole(String query, String form) {
        Client.Answer answer = SERVER.as("ines")
                .raw(
                        "POST",
                        "/api/imports/bad-lines?" + query,
                        "application/json",
                        "application/x-www-form-urlencoded",
                        form.getBytes(java.nio.charset.StandardCharsets.UTF_8));

        answer.problem(400, "not-taken");
        assertThat(answer.json().get("detail").asString()).isEqualTo("This form is not readable.");
    }

    @ParameterizedTest
    @CsvSource({
        "'{\"date\": \"+999999999-12-31\", \"value\": 1, \"unit\": \"KM\", \"source\": \"WORKSHOP\", \"insist\": false}', /date, from 1900 to 2199",
        "'{\"date\": \"2026-11-01\", \"value\": 1e999999999, \"unit\": \"KM\", \"source\": \"WORKSHOP\", \"insist\": false}', /value, go up to",
        "'{\"date\": \"2026-11-01\", \"value\": 1e-999999999, \"unit\": \"KM\", \"source\": \"WORKSHOP\", \"insist\": false}', /value, digits after",
        "'{\"date\": \"2026-11-01\", \"unit\": \"KM\", \"source\": \"WORKSHOP\", \"insist\": false}', /value, missing",
        "'{\"date\": \"2026-11-01\", \"value\": null, \"unit\": \"KM\", \"source\": \"WORKSHOP\", \"insist\": false}', /value, missing"
    })
    void whatIsOutOfEveryBoundIsSaidAtItsField(String body, String pointer, String words) {
        Client ines = SERVER.as("ines");
        long vehicle = Given.vehicle(SERVER, ines, "");
        assertThat(ines.post("/api/vehicles/%d/readings".formatted(vehicle), body)
                        .errorAt(pointer))
                .contains(words);
    }

    @Test
    void aBodyLargerThanAllowedIsRefusedUnread() {
        Client ines = SERVER.as("ines");
        byte[] large = new byte[21_000_000];
        assertThat(ines.csv("/api/imports", large).status()).isEqualTo(413);
        assertThat(ines.raw("PUT", "/api/setup/house", "*/*", "application/json", new byte[3_000_000])
                        .status())
                .isEqualTo(413);
        // who is not signed in has little to say
        assertThat(SERVER.stranger()
                        .raw("POST", "/api/sign-in", "*/*", "application/json", new byte[100_000])
                        .status())
                .isEqualTo(413);
        assertThat(SERVER.stranger()
                        .raw(
                                "POST",
                                "/api/jobs/1/card/photos",
                                "*/*",
                                "multipart/form-data; boundary=x",
                                new byte[100_000])
                        .status())
                .isEqualTo(403);
        ines.get("/api/desk").ok();
    }

    @Test
    void clientsThatSendAByteNowAndThenKeepNobodyWaiting() throws IOException {
        Client ines = SERVER.as("ines");
        URI address = URI.create(SERVER.address());
        List<Socket> slow = new ArrayList<>();
        try {
            // more than the server has threads
            for (int i = 0; i < 260; i++) {
                Socket socket = new Socket(address.getHost(), address.getPort());
                OutputStream out = socket.getOutputStream();
                String type = i % 2 == 0 ? "application/json" : "multipart/form-data; boundary=x";
                out.write("POST /api/sign-in HTTP/1.1\r\nHost: x\r\nContent-Type: %s\r\nContent-Length: 5000\r\n\r\n{"
                        .formatted(type)
                        .getBytes(StandardCharsets.US_ASCII));
                out.flush();
                slow.add(socket);
            }
            ines.get("/api/desk").ok();
            ines.post(
                            "/api/vehicles/%d/calls".formatted(Given.vehicle(SERVER, ines, "")),
                            "{\"spokeWith\": \"A\", \"note\": \"n\"}")
                    .ok();
        } finally {
            for (Socket s : slow) {
                s.close();
            }
        }
    }

    @Test
    void aSmallFileThatHoldsAHugePictureIsRefusedByItsHeader() throws IOException {
        Assertions.assertThatThrownBy(() -> ShrunkPicture.of(png(60_000, 60_000)))
                .isInstanceOf(InvalidInput.class)
                .hasMessageContaining("million pixels");
        ShrunkPicture large = ShrunkPicture.of(png(7_000, 7_000));
        assertThat(large.width()).isBetween(1500, 1600);
    }

    // Source: PNG, ISO/IEC 15948:2004, sections 5 and 11.2: signature, IHDR, IDAT, IEND; one bit a pixel, all of them
    // zero
    private static byte[] png(int width, int height) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(new byte[] {(byte) 0x89, 'P', 'N', 'G', '\r', '\n', 0x1A, '\n'});
        ByteArrayOutputStream header = new ByteArrayOutputStream();
        header.writeBytes(four(width));
        header.writeBytes(four(height));
        header.writeBytes(new byte[] {1, 0, 0, 0, 0});
        chunk(out, "IHDR", header.toByteArray());
        ByteArrayOutputStream data = new ByteArrayOutputStream();
        try (DeflaterOutputStream deflated = new DeflaterOutputStream(data)) {
            byte[] row = new byte[1 + (width + 7) / 8];
            for (int y = 0; y < Math.min(height, 8_000); y++) {
                deflated.write(row);
            }
        }
        chunk(out, "IDAT", data.toByteArray());
        chunk(out, "IEND", new byte[0]);
        return out.toByteArray();
    }

    private static void chunk(ByteArrayOutputStream out, String type, byte[] data) {
        CRC32 sum = new CRC32();
        sum.update(type.getBytes(StandardCharsets.US_ASCII));
        sum.update(data);
        out.writeBytes(four(data.length));
        out.writeBytes(type.getBytes(StandardCharsets.US_ASCII));
        out.writeBytes(data);
        out.writeBytes(four((int) sum.getValue()));
    }

    private static byte[] four(int value) {
        return java.nio.ByteBuffer.allocate(4).putInt(value).array();
    }
}
