package knollfield.core.bundle;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import knollfield.core.bundle.BundleLine.Rule;
import knollfield.core.bundle.BundleRules.Scope;
import knollfield.core.bundle.BundleRules.Vehicle;
import knollfield.core.bundle.BundleRules.Verdict;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.clock.LimitClock;
import knollfield.core.due.ItemForecast;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Joint;
import knollfield.core.engine.Part;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;
import knollfield.core.risk.Consequence;
import knollfield.core.risk.DriveHazard;
import knollfield.core.risk.Exposure;
import knollfield.core.risk.WearModel;
import knollfield.core.risk.WearModels;

/**
 * What else, while we are in there: rules first, then money (rules.md section 5).
 *
 * <p>Money is counted in sixtieths of a minor unit inside, so that minutes at an hourly rate stay whole numbers.
 */
public final class BundlePlanner {

    private static final int HORIZON_YEARS = 60;

    /**
     * What the money rests on.
     *
     * @param consequence of a failure of the drive
     * @param keptUntil the day the owner parts with the vehicle; empty: not known
     */
    public record Outlook(
            VehicleForecast forecast,
            LocalDate firstRegistered,
            WearModels wear,
            Consequence consequence,
            long labourRateMinor,
            Optional<LocalDate> keptUntil) {}

    /** Leaving one item: its price in sixtieths, when its own limit is reached, whether that is before the opening. */
    private record Leaving(long price, double chance, Optional<LocalDate> limitOn, boolean later) {}

    private final EngineFamily family;
    private final Vehicle vehicle;
    private final Scope scope;
    private final Outlook outlook;
    private final LocalDate today;
    private final List<Long> prices = new ArrayList<>();
    private final Map<String, Set<Integer>> atoms = new HashMap<>();
    private final Map<String, Leaving> leaving = new HashMap<>();
    private final LocalDate nextOpening;
    private final Statement whyThen;

    private BundlePlanner(EngineFamily family, Vehicle vehicle, Scope scope, Outlook outlook) {
        this.family = family;
        this.vehicle = vehicle;
        this.scope = scope;
        this.outlook = outlook;
        this.today = vehicle.today();
        price();
        LocalDate job = nextDriveJob();
        Optional<LocalDate> parting = outlook.keptUntil().filter(d -> d.isBefore(job));
        this.nextOpening = parting.orElse(job);
        this.whyThen = parting.isPresent()
                ? Statement.of("Counted until {0}, when the owner parts with the vehicle.", new Fact.Day(nextOpening))
                : Statement.of(
                        "Counted until {0}, the next {1} job at this vehicle's usage.",
                        new Fact.Day(nextOpening), new Fact.Words(family.drive().words()));
        for (Item item : family.items()) {
            leaving.put(item.code(), leave(item));
        }
    }

    /** The job under {@code scope}, its lines and what each school would do. */
    public static BundlePlan plan(EngineFamily family, Vehicle vehicle, Scope scope, Outlook outlook) {
        return new BundlePlanner(family, vehicle, scope, outlook).plan();
    }

    private BundlePlan plan() {
        Map<String, Verdict> verdicts = BundleRules.verdicts(family, vehicle, scope);
        // a partial job takes in what it is for and what was found; more is the person's decision
        School school = scope.isPartial(family) ? School.BOOK_MINIMUM : scope.school();
        Set<String> in = new LinkedHashSet<>(itemsOf(school));
        decide(verdicts, in);
        Bundle bundle = BundleRules.assemble(family, vehicle, scope, verdicts, in);
        Set<String> left = left(verdicts, in);
        List<BundlePlan.Line> lines = new ArrayList<>();
        for (BundleLine line : bundle.lines()) {
            if (line.kind() == BundleLine.Kind.ITEM) {
                Item item = family.item(line.code()).orElseThrow();
                Verdict verdict = of(verdicts, line.code());
                lines.add(line(line, item, verdict, in, left));
            }
        }
        List<BundlePlan.OfSchool> schools = new ArrayList<>();
        for (School each : School.values()) {
            schools.add(ofSchool(each));
        }
        Optional<LocalDate> laterOn = left.stream()
                .map(this::leavingOf)
                .filter(Leaving::later)
                .flatMap(l -> l.limitOn().stream())
                .min(LocalDate::compareTo);
        return new BundlePlan(bundle, lines, schools, nextOpening, whyThen, laterOn);
    }

    private static Verdict of(Map<String, Verdict> verdicts, String item) {
        return Objects.requireNonNull(verdicts.get(item), "every item of the family is judged");
    }

    /** The person's word goes over rules and money. */
    private void decide(Map<String, Verdict> verdicts, Set<String> in) {
        scope.decisions().forEach((code, decision) -> {
            Optional<Item> item = family.item(code);
            if (item.isEmpty()) {
                return;
            }
            if (decision.in()) {
                in.add(code);
                // the front half takes the place of the whole
                item.get().halfOf().ifPresent(in::remove);
            } else {
                in.remove(code);
            }
        });
        // and the whole takes the place of its half
        family.items().stream()
                .filter(i -> i.halfOf().filter(in::contains).isPresent())
                .forEach(i -> in.remove(i.code()));
        family.items().stream()
                .filter(i -> i.halfOf().isPresent() && in.contains(i.code()))
                .forEach(half -> verdicts.put(
                        half.halfOf().orElseThrow(),
                        new Verdict(
                                Rule.OFFERED,
                                Optional.of(
                                        Statement.of("Only the front half is renewed; the whole keeps its clocks.")),
                                false)));
    }

    private BundlePlan.Line line(BundleLine line, Item item, Verdict verdict, Set<String> in, Set<String> left) {
        Set<String> without = new LinkedHashSet<>(in);
        without.remove(item.code());
        Set<String> with = new LinkedHashSet<>(without);
        with.add(item.code());
        long now = costNow(with) - costNow(without);
        long later = 0;
        Leaving l = leavingOf(item.code());
        if (verdict.rule() != Rule.EXCLUDED) {
            Set<String> otherLeft = new LinkedHashSet<>(left);
            otherLeft.remove(item.code());
            later = l.price()
                    + (l.later()
                            ? weight(union(plus(laterOnes(otherLeft), item.code())))
                                    - weight(union(laterOnes(otherLeft)))
                            : 0);
        }
        long nowMinor = Sixtieths.toMinor(now);
        long laterMinor = Sixtieths.toMinor(later);
        Statement reason =
                verdict.reason().orElseGet(() -> money(item, line.marginalMinutes(), nowMinor, laterMinor, l));
        return new BundlePlan.Line(
                line,
                nowMinor,
                laterMinor,
                verdict.rule() != Rule.EXCLUDED && limit(item).isPresent(),
                verdict.reusable(),
                Optional.ofNullable(scope.decisions().get(item.code())),
                l.limitOn(),
                reason);
    }

    private Statement money(Item item, int marginal, long nowMinor, long laterMinor, Leaving l) {
        Fact adds = marginal == 0 ? new Fact.Words("no labour") : new Fact.Minutes(marginal);
        Fact now = new Fact.Money(nowMinor);
        Fact later = new Fact.Money(laterMinor);
        if (BundleRules.isSeal(item) && scope.seals() == School.Seals.WHEN_WET) {
            return Statement.of("Dry, so left by the seals rule; adds {0}, {1} now.", adds, now);
        }
        if (l.later()) {
            Fact alone = new Fact.Minutes(
                    Labour.of(family, vehicle.equipment(), List.of(item.code())).minutes());
            LocalDate on = l.limitOn().orElse(nextOpening);
            return on.isAfter(today)
                    ? Statement.of(
                            "Adds {0}, {1} now; its limit comes on {2}, and later it takes {3}, about {4}.",
                            adds, now, new Fact.Day(on), alone, later)
                    : Statement.of(
                            "Adds {0}, {1} now; its limit is passed, and later it takes {2}, about {3}.",
                            adds, now, alone, later);
        }
        if (limit(item).isEmpty()) {
            return Statement.of(
                    "Adds {0}, {1} now; the book has no limit for it, so leaving it has no price.", adds, now);
        }
        return Statement.of(
                "Adds {0}, {1} now; left, it holds until the next opening but for {2}, about {3}.",
                adds, now, new Fact.Share(Math.max(0, l.chance())), later);
    }

    private BundlePlan.OfSchool ofSchool(School school) {
        Scope plain = scope.plain(school);
        Map<String, Verdict> verdicts = BundleRules.verdicts(family, vehicle, plain);
        Set<String> in = new LinkedHashSet<>(itemsOf(school));
        Bundle bundle = BundleRules.assemble(family, vehicle, plain, verdicts, in);
        Set<String> left = left(verdicts, in);
        long later = weight(union(laterOnes(left)))
                + left.stream().mapToLong(c -> leavingOf(c).price()).sum();
        return new BundlePlan.OfSchool(
                school,
                bundle.items(),
                bundle.partsMinor(),
                bundle.labour().minutes(),
                bundle.partsMinor() + bundle.labourMinor(outlook.labourRateMinor()),
                Sixtieths.toMinor(later));
    }

    /** What a school takes in, before coolant that follows from opened joints. */
    private Set<String> itemsOf(School school) {
        Map<String, Verdict> verdicts = BundleRules.verdicts(family, vehicle, scope.plain(school));
        Set<String> in = new LinkedHashSet<>();
        List<Item> free = new ArrayList<>();
        for (Item item : family.items()) {
            Rule rule = of(verdicts, item.code()).rule();
            if (rule == Rule.REQUIRED) {
                in.add(item.code());
            } else if (rule == Rule.OFFERED) {
                free.add(item);
            }
        }
        switch (school) {
            case BOOK_MINIMUM -> {}
            case EVERYTHING ->
                free.stream().filter(this::behindTheCover).map(Item::code).forEach(in::add);
            case WHAT_PAYS -> in.addAll(optimum(in, free));
        }
        return in;
    }

    private Set<String> optimum(Set<String> required, List<Item> free) {
        List<Optimum.Candidate> candidates = new ArrayList<>();
        Set<Integer> laterInAnyCase = new HashSet<>();
        for (Item item : free) {
            Leaving l = leavingOf(item.code());
            Set<Integer> needed = atoms.getOrDefault(item.code(), Set.of());
            // a dry seal is left whatever it costs: that is what the rule says
            boolean drySeal = BundleRules.isSeal(item) && scope.seals() == School.Seals.WHEN_WET;
            if (!drySeal) {
                candidates.add(new Optimum.Candidate(item.code(), needed, l.price(), l.later()));
            } else if (l.later()) {
                laterInAnyCase.addAll(needed);
            }
        }
        Set<String> in = new LinkedHashSet<>(
                Optimum.of(new Optimum.Question(prices, union(required), laterInAnyCase, candidates))
                        .in());
        // coolant that only follows from an opened joint is not chosen: it goes when the joint stays shut
        for (Item item : free) {
            if (item.kind() == ItemKind.COOLANT && in.remove(item.code())) {
                Set<String> others = new LinkedHashSet<>(required);
                others.addAll(in);
                if (!union(others).containsAll(atoms.getOrDefault(item.code(), Set.of()))) {
                    in.add(item.code());
                }
            }
        }
        return in;
    }

    /** Reached only through what is taken off for the drive. */
    private boolean behindTheCover(Item item) {
        Set<String> cover = new HashSet<>();
        Item drive = family.driveItem();
        Labour.of(family, vehicle.equipment(), List.of(drive.code()))
                .steps()
                .forEach(s -> cover.add(s.step().code()));
        cover.removeAll(drive.accessSteps());
        Set<String> own = new HashSet<>();
        Labour.of(family, vehicle.equipment(), List.of(item.code()))
                .steps()
                .forEach(s -> own.add(s.step().code()));
        return own.containsAll(cover);
    }

    private Set<String> left(Map<String, Verdict> verdicts, Set<String> in) {
        Set<String> left = new LinkedHashSet<>();
        verdicts.forEach((code, v) -> {
            boolean half = family.item(code).flatMap(Item::halfOf).isPresent();
            if (!in.contains(code) && v.rule() != Rule.EXCLUDED && !half) {
                left.add(code);
            }
        });
        return left;
    }

    private Set<String> laterOnes(Collection<String> left) {
        Set<String> later = new LinkedHashSet<>();
        left.stream().filter(c -> leavingOf(c).later()).forEach(later::add);
        return later;
    }

    private static Set<String> plus(Set<String> some, String one) {
        Set<String> all = new LinkedHashSet<>(some);
        all.add(one);
        return all;
    }

    private Leaving leavingOf(String code) {
        return leaving.getOrDefault(code, new Leaving(0, 0, Optional.empty(), false));
    }

    // prices of atoms: access steps, what opened joints ask for, the coolant that follows, the item's own part

    private void price() {
        Map<String, Integer> index = new HashMap<>();
        for (AccessStep s : family.accessSteps()) {
            index.put("step " + s.code(), prices.size());
            prices.add(Sixtieths.ofLabour(s.minutes(), outlook.labourRateMinor()));
        }
        for (Joint j : family.joints()) {
            index.put("joint " + j.code(), prices.size());
            prices.add(Sixtieths.ofMinor(
                    j.oneTimeParts().stream().mapToLong(Part::totalMinor).sum()));
        }
        for (Item i : family.items()) {
            index.put("part " + i.code(), prices.size());
            prices.add(Sixtieths.ofMinor(scope.partFor(i).totalMinor()));
        }
        for (Item item : family.items()) {
            Set<Integer> needed = new HashSet<>();
            need(item, index, needed);
            Labour own = Labour.of(family, vehicle.equipment(), List.of(item.code()));
            if (own.opened(family).stream().anyMatch(Joint::holdsCoolant)) {
                family.items().stream()
                        .filter(i -> i.kind() == ItemKind.COOLANT)
                        .forEach(coolant -> need(coolant, index, needed));
            }
            atoms.put(item.code(), needed);
        }
    }

    private void need(Item item, Map<String, Integer> index, Set<Integer> needed) {
        Labour own = Labour.of(family, vehicle.equipment(), List.of(item.code()));
        own.steps()
                .forEach(s -> needed.add(index.getOrDefault("step " + s.step().code(), 0)));
        own.opened(family).forEach(j -> needed.add(index.getOrDefault("joint " + j.code(), 0)));
        needed.add(index.getOrDefault("part " + item.code(), 0));
    }

    private Set<Integer> union(Collection<String> items) {
        Set<Integer> all = new HashSet<>();
        items.forEach(i -> all.addAll(atoms.getOrDefault(i, Set.of())));
        return all;
    }

    private long weight(Set<Integer> of) {
        return of.stream().mapToLong(prices::get).sum();
    }

    private long costNow(Collection<String> items) {
        return weight(union(items));
    }

    // what leaving costs

    private LocalDate nextDriveJob() {
        Item drive = family.driveItem();
        Optional<Limit> limit = limit(drive);
        LocalDate horizon = today.plusYears(HORIZON_YEARS);
        if (limit.isEmpty()) {
            return horizon;
        }
        // a partial job leaves the drive's clock running; otherwise it starts today
        ClockStart start = scope.isPartial(family) ? start(drive) : fresh(today);
        return reached(start, limit.get()).orElse(horizon);
    }

    private Leaving leave(Item item) {
        Optional<Limit> limit = limit(item);
        if (limit.isEmpty()) {
            return new Leaving(0, 0, Optional.empty(), false);
        }
        ClockStart start = start(item);
        Optional<LocalDate> own = reached(start, limit.get());
        LocalDate end = own.filter(d -> d.isBefore(nextOpening)).orElse(nextOpening);
        boolean later = end.isBefore(nextOpening);
        WearModel model = outlook.wear().of(item.kind());
        double pOld = chance(model, start, limit.get(), today, end, factor(item));
        double pFresh = later ? chance(model, fresh(end), limit.get(), end, nextOpening, 1) : 0;
        double pNew = chance(model, fresh(today), limit.get(), today, nextOpening, 1);
        double net = pOld + pFresh - pNew;
        return new Leaving(Math.round(net * failureCost(item)), pOld, own, later);
    }

    /** Part, stand-alone labour and, by its share of the drive's failures, what those cost; in sixtieths. */
    private double failureCost(Item item) {
        long alone = costNow(List.of(item.code()));
        double share = DriveHazard.share(item, family.items(), outlook.wear().also());
        return alone
                + Sixtieths.ofMinor(Math.round(share * outlook.consequence().likely()));
    }

    private int factor(Item item) {
        return Exposure.hazardFactor(item, outlook.forecast(), vehicle.evidence());
    }

    private double chance(WearModel model, ClockStart start, Limit limit, LocalDate from, LocalDate to, int factor) {
        LimitClock clock = new LimitClock(start, limit);
        double then = Exposure.cumulativeHazard(model, clock, outlook.forecast(), from);
        double later = Exposure.cumulativeHazard(model, clock, outlook.forecast(), to);
        return WearModel.chanceBetween(then, later, factor);
    }

    private ClockStart start(Item item) {
        return Optional.ofNullable(vehicle.starts().get(item.code()))
                .orElseGet(() -> ClockStart.atFirstRegistration(outlook.firstRegistered()));
    }

    private ClockStart fresh(LocalDate day) {
        double km = outlook.forecast().projection().medianKm(day);
        return new ClockStart(day, (int) Math.round(km), ClockStart.Grade.DOCUMENTED);
    }

    /** Limits in force; empty where the book has none, and nobody can say what leaving the item costs. */
    private Optional<Limit> limit(Item item) {
        return outlook.forecast().items().stream()
                .filter(f -> f.item().code().equals(item.code()) && !f.inspection())
                .findFirst()
                .flatMap(ItemForecast::limit);
    }

    /** The day on which the first of the limits is reached by the median, not before today; empty beyond 60 years. */
    private Optional<LocalDate> reached(ClockStart start, Limit limit) {
        Optional<LocalDate> age = limit.ageEnd(start.date());
        Optional<LocalDate> distance =
                limit.km().isPresent() ? dayOfKm(start, limit.km().getAsInt()) : Optional.empty();
        Optional<LocalDate> first =
                age.isPresent() && (distance.isEmpty() || age.get().isBefore(distance.get())) ? age : distance;
        return first.map(d -> d.isBefore(today) ? today : d);
    }

    private Optional<LocalDate> dayOfKm(ClockStart start, int km) {
        VehicleForecast forecast = outlook.forecast();
        long low = -1;
        long high = ChronoUnit.DAYS.between(today, today.plusYears(HORIZON_YEARS));
        if (forecast.usedKm(start, today.plusDays(high)) < km) {
            return Optional.empty();
        }
        while (high - low > 1) {
            long middle = (low + high) / 2;
            if (forecast.usedKm(start, today.plusDays(middle)) >= km) {
                high = middle;
            } else {
                low = middle;
            }
        }
        return Optional.of(today.plusDays(high));
    }
}
