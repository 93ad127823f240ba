package knollfield.app.calculation;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import knollfield.app.engine.EngineBook;
import knollfield.app.problem.Checks;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.core.calculator.BeltTension;
import knollfield.core.calculator.CoolantMix;
import knollfield.core.calculator.TorqueWrench;
import knollfield.core.calculator.TurnedAngle;
import knollfield.core.calculator.ValveClearance;
import knollfield.core.engine.BeltPath;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Handling.Clearance;
import knollfield.core.engine.Handling.FreeRun;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.TimingGeometry;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.jobcard.TorqueJudgement;
import knollfield.core.units.Torque;
import knollfield.core.units.TorqueUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The small sums of the bench. */
@RestController
@RequestMapping("/api/calculations/bench")
class BenchCalculationController {

    private final EngineBook book;

    BenchCalculationController(EngineBook book) {
        this.book = book;
    }

    /**
     * @param bookValue the book's figure in {@code bookUnit}; null to convert only
     * @param angleDegrees further turn; null for none
     */
    record TorqueIn(
            double value,
            TorqueUnit unit,
            @Nullable Double bookValue,
            @Nullable TorqueUnit bookUnit,
            @Nullable Integer angleDegrees) {}

    /** @param guard the unit that was probably meant; null where there is no doubt */
    record TorqueOut(
            double newtonMetres,
            double poundFeet,
            double poundInches,
            @Nullable Boolean inRange,
            @Nullable Double lowNm,
            @Nullable Double highNm,
            @Nullable TorqueUnit guard,
            @Nullable String angleWords) {}

    record WrenchIn(double torqueNm, double mostNm, double lengthMm, double extensionMm) {}

    record WrenchOut(TorqueWrench.Fit fit, String words, double settingNm, TorqueWrench.Fit settingFit) {}

    /** @param hertz either this or {@code newtons} */
    record TensionIn(
            double kilogramsPerMetre,
            double metres,
            @Nullable Double hertz,
            @Nullable Double newtons) {}

    record TensionOut(double hertz, double newtons) {}

    record PistonIn(double throwMm, double rodMm, double degrees) {}

    record PistonOut(double travelMm, double strokeMm) {}

    record CoolantIn(
            double keptLitres,
            double keptShare,
            double newLitres,
            double newShare,
            @Nullable Double wanted) {}

    record CoolantOut(@Nullable Double share, @Nullable Double concentrateLitres) {}

    record ClearanceIn(
            double measuredMm,
            double lowMm,
            double highMm,
            @Nullable Double shimMm) {}

    record ClearanceOut(
            boolean good, double offByMm, @Nullable Double shimMm) {}

    /**
     * Where marks stand after some turning.
     *
     * @param family code of an engine family on file
     * @param crankTeeth teeth of the crank sprocket turned on, running way
     */
    record TeethIn(String family, int crankTeeth) {}

    /**
     * @param degrees turned from where its mark was true, running way, 0 up to 360
     * @param teethFromMark whole teeth to its mark the short way, negative behind; null where it stands between teeth
     */
    record WheelTurned(
            String code,
            String name,
            double degrees,
            @Nullable Integer teethFromMark,
            double toothDegrees) {}

    record TeethOut(
            List<WheelTurned> wheels,
            double crankDegrees,
            boolean allTrue,
            int turnsUntilPaintReturns,
            int paintTeethOn) {}

    @PostMapping("/torque")
    TorqueOut torque(@RequestBody TorqueIn in) {
        new Checks()
                .that(in.value() > 0 && in.value() <= 100_000, "/value", "A torque is above zero and at most 100,000.")
                .that(
                        in.bookValue() == null || (in.bookValue() > 0 && in.bookValue() <= 100_000),
                        "/bookValue",
                        "A torque is above zero and at most 100,000.")
                .that(
                        in.angleDegrees() == null || (in.angleDegrees() > 0 && in.angleDegrees() <= 720),
                        "/angleDegrees",
                        "An angle is 1 to 720 degrees.")
                .orThrow();
        Torque torque = Torque.of(in.value(), in.unit());
        TorqueJudgement judged = in.bookValue() == null || in.bookUnit() == null
                ? null
                : TorqueJudgement.of(
                        new TorqueSpec(Torque.of(in.bookValue(), in.bookUnit()), OptionalInt.empty(), ""),
                        in.value(),
                        in.unit());
        return new TorqueOut(
                torque.newtonMetres(),
                torque.in(TorqueUnit.POUND_FOOT),
                torque.in(TorqueUnit.POUND_INCH),
                judged == null ? null : judged.inRange(),
                judged == null ? null : judged.lowNewtonMetres(),
                judged == null ? null : judged.highNewtonMetres(),
                judged == null ? null : judged.guard().orElse(null),
                in.angleDegrees() == null ? null : TurnedAngle.words(in.angleDegrees()));
    }

    @PostMapping("/wrench")
    WrenchOut wrench(@RequestBody WrenchIn in) {
        new Checks()
                .that(
                        in.torqueNm() > 0 && in.torqueNm() <= 5_000,
                        "/torqueNm",
                        "A torque is above zero and at most 5,000 N·m.")
                .that(
                        in.mostNm() > 0 && in.mostNm() <= 5_000,
                        "/mostNm",
                        "A range is above zero and at most 5,000 N·m.")
                .that(
                        in.lengthMm() > 0 && in.lengthMm() <= 5_000,
                        "/lengthMm",
                        "A length is above zero and at most 5,000 mm.")
                .that(
                        in.extensionMm() > -in.lengthMm() && in.extensionMm() <= 2_000,
                        "/extensionMm",
                        "At most 2,000 mm; turned back it is below zero, and shorter than the wrench.")
                .orThrow();
        TorqueWrench wrench = new TorqueWrench(new Torque(in.mostNm()), in.lengthMm());
        Torque wanted = new Torque(in.torqueNm());
        Torque setting = wrench.settingWithCrowfoot(wanted, in.extensionMm());
        TorqueWrench.Fit fit = wrench.fit(wanted);
        return new WrenchOut(fit, fit.words(), setting.newtonMetres(), wrench.fit(setting));
    }

    @PostMapping("/tension")
    TensionOut tension(@RequestBody TensionIn in) {
        new Checks()
                .that(
                        in.kilogramsPerMetre() >= 0.001 && in.kilogramsPerMetre() <= 5,
                        "/kilogramsPerMetre",
                        "A mass is 0.001 to 5 kg/m.")
                .that(in.metres() >= 0.01 && in.metres() <= 3, "/metres", "A free run is 0.01 to 3 m long.")
                .that((in.hertz() == null) != (in.newtons() == null), "/hertz", "Give either a frequency or a tension.")
                .that(
                        in.hertz() == null || (in.hertz() > 0 && in.hertz() <= 2_000),
                        "/hertz",
                        "A frequency is above zero and at most 2,000 Hz.")
                .that(
                        in.newtons() == null || (in.newtons() > 0 && in.newtons() <= 20_000),
                        "/newtons",
                        "A tension is above zero and at most 20,000 N.")
                .orThrow();
        FreeRun run = new FreeRun(in.kilogramsPerMetre(), in.metres());
        double hertz = in.hertz() != null
                ? in.hertz()
                : BeltTension.hertz(run, java.util.Objects.requireNonNull(in.newtons()));
        return new TensionOut(hertz, BeltTension.newtons(run, hertz));
    }

    @PostMapping("/piston")
    PistonOut piston(@RequestBody PistonIn in) {
        new Checks()
                .that(
                        in.throwMm() > 0 && in.throwMm() <= 500,
                        "/throwMm",
                        "Half the stroke is above zero and at most 500 mm.")
                .that(
                        in.rodMm() > in.throwMm() && in.rodMm() <= 2_000,
                        "/rodMm",
                        "The rod is longer than half the stroke and at most 2,000 mm.")
                .that(Math.abs(in.degrees()) <= 720, "/degrees", "An angle is at most 720 degrees.")
                .orThrow();
        return new PistonOut(TimingGeometry.pistonTravel(in.throwMm(), in.rodMm(), in.degrees()), 2 * in.throwMm());
    }

    @PostMapping("/coolant")
    CoolantOut coolant(@RequestBody CoolantIn in) {
        Checks checks = new Checks();
        for (Map.Entry<String, Double> v : Map.of("/keptLitres", in.keptLitres(), "/newLitres", in.newLitres())
                .entrySet()) {
            checks.that(v.getValue() >= 0 && v.getValue() <= 200, v.getKey(), "A volume is 0 to 200 L.");
        }
        for (Map.Entry<String, Double> v :
                Map.of("/keptShare", in.keptShare(), "/newShare", in.newShare()).entrySet()) {
            checks.that(v.getValue() >= 0 && v.getValue() <= 1, v.getKey(), "A share is 0 to 100 %.");
        }
        checks.that(in.wanted() == null || (in.wanted() >= 0 && in.wanted() <= 1), "/wanted", "A share is 0 to 100 %.")
                .orThrow();
        CoolantMix mix = new CoolantMix(in.keptLitres(), in.keptShare(), in.newLitres(), in.newShare());
        return new CoolantOut(boxed(mix.share()), in.wanted() == null ? null : boxed(mix.concentrateFor(in.wanted())));
    }

    @PostMapping("/clearance")
    ClearanceOut clearance(@RequestBody ClearanceIn in) {
        new Checks()
                .that(in.measuredMm() >= 0 && in.measuredMm() <= 5, "/measuredMm", "A clearance is 0 to 5 mm.")
                .that(in.lowMm() > 0 && in.lowMm() <= 5, "/lowMm", "A limit is above zero and at most 5 mm.")
                .that(
                        in.highMm() >= in.lowMm() && in.highMm() <= 5,
                        "/highMm",
                        "The upper limit is the higher one, at most 5 mm.")
                .that(in.shimMm() == null || (in.shimMm() > 0 && in.shimMm() <= 10), "/shimMm", "0 to 10 mm.")
                .orThrow();
        ValveClearance judged = ValveClearance.of(in.measuredMm(), new Clearance("", in.lowMm(), in.highMm()));
        return new ClearanceOut(
                judged.good(), judged.offByMm(), in.shimMm() == null ? null : judged.shimFor(in.shimMm()));
    }

    @PostMapping("/teeth")
    TeethOut teeth(@RequestBody TeethIn in) {
        EngineFamily family = book.find(in.family())
                .orElseThrow(() -> new NotFound("Engine family %s is not on file.".formatted(in.family())))
                .family();
        new Checks()
                .that(Math.abs(in.crankTeeth()) <= 100_000, "/crankTeeth", "At most 100,000 teeth.")
                .orThrow();
        BeltPath path = family.path()
                .orElseThrow(() -> new InvalidInput(
                        "/family", "%s has no drawing on file to count round.".formatted(family.name())));
        List<WheelTurned> wheels = path.pulleys().stream()
                .filter(p -> p.teeth() > 0)
                .map(p -> turned(p, in.crankTeeth()))
                .toList();
        boolean allTrue = path.marked().stream().allMatch(p -> Math.floorMod(in.crankTeeth(), p.teeth()) == 0);
        return new TeethOut(
                wheels,
                in.crankTeeth() * TimingGeometry.toothDegrees(path.crankTeeth()),
                allTrue,
                path.turnsUntilPaintReturns(),
                Math.floorMod(in.crankTeeth(), path.teeth()));
    }

    private static WheelTurned turned(Pulley p, int teeth) {
        int on = Math.floorMod(teeth, p.teeth());
        int fromMark = on * 2 > p.teeth() ? on - p.teeth() : on;
        return new WheelTurned(
                p.code(),
                p.name(),
                on * TimingGeometry.toothDegrees(p.teeth()),
                fromMark,
                TimingGeometry.toothDegrees(p.teeth()));
    }

    private static @Nullable Double boxed(OptionalDouble value) {
        return Arrays.stream(value.stream().toArray()).boxed().findFirst().orElse(null);
    }
}
