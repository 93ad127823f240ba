package knollfield.core.estimate;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import knollfield.core.bundle.Bundle;
import knollfield.core.bundle.BundleLine;

/**
 * The price of a bundle: likely, and how low and high it may come out (rules.md section 6).
 *
 * <p>Work that serves more than one item stands on a line of its own, so that every line but that one can be agreed or
 * left alone and the lines still add up to the total.
 *
 * @param lines in the order they are printed
 * @param taxMinor tax on the likely sum, half a unit rounded up
 */
public record Estimate(List<Line> lines, double taxShare, long taxMinor, int bookMinutes, double timeFactor) {

    /** Code of the line for shared work. */
    public static final String SHARED = "_shared";

    /** Code of the line for consumables. */
    public static final String CONSUMABLES = "_consumables";

    /** Code of the line for the hire of tools. */
    public static final String TOOL_HIRE = "_tools";

    /** Code of the line for a look that opens nothing. */
    public static final String INSPECTION = "_inspection";

    /** What the codes of lines for {@link More} work begin with; its number follows. */
    public static final String MORE = "_more-";

    /** What a line is for. */
    public enum Kind {
        ITEM,
        FOLLOWS,
        SHARED_WORK,
        CONSUMABLES,
        TOOL_HIRE,
        /** Nobody planned it, and the bench told of it. */
        MORE_WORK,
        /** A look that opens nothing. */
        INSPECTION;

        /** The owner is asked about it by itself. */
        public boolean isAnswered() {
            return this == ITEM || this == MORE_WORK || this == INSPECTION;
        }
    }

    /**
     * Work that came up at the bench.
     *
     * @param number that tells it from the others of its job, and stays
     * @param what in words
     * @param minutes as told, above zero; no book time, so that no factor applies
     * @param partsMinor before tax, zero or more
     */
    public record More(long number, String what, int minutes, long partsMinor) {
        private Line line(EstimateRates rates) {
            long price = partsMinor + Math.round(minutes * rates.labourRateMinor() / 60.0);
            return new Line(MORE + number, what, Kind.MORE_WORK, true, minutes, partsMinor, price, price, price, false);
        }
    }

    /**
     * A line, before tax, in minor units.
     *
     * @param code the item's or joint's code, or one of this class's
     * @param required the rules ask for it
     * @param minutes likely, with the workshop's own time factor
     * @param ownerSupplied the owner brings the part
     */
    public record Line(
            String code,
            String name,
            Kind kind,
            boolean required,
            int minutes,
            long partsMinor,
            long lowMinor,
            long likelyMinor,
            long highMinor,
            boolean ownerSupplied) {}

    public Estimate {
        lines = List.copyOf(lines);
    }

    /** What {@code bundle} costs by {@code rates}. */
    public static Estimate of(Bundle bundle, java.util.Set<String> ownerSupplied, EstimateRates rates) {
        return of(bundle, ownerSupplied, rates, List.of());
    }

    /** What {@code bundle} and {@code more} cost by {@code rates}. */
    public static Estimate of(
            Bundle bundle, java.util.Set<String> ownerSupplied, EstimateRates rates, List<More> more) {
        List<Line> lines = new ArrayList<>();
        int shared = bundle.labour().sharedMinutes();
        if (shared > 0) {
            lines.add(line(SHARED, "Opening up, timing and closing", Kind.SHARED_WORK, true, shared, 0, false, rates));
        }
        for (BundleLine item : bundle.lines()) {
            if (!item.included()) {
                continue;
            }
            int own = item.kind() == BundleLine.Kind.ITEM ? bundle.labour().ownMinutes(item.code()) : 0;
            lines.add(line(
                    item.code(),
                    item.name(),
                    item.kind() == BundleLine.Kind.ITEM ? Kind.ITEM : Kind.FOLLOWS,
                    item.rule() == BundleLine.Rule.REQUIRED,
                    own,
                    item.partsMinor(),
                    ownerSupplied.contains(item.code()),
                    rates));
        }
        if (rates.consumablesMinor() > 0) {
            lines.add(line(
                    CONSUMABLES,
                    "Cleaner, sealant, rags",
                    Kind.CONSUMABLES,
                    true,
                    0,
                    rates.consumablesMinor(),
                    false,
                    rates));
        }
        if (rates.toolHireMinor() > 0) {
            lines.add(line(
                    TOOL_HIRE, "Hire of locking tools", Kind.TOOL_HIRE, true, 0, rates.toolHireMinor(), false, rates));
        }
        more.forEach(m -> lines.add(m.line(rates)));
        long likely = lines.stream().mapToLong(Line::likelyMinor).sum();
        return new Estimate(
                lines,
                rates.taxShare(),
                Math.round(likely * rates.taxShare()),
                bundle.labour().minutes(),
                rates.timeFactor());
    }

    /**
     * What an inspection costs: its time, which is no book time, so that no factor applies, and what came up in it.
     *
     * @param minutes above zero
     */
    public static Estimate ofInspection(int minutes, EstimateRates rates, List<More> more) {
        long price = Math.round(minutes * rates.labourRateMinor() / 60.0);
        Line line = new Line(
                INSPECTION,
                "Inspection, nothing opened",
                Kind.INSPECTION,
                true,
                minutes,
                0,
                price,
                price,
                price,
                false);
        List<Line> lines = Stream.concat(Stream.of(line), more.stream().map(m -> m.line(rates)))
                .toList();
        long likely = lines.stream().mapToLong(Line::likelyMinor).sum();
        return new Estimate(lines, rates.taxShare(), Math.round(likely * rates.taxShare()), minutes, 1);
    }

    private static Line line(
            String code,
            String name,
            Kind kind,
            boolean required,
            int bookMinutes,
            long parts,
            boolean ownerSupplied,
            EstimateRates rates) {
        double labour = bookMinutes * rates.timeFactor() * rates.labourRateMinor() / 60.0;
        return new Line(
                code,
                name,
                kind,
                required,
                (int) Math.round(bookMinutes * rates.timeFactor()),
                parts,
                parts + Math.round(labour * rates.lowShare()),
                parts + Math.round(labour),
                parts + Math.round(labour * rates.highShare()),
                ownerSupplied);
    }

    /** Sum of the likely lines before tax, minor units. */
    public long netMinor() {
        return lines.stream().mapToLong(Line::likelyMinor).sum();
    }

    /** Labour in it, likely, before tax. */
    public long labourMinor() {
        return netMinor() - partsMinor();
    }

    /** Parts, consumables and hire in it, before tax. */
    public long partsMinor() {
        return lines.stream().mapToLong(Line::partsMinor).sum();
    }

    /** Likely minutes, with the workshop's own time factor. */
    public int minutes() {
        return lines.stream().mapToInt(Line::minutes).sum();
    }

    /** Likely, with tax. */
    public long totalMinor() {
        return netMinor() + taxMinor;
    }

    /** At best, with tax. */
    public long lowTotalMinor() {
        return withTax(lines.stream().mapToLong(Line::lowMinor).sum());
    }

    /** At worst, with tax. */
    public long highTotalMinor() {
        return withTax(lines.stream().mapToLong(Line::highMinor).sum());
    }

    private long withTax(long net) {
        return net + Math.round(net * taxShare);
    }
}
