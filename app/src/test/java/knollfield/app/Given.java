package knollfield.app;

import java.time.Instant;
import java.time.LocalDate;
import java.util.concurrent.atomic.AtomicInteger;
import knollfield.app.demo.TestFamilies;
import knollfield.app.engine.EngineBook;
import tools.jackson.databind.JsonNode;

/** What tests need to be there. */
public final class Given {

    private static final AtomicInteger COUNTER = new AtomicInteger();
    public static final LocalDate TODAY = LocalDate.now();

    private Given() {}

    /** An engine family on file; adding it twice adds it once. */
    public static String family(Server server) {
        EngineBook book = server.bean(EngineBook.class);
        synchronized (COUNTER) {
            if (book.find("CAL-16").isEmpty()) {
                TestFamilies.all().forEach(f -> book.add(f, 1, "test", Instant.EPOCH));
            }
        }
        return "CAL-16";
    }

    /** A job's scope in which nothing is chosen but {@code decisions}, such as {@code "camseal": {"in": true}}. */
    public static String scope(String decisions, int version) {
        return scope(decisions, "", version);
    }

    /** @param more further fields, each with a comma after it */
    public static String scope(String decisions, String more, int version) {
        return """
               {%s "purpose": [], "decisions": {%s}, "parts": {}, "ownerSupplied": [], "variants": {},
                "toolHireMinor": 0, "version": %d}
               """.formatted(more, decisions, version);
    }

    /** A registration nobody else has. */
    public static String registration() {
        return "TST %d A".formatted(COUNTER.incrementAndGet());
    }

    /** A vehicle of that family, nine years old, imported as a list of one; returns its number. */
    public static long vehicle(Server server, Client client, String more) {
        return vehicle(server, client, "CAL-16", more);
    }

    /** The same with another of the families on file. */
    public static long vehicle(Server server, Client client, String family, String more) {
        family(server);
        String registration = registration();
        String[] parts = more.split("\\|", -1);
        client.csv("/api/imports", """
                        registration,make_model,engine_family,owner,phone,usage,first_registered%s
                        %s,Test vehicle,%s,Tamsin Orde,0555 1,private,%s%s
                        """.formatted(
                                parts[0], registration, family, TODAY.minusYears(9), parts.length > 1 ? parts[1] : ""))
                .ok();
        return find(client, registration);
    }

    /** Number of a fleet of this name, made for one vehicle off the road a day. */
    public static long fleet(Client manager, String name) {
        manager.post("/api/setup/fleets", "{\"name\": \"%s\", \"offRoadCap\": 1, \"days\": []}".formatted(name))
                .ok();
        return manager.get("/api/fleets")
                .ok()
                .json()
                .valueStream()
                .filter(f -> f.get("name").asString().equals(name))
                .findFirst()
                .orElseThrow()
                .get("id")
                .asLong();
    }

    public static long find(Client client, String registration) {
        JsonNode found = client.get("/api/find?q=" + registration.replace(" ", "%20"))
                .ok()
                .json()
                .get("vehicles");
        return found.valueStream()
                .filter(f -> f.get("registration").asString().equals(registration))
                .findFirst()
                .orElseThrow(() -> new AssertionError(registration + " is not found"))
                .get("vehicleId")
                .asLong();
    }

    public static Client.Answer reading(Client client, long vehicle, LocalDate date, String value, String unit) {
        return client.post("/api/vehicles/%d/readings".formatted(vehicle), """
                {"date": "%s", "value": %s, "unit": "%s", "source": "WORKSHOP", "insist": false}
                """.formatted(date, value, unit));
    }

    public static Client.Answer renewal(
            Client client, long vehicle, String item, LocalDate date, int km, boolean countsAsReading) {
        return client.post(
                "/api/vehicles/%d/renewals".formatted(vehicle), """
                {"item": "%s", "date": "%s", "km": %d, "grade": "DOCUMENTED", "proof": "invoice 4411", "countsAsReading": %s, "source": "WORKSHOP"}
                """.formatted(item, date, km, countsAsReading));
    }
}
