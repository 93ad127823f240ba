package knollfield.core.bundle;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import knollfield.core.bundle.BundleLine.Kind;
import knollfield.core.bundle.BundleLine.Rule;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.clock.LimitClock;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.FindingEffect;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.Joint;
import knollfield.core.engine.Part;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;

/** Which lines a job must have, may have and must not have: "rules first" of rules.md section 5. */
public final class BundleRules {

    /** Share of its life within which a part counts as renewed recently. */
    private static final double RECENT = 0.25;

    private BundleRules() {}

    /**
     * What is known of the vehicle the job is for.
     *
     * @param equipment equipment that switches access steps on
     * @param starts by item code, where known
     * @param odometerKm median today
     */
    public record Vehicle(
            Set<String> equipment,
            Map<String, ClockStart> starts,
            List<Evidence> evidence,
            LocalDate today,
            double odometerKm) {

        public Vehicle {
            equipment = Set.copyOf(equipment);
            starts = Map.copyOf(starts);
            evidence = List.copyOf(evidence);
        }
    }

    /**
     * How the job is meant.
     *
     * @param purpose codes of the items it is for; the belt or chain, or less in a partial job
     * @param decisions what a person decided, by item code
     * @param parts parts of other grades that are fitted in place of the book's, by item code
     * @param ownerSupplied codes of items whose part the owner brings
     */
    public record Scope(
            Set<String> purpose,
            School school,
            School.Seals seals,
            Map<String, Decision> decisions,
            Map<String, Part> parts,
            Set<String> ownerSupplied) {

        public Scope {
            purpose = Set.copyOf(purpose);
            decisions = Map.copyOf(decisions);
            parts = Map.copyOf(parts);
            ownerSupplied = Set.copyOf(ownerSupplied);
        }

        /** The whole job by the rules alone. */
        public static Scope whole(EngineFamily family) {
            return new Scope(
                    family.driveItems(), School.WHAT_PAYS, School.Seals.WHEN_WET, Map.of(), Map.of(), Set.of());
        }

        /** This scope under another school, with nothing decided by a person. */
        Scope plain(School other) {
            return new Scope(purpose, other, seals, Map.of(), parts, ownerSupplied);
        }

        boolean isPartial(EngineFamily family) {
            return family.driveItems().stream().noneMatch(purpose::contains);
        }

        /** What is fitted as {@code item}; nothing to pay where the owner brings it. */
        Part partFor(Item item) {
            Part part = Optional.ofNullable(parts.get(item.code())).orElse(item.part());
            return ownerSupplied.contains(item.code())
                    ? new Part(part.number(), part.name(), part.quantity(), 0)
                    : part;
        }
    }

    /**
     * The job with everything required, and of the offered items those in {@code chosen}. Codes of required or excluded
     * items in {@code chosen} change nothing.
     */
    public static Bundle bundle(EngineFamily family, Vehicle vehicle, Collection<String> chosen) {
        Scope scope = Scope.whole(family);
        Map<String, Verdict> verdicts = verdicts(family, vehicle, scope);
        return assemble(family, vehicle, scope, verdicts, in(verdicts, chosen));
    }

    /** Codes of what is required, and of the offered items those in {@code chosen}, in the book's order. */
    static Set<String> in(Map<String, Verdict> verdicts, Collection<String> chosen) {
        Set<String> in = new LinkedHashSet<>();
        verdicts.forEach((code, v) -> {
            if (v.rule == Rule.REQUIRED || (v.rule == Rule.OFFERED && chosen.contains(code))) {
                in.add(code);
            }
        });
        return in;
    }

    /** The job made of {@code in} and what follows from it; adds the coolant to {@code in} where a joint calls for it. */
    static Bundle assemble(
            EngineFamily family, Vehicle vehicle, Scope scope, Map<String, Verdict> verdicts, Set<String> in) {
        Labour labour = coolantWhereOpened(family, vehicle, verdicts, in);
        List<BundleLine> lines = new ArrayList<>();
        for (Item item : family.items()) {
            Verdict v = verdicts.get(item.code());
            if (v == null) {
                continue;
            }
            int marginal = Labour.marginalMinutes(family, vehicle.equipment(), in, item.code());
            lines.add(new BundleLine(
                    item.code(),
                    item.name(),
                    Kind.ITEM,
                    v.rule,
                    in.contains(item.code()),
                    marginal,
                    List.of(scope.partFor(item)),
                    v.reason.orElseGet(() -> offered(family, vehicle, item, marginal))));
        }
        for (Joint joint : labour.opened(family)) {
            if (!joint.oneTimeParts().isEmpty()) {
                lines.add(new BundleLine(
                        joint.code(),
                        String.join(
                                ", ",
                                joint.oneTimeParts().stream().map(Part::name).toList()),
                        Kind.FOLLOWS,
                        Rule.REQUIRED,
                        true,
                        0,
                        joint.oneTimeParts(),
                        Statement.of("New each time this is opened: {0}.", Fact.Words.midSentence(joint.name()))));
            }
        }
        return new Bundle(lines, labour);
    }

    /** Coolant goes in as soon as a step of the job opens a coolant joint; putting it in opens nothing further. */
    private static Labour coolantWhereOpened(
            EngineFamily family, Vehicle vehicle, Map<String, Verdict> verdicts, Set<String> in) {
        Labour labour = Labour.of(family, vehicle.equipment(), in);
        Optional<Joint> wet =
                labour.opened(family).stream().filter(Joint::holdsCoolant).findFirst();
        if (wet.isEmpty()) {
            return labour;
        }
        for (Item item : family.items()) {
            if (item.kind() == ItemKind.COOLANT) {
                in.add(item.code());
                verdicts.put(
                        item.code(),
                        required(Statement.of(
                                "The coolant comes out when this is opened: {0}.",
                                Fact.Words.midSentence(wet.get().name()))));
            }
        }
        return Labour.of(family, vehicle.equipment(), in);
    }

    /**
     * What the rules say of an item.
     *
     * @param reason empty where money decides
     * @param reusable required, but the old part may be reused with a reason and an inspection
     */
    record Verdict(Rule rule, Optional<Statement> reason, boolean reusable) {}

    /** By item code, in the book's order. */
    static Map<String, Verdict> verdicts(EngineFamily family, Vehicle vehicle, Scope scope) {
        Map<String, Verdict> verdicts = new LinkedHashMap<>();
        for (Item item : family.items()) {
            verdicts.put(item.code(), judge(family, vehicle, scope, item));
        }
        return verdicts;
    }

    private static Verdict judge(EngineFamily family, Vehicle vehicle, Scope scope, Item item) {
        if (scope.purpose().contains(item.code())) {
            return required(Statement.of("What the job is for."));
        }
        if (!fitted(family, vehicle, item)) {
            return new Verdict(Rule.EXCLUDED, Optional.of(Statement.of("This vehicle has none.")), false);
        }
        if (item.halfOf().isPresent()) {
            return new Verdict(
                    Rule.EXCLUDED,
                    Optional.of(Statement.of("Half of the whole part; alone only as the original maker's part.")),
                    false);
        }
        for (Evidence e : vehicle.evidence()) {
            if (FindingEffect.isSetAside(e, vehicle.evidence())) {
                continue;
            }
            boolean named =
                    e.item().filter(item.code()::equals).isPresent() && e.kind().effect() != EvidenceKind.Effect.NONE;
            if (named || e.kind().asksFor().contains(item.kind())) {
                return required(Statement.of(
                        "Asked for by what was found: {0}.",
                        new Fact.Words(e.kind().words())));
            }
        }
        OptionalDouble used = shareUsed(family, vehicle, item);
        if (used.isPresent() && used.getAsDouble() < RECENT) {
            return new Verdict(
                    Rule.EXCLUDED,
                    Optional.of(Statement.of(
                            "Renewed recently: {0} of its life used.", new Fact.Share(used.getAsDouble()))),
                    false);
        }
        if (scope.isPartial(family)) {
            return new Verdict(Rule.OFFERED, Optional.empty(), false);
        }
        boolean reusable = scope.school() == School.BOOK_MINIMUM;
        if (item.kind() == ItemKind.TENSIONER) {
            return new Verdict(
                    Rule.REQUIRED,
                    Optional.of(Statement.of(
                            "Always with the {0}.",
                            new Fact.Words(family.drive().words()))),
                    reusable);
        }
        if (item.kind() == ItemKind.WATER_PUMP && item.drivenByTimingDrive()) {
            Statement reason = used.isPresent()
                    ? Statement.of(
                            "Turned by the timing {0}, and {1} of its life used.",
                            new Fact.Words(family.drive().words()), new Fact.Share(used.getAsDouble()))
                    : Statement.of(
                            "Turned by the timing {0}, and its age is not known.",
                            new Fact.Words(family.drive().words()));
            return new Verdict(Rule.REQUIRED, Optional.of(reason), reusable);
        }
        if (isSeal(item) && scope.seals() == School.Seals.WHILE_OPEN) {
            return required(Statement.of("Seals are always renewed while it is open."));
        }
        return new Verdict(Rule.OFFERED, Optional.empty(), false);
    }

    /** A front half alone is only fitted as the original maker's part. */
    public static boolean takes(Item item, Grade.Kind grade) {
        return item.halfOf().isEmpty() || grade == Grade.Kind.ORIGINAL;
    }

    static boolean isSeal(Item item) {
        return item.kind() == ItemKind.CAM_SEAL || item.kind() == ItemKind.CRANK_SEAL;
    }

    /** An item all of whose steps belong to equipment the vehicle has not got is not there. */
    private static boolean fitted(EngineFamily family, Vehicle vehicle, Item item) {
        return item.accessSteps().isEmpty()
                || item.accessSteps().stream()
                        .flatMap(s -> family.accessStep(s).stream())
                        .anyMatch(s -> s.equipment().isEmpty()
                                || vehicle.equipment().contains(s.equipment().get()));
    }

    private static Verdict required(Statement reason) {
        return new Verdict(Rule.REQUIRED, Optional.of(reason), false);
    }

    private static Statement offered(EngineFamily family, Vehicle vehicle, Item item, int marginal) {
        int alone = Labour.of(family, vehicle.equipment(), List.of(item.code())).minutes();
        return Statement.of(
                "Adds {0} now; alone later it would take {1}.", new Fact.Minutes(marginal), new Fact.Minutes(alone));
    }

    /** Larger of the shares of distance and age used; an item without limits of its own lives as long as the drive. */
    private static OptionalDouble shareUsed(EngineFamily family, Vehicle vehicle, Item item) {
        ClockStart start = vehicle.starts().get(item.code());
        Optional<Limit> limit =
                item.schedule().or(() -> family.driveItem().schedule()).map(s -> s.normal());
        if (start == null || limit.isEmpty()) {
            return OptionalDouble.empty();
        }
        return OptionalDouble.of(
                new LimitClock(start, limit.get()).used(vehicle.odometerKm() - start.km(), vehicle.today()));
    }
}
