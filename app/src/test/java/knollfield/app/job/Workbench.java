package knollfield.app.job;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import java.util.stream.Stream;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import tools.jackson.databind.JsonNode;

/** People, bays and hands at a bench, for tests that work a card over HTTP. */
public final class Workbench {

    /** A working day of its own for every job, so that they do not stand in each other's way on the board. */
    private static LocalDate nextDay = Given.TODAY.plusDays(7);

    private Workbench() {}

    public static synchronized LocalDate ownDay() {
        do {
            nextDay = nextDay.plusDays(1);
        } while (nextDay.getDayOfWeek().getValue() > DayOfWeek.THURSDAY.getValue());
        return nextDay;
    }

    /** A day that jobs may share which are signed before the next one is promised there. */
    private static LocalDate sharedDay() {
        LocalDate day = Given.TODAY.plusDays(3);
        while (day.getDayOfWeek().getValue() > DayOfWeek.THURSDAY.getValue()) {
            day = day.plusDays(1);
        }
        return day;
    }

    /** Number of somebody who can do everything; others make people of their own with what their tests need. */
    public static long allRound(Client manager) {
        return technician(manager, "tamsin", "Tamsin Hale", "BELT", "CHAIN", "BELT_IN_OIL");
    }

    /** Promises a job to Tamsin and checks its vehicle in; it has to be signed in the same test. */
    public static Client checkedIn(Server server, long job) {
        Client ines = server.as("ines");
        long technician = allRound(ines);
        int version = ines.get("/api/jobs/" + job).ok().json().get("version").asInt();
        ines.put("/api/jobs/%d/booking".formatted(job), """
                        {"technicianId": %d, "bayId": %d, "day": "%s", "time": "08:00", "version": %d}
                        """.formatted(technician, bay(server), sharedDay(), version))
                .ok();
        Client tamsin = server.as("tamsin");
        enter(tamsin, job, """
                        "type": "START", "odometer": 171000, "odometerUnit": "KM", "keys": "", "codes": "", "words": ""
                        """).ok();
        return tamsin;
    }

    /** Number of the technician with this sign-in; made where there is none. */
    public static long technician(Client manager, String signIn, String name, String... skills) {
        List<JsonNode> people =
                manager.get("/api/setup/people").json().valueStream().toList();
        if (people.stream().noneMatch(p -> p.get("signIn").asString().equals(signIn))) {
            manager.post("/api/setup/people", """
                            {"signIn": "%s", "name": "%s", "role": "TECHNICIAN", "skills": [%s],
                             "workingDays": ["MONDAY", "TUESDAY", "WEDNESDAY", "THURSDAY", "FRIDAY"],
                             "password": "%s"}
                            """.formatted(
                            signIn,
                            name,
                            String.join(
                                    ",",
                                    Stream.of(skills).map(s -> '"' + s + '"').toList()),
                            Server.DEMO_PASSWORD))
                    .ok();
        }
        return manager.get("/api/setup/people")
                .json()
                .valueStream()
                .filter(p -> p.get("signIn").asString().equals(signIn))
                .findFirst()
                .orElseThrow()
                .get("id")
                .asLong();
    }

    /** A bay for heavy vehicles; made where there is none. */
    public static long bay(Server server) {
        Client ines = server.as("ines");
        JsonNode bays = ines.get("/api/setup/bays").ok().json();
        if (bays.valueStream().noneMatch(b -> b.get("name").asString().equals("Bay 1"))) {
            bays = ines.post("/api/setup/bays", "{\"name\": \"Bay 1\", \"note\": \"two posts\", \"liftClass\": 2}")
                    .ok()
                    .json();
        }
        return bays.valueStream()
                .filter(b -> b.get("name").asString().equals("Bay 1"))
                .findFirst()
                .orElseThrow()
                .get("id")
                .asLong();
    }

    public static Client.Answer enter(Client who, long job, String key, long basedOn, String fields) {
        return who.post(
                "/api/jobs/%d/card/events".formatted(job),
                "{\"clientKey\": \"%s\", \"basedOn\": %d, %s}".formatted(key, basedOn, fields));
    }

    public static Client.Answer enter(Client who, long job, String fields) {
        return enter(who, job, UUID.randomUUID().toString(), 1_000_000, fields);
    }

    public static JsonNode card(Client who, long job) {
        return who.get("/api/jobs/%d/card".formatted(job)).ok().json();
    }

    public static Stream<JsonNode> steps(JsonNode card) {
        return card.get("phases").valueStream().flatMap(p -> p.get("steps").valueStream());
    }

    public static JsonNode step(JsonNode card, String code) {
        return steps(card)
                .filter(s -> s.get("code").asString().equals(code))
                .findFirst()
                .orElseThrow(() -> new AssertionError("the card has no step " + code));
    }

    /** Answers well up to the step, or to the end where it is null. */
    public static void workUntil(Client who, long job, String step) {
        JsonNode card = card(who, job);
        while (true) {
            String next = card.path("nextStep").asString(null);
            if (next == null || next.equals(step)) {
                return;
            }
            card = answer(who, job, step(card, next)).ok().json();
        }
    }

    public static Client.Answer answer(Client who, long job, JsonNode step) {
        return enter(who, job, "\"step\": \"%s\", %s".formatted(step.get("code").asString(), goodAnswer(step)));
    }

    /** The fields of an entry that answers {@code s} as the book has it. */
    public static String goodAnswer(JsonNode s) {
        return switch (s.get("task").asString()) {
            case "INSPECT" ->
                "\"type\": \"INSPECT\", \"result\": \"%s\""
                        .formatted(s.get("results").get(0).get("words").asString());
            case "CHOOSE" ->
                "\"type\": \"CHOOSE\", \"option\": \"%s\""
                        .formatted(s.get("options").get(0).get("code").asString());
            case "COUNT" ->
                "\"type\": \"COUNT\", \"count\": %d".formatted(s.get("expected").asInt());
            case "CHECK" -> "\"type\": \"CHECK\", \"wrong\": []";
            case "MEASURE" -> {
                JsonNode m = s.get("measure");
                double middle = (m.get("low").asDouble() + m.get("high").asDouble()) / 2;
                yield "\"type\": \"MEASURE\", \"value\": %s"
                        .formatted(m.has("usual") ? m.get("usual").asDouble() : middle);
            }
            case "PASSES" -> "\"type\": \"PASS\"";
            case "TURN" -> "\"type\": \"TURN\"";
            case "MARKS" -> "\"type\": \"MARKS\", \"wrong\": []";
            case "TIGHTEN" ->
                "\"type\": \"TORQUE\", \"value\": %s, \"unit\": \"NEWTON_METRE\"%s"
                        .formatted(
                                s.get("book").get("nm").asDouble(),
                                s.get("book").has("angleDegrees")
                                        ? ", \"angleDegrees\": "
                                                + s.get("book")
                                                        .get("angleDegrees")
                                                        .asInt()
                                        : "");
            default -> "\"type\": \"TICK\"";
        };
    }
}
