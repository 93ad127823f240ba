package knollfield.app.transfer;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.BiFunction;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** A whole workshop out and into an empty one, over HTTP. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class TransferTest {

    @RegisterExtension
    static final Server ISLAND = Server.demo();

    @RegisterExtension
    static final Server EMPTY = Server.fresh();

    @RegisterExtension
    static final Server PEOPLED = Server.fresh();

    private static final String EVERYTHING = "/api/setup/everything";

    private static byte[] out(Server server) {
        return server.as("ines").get(EVERYTHING).ok().bytes();
    }

    private static Map<String, byte[]> entries(byte[] zip) {
        Map<String, byte[]> entries = new TreeMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip), StandardCharsets.UTF_8)) {
            for (ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry()) {
                entries.put(e.getName(), in.readAllBytes());
            }
        } catch (IOException e) {
            throw new AssertionError(e);
        }
        return entries;
    }

    private static byte[] zip(Map<String, byte[]> entries) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream out = new ZipOutputStream(bytes)) {
            for (Map.Entry<String, byte[]> e : entries.entrySet()) {
                out.putNextEntry(new ZipEntry(e.getKey()));
                out.write(e.getValue());
            }
        } catch (IOException e) {
            throw new AssertionError(e);
        }
        return bytes.toByteArray();
    }

    private static String text(Map<String, byte[]> entries, String name) {
        return new String(entries.get(name), StandardCharsets.UTF_8);
    }

    @Test
    void everyTableOfTheDatabaseGoesOutOrIsSaidToStay() {
        Set<String> known = new HashSet<>(Transfers.TABLES);
        known.addAll(Transfers.STAYS);
        assertThat(ISLAND.bean(TransferRepository.class).tables()).containsExactlyInAnyOrderElementsOf(known);
    }

    @Test
    void noPasswordLeaves() {
        Map<String, byte[]> entries = entries(out(ISLAND));
        assertThat(text(entries, "tables/person.csv")).contains("ines").doesNotContain("bcrypt", "password");
        assertThat(entries.keySet()).noneMatch(n -> n.contains("calendar_feed"));
        assertThat(ISLAND.as("hedra").get(EVERYTHING).status()).isEqualTo(403);
    }

    static Stream<Arguments> broken() {
        return Stream.of(
                Arguments.of("no zip", fault((n, b) -> b), "no file of a whole workshop"),
                Arguments.of(
                        "another program's",
                        fault((n, b) -> n.equals("about.json") ? said(b, "knollfield", "x") : b),
                        "not written by"),
                Arguments.of(
                        "another version",
                        fault((n, b) -> n.equals("about.json") ? said(b, "\"schema\" : \"", "\"schema\" : \"9") : b),
                        "of version 9"),
                Arguments.of(
                        "a table less",
                        fault((n, b) -> n.equals("tables/reading.csv") ? null : b),
                        "reading.csv is missing"),
                Arguments.of(
                        "a row less", fault((n, b) -> n.equals("tables/reading.csv") ? cut(b) : b), "it is not whole"),
                Arguments.of(
                        "a wrong value",
                        fault((n, b) -> n.equals("tables/bay.csv") ? said(b, "\"2\"", "\"two\"") : b),
                        "does not fit"),
                Arguments.of(
                        "another column",
                        fault((n, b) -> n.equals("tables/bay.csv") ? said(b, "lift_class", "lift") : b),
                        "has the columns"));
    }

    private static BiFunction<String, byte[], byte[]> fault(BiFunction<String, byte[], byte[]> f) {
        return f;
    }

    private static byte[] said(byte[] bytes, String from, String to) {
        return new String(bytes, StandardCharsets.UTF_8)
                .replaceFirst(java.util.regex.Pattern.quote(from), to)
                .getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] cut(byte[] bytes) {
        String text = new String(bytes, StandardCharsets.UTF_8).stripTrailing();
        return text.substring(0, text.lastIndexOf('\n') + 1).getBytes(StandardCharsets.UTF_8);
    }

    @Order(1)
    @ParameterizedTest(name = "{0}")
    @MethodSource("broken")
    void aFileThatIsNotWholeChangesNothing(String what, BiFunction<String, byte[], byte[]> fault, String words) {
        Client manager = EMPTY.as("ines");
        Map<String, byte[]> entries = new TreeMap<>();
        entries(out(ISLAND)).forEach((n, b) -> {
            byte[] next = fault.apply(n, b);
            if (next != null) {
                entries.put(n, next);
            }
        });
        byte[] file = what.equals("no zip") ? "registration;belt".getBytes(StandardCharsets.UTF_8) : zip(entries);
        Map<String, byte[]> before = entries(out(EMPTY));
        assertThat(manager.csv(EVERYTHING, file).errorAt("/file")).contains(words);
        Map<String, byte[]> after = entries(out(EMPTY));
        before.forEach((name, bytes) -> {
            if (!name.equals("about.json")) {
                assertThat(after.get(name)).as(name).isEqualTo(bytes);
            }
        });
    }

    @Test
    void peopleWhoAreThereAlreadyAreNotWipedOut() {
        Client manager = PEOPLED.as("ines");
        manager.post("/api/setup/people", """
                        {"signIn": "desk", "name": "Front Desk", "role": "FRONT_DESK", "skills": [],
                         "workingDays": [], "password": "long-enough-word-9"}""").ok();
        assertThat(manager.csv(EVERYTHING, out(ISLAND)).errorAt("/file")).contains("people beside you");
        assertThat(manager.get("/api/setup/people").json()).hasSize(2);
    }

    @Order(2)
    @Test
    void aWholeWorkshopIsTheSameInAnEmptyOne() {
        byte[] island = out(ISLAND);
        Client manager = EMPTY.as("ines");
        JsonNode taken = manager.csv(EVERYTHING, island).ok().json().get("rows");
        assertThat(taken.get("vehicle").asInt()).isGreaterThan(100);
        assertThat(taken.get("card_event").asInt()).isPositive();
        manager.get("/api/desk").problem(401, "signed-out");

        Map<String, byte[]> sent = entries(island);
        Map<String, byte[]> back = entries(out(EMPTY));
        assertThat(back.keySet()).isEqualTo(sent.keySet());
        sent.forEach((name, bytes) -> {
            if (!name.equals("about.json")) {
                assertThat(new String(back.get(name), StandardCharsets.UTF_8))
                        .as(name)
                        .isEqualTo(new String(bytes, StandardCharsets.UTF_8));
            }
        });

        Client here = EMPTY.as("ines");
        Client there = ISLAND.as("ines");
        for (String path : new String[] {
            "/api/desk?limit=500",
            "/api/board?days=14",
            "/api/engines",
            "/api/stores",
            "/api/vehicles/1",
            "/api/setup/house",
            "/api/setup/hours"
        }) {
            assertThat(withoutNews(here.get(path).ok().json()))
                    .as(path)
                    .isEqualTo(withoutNews(there.get(path).ok().json()));
        }
        // what is made afterwards has a number of its own
        long id = knollfield.app.Given.vehicle(EMPTY, here, "");
        assertThat(id).isGreaterThan(taken.get("vehicle").asInt() - 1);
        assertThat(EMPTY.stranger()
                        .post(
                                "/api/sign-in",
                                "{\"signIn\": \"hedra\", \"password\": \"%s\"}".formatted(Server.DEMO_PASSWORD))
                        .status())
                .as("no password came with it")
                .isEqualTo(422);
        assertThat(here.csv(EVERYTHING, island).errorAt("/file")).contains("not empty");
    }

    /** What the last change of figures moved is news of a running server, not of the workshop. */
    private static JsonNode withoutNews(JsonNode answer) {
        return answer instanceof ObjectNode view ? view.without("moved") : answer;
    }
}
