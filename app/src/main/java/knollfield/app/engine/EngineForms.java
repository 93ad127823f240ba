package knollfield.app.engine;

import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Stream;
import knollfield.app.problem.Checks;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.engine.BookFault;
import knollfield.core.engine.BookGaps;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.ItemKind;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Hardware;
import knollfield.core.jobcard.BookProof;
import knollfield.core.kinds.Extra;
import knollfield.core.kinds.FamilyForm;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.Kinds;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Engine families written down on one page. */
@Service
public class EngineForms {

    private static final int MOST_NEWTON_METRES = 2_000;
    private static final int MOST_MINUTES = 6_000;

    private final EngineBook book;
    private final FamilyJson json;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    EngineForms(EngineBook book, FamilyJson json, CurrentPerson current, WorkshopClock clock) {
        this.book = book;
        this.json = json;
        this.current = current;
        this.clock = clock;
    }

    /** @param teeth teeth or links, as counted on it */
    public record LoopIn(
            String code,
            String name,
            String counted,
            @Nullable Integer teeth) {}

    /** @param priceMinor of one piece, minor units */
    public record ItemIn(
            String code,
            String name,
            ItemKind kind,
            boolean included,
            @Nullable String number,
            @Nullable Long priceMinor,
            @Nullable Integer km,
            @Nullable Integer months,
            @Nullable Integer severeKm,
            @Nullable Integer severeMonths) {}

    /** @param minutes book minutes of one technician */
    public record StepIn(String code, String title, int minutes) {}

    /** @param torqueNm N·m; missing: not on file */
    public record JointIn(
            String code,
            String name,
            int bolts,
            @Nullable Double torqueNm,
            @Nullable Integer angleDegrees,
            boolean critical,
            boolean oneTime) {}

    public record FluidIn(
            String code, String name, @Nullable Double litres) {}

    /**
     * @param window the tension's own window
     * @param low in {@code unit}, as printed after the figure
     */
    public record LookIn(
            String code,
            String name,
            boolean window,
            String unit,
            @Nullable Double low,
            @Nullable Double high) {}

    /** @param degrees of the crank in the running way, 0 to 719 */
    public record PositionIn(
            String code, String name, @Nullable Integer degrees) {}

    /** @param repairLikelyMinor what a failure costs, minor units; the others are taken from it where they are missing */
    public record Form(
            @Nullable String code,
            @Nullable String name,
            Interference interference,
            @Nullable String origin,
            List<LoopIn> loops,
            List<ItemIn> items,
            List<StepIn> steps,
            List<JointIn> joints,
            List<FluidIn> fluids,
            List<LookIn> looks,
            List<PositionIn> positions,
            @Nullable Long repairLowMinor,
            @Nullable Long repairLikelyMinor,
            @Nullable Long repairHighMinor) {}

    /** A page and what it was begun from: a kind with extras, or a family on file. */
    public record Answers(
            @Nullable String like,
            @Nullable String copy,
            @Nullable Set<Extra> extras,
            Form form) {}

    /** What a page gives so far. */
    public record Checked(List<BookGaps.Gap> gaps, List<BookProof.Purpose> purposes) {}

    /** What the work on a kind renews and is timed by, in words. */
    static List<String> has(Kind kind) {
        Build b = kind.build();
        return Stream.concat(
                        b.renews().stream()
                                .flatMap(r -> r.things().stream())
                                .flatMap(t -> b.assemblies().stream()
                                        .filter(a -> a.code().equals(t))
                                        .map(a -> a.name())),
                        b.hardware().stream()
                                .filter(h -> h.kind() != Hardware.Kind.TENSIONER_PIN)
                                .map(Hardware::name))
                .distinct()
                .toList();
    }

    Form begin(Optional<String> like, Optional<String> copy, Set<Extra> extras) {
        FamilyForm f = FamilyForm.of(base(like, copy, extras));
        Optional<RepairEstimate> repair = f.repair();
        return new Form(
                f.code(),
                f.name(),
                f.interference(),
                f.origin(),
                f.loops().stream()
                        .map(l -> new LoopIn(l.code(), l.name(), l.counted(), boxed(l.teeth())))
                        .toList(),
                f.items().stream()
                        .map(i -> new ItemIn(
                                i.code(),
                                i.name(),
                                i.kind(),
                                i.included(),
                                i.number(),
                                i.priceMinor().isPresent() ? i.priceMinor().getAsLong() : null,
                                boxed(i.normal().km()),
                                boxed(i.normal().months()),
                                boxed(i.severe().km()),
                                boxed(i.severe().months())))
                        .toList(),
                f.steps().stream()
                        .map(s -> new StepIn(s.code(), s.title(), s.minutes()))
                        .toList(),
                f.joints().stream()
                        .map(j -> new JointIn(
                                j.code(),
                                j.name(),
                                j.bolts(),
                                boxed(j.torqueNm()),
                                boxed(j.angleDegrees()),
                                j.critical(),
                                j.oneTime()))
                        .toList(),
                f.fluids().stream()
                        .map(x -> new FluidIn(x.code(), x.name(), boxed(x.litres())))
                        .toList(),
                f.looks().stream()
                        .map(k -> new LookIn(k.code(), k.name(), k.window(), k.unit(), boxed(k.low()), boxed(k.high())))
                        .toList(),
                f.positions().stream()
                        .map(p -> new PositionIn(p.code(), p.name(), boxed(p.degrees())))
                        .toList(),
                repair.map(RepairEstimate::low).orElse(null),
                repair.map(RepairEstimate::likely).orElse(null),
                repair.map(RepairEstimate::high).orElse(null));
    }

    private FamilyForm.Base base(Optional<String> like, Optional<String> copy, Set<Extra> extras) {
        if (copy.isPresent()) {
            return FamilyForm.copyOf(book.find(copy.get())
                    .orElseThrow(() -> new NotFound("Engine family %s is not on file.".formatted(copy.get())))
                    .family());
        }
        Kind kind = like.flatMap(Kinds::kind)
                .orElseThrow(() -> new InvalidInput("/like", "Choose what the engine is like."));
        extras.stream().filter(e -> !e.fits(kind.build())).findFirst().ifPresent(e -> {
            throw new InvalidInput("/extras", "%s does not go with this kind.".formatted(e.words()));
        });
        return FamilyForm.like(kind, extras);
    }

    /** What {@code answers} would block and prove as they stand; what is not answered yet is no fault. */
    Checked check(Answers answers) {
        Checks checks = new Checks();
        figures(answers.form(), checks);
        checks.orThrow();
        EngineFamily family = family(answers);
        return new Checked(BookGaps.of(family), BookProof.of(family));
    }

    /**
     * Files the family these answers give.
     *
     * @throws InvalidInput with every field at fault
     */
    @Transactional
    EngineFamily file(Answers answers) {
        Form f = answers.form();
        String code = text(f.code());
        Checks checks = new Checks()
                .text(f.code(), 20, "/form/code", "A code")
                .that(
                        code.isEmpty() || code.matches("[A-Za-z0-9_-]+"),
                        "/form/code",
                        "A code has letters, digits, - and _ only.")
                .that(
                        book.all().stream().noneMatch(k -> k.family().code().equalsIgnoreCase(code)),
                        "/form/code",
                        "There is a family %s already.".formatted(code))
                .text(f.name(), 80, "/form/name", "A name")
                .that(text(f.origin()).length() <= 120, "/form/origin", "The origin is longer than 120 characters.")
                .that(
                        !text(f.origin()).isEmpty() || !hasFigures(f),
                        "/form/origin",
                        "Say where limits and torques come from, such as the book and its page.");
        for (int i = 0; i < f.loops().size(); i++) {
            LoopIn l = f.loops().get(i);
            checks.that(
                    l.teeth() != null,
                    "/form/loops/%d/teeth".formatted(i),
                    "How many %s has it? They are compared at the bench.".formatted(l.counted()));
        }
        for (int i = 0; i < f.looks().size(); i++) {
            LookIn k = f.looks().get(i);
            checks.that(
                    !k.window() || k.low() != null || k.high() != null,
                    "/form/looks/%d/low".formatted(i),
                    "Give its window: without it no tension is proven.");
        }
        for (int i = 0; i < f.positions().size(); i++) {
            checks.that(
                    f.positions().get(i).degrees() != null,
                    "/form/positions/%d/degrees".formatted(i),
                    "At how many degrees of the crank? The card says how far it is turned on.");
        }
        figures(f, checks);
        checks.orThrow();
        // the same door as a document comes in by
        EngineFamily family = json.read(json.map(family(answers)));
        book.file(family, 0, current.get().name(), clock.instant(), begun(answers));
        return family;
    }

    private static String begun(Answers a) {
        return a.copy() == null ? "written down from a kind of engine" : "begun from " + a.copy();
    }

    private static boolean hasFigures(Form f) {
        return f.items().stream().anyMatch(i -> i.included() && (i.km() != null || i.months() != null))
                || f.joints().stream().anyMatch(j -> j.torqueNm() != null)
                || f.looks().stream().anyMatch(k -> k.low() != null || k.high() != null);
    }

    private static void figures(Form f, Checks checks) {
        for (int i = 0; i < f.loops().size(); i++) {
            within(checks, "/form/loops/%d/teeth".formatted(i), f.loops().get(i).teeth(), 10, 999, "");
        }
        for (int i = 0; i < f.items().size(); i++) {
            ItemIn item = f.items().get(i);
            String at = "/form/items/" + i;
            checks.that(
                    item.included() || !item.kind().isTheDrive(),
                    at + "/included",
                    "A family is not without its belt or chain.");
            if (item.included()) {
                item(checks, at, item);
            }
        }
        for (int i = 0; i < f.steps().size(); i++) {
            within(
                    checks,
                    "/form/steps/%d/minutes".formatted(i),
                    f.steps().get(i).minutes(),
                    0,
                    MOST_MINUTES,
                    "min");
        }
        for (int i = 0; i < f.joints().size(); i++) {
            JointIn j = f.joints().get(i);
            String at = "/form/joints/" + i;
            within(checks, at + "/bolts", j.bolts(), 1, 99, "");
            within(checks, at + "/torqueNm", j.torqueNm(), 0.5, MOST_NEWTON_METRES, "N·m");
            within(checks, at + "/angleDegrees", j.angleDegrees(), 1, 720, "°");
            checks.that(
                    j.angleDegrees() == null || j.torqueNm() != null,
                    at + "/angleDegrees",
                    "An angle follows a torque; give the torque too.");
        }
        for (int i = 0; i < f.fluids().size(); i++) {
            within(
                    checks,
                    "/form/fluids/%d/litres".formatted(i),
                    f.fluids().get(i).litres(),
                    0.1,
                    60,
                    "l");
        }
        for (int i = 0; i < f.looks().size(); i++) {
            LookIn k = f.looks().get(i);
            within(checks, "/form/looks/%d/low".formatted(i), k.low(), -1_000, 10_000, k.unit());
            within(checks, "/form/looks/%d/high".formatted(i), k.high(), -1_000, 10_000, k.unit());
            checks.that(
                    k.low() == null || k.high() == null || k.low() <= k.high(),
                    "/form/looks/%d/high".formatted(i),
                    "The greatest good value is not below the least.");
        }
        for (int i = 0; i < f.positions().size(); i++) {
            within(
                    checks,
                    "/form/positions/%d/degrees".formatted(i),
                    f.positions().get(i).degrees(),
                    0,
                    719,
                    "°");
        }
        repair(checks, f);
    }

    private static void item(Checks checks, String at, ItemIn i) {
        checks.that(text(i.number()).length() <= 40, at + "/number", "A part number is at most 40 characters.");
        within(checks, at + "/priceMinor", i.priceMinor(), 0, 100_000_000, "");
        within(checks, at + "/km", i.km(), 1, 2_000_000, "km");
        within(checks, at + "/months", i.months(), 1, 600, "months");
        within(checks, at + "/severeKm", i.severeKm(), 1, 2_000_000, "km");
        within(checks, at + "/severeMonths", i.severeMonths(), 1, 600, "months");
        checks.that(
                !above(i.severeKm(), i.km()),
                at + "/severeKm",
                "Under hard use the limit is the same or shorter, and there is a normal one.");
        checks.that(
                !above(i.severeMonths(), i.months()),
                at + "/severeMonths",
                "Under hard use the limit is the same or shorter, and there is a normal one.");
    }

    private static boolean above(@Nullable Integer severe, @Nullable Integer normal) {
        return severe != null && (normal == null || severe > normal);
    }

    private static void repair(Checks checks, Form f) {
        within(checks, "/form/repairLikelyMinor", f.repairLikelyMinor(), 0, 1_000_000_000, "");
        boolean open = f.repairLikelyMinor() == null;
        checks.that(
                !open || (f.repairLowMinor() == null && f.repairHighMinor() == null),
                "/form/repairLikelyMinor",
                "Give the likely cost too.");
        if (!open) {
            long likely = Objects.requireNonNull(f.repairLikelyMinor());
            checks.that(
                    f.repairLowMinor() == null || (f.repairLowMinor() >= 0 && f.repairLowMinor() <= likely),
                    "/form/repairLowMinor",
                    "The lowest cost is not above the likely one.");
            checks.that(
                    f.repairHighMinor() == null || f.repairHighMinor() >= likely,
                    "/form/repairHighMinor",
                    "The highest cost is not below the likely one.");
        }
    }

    private static void within(Checks checks, String at, @Nullable Number value, double low, double high, String unit) {
        checks.that(
                value == null || (value.doubleValue() >= low && value.doubleValue() <= high),
                at,
                String.format(
                        Locale.ROOT, "From %s to %s%s.", plain(low), plain(high), unit.isEmpty() ? "" : " " + unit));
    }

    private static String plain(double value) {
        return value == Math.rint(value) ? String.format(Locale.ROOT, "%,d", (long) value) : String.valueOf(value);
    }

    private EngineFamily family(Answers a) {
        FamilyForm.Base base = base(
                Optional.ofNullable(a.like()),
                Optional.ofNullable(a.copy()),
                Objects.requireNonNullElse(a.extras(), Set.of()));
        Form f = a.form();
        FamilyForm form = new FamilyForm(
                text(f.code()).isEmpty() ? "NEW" : text(f.code()),
                text(f.name()),
                f.interference(),
                text(f.origin()),
                f.loops().stream()
                        .map(l -> new FamilyForm.LoopLine(l.code(), l.name(), l.counted(), optional(l.teeth())))
                        .toList(),
                f.items().stream().map(EngineForms::line).toList(),
                f.steps().stream()
                        .map(s -> new FamilyForm.StepLine(s.code(), s.title(), s.minutes()))
                        .toList(),
                f.joints().stream()
                        .map(j -> new FamilyForm.JointLine(
                                j.code(),
                                j.name(),
                                j.bolts(),
                                optional(j.torqueNm()),
                                optional(j.angleDegrees()),
                                j.critical(),
                                j.oneTime()))
                        .toList(),
                f.fluids().stream()
                        .map(x -> new FamilyForm.FluidLine(x.code(), x.name(), optional(x.litres())))
                        .toList(),
                f.looks().stream()
                        .map(k -> new FamilyForm.LookLine(
                                k.code(), k.name(), k.window(), k.unit(), optional(k.low()), optional(k.high())))
                        .toList(),
                f.positions().stream()
                        .map(p -> new FamilyForm.PositionLine(p.code(), p.name(), optional(p.degrees())))
                        .toList(),
                repair(f));
        try {
            return form.onto(base);
        } catch (BookFault.Broken e) {
            throw new InvalidInput(e.faults().stream()
                    .map(x -> new FieldProblem("/form" + x.pointer(), x.words()))
                    .toList());
        }
    }

    private static FamilyForm.ItemLine line(ItemIn i) {
        return new FamilyForm.ItemLine(
                i.code(),
                i.name(),
                i.kind(),
                i.included(),
                text(i.number()),
                i.priceMinor() == null ? OptionalLong.empty() : OptionalLong.of(i.priceMinor()),
                new FamilyForm.Limits(optional(i.km()), optional(i.months())),
                new FamilyForm.Limits(optional(i.severeKm()), optional(i.severeMonths())));
    }

    private static Optional<RepairEstimate> repair(Form f) {
        return Optional.ofNullable(f.repairLikelyMinor())
                .map(likely -> new RepairEstimate(
                        Objects.requireNonNullElse(f.repairLowMinor(), likely),
                        likely,
                        Objects.requireNonNullElse(f.repairHighMinor(), likely)));
    }

    private static String text(@Nullable String value) {
        return Objects.requireNonNullElse(value, "").strip();
    }

    private static @Nullable Integer boxed(OptionalInt value) {
        return value.isPresent() ? value.getAsInt() : null;
    }

    private static @Nullable Double boxed(OptionalDouble value) {
        return value.isPresent() ? value.getAsDouble() : null;
    }

    private static OptionalInt optional(@Nullable Integer value) {
        return value == null ? OptionalInt.empty() : OptionalInt.of(value);
    }

    private static OptionalDouble optional(@Nullable Double value) {
        return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
    }
}
