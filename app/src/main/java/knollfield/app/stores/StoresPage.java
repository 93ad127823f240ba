package knollfield.app.stores;

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
import knollfield.app.shared.WorkshopClock;
import knollfield.app.stores.StoresViews.CopyView;
import knollfield.app.stores.StoresViews.ForJob;
import knollfield.app.stores.StoresViews.JobNeeds;
import knollfield.app.stores.StoresViews.PieceView;
import knollfield.app.stores.StoresViews.SetBooking;
import knollfield.app.stores.StoresViews.ShortPart;
import knollfield.app.stores.StoresViews.StoresView;
import knollfield.app.stores.StoresViews.ToolSetView;
import knollfield.app.stores.StoresViews.ToolStateView;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.due.JobStage;
import knollfield.core.engine.ToolSet;
import knollfield.core.stores.Deliveries;
import knollfield.core.stores.PartsPlan;
import knollfield.core.stores.ToolDemand;
import org.springframework.stereotype.Component;

/** What coming jobs need, what is short, what is ordered, and where the tool sets are. */
@Component
class StoresPage {

    private final Stores stores;
    private final Jobs jobs;
    private final Catalogue catalogue;
    private final PartsSupplier supplier;
    private final EngineBook book;
    private final WorkshopClock clock;

    StoresPage(
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

    /** All of it, as of today. */
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
                        .map(o -> StoresViews.orderView(o, parts, deliveries, today))
                        .toList(),
                toolSets(open, today),
                Arrays.stream(ToolCopy.State.values())
                        .map(s -> new ToolStateView(s, s.words()))
                        .toList());
    }

    private Vehicle vehicle(Job job) {
        return jobs.state(job).vehicle();
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
                            own.stream().map(s -> StoresViews.line(s, parts)).toList(),
                            PartsPlan.ready(own));
                })
                .sorted(Comparator.comparing(
                                (JobNeeds n) -> Optional.ofNullable(n.start()).orElse(LocalDateTime.MAX))
                        .thenComparing(n -> Optional.ofNullable(n.actBy()).orElse(LocalDate.MAX)))
                .toList();
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
                            StoresViews.name(parts, x.part()),
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
                            b -> Optional.ofNullable(b.start()).orElse(LocalDateTime.MAX)))
                    .toList();
            ToolDemand demand = ToolDemand.of(
                    bookings.stream()
                            .map(b -> new ToolDemand.Wanting(
                                    Optional.ofNullable(b.start()).map(LocalDateTime::toLocalDate),
                                    Optional.ofNullable(b.actBy())))
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
        views.sort(Comparator.comparing((ToolSetView v) -> !v.clash())
                .thenComparing(v -> v.bookings().isEmpty())
                .thenComparing(ToolSetView::family));
        return views;
    }
}
