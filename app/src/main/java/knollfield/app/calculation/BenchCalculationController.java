package knollfield.app.calculation;

import java.util.List;
import java.util.OptionalInt;
import knollfield.app.calculation.BenchCalculationViews.ClearanceIn;
import knollfield.app.calculation.BenchCalculationViews.ClearanceOut;
import knollfield.app.calculation.BenchCalculationViews.CoolantIn;
import knollfield.app.calculation.BenchCalculationViews.CoolantOut;
import knollfield.app.calculation.BenchCalculationViews.PistonIn;
import knollfield.app.calculation.BenchCalculationViews.PistonOut;
import knollfield.app.calculation.BenchCalculationViews.TeethIn;
import knollfield.app.calculation.BenchCalculationViews.TeethOut;
import knollfield.app.calculation.BenchCalculationViews.TensionIn;
import knollfield.app.calculation.BenchCalculationViews.TensionOut;
import knollfield.app.calculation.BenchCalculationViews.TorqueIn;
import knollfield.app.calculation.BenchCalculationViews.TorqueOut;
import knollfield.app.calculation.BenchCalculationViews.WheelTurned;
import knollfield.app.calculation.BenchCalculationViews.WrenchIn;
import knollfield.app.calculation.BenchCalculationViews.WrenchOut;
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
import knollfield.core.engine.TimingGeometry;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.jobcard.TorqueJudgement;
import knollfield.core.units.Torque;
import knollfield.core.units.TorqueUnit;
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

    @PostMapping("/torque")
    TorqueOut torque(@RequestBody TorqueIn in) {
        in.check();
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
        in.check();
        TorqueWrench wrench = new TorqueWrench(new Torque(in.mostNm()), in.lengthMm());
        Torque wanted = new Torque(in.torqueNm());
        Torque setting = wrench.settingWithCrowfoot(wanted, in.extensionMm());
        TorqueWrench.Fit fit = wrench.fit(wanted);
        return new WrenchOut(fit, fit.words(), setting.newtonMetres(), wrench.fit(setting));
    }

    @PostMapping("/tension")
    TensionOut tension(@RequestBody TensionIn in) {
        in.check();
        FreeRun run = new FreeRun(in.kilogramsPerMetre(), in.metres());
        double hertz = in.hertz() != null
                ? in.hertz()
                : BeltTension.hertz(run, java.util.Objects.requireNonNull(in.newtons()));
        return new TensionOut(hertz, BeltTension.newtons(run, hertz));
    }

    @PostMapping("/piston")
    PistonOut piston(@RequestBody PistonIn in) {
        in.check();
        return new PistonOut(TimingGeometry.pistonTravel(in.throwMm(), in.rodMm(), in.degrees()), 2 * in.throwMm());
    }

    @PostMapping("/coolant")
    CoolantOut coolant(@RequestBody CoolantIn in) {
        in.check();
        CoolantMix mix = new CoolantMix(in.keptLitres(), in.keptShare(), in.newLitres(), in.newShare());
        return new CoolantOut(
                BenchCalculationViews.boxed(mix.share()),
                in.wanted() == null ? null : BenchCalculationViews.boxed(mix.concentrateFor(in.wanted())));
    }

    @PostMapping("/clearance")
    ClearanceOut clearance(@RequestBody ClearanceIn in) {
        in.check();
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
                .map(p -> BenchCalculationViews.turned(p, in.crankTeeth()))
                .toList();
        boolean allTrue = path.marked().stream().allMatch(p -> Math.floorMod(in.crankTeeth(), p.teeth()) == 0);
        return new TeethOut(
                wheels,
                in.crankTeeth() * TimingGeometry.toothDegrees(path.crankTeeth()),
                allTrue,
                path.turnsUntilPaintReturns(),
                Math.floorMod(in.crankTeeth(), path.teeth()));
    }
}
