package knollfield.app.trust;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** What is sent twice is done once. */
class OnceTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static Client ines;
    private static long vehicle;

    @BeforeAll
    static void file() {
        ines = SERVER.as("ines");
        vehicle = Given.vehicle(SERVER, ines, "");
    }

    private static <T> List<T> atOnce(int times, Callable<T> deed) throws Exception {
        ExecutorService hands = Executors.newFixedThreadPool(times);
        try {
            List<T> all = new ArrayList<>();
            for (Future<T> f : hands.invokeAll(java.util.Collections.nCopies(times, deed))) {
                all.add(f.get());
            }
            return all;
        } finally {
            hands.shutdown();
        }
    }

    private static String call(String words) {
        return "{\"spokeWith\": \"Ann\", \"note\": \"%s\"}".formatted(words);
    }

    private static long calls(String words) {
        return ines.get("/api/vehicles/" + vehicle)
                .ok()
                .json()
                .get("calls")
                .valueStream()
                .filter(c -> c.get("note").asString().equals(words))
                .count();
    }

    @Test
    void aSecondClickIsAnsweredAndNotDoneAgain() throws Exception {
        String path = "/api/vehicles/%d/calls".formatted(vehicle);
        String key = UUID.randomUUID().toString();
        List<Client.Answer> answers = atOnce(6, () -> ines.once(key, path, call("rings back")));
        assertThat(answers).allSatisfy(a -> a.ok());
        assertThat(calls("rings back")).isEqualTo(1);
        // on purpose, with another key
        ines.once(UUID.randomUUID().toString(), path, call("rings back")).ok();
        assertThat(calls("rings back")).isEqualTo(2);
    }

    @Test
    void aKeyBelongsToOneRequestOfOnePerson() {
        String path = "/api/vehicles/%d/calls".formatted(vehicle);
        String key = UUID.randomUUID().toString();
        ines.once(key, path, call("first")).ok();
        ines.once(key, path, call("something else")).problem(422, "twice");
        ines.post("/api/setup/people", """
                {"signIn": "desk", "name": "Front Desk", "role": "FRONT_DESK", "skills": [], "workingDays": [],
                 "password": "as-many-words-as-needed"}
                """).ok();
        Client desk = SERVER.stranger().signIn("desk", "as-many-words-as-needed");
        desk.once(key, path, call("hers")).ok();
        assertThat(calls("hers")).isEqualTo(1);
    }

    @Test
    void whatWasRefusedMayBeSentAgainWithItsKey() {
        String path = "/api/vehicles/%d/calls".formatted(vehicle);
        String key = UUID.randomUUID().toString();
        assertThat(ines.once(key, path, call("")).status()).isEqualTo(422);
        assertThat(ines.once(key, path, call("")).status()).isEqualTo(422);
        ines.once(key, path, call("now with words")).ok();
    }

    @Test
    void theSameReadingAndTheSameFindingStandOnceWithoutAnyKey() throws Exception {
        LocalDate day = LocalDate.now().minusDays(3);
        List<Client.Answer> readings = atOnce(6, () -> Given.reading(ines, vehicle, day, "51234", "KM"));
        assertThat(readings).extracting(Client.Answer::status).contains(200).isSubsetOf(200, 409);
        String found = "{\"kind\": \"OIL_TOP\", \"found\": \"%s\", \"note\": \"wet\"}".formatted(day);
        atOnce(6, () -> ines.post("/api/vehicles/%d/evidence".formatted(vehicle), found));
        JsonNode file = ines.get("/api/vehicles/" + vehicle).ok().json();
        assertThat(file.get("readings").valueStream().filter(r -> r.get("km").asInt() == 51234))
                .hasSize(1);
        assertThat(file.get("evidence")
                        .valueStream()
                        .filter(e -> e.get("note").asString().equals("wet")))
                .hasSize(1);
    }

    @Test
    void listsThatComeTogetherAreTakenOneAfterTheOther() throws Exception {
        String list = "registration,make_model,owner,phone,usage,first_registered\n"
                + String.join(
                        "\n",
                        java.util.stream.IntStream.range(0, 40)
                                .mapToObj(i -> "QUE %d,van,Owner %d,0555 %d,private,2019-05-01".formatted(i, i, i))
                                .toList());
        List<Client.Answer> answers = atOnce(8, () -> ines.csv("/api/imports", list));
        assertThat(answers).allSatisfy(a -> a.ok());
        assertThat(answers.stream().mapToInt(a -> a.json().get("made").asInt()).sum())
                .isEqualTo(40);
    }
}
