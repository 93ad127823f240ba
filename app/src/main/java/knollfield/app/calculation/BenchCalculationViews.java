package knollfield.app.calculation;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import knollfield.app.calculation.BenchCalculationViews.WheelTurned;
import knollfield.app.problem.Checks;
import knollfield.core.calculator.TorqueWrench;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.TimingGeometry;
import knollfield.core.units.TorqueUnit;
import org.jspecify.annotations.Nullable;

/** The calculators of the bench: what is asked and what is answered. */
final class BenchCalculationViews {

    private BenchCalculationViews() {}

    /**
     * @param bookValue the book's figure in {@code bookUnit}; null to convert only
     * @param angleDegrees further turn; null for none
     */
    record TorqueIn(
            double value,
            TorqueUnit unit,
            @Nullable Double bookValue,
            @Nullable TorqueUnit bookUnit,
            @Nullable Integer angleDegrees) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        void check() {
            new Checks()
                    .that(value() > 0 && value() <= 100_000, "/value", "A torque is above zero and at most 100,000.")
                    .that(
                            bookValue() == null || (bookValue() > 0 && bookValue() <= 100_000),
                            "/bookValue",
                            "A torque is above zero and at most 100,000.")
                    .that(
                            angleDegrees() == null || (angleDegrees() > 0 && angleDegrees() <= 720),
                            "/angleDegrees",
                            "An angle is 1 to 720 degrees.")
                    .orThrow();
        }
    }

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

    record WrenchIn(double torqueNm, double mostNm, double lengthMm, double extensionMm) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        void check() {
            new Checks()
                    .that(
                            torqueNm() > 0 && torqueNm() <= 5_000,
                            "/torqueNm",
                            "A torque is above zero and at most 5,000 N·m.")
                    .that(mostNm() > 0 && mostNm() <= 5_000, "/mostNm", "A range is above zero and at most 5,000 N·m.")
                    .that(
                            lengthMm() > 0 && lengthMm() <= 5_000,
                            "/lengthMm",
                            "A length is above zero and at most 5,000 mm.")
                    .that(
                            extensionMm() > -lengthMm() && extensionMm() <= 2_000,
                            "/extensionMm",
                            "At most 2,000 mm; turned back it is below zero, and shorter than the wrench.")
                    .orThrow();
        }
    }

    record WrenchOut(TorqueWrench.Fit fit, String words, double settingNm, TorqueWrench.Fit settingFit) {}

    /** @param hertz either this or {@code newtons} */
    record TensionIn(
            double kilogramsPerMetre,
            double metres,
            @Nullable Double hertz,
            @Nullable Double newtons) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        void check() {
            new Checks()
                    .that(
                            kilogramsPerMetre() >= 0.001 && kilogramsPerMetre() <= 5,
                            "/kilogramsPerMetre",
                            "A mass is 0.001 to 5 kg/m.")
                    .that(metres() >= 0.01 && metres() <= 3, "/metres", "A free run is 0.01 to 3 m long.")
                    .that((hertz() == null) != (newtons() == null), "/hertz", "Give either a frequency or a tension.")
                    .that(
                            hertz() == null || (hertz() > 0 && hertz() <= 2_000),
                            "/hertz",
                            "A frequency is above zero and at most 2,000 Hz.")
                    .that(
                            newtons() == null || (newtons() > 0 && newtons() <= 20_000),
                            "/newtons",
                            "A tension is above zero and at most 20,000 N.")
                    .orThrow();
        }
    }

    record TensionOut(double hertz, double newtons) {}

    record PistonIn(double throwMm, double rodMm, double degrees) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        void check() {
            new Checks()
                    .that(
                            throwMm() > 0 && throwMm() <= 500,
                            "/throwMm",
                            "Half the stroke is above zero and at most 500 mm.")
                    .that(
                            rodMm() > throwMm() && rodMm() <= 2_000,
                            "/rodMm",
                            "The rod is longer than half the stroke and at most 2,000 mm.")
                    .that(Math.abs(degrees()) <= 720, "/degrees", "An angle is at most 720 degrees.")
                    .orThrow();
        }
    }

    record PistonOut(double travelMm, double strokeMm) {}

    record CoolantIn(
            double keptLitres,
            double keptShare,
            double newLitres,
            double newShare,
            @Nullable Double wanted) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        void check() {
            Checks checks = new Checks();
            for (Map.Entry<String, Double> v : Map.of("/keptLitres", keptLitres(), "/newLitres", newLitres())
                    .entrySet()) {
                checks.that(v.getValue() >= 0 && v.getValue() <= 200, v.getKey(), "A volume is 0 to 200 L.");
            }
            for (Map.Entry<String, Double> v :
                    Map.of("/keptShare", keptShare(), "/newShare", newShare()).entrySet()) {
                checks.that(v.getValue() >= 0 && v.getValue() <= 1, v.getKey(), "A share is 0 to 100 %.");
            }
            checks.that(wanted() == null || (wanted() >= 0 && wanted() <= 1), "/wanted", "A share is 0 to 100 %.")
                    .orThrow();
        }
    }

    record CoolantOut(@Nullable Double share, @Nullable Double concentrateLitres) {}

    record ClearanceIn(
            double measuredMm,
            double lowMm,
            double highMm,
            @Nullable Double shimMm) {

        /** @throws knollfield.app.problem.InvalidInput naming the field */
        void check() {
            new Checks()
                    .that(measuredMm() >= 0 && measuredMm() <= 5, "/measuredMm", "A clearance is 0 to 5 mm.")
                    .that(lowMm() > 0 && lowMm() <= 5, "/lowMm", "A limit is above zero and at most 5 mm.")
                    .that(
                            highMm() >= lowMm() && highMm() <= 5,
                            "/highMm",
                            "The upper limit is the higher one, at most 5 mm.")
                    .that(shimMm() == null || (shimMm() > 0 && shimMm() <= 10), "/shimMm", "0 to 10 mm.")
                    .orThrow();
        }
    }

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

    static WheelTurned turned(Pulley p, int teeth) {
        int on = Math.floorMod(teeth, p.teeth());
        int fromMark = on * 2 > p.teeth() ? on - p.teeth() : on;
        return new WheelTurned(
                p.code(),
                p.name(),
                on * TimingGeometry.toothDegrees(p.teeth()),
                fromMark,
                TimingGeometry.toothDegrees(p.teeth()));
    }

    static @Nullable Double boxed(OptionalDouble value) {
        return Arrays.stream(value.stream().toArray()).boxed().findFirst().orElse(null);
    }
}
