package knollfield.app.security;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/**
 * Who may what, asked of the running server: every operation of its document, as nobody and in each role. What was found is
 * held against {@code docs/access.md}, so that a door that opens or shuts shows in a review; written anew with
 * {@code -Dknollfield.access=write}.
 */
class AccessMatrixTest {

    @RegisterExtension
    static final Server SERVER = Server.freshDemo();

    private static final Path DOCUMENT = Path.of("..", "docs", "access.md");

    /** Names in the table, and who signs in for them. */
    private static final Map<String, String> ROLES = new LinkedHashMap<>();

    static {
        ROLES.put("nobody", "");
        ROLES.put("manager", "ines");
        ROLES.put("front desk", "morwen");
        ROLES.put("technician", "hedra");
        ROLES.put("fleet contact", "jory");
    }

    /** End the asking session itself. */
    private static final Pattern LAST = Pattern.compile("/api/(sign-out|me/sign-out-everywhere)");

    @Test
    void everyOperationIsOpenToWhomTheTableSays() throws IOException {
        Map<String, List<String>> found = new TreeMap<>();
        JsonNode paths = SERVER.stranger().get("/api/openapi").ok().json().get("paths");
        for (Map.Entry<String, String> role : ROLES.entrySet()) {
            Client client = role.getValue().isEmpty() ? SERVER.stranger() : SERVER.as(role.getValue());
            List<String> last = new ArrayList<>();
            paths.properties()
                    .forEach(path -> path.getValue().properties().forEach(operation -> {
                        String name = operation.getKey().toUpperCase(java.util.Locale.ROOT) + " " + path.getKey();
                        if (LAST.matcher(path.getKey()).matches()) {
                            last.add(name);
                        } else {
                            found.computeIfAbsent(name, n -> new ArrayList<>()).add(may(client, name));
                        }
                    }));
            last.forEach(name -> {
                found.computeIfAbsent(name, n -> new ArrayList<>()).add(may(client, name));
                if (!role.getValue().isEmpty()) {
                    client.signIn(role.getValue(), Server.DEMO_PASSWORD);
                }
            });
        }
        String table = table(found);
        if ("write".equals(System.getProperty("knollfield.access"))) {
            Files.writeString(DOCUMENT, table);
        }
        assertThat(table).isEqualToIgnoringNewLines(Files.readString(DOCUMENT));
    }

    /** Asks with an address of nothing on file and an empty body, so that what may be done is not. */
    private static String may(Client client, String name) {
        String method = name.substring(0, name.indexOf(' '));
        String path = name.substring(name.indexOf(' ') + 1).replaceAll("\\{[^}]+}", "987654321");
        int status = client.raw(
                        method, path, "*/*", "application/json", "{}".getBytes(java.nio.charset.StandardCharsets.UTF_8))
                .status();
        assertThat(status).as(name).isLessThan(500);
        return status == 401 || status == 403 ? "" : "yes";
    }

    private static String table(Map<String, List<String>> found) {
        StringBuilder text = new StringBuilder("""
                # Who may call what

                Printed by `AccessMatrixTest` from the answers of a running server; the table it comes from is
                `app/security/Access.java`. A person's role is read anew at each request. *Yes* says that the door is open: what of
                a vehicle, job or fleet somebody sees behind it is decided there. A fleet contact finds only vehicles of the own
                fleet and what belongs to them; anything else is answered as not found, and what the house notes for itself (calls,
                logs, notes, who wrote what) is left out. Where nobody is signed in and it says *yes*, a secret address or key
                decides, or there is nothing to see.

                | | nobody | manager | front desk | technician | fleet contact |
                | --- | --- | --- | --- | --- | --- |
                """);
        found.forEach((name, may) -> text.append("| ")
                .append(name)
                .append(" | ")
                .append(String.join(" | ", may))
                .append(" |\n"));
        return text.toString();
    }

    @Test
    void aRoleTakenAwayIsAwayAtTheNextRequest() {
        Client ines = SERVER.as("ines");
        ines.post("/api/setup/people", """
                {"signIn": "second", "name": "Second Manager", "role": "MANAGER", "skills": [], "workingDays": [],
                 "password": "as-many-words-as-needed"}
                """).ok();
        Client second = SERVER.stranger().signIn("second", "as-many-words-as-needed");
        second.get("/api/setup/people").ok();
        JsonNode person = person(ines, "second");

        change(ines, person, "FRONT_DESK", true).ok();
        second.get("/api/setup/people").problem(403, "not-allowed");
        second.put("/api/setup/people/" + person.get("id").asLong(), body(person(ines, "second"), "MANAGER", true))
                .problem(403, "not-allowed");
        second.get("/api/desk").ok();

        change(ines, person(ines, "second"), "FRONT_DESK", false).ok();
        assertThat(second.get("/api/desk").status()).isEqualTo(401);
    }

    @Test
    void aNewPasswordEndsTheSessionsBegunWithTheOldOneAndEachDeviceCanBeEnded() {
        Client ines = SERVER.as("ines");
        Client first = SERVER.as("wenna");
        Client other = SERVER.as("wenna");
        JsonNode devices = other.get("/api/me/account").ok().json().get("devices");
        assertThat(devices).hasSizeGreaterThanOrEqualTo(2);
        String elsewhere = devices.valueStream()
                .filter(d -> !d.get("here").asBoolean())
                .findFirst()
                .orElseThrow()
                .get("key")
                .asString();
        other.delete("/api/me/devices/" + elsewhere).ok();
        assertThat(first.get("/api/desk").status()).isEqualTo(401);
        other.get("/api/desk").ok();

        long id = person(ines, "wenna").get("id").asLong();
        ines.put("/api/setup/people/%d/password".formatted(id), "{\"password\": \"a new one for wenna 3\"}")
                .ok();
        assertThat(other.get("/api/desk").status()).isEqualTo(401);
        assertThat(ines.get("/api/setup/people/changes")
                        .ok()
                        .json()
                        .get(0)
                        .get("after")
                        .asString())
                .isEqualTo("a new one");
    }

    private static JsonNode person(Client client, String signIn) {
        return client.get("/api/setup/people")
                .ok()
                .json()
                .valueStream()
                .filter(p -> p.get("signIn").asString().equals(signIn))
                .findFirst()
                .orElseThrow();
    }

    private static Client.Answer change(Client client, JsonNode p, String role, boolean active) {
        return client.put("/api/setup/people/" + p.get("id").asLong(), body(p, role, active));
    }

    private static String body(JsonNode p, String role, boolean active) {
        return """
               {"name": "%s", "role": "%s", "skills": [], "workingDays": [], "active": %s, "version": %d}
               """.formatted(
                        p.get("name").asString(), role, active, p.get("version").asInt());
    }
}
