package knollfield.app.trust;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** What a fleet contact finds: the own vehicles, nothing of anybody else's, and nobody who works in the house by name. */
class OutsideTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private static JsonNode vehicles(Client client) {
        return client.get("/api/desk?status=CLEAR&status=OVERDUE&status=COMING&status=ACT_NOW")
                .ok()
                .json();
    }

    private static List<Long> ids(JsonNode node, String name) {
        return node.findValues(name).stream().map(JsonNode::asLong).distinct().toList();
    }

    /** Operations of the document about one thing of this kind that whoever asks may call with an address of nothing on file. */
    private static List<Map.Entry<String, String>> open(Client client, String kind) {
        List<Map.Entry<String, String>> open = new ArrayList<>();
        SERVER.stranger()
                .get("/api/openapi")
                .ok()
                .json()
                .get("paths")
                .properties()
                .forEach(path -> {
                    if (path.getKey().startsWith(kind + "/{")) {
                        path.getValue().properties().forEach(operation -> {
                            String method = operation.getKey().toUpperCase(java.util.Locale.ROOT);
                            if (ask(client, method, path.getKey(), 987_654_321).status() != 403) {
                                open.add(Map.entry(method, path.getKey()));
                            }
                        });
                    }
                });
        return open;
    }

    private static Client.Answer ask(Client client, String method, String path, long id) {
        return client.raw(
                method,
                path.replaceFirst("\\{[^}]+}", Long.toString(id)).replaceAll("\\{[^}]+}", "1"),
                "*/*",
                "application/json",
                "{}".getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void whatIsAnothersIsAnsweredAsWhatIsNotThere() {
        Client jory = SERVER.as("jory");
        Client ines = SERVER.as("ines");
        List<Long> own = ids(vehicles(jory), "vehicleId");
        assertThat(own).isNotEmpty();
        long foreign = ids(vehicles(ines), "vehicleId").stream()
                .filter(id -> !own.contains(id))
                .findFirst()
                .orElseThrow();
        long foreignFleet = ids(ines.get("/api/desk/fleets").ok().json(), "id").stream()
                .filter(id ->
                        !ids(jory.get("/api/desk/fleets").ok().json(), "id").contains(id))
                .findFirst()
                .orElseThrow();
        long foreignJob = ines.get("/api/jobs").ok().json().findParents("vehicleId").stream()
                .filter(j -> !own.contains(j.get("vehicleId").asLong()))
                .mapToLong(j -> j.get("id").asLong())
                .findFirst()
                .orElseThrow();
        for (var kind : Map.of("/api/vehicles", foreign, "/api/fleets", foreignFleet, "/api/own/jobs", foreignJob)
                .entrySet()) {
            List<Map.Entry<String, String>> open = open(jory, kind.getKey());
            assertThat(open).as(kind.getKey()).hasSizeGreaterThan(1);
            for (var operation : open) {
                Client.Answer there = ask(jory, operation.getKey(), operation.getValue(), kind.getValue());
                Client.Answer nothing = ask(jory, operation.getKey(), operation.getValue(), 987_654_321);
                assertThat(there.status()).as(operation.toString()).isEqualTo(nothing.status());
                // nor does the answer say more than that: the same words but for the number that was asked for
                assertThat(there.text().length())
                        .as(operation.toString())
                        .isCloseTo(nothing.text().length(), within(30));
            }
        }
    }

    @Test
    void nobodyWhoWorksHereIsNamedAndNoOneElsesCustomer() {
        Client jory = SERVER.as("jory");
        Client ines = SERVER.as("ines");
        Set<String> staff = ines.get("/api/setup/people")
                .ok()
                .json()
                .valueStream()
                .filter(p -> !p.get("role").asString().equals("FLEET_CONTACT"))
                .map(p -> p.get("name").asString())
                .collect(Collectors.toSet());
        assertThat(staff).hasSizeGreaterThan(4);
        List<Long> own = ids(vehicles(jory), "vehicleId");
        assertThat(own).isNotEmpty();
        StringBuilder inside = new StringBuilder();
        for (long id : own) {
            for (var operation : open(jory, "/api/vehicles").stream()
                    .filter(o -> o.getKey().equals("GET"))
                    .toList()) {
                String path = operation.getValue().replaceFirst("\\{[^}]+}", Long.toString(id));
                assertThat(jory.get(path).text()).as(path).doesNotContain(staff);
                inside.append(ines.get(path).text());
            }
            JsonNode dossier = jory.get("/api/vehicles/" + id).ok().json();
            assertThat(dossier.get("calls")).isEmpty();
            assertThat(dossier.get("log")).isEmpty();
        }
        // inside, the same pages name them
        assertThat(staff).anyMatch(name -> inside.indexOf(name) >= 0);
        for (String path : List.of("/api/desk", "/api/own/jobs", "/api/fleets", "/api/find?q=a")) {
            assertThat(jory.get(path).ok().text()).as(path).doesNotContain(staff);
        }
    }
}
