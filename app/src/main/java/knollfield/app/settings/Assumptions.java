package knollfield.app.settings;

import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import knollfield.app.settings.Assumption.Unit.Money;
import knollfield.app.settings.Assumption.Unit.Named;
import knollfield.app.settings.Assumption.Unit.Share;
import knollfield.core.due.DelayTime;
import knollfield.core.due.Policy;
import knollfield.core.engine.ItemKind;
import knollfield.core.estimate.EstimateRates;
import knollfield.core.odometer.OdometerAssumptions;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import knollfield.core.plan.Shop;
import knollfield.core.risk.Careful;
import knollfield.core.risk.Exposure;
import knollfield.core.risk.RiskAssumptions;
import knollfield.core.risk.WearModel;
import knollfield.core.risk.WearModels;

/**
 * The planning assumptions as the workshop has them: the usual ones, and those it has changed by name.
 *
 * @param changed amounts by {@link Assumption#name()}
 */
public record Assumptions(Map<String, Double> changed) {

    private static final String TRUST = "odometer.trust.";
    private static final String MAX_KM = "odometer.maxKmPerDay";
    private static final String SCATTER = "odometer.yearlyScatter";
    private static final String IDLE = "odometer.idleKmPerHour";
    private static final String RATTLE_DAYS = "found.rattleDays";
    private static final String RATTLE_KM = "found.rattleKm";
    private static final String SLAP_DAYS = "found.slapStopDays";
    private static final String WEAR_SHARE = "wear.share.";
    private static final String WEAR_SHAPE = "wear.shape.";
    private static final String DRIVE_SHARE = "risk.share.drive";
    private static final String TENSIONER_SHARE = "risk.share.tensioner";
    private static final String IDLER_SHARE = "risk.share.idler";
    private static final String PUMP_SHARE = "risk.share.pump";
    private static final String DELAY = "risk.delay.";
    private static final String ORIGINAL = "risk.stillOriginal";
    private static final String STARTED = "risk.startedPerWeek";
    /** What a stranding that does not happen is worth beyond its bills. */
    public static final String STRANDING = "policy.stranding";
    /** What renewing on a visit for other work saves. */
    public static final String VISIT = "policy.visit";
    /** How often a vehicle comes in for other work in a year. */
    public static final String VISITS = "policy.visitsPerYear";

    private static final String CLASS_MEAN = "class.mean.";
    private static final String CLASS_SPREAD = "class.spread.";
    private static final String TAX = "estimate.tax";
    private static final String LOW = "estimate.low";
    private static final String HIGH = "estimate.high";
    private static final String CONSUMABLES = "estimate.consumables";
    private static final String VALID_DAYS = "estimate.validDays";
    private static final String PLAN_CHANGEOVER = "plan.changeover";
    private static final String PLAN_MOVE = "plan.move";
    private static final String PLAN_UNPLANNED = "plan.unplanned";
    private static final String CONSENT_DAYS = "plan.consentDays";

    private static final double USUAL_TAX_PERCENT = 20;
    private static final double USUAL_STRANDING = 10_000;
    private static final double USUAL_VISIT = 90;
    private static final double USUAL_VISITS = 1;

    public Assumptions {
        changed = Map.copyOf(changed);
    }

    /** Name of the assumption what a vehicle of a class goes in a year. */
    static String meanOf(String classCode) {
        return CLASS_MEAN + classCode;
    }

    /** Name of the assumption how far vehicles of a class differ. */
    static String spreadOf(String classCode) {
        return CLASS_SPREAD + classCode;
    }

    /** Every assumption there is, in the order Setup shows them; classes and wear as the workshop has set them down. */
    public static List<Assumption> catalogue(Collection<UsageClass> classes, WearModel usual) {
        OdometerAssumptions odometer = OdometerAssumptions.defaults();
        Policy.Found found = Policy.Found.defaults();
        List<Assumption> all = new ArrayList<>();
        all.add(new Assumption(
                MAX_KM,
                "Odometer",
                "No vehicle goes further in a day",
                new Named("km"),
                odometer.maxKmPerDay(),
                100,
                3_000,
                true));
        all.add(new Assumption(
                SCATTER,
                "Odometer",
                "One year's distance scatters about a vehicle's own rate by",
                new Share("the class mean"),
                odometer.yearlyScatter(),
                0.01,
                1,
                false));
        all.add(new Assumption(
                IDLE,
                "Odometer",
                "An hour of idling wears like",
                new Named("km"),
                odometer.idleKmPerHour(),
                0,
                200,
                true));
        for (ReadingSource source : ReadingSource.values()) {
            all.add(new Assumption(
                    TRUST + source,
                    "Trust in readings",
                    sentence(source.words()),
                    new Named("weight"),
                    source.trust(),
                    1,
                    20,
                    true));
        }
        classes.stream()
                .sorted(java.util.Comparator.comparing(UsageClass::name))
                .forEach(c -> {
                    all.add(new Assumption(
                            meanOf(c.code()),
                            "Usage classes",
                            sentence(c.name()) + ", mean",
                            new Named("km a year"),
                            c.meanKmPerYear(),
                            0,
                            300_000,
                            true));
                    all.add(new Assumption(
                            spreadOf(c.code()),
                            "Usage classes",
                            sentence(c.name()) + ", spread between vehicles",
                            new Named("km a year"),
                            c.sdKmPerYear(),
                            1,
                            100_000,
                            true));
                });
        all.add(new Assumption(
                RATTLE_DAYS,
                "Findings",
                "A chain that rattles at cold start is seen to within",
                new Named("days"),
                found.rattleDays(),
                0,
                365,
                true));
        all.add(new Assumption(
                RATTLE_KM, "Findings", "and within", new Named("km"), found.rattleKm(), 0, 20_000, true));
        all.add(new Assumption(
                SLAP_DAYS,
                "Findings",
                "Slap so soon after a belt job stops the engine",
                new Named("days"),
                found.slapStopDays(),
                0,
                365,
                true));
        all.add(new Assumption(TAX, "Estimates", "Tax on everything", new Named("%"), USUAL_TAX_PERCENT, 0, 99, false));
        all.add(new Assumption(LOW, "Estimates", "Labour at best", new Share("the likely one"), 0.9, 0.1, 1, false));
        all.add(new Assumption(HIGH, "Estimates", "Labour at worst", new Share("the likely one"), 1.25, 1, 5, false));
        all.add(new Assumption(
                CONSUMABLES, "Estimates", "Cleaner, sealant, rags for each job", new Money(), 8, 0, 1_000, false));
        all.add(new Assumption(
                VALID_DAYS, "Estimates", "An estimate is valid for", new Named("days"), 30, 1, 365, true));
        all.add(new Assumption(
                PLAN_CHANGEOVER,
                "Planning",
                "Another tool set between two jobs of a technician",
                new Money(),
                12,
                0,
                10_000,
                false));
        all.add(new Assumption(
                PLAN_MOVE, "Planning", "A job moved that people already know of", new Money(), 20, 0, 10_000, false));
        all.add(new Assumption(
                PLAN_UNPLANNED,
                "Planning",
                "A job without a place, beyond its waiting",
                new Money(),
                300,
                0,
                100_000,
                false));
        all.add(new Assumption(
                CONSENT_DAYS,
                "Planning",
                "An owner who has an estimate answers within",
                new Named("days"),
                1,
                0,
                60,
                true));
        risk(all);
        for (ItemKind kind : Exposure.kinds()) {
            String name = sentence(kind.name().toLowerCase(Locale.ROOT).replace('_', ' '));
            all.add(new Assumption(
                    WEAR_SHARE + kind,
                    "Wear by kind of item",
                    name + ", failed when its limits are reached",
                    new Share(""),
                    usual.shareFailedAtLimits(),
                    0.0001,
                    0.9,
                    false));
            all.add(new Assumption(
                    WEAR_SHAPE + kind,
                    "Wear by kind of item",
                    name + ", shape of wear",
                    new Named(""),
                    usual.shape(),
                    0.2,
                    20,
                    false));
        }
        return all;
    }

    private static void risk(List<Assumption> all) {
        all.add(new Assumption(
                STRANDING,
                "Acting on the cheapest day",
                "A stranding that does not happen is worth, beyond its bills",
                new Money(),
                USUAL_STRANDING,
                0,
                1_000_000,
                false));
        all.add(new Assumption(
                VISIT,
                "Acting on the cheapest day",
                "Renewing while the vehicle is in the workshop anyway saves",
                new Money(),
                USUAL_VISIT,
                0,
                100_000,
                false));
        all.add(new Assumption(
                VISITS,
                "Acting on the cheapest day",
                "A vehicle comes in for other work",
                new Named("times a year"),
                USUAL_VISITS,
                0,
                52,
                false));
        RiskAssumptions risk = RiskAssumptions.defaults();
        String failures = "What lets a drive fail";
        all.add(new Assumption(
                DRIVE_SHARE, failures, "Belt or chain itself", new Share(""), risk.driveShare(), 0.01, 1, false));
        all.add(new Assumption(
                TENSIONER_SHARE, failures, "Tensioner", new Share(""), risk.tensionerShare(), 0, 1, false));
        all.add(new Assumption(
                IDLER_SHARE, failures, "Idlers and guides", new Share(""), risk.idlerShare(), 0, 1, false));
        all.add(new Assumption(
                PUMP_SHARE, failures, "A pump the drive turns", new Share(""), risk.pumpShare(), 0, 1, false));
        for (DelayTime delay : DelayTime.values()) {
            all.add(new Assumption(
                    DELAY + delay,
                    "From what is seen to its failure",
                    sentence(delay.words()) + ", on average",
                    new Named("years in use"),
                    delay.years(),
                    0.05,
                    20,
                    false));
        }
        all.add(new Assumption(
                ORIGINAL,
                "History unknown",
                "A part still original for each limit it has outlived beyond the first",
                new Share(""),
                risk.stillOriginal(),
                0,
                1,
                false));
        all.add(new Assumption(
                STARTED,
                "Must not run",
                "Somebody starts it all the same in a week",
                new Share(""),
                risk.startedPerWeek(),
                0,
                1,
                false));
    }

    private static String sentence(String words) {
        return words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
    }

    /** These with {@code name} set to {@code amount}. */
    public Assumptions with(String name, double amount) {
        Map<String, Double> next = new HashMap<>(changed);
        next.put(name, amount);
        return new Assumptions(next);
    }

    public OdometerAssumptions odometer() {
        OdometerAssumptions usual = OdometerAssumptions.defaults();
        Map<ReadingSource, Integer> trust = new EnumMap<>(ReadingSource.class);
        for (ReadingSource source : ReadingSource.values()) {
            value(TRUST + source).ifPresent(w -> trust.put(source, (int) Math.round(w)));
        }
        return new OdometerAssumptions(
                trust,
                (int) Math.round(value(MAX_KM).orElse((double) usual.maxKmPerDay())),
                value(SCATTER).orElse(usual.yearlyScatter()),
                value(IDLE).orElse(usual.idleKmPerHour()));
    }

    public Policy.Found found() {
        Policy.Found usual = Policy.Found.defaults();
        return new Policy.Found(
                (int) Math.round(value(RATTLE_DAYS).orElse((double) usual.rattleDays())),
                (int) Math.round(value(RATTLE_KM).orElse((double) usual.rattleKm())),
                (int) Math.round(value(SLAP_DAYS).orElse((double) usual.slapStopDays())));
    }

    /** Wear by kind; what has not been set is as {@code usual}. */
    public WearModels wear(WearModel usual) {
        Map<ItemKind, WearModel> byKind = new EnumMap<>(ItemKind.class);
        for (ItemKind kind : Exposure.kinds()) {
            Optional<Double> share = value(WEAR_SHARE + kind);
            Optional<Double> shape = value(WEAR_SHAPE + kind);
            if (share.isPresent() || shape.isPresent()) {
                byKind.put(kind, new WearModel(share.orElse(usual.shareFailedAtLimits()), shape.orElse(usual.shape())));
            }
        }
        return new WearModels(usual, byKind, risk());
    }

    /** What the chance of a failure is reckoned with beside wear. */
    private RiskAssumptions risk() {
        RiskAssumptions usual = RiskAssumptions.defaults();
        Map<DelayTime, Double> delays = new EnumMap<>(DelayTime.class);
        for (DelayTime delay : DelayTime.values()) {
            value(DELAY + delay).ifPresent(years -> delays.put(delay, years));
        }
        return new RiskAssumptions(
                value(DRIVE_SHARE).orElse(usual.driveShare()),
                value(TENSIONER_SHARE).orElse(usual.tensionerShare()),
                value(IDLER_SHARE).orElse(usual.idlerShare()),
                value(PUMP_SHARE).orElse(usual.pumpShare()),
                delays,
                value(ORIGINAL).orElse(usual.stillOriginal()),
                value(STARTED).orElse(usual.startedPerWeek()));
    }

    /** What the cheapest day is weighed by. */
    Careful careful(double minorPerUnit) {
        return new Careful(Math.round(stranding() * minorPerUnit), Math.round(visit() * minorPerUnit));
    }

    /** What a stranding that does not happen is worth beyond its bills, in the workshop's currency. */
    public double stranding() {
        return value(STRANDING).orElse(USUAL_STRANDING);
    }

    /** What renewing on a visit for other work saves, in the workshop's currency. */
    public double visit() {
        return value(VISIT).orElse(USUAL_VISIT);
    }

    /** How often a vehicle comes in for other work in a year. */
    public double visitsPerYear() {
        return value(VISITS).orElse(USUAL_VISITS);
    }

    /** What estimates are made by. */
    EstimateRates rates(long labourRateMinor, double minorPerUnit, double timeFactor, long toolHireMinor) {
        return new EstimateRates(
                labourRateMinor,
                timeFactor,
                value(LOW).orElse(0.9),
                value(HIGH).orElse(1.25),
                Math.round(value(CONSUMABLES).orElse(8.0) * minorPerUnit),
                toolHireMinor,
                value(TAX).orElse(USUAL_TAX_PERCENT) / 100);
    }

    /** What a plan is weighed by, with {@code minorPerUnit} minor units to one of the workshop's currency. */
    public Shop.Prices planPrices(double minorPerUnit) {
        return new Shop.Prices(
                Math.round(value(PLAN_CHANGEOVER).orElse(12.0) * minorPerUnit),
                Math.round(value(PLAN_MOVE).orElse(20.0) * minorPerUnit),
                Math.round(value(PLAN_UNPLANNED).orElse(300.0) * minorPerUnit));
    }

    /** Days until an owner who has an estimate answers. */
    public int consentDays() {
        return (int) Math.round(value(CONSENT_DAYS).orElse(1.0));
    }

    /** Days an estimate is valid. */
    public int validDays() {
        return (int) Math.round(value(VALID_DAYS).orElse(30.0));
    }

    /** {@code usual} as the workshop has it. */
    public UsageClass usage(UsageClass usual) {
        return new UsageClass(
                usual.code(),
                usual.name(),
                value(meanOf(usual.code())).orElse(usual.meanKmPerYear()),
                value(spreadOf(usual.code())).orElse(usual.sdKmPerYear()),
                odometer().yearlyScatter());
    }

    /** The amount set for {@code name}; empty where it is as usual. */
    public Optional<Double> value(String name) {
        return Optional.ofNullable(changed.get(name));
    }
}
