package knollfield.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import knollfield.core.kinds.KindFamily;
import knollfield.core.kinds.Kinds;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LoopLayoutTest {

    private static final double R = 20 * 9.525 / (2 * Math.PI);

    private static BeltPath loop(int teeth, boolean clockwise) {
        double left = clockwise ? -1 : 1;
        return new BeltPath(
                teeth,
                clockwise,
                List.of(
                        new Pulley("crank", "Crank", Pulley.Role.CRANK, 0, 0, 20, R, false, true),
                        new Pulley("tensioner", "Tensioner", Pulley.Role.TENSIONER, 999, 999, 0, 28, true, false),
                        new Pulley("inlet", "Inlet cam", Pulley.Role.CAM, left * 100, 270, 40, 2 * R, false, true),
                        new Pulley("exhaust", "Exhaust cam", Pulley.Role.CAM, -left * 100, 270, 40, 2 * R, false, true),
                        new Pulley("idler", "Idler", Pulley.Role.IDLER, -999, 0, 0, 24, true, false)));
    }

    @ParameterizedTest
    @CsvSource({"130, true", "145, true", "145, false", "199, true"})
    void theWheelsAreMovedUntilTheLoopTakesItsTeeth(int teeth, boolean clockwise) {
        BeltPath fitted = LoopLayout.fitted(loop(teeth, clockwise));
        LoopFit fit = LoopFit.of(fitted);
        assertThat(fit.wrong()).isEmpty();
        assertThat(fit.teethNeeded()).isBetween(teeth - 0.1, teeth + 0.1);
        assertThat(fitted.pulleys().stream().map(Pulley::radiusMm).toList())
                .isEqualTo(loop(teeth, clockwise).pulleys().stream()
                        .map(Pulley::radiusMm)
                        .toList());
        assertThat(fitted.pulleys().get(0).x()).isZero();
    }

    /** A loop shorter than the circles it must go round cannot be drawn; it is left as it was, and said to be wrong. */
    @Test
    void aLoopThatIsTooShortStaysAsItWas() {
        BeltPath path = loop(60, true);
        assertThat(LoopLayout.fitted(path)).isEqualTo(path);
        assertThat(LoopFit.of(path).wrong()).isNotEmpty();
    }

    /** Every drawing that comes with the kinds fits its loop. */
    @Test
    void theDrawingsOfTheKindsFit() {
        assertThat(Kinds.all()).allSatisfy(kind -> {
            EngineFamily family = KindFamily.of(
                    kind, "T-1", "T", Interference.YES, Optional.empty(), new RepairEstimate(1, 2, 3), 9_000);
            List<BeltPath> drawn = family.build().stream()
                    .flatMap(b -> b.loops().stream())
                    .flatMap(l -> l.drawing().stream())
                    .toList();
            assertThat(drawn).as(kind.code()).isNotEmpty();
            assertThat(drawn)
                    .allSatisfy(d ->
                            assertThat(LoopFit.of(d).wrong()).as(kind.code()).isEmpty());
        });
    }
}
