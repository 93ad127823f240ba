package knollfield.app.stores;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.job.Bay;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.parts.CatalogPart;
import knollfield.app.parts.Catalogue;
import knollfield.app.parts.PartsSupplier;
import knollfield.app.shared.Cells;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.due.JobStage;
import knollfield.core.engine.ToolSet;
import knollfield.core.stores.Deliveries;
import knollfield.core.stores.PartsPlan;
import knollfield.core.stores.PartsPlan.Supply;
import knollfield.core.stores.ToolDemand;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What coming jobs need of the stores, what is short, orders, tool sets. */
@RestController
@RequestMapping("/api/stores")
class StoresController {

    private final Stores stores;
    private final Jobs jobs;
    private final Catalogue catalogue;
    private final PartsSupplier supplier;
    private final EngineBook book;
    private final WorkshopClock clock;

    StoresController(
            Stores stores,
            Jobs jobs,
            Catalogue catalogue,
            PartsSupplier supplier,
            EngineBook book,
            WorkshopClock clock) {
        this.stores = stores;
        this.jobs = jobs;
        this.catalogue = catalogue;
        this.supplier = supplier;
        this.book = book;
        this.clock = clock;
    }

    /** Where a part comes from, as the screen words it. */
    enum SupplyKind {
        IN_HOUSE,
        ORDERED,
        TO_ORDER,
        NOT_LISTED
    }

    /**
     * @param day it is here, or would be if ordered today; null where it is here already or nobody can say
     * @param orderBy last day to order for the job's start; null where there is none
     * @param late the job is to start before the part can be used
     */
    record NeedLine(
            String part,
            String name,
            SupplyKind supply,
            @Nullable LocalDate day,
            @Nullable LocalDate orderBy,
            boolean late) {}

    /** @param start null for a job without a place */
    record JobNeeds(
            long jobId,
            String registration,
            String makeModel,
            @Nullable LocalDateTime start,
            @Nullable LocalDate actBy,
            List<NeedLine> lines,
            boolean ready) {}

    record ForJob(long jobId, String registration) {}

    /**
     * A part to order.
     *
     * @param pieces that neither stock nor orders cover
     * @param orderBy the earliest of its jobs; null where none has a place
     * @param late a job is to start before it can be here
     * @param here when it comes if ordered today; null where no delivery is in sight
     * @param priceMinor of one piece today
     */
    record ShortPart(
            String part,
            String name,
            int pieces,
            int inHouse,
            @Nullable LocalDate orderBy,
            boolean late,
            @Nullable LocalDate here,
            long priceMinor,
            List<ForJob> jobs) {}

    record OrderView(
            long id,
            String part,
            String name,
            int pieces,
            long priceMinor,
            LocalDate orderedOn,
            String orderedBy,
            LocalDate promised,
            @Nullable LocalDate expected,
            @Nullable LocalDate arrivedOn,
            @Nullable LocalDate cancelledOn,
            int version) {}

    record PieceView(String name, int count, String use) {}

    /** @param with job that has it now; null where it is in its place */
    record CopyView(
            long id,
            int number,
            ToolCopy.State state,
            String stateWords,
            boolean usable,
            String keptAt,
            String note,
            int version,
            @Nullable String with) {}

    /** @param start null for a job that waits for a place */
    record SetBooking(
            long jobId,
            String registration,
            @Nullable LocalDateTime start,
            @Nullable LocalDateTime end,
            @Nullable LocalDate actBy) {}

    /**
     * A family's tool sets.
     *
     * @param waiting jobs without a place that are due within two weeks
     * @param clash such jobs wait while others have every copy at some time in those weeks
     */
    record ToolSetView(
            String familyCode,
            String family,
            String name,
            List<PieceView> pieces,
            List<CopyView> copies,
            List<SetBooking> bookings,
            int waiting,
            boolean clash) {}

    record ToolStateView(ToolCopy.State state, String words) {}

    record StoresView(
            LocalDate today,
            @Nullable LocalDate nextFerry,
            List<JobNeeds> needs,
            List<ShortPart> shorts,
            List<OrderView> orders,
            List<ToolSetView> toolSets,
            List<ToolStateView> states) {}

    record OrderIn(List<Stores.Wanted> lines) {}

    record CountIn(int pieces, int version) {}

    record CopyIn(ToolCopy.State state, String keptAt, String note, int version) {}

    record NewCopy(String familyCode) {}

    record ShelfView(String part, int pieces, int version) {}

    @GetMapping
    StoresView view() {
        LocalDate today = clock.today();
        List<Job> open = jobs.open();
        Deliveries deliveries = stores.deliveries(Set.of());
        List<PartsPlan.Served> served = stores.served(open, deliveries);
        Map<String, CatalogPart> parts =
                catalogue.all().stream().collect(Collectors.toMap(CatalogPart::number, Function.identity()));
        return new StoresView(
                today,
                deliveries.from(today).orElse(null),
                needs(open, served, parts),
                shorts(open, served, parts, deliveries, today),
                stores.orders().stream()
                        .map(o -> order(o, parts, deliveries, today))
                        .toList(),
                toolSets(open, today),
                Arrays.stream(ToolCopy.State.values())
                        .map(s -> new ToolStateView(s, s.words()))
                        .toList());
    }

    private Vehicle vehicle(Job job) {
        return jobs.state(job).vehicle();
    }

    private static String name(Map<String, CatalogPart> parts, String number) {
        return Optional.ofNullable(parts.get(number)).map(CatalogPart::name).orElse("not in the catalogue");
    }

    private List<JobNeeds> needs(List<Job> open, List<PartsPlan.Served> served, Map<String, CatalogPart> parts) {
        Map<Long, List<PartsPlan.Served>> byJob =
                served.stream().collect(Collectors.groupingBy(s -> s.need().jobId()));
        return open.stream()
                .filter(j -> byJob.containsKey(j.id()))
                .map(j -> {
                    List<PartsPlan.Served> own = byJob.getOrDefault(j.id(), List.of());
                    return new JobNeeds(
                            j.id(),
                            vehicle(j).registration(),
                            vehicle(j).makeModel(),
                            j.booking().map(Job.Booking::start).orElse(null),
                            jobs.state(j).forecast().actBy().orElse(null),
                            own.stream().map(s -> line(s, parts)).toList(),
                            PartsPlan.ready(own));
                })
                .sorted(Comparator.comparing(
                                (JobNeeds n) -> Optional.ofNullable(n.start).orElse(LocalDateTime.MAX))
                        .thenComparing(n -> Optional.ofNullable(n.actBy).orElse(LocalDate.MAX)))
                .toList();
    }

    private static NeedLine line(PartsPlan.Served s, Map<String, CatalogPart> parts) {
        Supply supply = s.supply();
        return new NeedLine(
                s.need().part(),
                name(parts, s.need().part()),
                supply instanceof Supply.InHouse
                        ? SupplyKind.IN_HOUSE
                        : supply instanceof Supply.Ordered
                                ? SupplyKind.ORDERED
                                : supply instanceof Supply.ToOrder ? SupplyKind.TO_ORDER : SupplyKind.NOT_LISTED,
                supply.day().orElse(null),
                supply instanceof Supply.ToOrder t ? t.orderBy().orElse(null) : null,
                s.late());
    }

    private List<ShortPart> shorts(
            List<Job> open,
            List<PartsPlan.Served> served,
            Map<String, CatalogPart> parts,
            Deliveries deliveries,
            LocalDate today) {
        Map<Long, Job> byId = open.stream().collect(Collectors.toMap(Job::id, Function.identity()));
        List<PartsPlan.Shortage> shortages = PartsPlan.shortages(served);
        Map<String, PartsSupplier.Quote> quotes = supplier
                .ask(
                        shortages.stream()
                                .flatMap(x -> Optional.ofNullable(parts.get(x.part())).stream())
                                .toList(),
                        today)
                .stream()
                .collect(Collectors.toMap(PartsSupplier.Quote::number, Function.identity()));
        Map<String, StoresRepository.Shelf> stock = stores.stock();
        return shortages.stream()
                .map(x -> {
                    Optional<PartsSupplier.Quote> quote = Optional.ofNullable(quotes.get(x.part()));
                    return new ShortPart(
                            x.part(),
                            name(parts, x.part()),
                            x.pieces(),
                            Optional.ofNullable(stock.get(x.part()))
                                    .map(StoresRepository.Shelf::pieces)
                                    .orElse(0),
                            x.orderBy().orElse(null),
                            x.late(),
                            quote.flatMap(q -> deliveries.firstAfter(today.plusDays(q.daysToSend())))
                                    .orElse(null),
                            quote.map(PartsSupplier.Quote::priceMinor).orElse(0L),
                            x.jobs().stream()
                                    .flatMap(id -> Optional.ofNullable(byId.get(id)).stream())
                                    .map(j -> new ForJob(j.id(), vehicle(j).registration()))
                                    .toList());
                })
                .toList();
    }

    private static OrderView order(
            PartOrder o, Map<String, CatalogPart> parts, Deliveries deliveries, LocalDate today) {
        LocalDate promised = o.arrives();
        return new OrderView(
                o.id(),
                o.part(),
                name(parts, o.part()),
                o.pieces(),
                o.priceMinor(),
                o.orderedOn(),
                o.orderedBy(),
                promised,
                o.isOpen() ? deliveries.expected(promised, today).orElse(null) : null,
                o.arrivedOn().orElse(null),
                o.cancelledOn().orElse(null),
                o.version());
    }

    private List<ToolSetView> toolSets(List<Job> open, LocalDate today) {
        Map<String, List<Job>> byFamily =
                open.stream().filter(j -> !j.scope().isInspection()).collect(Collectors.groupingBy(Job::familyCode));
        Map<String, List<ToolCopy>> copies = stores.copies().stream()
                .collect(Collectors.groupingBy(ToolCopy::familyCode, TreeMap::new, Collectors.toList()));
        Map<Long, String> bays = jobs.everyBay().stream().collect(Collectors.toMap(Bay::id, Bay::name));
        List<ToolSetView> views = new ArrayList<>();
        copies.forEach((family, all) -> {
            Optional<VersionedFamily> known = book.find(family);
            ToolSet set = known.map(f -> f.family().tools()).orElseGet(ToolSet::none);
            List<Job> wanting = byFamily.getOrDefault(family, List.of());
            List<Job> atBench = new ArrayList<>(wanting.stream()
                    .filter(j -> j.stage() == JobStage.UNDER_WAY)
                    .toList());
            List<CopyView> copyViews = new ArrayList<>();
            for (ToolCopy c : all) {
                Job holder = c.state().isUsable() && !atBench.isEmpty() ? atBench.remove(0) : null;
                copyViews.add(new CopyView(
                        c.id(),
                        c.number(),
                        c.state(),
                        c.state().words(),
                        c.state().isUsable(),
                        c.keptAt(),
                        c.note(),
                        c.version(),
                        holder == null
                                ? null
                                : vehicle(holder).registration()
                                        + holder.booking()
                                                .map(b -> ", " + bays.getOrDefault(b.bayId(), ""))
                                                .orElse("")));
            }
            List<SetBooking> bookings = wanting.stream()
                    .map(j -> new SetBooking(
                            j.id(),
                            vehicle(j).registration(),
                            j.booking().map(Job.Booking::start).orElse(null),
                            j.booking().map(Job.Booking::end).orElse(null),
                            jobs.state(j).forecast().actBy().orElse(null)))
                    .sorted(Comparator.comparing(
                            b -> Optional.ofNullable(b.start).orElse(LocalDateTime.MAX)))
                    .toList();
            ToolDemand demand = ToolDemand.of(
                    bookings.stream()
                            .map(b -> new ToolDemand.Wanting(
                                    Optional.ofNullable(b.start).map(LocalDateTime::toLocalDate),
                                    Optional.ofNullable(b.actBy)))
                            .toList(),
                    (int) all.stream().filter(c -> c.state().isUsable()).count(),
                    today);
            views.add(new ToolSetView(
                    family,
                    known.map(f -> f.family().name()).orElse(family),
                    set.name(),
                    set.pieces().stream()
                            .map(p -> new PieceView(p.name(), p.count(), p.use()))
                            .toList(),
                    copyViews,
                    bookings,
                    demand.waiting(),
                    demand.clash()));
        });
        views.sort(Comparator.comparing((ToolSetView v) -> !v.clash)
                .thenComparing(v -> v.bookings.isEmpty())
                .thenComparing(ToolSetView::family));
        return views;
    }

    /** What is short, as CSV. */
    @GetMapping(value = "/short.csv", produces = "text/csv")
    String shortCsv() {
        StringBuilder out = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            Cells.print(csv, "part", "name", "pieces", "order_by", "here_if_ordered_today", "for");
            for (ShortPart s : view().shorts()) {
                Cells.print(
                        csv,
                        s.part,
                        s.name,
                        s.pieces,
                        s.orderBy,
                        s.here,
                        s.jobs.stream().map(ForJob::registration).collect(Collectors.joining(" ")));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toString();
    }

    @PostMapping("/orders")
    StoresView order(@RequestBody OrderIn in) {
        stores.order(in.lines());
        return view();
    }

    @PostMapping("/orders/{id}/arrived")
    StoresView arrived(@PathVariable long id, @RequestParam int version) {
        stores.arrived(id, version);
        return view();
    }

    @PostMapping("/orders/{id}/cancelled")
    StoresView cancelled(@PathVariable long id, @RequestParam int version) {
        stores.cancel(id, version);
        return view();
    }

    /** Pieces in the house, for parts that have any on file. */
    @GetMapping("/stock")
    List<ShelfView> stock() {
        return stores.stock().entrySet().stream()
                .map(e -> new ShelfView(
                        e.getKey(), e.getValue().pieces(), e.getValue().version()))
                .sorted(Comparator.comparing(ShelfView::part))
                .toList();
    }

    @PutMapping("/stock/{part}")
    List<ShelfView> count(@PathVariable String part, @RequestBody CountIn in) {
        stores.count(part, in.pieces(), in.version());
        return stock();
    }

    @PutMapping("/tool-sets/{id}")
    StoresView note(@PathVariable long id, @RequestBody CopyIn in) {
        stores.note(id, in.state(), in.keptAt(), in.note(), in.version());
        return view();
    }

    @PostMapping("/tool-sets")
    StoresView addCopy(@RequestBody NewCopy in) {
        stores.addCopy(in.familyCode());
        return view();
    }
}
