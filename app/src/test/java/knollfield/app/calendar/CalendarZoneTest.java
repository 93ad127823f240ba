package knollfield.app.calendar;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Optional;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.job.Jobs;
import knollfield.app.job.Workbench;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.data.ParserException;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.Component;
import net.fortuna.ical4j.model.Parameter;
import net.fortuna.ical4j.model.Property;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.component.VTimeZone;
import net.fortuna.ical4j.model.property.DtStart;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.node.ObjectNode;

/** A workshop on the other side of the world says its times by its own clock, and how that clock goes. */
class CalendarZoneTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    @ParameterizedTest(name = "{0}")
    // the library keeps the rules of Oslo under the name of Berlin
    @ValueSource(strings = {"Pacific/Auckland", "Europe/Oslo", "Asia/Kolkata"})
    void timesCarryTheirZoneAndItsRules(String region) throws IOException, ParserException {
        Client ines = SERVER.as("ines");
        ObjectNode house = (ObjectNode) ines.get("/api/setup/house").ok().json();
        ines.put("/api/setup/house", house.put("zone", region).toString()).ok();
        long vehicle = Given.vehicle(SERVER, ines, "");
        Given.reading(ines, vehicle, Given.TODAY.minusDays(40), "170000", "KM").ok();
        long job = ines.post("/api/jobs", "{\"vehicleId\": %d}".formatted(vehicle))
                .ok()
                .json()
                .get("id")
                .asLong();
        Client tamsin = Workbench.checkedIn(SERVER, job);
        LocalDateTime start =
                SERVER.bean(Jobs.class).get(job).booking().orElseThrow().start();

        // Source: ical4j, a library of its own for RFC 5545, reads the file; java.time knows the zone by the IANA
        // database
        Calendar calendar = new CalendarBuilder()
                .build(new StringReader(ines.get("/api/board/calendar.ics").ok().text()));
        VTimeZone zone = (VTimeZone) calendar.getComponent(Component.VTIMEZONE).orElseThrow();
        VEvent event = calendar.getComponents(Component.VEVENT).stream()
                .map(VEvent.class::cast)
                .filter(e -> e.getUid().orElseThrow().getValue().equals("job-%d@knollfield".formatted(job)))
                .findFirst()
                .orElseThrow();
        DtStart<?> at = event.getRequiredProperty(Property.DTSTART);
        Optional<Parameter> said = at.getParameter(Parameter.TZID);
        assertThat(said.map(Parameter::getValue)).hasValue(zone.getTimeZoneId().getValue());
        assertThat(at.getValue()).endsWith("T080000");
        assertThat(Instant.from(at.getDate()))
                .isEqualTo(start.atZone(ZoneId.of(region)).toInstant());
        assertThat(zone.getObservances()).isNotEmpty();
        Workbench.workUntil(tamsin, job, null);
        Workbench.enter(tamsin, job, "\"type\": \"COMPLETE\"").ok();
    }
}
