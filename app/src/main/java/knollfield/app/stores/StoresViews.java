package knollfield.app.stores;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import knollfield.app.parts.CatalogPart;
import knollfield.core.stores.Deliveries;
import knollfield.core.stores.PartsPlan;
import knollfield.core.stores.PartsPlan.Supply;
import org.jspecify.annotations.Nullable;

/** Parts, orders and tool sets, as they are shown and asked for. */
final class StoresViews {

    private StoresViews() {}

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

    static String name(Map<String, CatalogPart> parts, String number) {
        return Optional.ofNullable(parts.get(number)).map(CatalogPart::name).orElse("not in the catalogue");
    }

    static NeedLine line(PartsPlan.Served s, Map<String, CatalogPart> parts) {
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

    static OrderView orderView(PartOrder o, Map<String, CatalogPart> parts, Deliveries deliveries, LocalDate today) {
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
}
