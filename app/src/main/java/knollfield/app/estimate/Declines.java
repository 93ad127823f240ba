package knollfield.app.estimate;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import knollfield.app.documents.DeclineSheet;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.Houses;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.engine.Item;
import knollfield.core.estimate.Consent;
import knollfield.core.estimate.Estimate;
import org.springframework.stereotype.Component;

/** What is told of leaving work, and what an owner signs who leaves it. */
@Component
public class Declines {

    private static final int MOST_WARNING = 400;

    private final Estimates estimates;
    private final Jobs jobs;
    private final WorkshopSettings settings;
    private final Houses houses;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    Declines(
            Estimates estimates,
            Jobs jobs,
            WorkshopSettings settings,
            Houses houses,
            CurrentPerson current,
            WorkshopClock clock) {
        this.estimates = estimates;
        this.jobs = jobs;
        this.settings = settings;
        this.houses = houses;
        this.current = current;
        this.clock = clock;
    }

    /** What is told of leaving a line, in words for its owner. */
    public String warning(Job job, Estimate.Line line) {
        Optional<Item> item = jobs.family(job).item(line.code());
        String drive = jobs.family(job).drive().isBelt() ? "timing belt" : "timing chain";
        String stays = "The %s stays as it is".formatted(line.name().toLowerCase(Locale.ROOT));
        return item.filter(Item::takesTheDrive).isPresent()
                ? "%s. Should it fail, the %s goes with it; doing it later opens the same covers again."
                        .formatted(stays, drive)
                : stays + "; doing it later opens the same covers again.";
    }

    /** What waiting with all of it costs, as the estimate has it. */
    public static String waiting(StoredEstimate estimate) {
        String waiting = estimate.plain().stream()
                .filter(p -> p.startsWith("What waiting costs"))
                .findFirst()
                .orElse("The work stays undone.");
        return waiting.substring(0, Math.min(MOST_WARNING, waiting.length()));
    }

    /**
     * @param codes of lines that are to be left; none: those that were left
     * @param told of the risk; empty: the words that were noted, or the usual ones
     * @throws InvalidInput where no line is left
     */
    DeclineSheet sheet(Job job, StoredEstimate stored, List<String> codes, String told) {
        if (told.length() > MOST_WARNING) {
            throw new InvalidInput("/told", "The warning is longer than %d characters.".formatted(MOST_WARNING));
        }
        List<Consent.OfLine> standing = estimates.standing(job, stored.estimate());
        List<Estimate.Line> lines = standing.stream()
                .filter(l -> codes.isEmpty()
                        ? l.state() == Consent.State.LEFT
                        : codes.contains(l.line().code()))
                .map(Consent.OfLine::line)
                .toList();
        if (lines.isEmpty()) {
            throw new InvalidInput("/lines", "No line of estimate %d-%d is left.".formatted(job.id(), stored.number()));
        }
        List<Consent> said = estimates.said(job.id());
        Vehicle v = jobs.state(job).vehicle();
        return new DeclineSheet(
                settings.get().name(),
                houses.get().letterhead(),
                job.id(),
                stored.number(),
                v.registration(),
                v.makeModel(),
                v.ownerName(),
                clock.today(),
                lines.stream()
                        .map(l -> new DeclineSheet.Line(l.name(), told.isBlank() ? noted(job, l, said) : told.strip()))
                        .toList(),
                waiting(stored),
                current.get().name());
    }

    private String noted(Job job, Estimate.Line line, List<Consent> said) {
        return said.stream()
                .filter(c -> c.lineCode().equals(line.code()) && !c.warning().isEmpty())
                .reduce((a, b) -> b)
                .map(Consent::warning)
                .orElseGet(() -> warning(job, line));
    }
}
