package knollfield.app.away;

import java.io.IOException;
import java.io.StringReader;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.temporal.ChronoField;
import java.time.temporal.ChronoUnit;
import java.time.temporal.Temporal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.shared.WorkshopClock;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.data.ParserException;
import net.fortuna.ical4j.model.Component;
import net.fortuna.ical4j.model.Period;
import net.fortuna.ical4j.model.Property;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.property.DtEnd;
import net.fortuna.ical4j.model.property.DtStart;
import net.fortuna.ical4j.model.property.Summary;
import net.fortuna.ical4j.util.CompatibilityHints;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Days on which the whole workshop is closed: typed, or taken from a calendar file of holidays (RFC 5545). */
@Service
public class ClosedDays {

    /** How far ahead a yearly holiday is written out. */
    private static final int YEARS_AHEAD = 2;

    private static final int MOST = 400;

    private final Absences absences;
    private final WorkshopClock clock;

    ClosedDays(Absences absences, WorkshopClock clock) {
        this.absences = absences;
        this.clock = clock;
    }

    /**
     * Closed from one day to another, both included.
     *
     * @param id 0 while it is not on file
     * @param known it is on file already, with these days
     */
    public record Closed(long id, LocalDate from, LocalDate to, String why, boolean known) {}

    /** Those on file that end today or later, by their first day. */
    public List<Closed> all() {
        return absences.endingFrom(clock.today()).stream()
                .filter(a -> a.kind() == Absence.Kind.WORKSHOP)
                .map(a -> new Closed(a.id(), a.from(), a.to(), a.why(), true))
                .sorted(Comparator.comparing(Closed::from))
                .toList();
    }

    /**
     * What a calendar file says, from today on; changes nothing.
     *
     * @param text of the file
     * @throws InvalidInput where it is no calendar, or has no day from today on
     */
    public List<Closed> read(String text) {
        CompatibilityHints.setHintEnabled(CompatibilityHints.KEY_RELAXED_UNFOLDING, true);
        CompatibilityHints.setHintEnabled(CompatibilityHints.KEY_RELAXED_PARSING, true);
        List<Closed> days = new ArrayList<>();
        try {
            new CalendarBuilder()
                    .build(new StringReader(text.stripLeading()))
                    .<VEvent>getComponents(Component.VEVENT)
                    .forEach(e -> days.addAll(occurrences(e)));
        } catch (IOException | ParserException | RuntimeException e) {
            throw new InvalidInput(
                    "/file",
                    "This is no calendar file (.ics): %s"
                            .formatted(Optional.ofNullable(e.getMessage()).orElse("it cannot be read")));
        }
        if (days.isEmpty()) {
            throw new InvalidInput("/file", "The file has no day from today on.");
        }
        if (days.size() > MOST) {
            throw new InvalidInput(
                    "/file",
                    "The file has %d entries; a list of closed days has at most %d.".formatted(days.size(), MOST));
        }
        return days.stream().sorted(Comparator.comparing(Closed::from)).toList();
    }

    private List<Closed> occurrences(VEvent event) {
        Temporal begin =
                event.<DtStart<Temporal>>getRequiredProperty(Property.DTSTART).getDate();
        LocalDate first = local(begin).toLocalDate();
        // RFC 5545, 3.6.1: the end is the first day, or moment, that is no longer part of the event; a moment without
        // one
        // ends as it begins
        boolean lasts = begin instanceof LocalDate
                || event.getProperty(Property.DTEND).isPresent()
                || event.getProperty(Property.DURATION).isPresent();
        LocalDate last = event.<Temporal>getEndDate(true)
                .filter(end -> lasts)
                .map(DtEnd::getDate)
                .map(end -> local(end).minusNanos(1).toLocalDate())
                .filter(d -> !d.isBefore(first))
                .orElse(first);
        String why = event.<Summary>getProperty(Property.SUMMARY)
                .map(Summary::getValue)
                .orElse("closed");
        String reason = why.length() > 120 ? why.substring(0, 120) : why;
        long length = ChronoUnit.DAYS.between(first, last);
        LocalDate today = clock.today();
        List<LocalDate> starts =
                event.getProperty(Property.RRULE).isPresent() ? repeated(event, begin, today) : List.of(first);
        return starts.stream()
                .filter(s -> !s.plusDays(length).isBefore(today))
                .map(s -> new Closed(0, s, s.plusDays(length), reason, isKnown(s, s.plusDays(length))))
                .toList();
    }

    /** Days on which a repeated event begins, to two years from now. */
    private List<LocalDate> repeated(VEvent event, Temporal begin, LocalDate today) {
        long days = Math.max(1, ChronoUnit.DAYS.between(local(begin).toLocalDate(), today.plusYears(YEARS_AHEAD)));
        return event.<Temporal>calculateRecurrenceSet(new Period<>(begin, begin.plus(days, ChronoUnit.DAYS))).stream()
                .map(p -> local(p.getStart()).toLocalDate())
                .distinct()
                .toList();
    }

    /** A date, or a moment with or without a zone, as this workshop's calendar has it. */
    private LocalDateTime local(Temporal at) {
        if (at instanceof LocalDate day) {
            return day.atStartOfDay();
        }
        return at.isSupported(ChronoField.INSTANT_SECONDS)
                ? LocalDateTime.ofInstant(Instant.from(at), clock.zone())
                : LocalDateTime.from(at);
    }

    private boolean isKnown(LocalDate from, LocalDate to) {
        return all().stream().anyMatch(c -> !c.from().isAfter(from) && !c.to().isBefore(to));
    }

    /**
     * Puts days on file, all or none; those that are there already are left out.
     *
     * @throws InvalidInput naming each that cannot be
     */
    @Transactional
    public void add(List<Closed> days) {
        List<FieldProblem> problems = new ArrayList<>();
        List<Absence> checked = new ArrayList<>();
        for (int i = 0; i < days.size(); i++) {
            Closed d = days.get(i);
            try {
                checked.add(absences.of(Absence.Kind.WORKSHOP, null, null, null, d.from(), d.to(), d.why()));
            } catch (InvalidInput e) {
                String at = "/days/" + i;
                e.problems().forEach(p -> problems.add(new FieldProblem(at + p.pointer(), p.detail())));
            }
        }
        if (days.isEmpty()) {
            problems.add(new FieldProblem("/days", "Choose at least one day."));
        }
        if (!problems.isEmpty()) {
            throw new InvalidInput(problems);
        }
        checked.stream().filter(a -> !isKnown(a.from(), a.to())).forEach(absences::add);
    }
}
