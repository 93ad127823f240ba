package knollfield.app.calendar;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.Client;
import knollfield.app.Server;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.data.ParserException;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.Component;
import net.fortuna.ical4j.model.Property;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.property.DtStart;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;

/** Calendar files, read back by an iCalendar library. */
class CalendarApiTest {

    @RegisterExtension
    static final Server SERVER = Server.demo();

    private final Client ines = SERVER.as("ines");

    private static Calendar read(String text) {
        try {
            Calendar calendar = new CalendarBuilder().build(new StringReader(text));
            // throws where a required property is missing or stands twice
            calendar.validate(true);
            return calendar;
        } catch (IOException | ParserException e) {
            throw new AssertionError("not an iCalendar file: " + text, e);
        }
    }

    private static String value(VEvent event, String property) {
        return event.getRequiredProperty(property).getValue();
    }

    private static Map<String, VEvent> events(String text) {
        return read(text).<VEvent>getComponents(Component.VEVENT).stream()
                .collect(Collectors.toMap(e -> value(e, Property.UID), Function.identity()));
    }

    private Map<String, VEvent> board() {
        return events(ines.get("/api/board/calendar.ics").ok().text());
    }

    private List<JsonNode> blocks(String... work) {
        return ines.get("/api/board?days=42")
                .ok()
                .json()
                .get("blocks")
                .valueStream()
                .filter(b -> List.of(work).contains(b.get("work").asString()))
                .toList();
    }

    @Test
    void everyPlaceOfTheBoardIsAnEventAtItsTime() {
        Map<String, VEvent> events = board();
        assertThat(blocks("PLANNED", "PROMISED")).isNotEmpty().allSatisfy(b -> {
            VEvent event =
                    events.get("job-%d@knollfield".formatted(b.get("jobId").asLong()));
            assertThat(event).isNotNull();
            assertThat(value(event, Property.SUMMARY))
                    .startsWith(b.get("registration").asString());
            DtStart<?> start = event.getRequiredProperty(Property.DTSTART);
            assertThat(Instant.from(start.getDate()))
                    .isEqualTo(LocalDateTime.parse(b.get("startsAt").asString())
                            .atZone(ZoneId.systemDefault())
                            .toInstant());
            assertThat(value(event, Property.STATUS))
                    .isEqualTo(b.get("work").asString().equals("PROMISED") ? "CONFIRMED" : "TENTATIVE");
        });
    }

    @Test
    void aChangeKeepsTheUidAndRaisesTheSequenceAndAJobTakenOffIsCancelled() {
        JsonNode block = blocks("PLANNED").get(0);
        long id = block.get("jobId").asLong();
        String uid = "job-%d@knollfield".formatted(id);
        int first = Integer.parseInt(value(board().get(uid), Property.SEQUENCE));
        int version = block.get("version").asInt();

        ines.put("/api/board/jobs/%d/promise".formatted(id), "{\"promised\": true, \"version\": %d}".formatted(version))
                .ok();
        assertThat(value(board().get(uid), Property.SEQUENCE)).isEqualTo(String.valueOf(first + 1));
        assertThat(value(board().get(uid), Property.STATUS)).isEqualTo("CONFIRMED");

        ines.delete("/api/jobs/%d/booking?version=%d".formatted(id, version + 1))
                .ok();
        assertThat(value(board().get(uid), Property.STATUS)).isEqualTo("CANCELLED");
        assertThat(value(board().get(uid), Property.SEQUENCE)).isEqualTo(String.valueOf(first + 2));

        ines.post("/api/board/undo", "{}").ok();
        assertThat(value(board().get(uid), Property.STATUS)).isEqualTo("CONFIRMED");
    }

    @Test
    void aJobThatIsGivenUpIsCancelledInCalendars() {
        // a fleet's job is left for the test of its private address
        JsonNode block = blocks("PLANNED").stream()
                .filter(b -> !b.has("fleet"))
                .reduce((a, b) -> b)
                .orElseThrow();
        long id = block.get("jobId").asLong();

        ines.delete("/api/jobs/%d?version=%d".formatted(id, block.get("version").asInt()))
                .ok();

        VEvent event = board().get("job-%d@knollfield".formatted(id));
        assertThat(value(event, Property.STATUS)).isEqualTo("CANCELLED");
        assertThat(value(event, Property.SUMMARY))
                .startsWith(block.get("registration").asString());
    }

    @Test
    void aFleetSeesItsPromisesAndNothingElseAtAPrivateAddressThatCanBeRevoked() {
        JsonNode promised = blocks("PLANNED", "PROMISED").stream()
                .filter(b -> b.has("fleet"))
                .findFirst()
                .orElseThrow();
        long id = promised.get("jobId").asLong();
        long fleet = ines.get("/api/board")
                .json()
                .get("fleets")
                .valueStream()
                .filter(f -> f.get("name").equals(promised.get("fleet")))
                .findFirst()
                .orElseThrow()
                .get("id")
                .asLong();
        JsonNode made = ines.post("/api/board/feeds", "{\"fleetId\": %d}".formatted(fleet))
                .ok()
                .json();
        Client anybody = new Client(SERVER.address());
        String path = made.get("path").asString();
        String promise = "/api/board/jobs/%d/promise".formatted(id);
        String body = "{\"promised\": %s, \"version\": %d}";
        int version = promised.get("version").asInt();

        ines.put(promise, body.formatted(false, version)).ok();
        assertThat(events(anybody.get(path).ok().text())).doesNotContainKey("job-%d@knollfield".formatted(id));
        ines.put(promise, body.formatted(true, version + 1)).ok();
        Map<String, VEvent> seen = events(anybody.get(path).ok().text());
        assertThat(seen).containsKey("job-%d@knollfield".formatted(id));
        assertThat(anybody.get(path).text()).doesNotContain("Hedra").doesNotContain("Bay ");
        assertThat(anybody.get(path).contentType()).startsWith("text/calendar");

        // the list never shows the secret again
        assertThat(ines.get("/api/board/feeds").ok().text()).doesNotContain(path.substring(path.lastIndexOf('/') + 1));
        JsonNode feed = made.get("feeds").valueStream().reduce((a, b) -> b).orElseThrow();
        ines.delete("/api/board/feeds/" + feed.get("id").asLong()).ok();
        anybody.get(path).problem(404, "not-found");
        anybody.get("/api/feeds/guessed").problem(404, "not-found");
        ines.delete("/api/board/feeds/" + feed.get("id").asLong()).problem(404, "not-found");
        assertThat(ines.post("/api/board/feeds", "{\"fleetId\": 999}").errorAt("/fleetId"))
                .contains("Choose");
    }
}
