package knollfield.app.stores;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.away.Absence;
import knollfield.app.away.Absences;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.job.card.Cards.JobStarted;
import knollfield.app.job.card.Cards.ToolReported;
import knollfield.app.parts.CatalogPart;
import knollfield.app.parts.Catalogue;
import knollfield.app.parts.PartsSupplier;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.due.JobStage;
import knollfield.core.stores.Deliveries;
import knollfield.core.stores.PartsPlan;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Stock, orders, tool sets, and who needs them when. */
@Service
public class Stores {

    private static final int MOST_PIECES = 1_000;

    private final StoresRepository repository;
    private final Jobs jobs;
    private final Catalogue catalogue;
    private final PartsSupplier supplier;
    private final EngineBook book;
    private final Absences absences;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    Stores(
            StoresRepository repository,
            Jobs jobs,
            Catalogue catalogue,
            PartsSupplier supplier,
            EngineBook book,
            Absences absences,
            CurrentPerson current,
            WorkshopClock clock) {
        this.repository = repository;
        this.jobs = jobs;
        this.catalogue = catalogue;
        this.supplier = supplier;
        this.book = book;
        this.absences = absences;
        this.current = current;
        this.clock = clock;
    }

    /** The days parts come, without those on which the ferry is cancelled and {@code alsoCancelled}. */
    public Deliveries deliveries(Set<LocalDate> alsoCancelled) {
        List<Absence> cancelled = absences.endingFrom(clock.today()).stream()
                .filter(a -> a.kind() == Absence.Kind.FERRY)
                .toList();
        return new Deliveries(d -> supplier.deliversOn(d)
                && !alsoCancelled.contains(d)
                && cancelled.stream().noneMatch(a -> a.covers(d)));
    }

    /** True where parts come on named days, and {@code day} is one of them if nothing were cancelled. */
    public boolean usuallyDelivers(LocalDate day) {
        return supplier.hasDays() && supplier.deliversOn(day);
    }

    /** What each job that has not begun needs and where it comes from, in the order they are served. */
    public List<PartsPlan.Served> served(List<Job> open, Deliveries deliveries) {
        LocalDate today = clock.today();
        List<PartsPlan.Need> needs = new ArrayList<>();
        Set<String> numbers = new HashSet<>();
        Map<String, Integer> stock = new HashMap<>();
        repository.stock().forEach((part, shelf) -> stock.put(part, shelf.pieces()));
        for (Job job : open) {
            // the parts of a job at the bench were taken from the shelf at check-in
            if (job.stage() == JobStage.UNDER_WAY) {
                continue;
            }
            VehicleState state = jobs.state(job);
            double rank = state.forecast().actBy().map(LocalDate::toEpochDay).orElse(Long.MAX_VALUE / 2)
                    - (state.exposurePerWeekMinor().orElse(0) / 1e12);
            for (String part : jobs.outline(job).partNumbers().values()) {
                needs.add(new PartsPlan.Need(job.id(), part, job.booking().map(Job.Booking::start), rank));
                numbers.add(part);
            }
        }
        List<CatalogPart> parts = catalogue.all().stream()
                .filter(p -> numbers.contains(p.number()))
                .toList();
        Map<String, Integer> days = supplier.ask(parts, today).stream()
                .collect(Collectors.toMap(PartsSupplier.Quote::number, PartsSupplier.Quote::daysToSend));
        return PartsPlan.share(
                needs,
                stock,
                repository.orders(today).stream()
                        .filter(PartOrder::isOpen)
                        .map(o -> new PartsPlan.OnOrder(o.part(), o.pieces(), o.arrives()))
                        .toList(),
                days,
                deliveries,
                today);
    }

    /** Copies of each family's tool set that can be worked with. */
    public Map<String, Integer> usableCopies() {
        Map<String, Integer> copies = new HashMap<>();
        repository.copies().forEach(c -> copies.merge(c.familyCode(), c.state().isUsable() ? 1 : 0, Integer::sum));
        return copies;
    }

    List<ToolCopy> copies() {
        return repository.copies();
    }

    Map<String, StoresRepository.Shelf> stock() {
        return repository.stock();
    }

    /** Open orders and those closed in the last two weeks. */
    List<PartOrder> orders() {
        return repository.orders(clock.today().minusWeeks(2));
    }

    /**
     * Sets what was counted on the shelf.
     *
     * @param version of the row that was read, 0 where there was none
     * @throws Conflict where somebody else changed it first
     */
    @Transactional
    public void count(String part, int pieces, int version) {
        new Checks()
                .that(pieces >= 0 && pieces <= MOST_PIECES, "/pieces", "Must be 0 to 1,000.")
                .orThrow();
        known(part);
        if (!repository.setStock(part, pieces, version)) {
            throw new Conflict(
                    "The stock of %s was changed while you were at it. Yours was not saved.".formatted(part));
        }
    }

    private CatalogPart known(String part) {
        return catalogue.find(part).orElseThrow(() -> new NotFound("There is no part " + part + "."));
    }

    /** One line of an order. */
    public record Wanted(String part, int pieces) {}

    /**
     * Orders from the supplier, all or nothing.
     *
     * @throws InvalidInput where a line cannot be ordered
     */
    @Transactional
    public void order(List<Wanted> lines) {
        Checks checks = new Checks().that(!lines.isEmpty(), "/lines", "Choose at least one part.");
        for (int i = 0; i < lines.size(); i++) {
            checks.that(
                    lines.get(i).pieces() > 0 && lines.get(i).pieces() <= MOST_PIECES,
                    "/lines/%d/pieces".formatted(i),
                    "Must be 1 to 1,000.");
        }
        checks.orThrow();
        LocalDate today = clock.today();
        List<CatalogPart> parts = lines.stream().map(l -> known(l.part())).toList();
        Map<String, PartsSupplier.Quote> quotes = supplier.ask(parts, today).stream()
                .collect(Collectors.toMap(PartsSupplier.Quote::number, Function.identity(), (a, b) -> a));
        Deliveries deliveries = deliveries(Set.of());
        for (Wanted line : lines) {
            PartsSupplier.Quote quote = Objects.requireNonNull(quotes.get(line.part()));
            LocalDate arrives = deliveries
                    .firstAfter(today.plusDays(quote.daysToSend()))
                    .orElseThrow(() -> new InvalidInput("/lines", "No delivery is in sight."));
            repository.addOrder(new PartOrder(
                    0,
                    line.part(),
                    line.pieces(),
                    line.pieces() * quote.priceMinor(),
                    today,
                    arrives,
                    Optional.empty(),
                    Optional.empty(),
                    current.get().name(),
                    0));
        }
    }

    /** The parts of an order are in the house. */
    @Transactional
    public void arrived(long id, int version) {
        PartOrder order = orderOf(id);
        if (!repository.closeOrder(id, Optional.of(clock.today()), Optional.empty(), version)) {
            throw closedMeanwhile(id);
        }
        StoresRepository.Shelf shelf = repository.stock().getOrDefault(order.part(), new StoresRepository.Shelf(0, 0));
        if (!repository.setStock(order.part(), shelf.pieces() + order.pieces(), shelf.version())) {
            throw new Conflict("The stock of %s was changed meanwhile; try again.".formatted(order.part()));
        }
    }

    @Transactional
    public void cancel(long id, int version) {
        orderOf(id);
        if (!repository.closeOrder(id, Optional.empty(), Optional.of(clock.today()), version)) {
            throw closedMeanwhile(id);
        }
    }

    private PartOrder orderOf(long id) {
        return repository.order(id).orElseThrow(() -> new NotFound("There is no order " + id + "."));
    }

    private static Conflict closedMeanwhile(long id) {
        return new Conflict("Order %d was changed while you were at it. Yours was not saved.".formatted(id));
    }

    /** What goes to the bench is no longer on the shelf. */
    @EventListener
    void taken(JobStarted started) {
        jobs.outline(jobs.get(started.jobId())).partNumbers().values().forEach(repository::use);
    }

    /**
     * Notes what a copy is like and where it is.
     *
     * @throws Conflict where somebody else changed it first
     */
    @Transactional
    public void note(long id, ToolCopy.State state, String keptAt, String note, int version) {
        ToolCopy copy = repository.copy(id).orElseThrow(() -> new NotFound("There is no such tool set."));
        new Checks()
                .text(keptAt, 80, "/keptAt", "Where it is")
                .that(
                        note.length() <= LONGEST_NOTE,
                        "/note",
                        "The note is longer than %d characters.".formatted(LONGEST_NOTE))
                .that(
                        state.isUsable() || !note.isBlank(),
                        "/note",
                        "Say what is wrong, so that somebody can put it right.")
                .orThrow();
        if (!repository.update(
                new ToolCopy(id, copy.familyCode(), copy.number(), state, keptAt.strip(), note.strip(), version))) {
            throw new Conflict("This tool set was changed while you were at it. Yours was not saved.");
        }
    }

    /** Characters of a copy's note. */
    private static final int LONGEST_NOTE = 200;

    /** The copy that a job has is no longer one to plan with, once the bench says what is wrong with it. */
    @EventListener
    void reported(ToolReported e) {
        repository.copies().stream()
                .filter(c -> c.familyCode().equals(e.familyCode()) && c.state() != ToolCopy.State.GIVEN_UP)
                // the copy in use, as the list of tool sets shows it; one that was reported before takes the next word
                // too
                .min(Comparator.comparing((ToolCopy c) -> !c.note().startsWith(said(e.jobId())))
                        .thenComparing(c -> !c.state().isUsable())
                        .thenComparingInt(ToolCopy::number))
                .ifPresent(c -> {
                    String news = "%s %s %s%s"
                            .formatted(
                                    said(e.jobId()),
                                    e.piece(),
                                    e.missing() ? "missing" : "broken",
                                    e.words().isBlank() ? "" : ", " + e.words().strip());
                    String note = c.note().isBlank() || c.state().isUsable() ? news : c.note() + "; " + news;
                    repository.update(new ToolCopy(
                            c.id(),
                            c.familyCode(),
                            c.number(),
                            e.missing() ? ToolCopy.State.INCOMPLETE : ToolCopy.State.BROKEN,
                            c.keptAt(),
                            note.substring(0, Math.min(LONGEST_NOTE, note.length())),
                            c.version()));
                });
    }

    private static String said(long jobId) {
        return "job %d:".formatted(jobId);
    }

    /** Takes another copy of a family's tool set into the house. */
    @Transactional
    public void addCopy(String familyCode) {
        if (book.find(familyCode).isEmpty()) {
            throw new NotFound("There is no engine family " + familyCode + ".");
        }
        int last = repository.copies().stream()
                .filter(c -> c.familyCode().equals(familyCode))
                .mapToInt(ToolCopy::number)
                .max()
                .orElse(0);
        repository.addCopy(familyCode, last + 1);
    }
}
