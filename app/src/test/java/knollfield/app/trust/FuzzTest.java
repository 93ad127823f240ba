package knollfield.app.trust;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.UncheckedIOException;
import java.lang.management.ManagementFactory;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.LongStream;
import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/**
 * Whatever is sent, the server answers, and goes on answering: requests at random from its own OpenAPI document. More of
 * them run by {@code bench/fuzz.sh}.
 */
class FuzzTest {

    @RegisterExtension
    static final Server SERVER = Server.freshDemo();

    private static final int COUNT = Integer.getInteger("knollfield.fuzz.requests", 2_000);
    private static final long SEED = Long.getLong("knollfield.fuzz.seed", 17L);

    /** In bench alone: a test is not timed. */
    /** No status of HTTP: the answer ended before its end, as where writing it failed half way. */
    private static final int BROKEN_OFF = 599;

    private static final Duration SLOW = Duration.ofSeconds(Integer.getInteger("knollfield.fuzz.slow", 1_000));

    /** What would sign out whoever asks, or lock this machine out; each has tests of its own. */
    private static final Pattern LEFT_OUT = Pattern.compile(
            "/api/(sign-in|sign-out|first-run|me/(password|sign-out-everywhere|devices.*|second-factor.*)|setup/people/[1-9](/.*)?)");

    @Test
    void nothingThatIsSentStopsTheWorkshop() {
        Client manager = SERVER.as("ines");
        List<Client> others = List.of(SERVER.as("morwen"), SERVER.as("hedra"), SERVER.as("jory"), SERVER.stranger());
        JsonNode document = SERVER.stranger().get("/api/openapi").ok().json();
        Requests requests = new Requests(
                document,
                SEED,
                path -> Optional.of(manager.get(path))
                        .filter(a -> a.status() == 200 && a.contentType().startsWith("application/json"))
                        .map(Client.Answer::json));
        everyPageAnswers(manager, document);
        long usedBefore = usedAfterCollection();
        Map<Integer, Integer> answers = new TreeMap<>();
        List<String> failures = new ArrayList<>();
        int sent = 0;
        while (sent < COUNT) {
            Requests.Request r = requests.next();
            if (LEFT_OUT.matcher(r.path().replaceFirst("\\?.*", "")).matches()) {
                continue;
            }
            Client client = sent % 3 > 0 ? manager : others.get(sent / 3 % others.size());
            sent++;
            long began = System.nanoTime();
            int status = status(client, r);
            Duration took = Duration.ofNanos(System.nanoTime() - began);
            answers.merge(status, 1, Integer::sum);
            if (status >= 500 || took.compareTo(SLOW) > 0) {
                failures.add("%d after %d ms: %s %s (%s) %s"
                        .formatted(
                                status,
                                took.toMillis(),
                                r.method(),
                                r.path(),
                                r.type(),
                                new String(r.body(), java.nio.charset.StandardCharsets.UTF_8)));
            }
        }
        everyPageAnswers(manager, document);
        long more = (usedAfterCollection() - usedBefore) / 1_000_000;
        System.out.printf("fuzz: %d requests, %s, %d MB more on the heap%n", sent, answers, more);
        assertThat(failures).isEmpty();
        assertThat(answers.keySet()).contains(200, 404, 422);
        assertThat(more).as("MB held after a collection beyond those before").isLessThan(100);
    }

    private static int status(Client client, Requests.Request r) {
        try {
            return client.raw(r.method(), r.path(), r.accept(), r.type(), r.body())
                    .status();
        } catch (UncheckedIOException e) {
            return BROKEN_OFF;
        }
    }

    /** Bytes. */
    private static long usedAfterCollection() {
        System.gc();
        return ManagementFactory.getMemoryMXBean().getHeapMemoryUsage().getUsed();
    }

    /** Nothing that was taken keeps anybody from reading. */
    private static void everyPageAnswers(Client ines, JsonNode document) {
        Set<String> needsMore = Set.of("/api/vehicles/vin-warning", "/api/setup/engine-forms/begin");
        document.get("paths").properties().forEach(p -> {
            boolean plain = p.getValue().has("get")
                    && !p.getKey().contains("{")
                    && !p.getKey().startsWith("/api/own/")
                    && !needsMore.contains(p.getKey())
                    && p.getValue()
                            .get("get")
                            .path("parameters")
                            .valueStream()
                            .noneMatch(q -> q.path("required").asBoolean(false));
            if (plain) {
                assertThat(ines.get(p.getKey()).status()).as(p.getKey()).isEqualTo(200);
            }
        });
        ids(ines.get("/api/ahead/vehicles").ok().json(), "vehicleId")
                .forEach(id -> assertThat(ines.get("/api/vehicles/" + id).status())
                        .as("vehicle " + id)
                        .isEqualTo(200));
        ids(ines.get("/api/jobs").ok().json(), "id")
                .forEach(id -> assertThat(ines.get("/api/jobs/" + id).status())
                        .as("job " + id)
                        .isEqualTo(200));
    }

    private static LongStream ids(JsonNode json, String name) {
        return json.findValues(name).stream().mapToLong(JsonNode::asLong).distinct();
    }
}
