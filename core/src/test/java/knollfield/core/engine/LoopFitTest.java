package knollfield.core.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LoopFitTest {

    private static final double PITCH = 9.525;
    private static final double R = 20 * PITCH / (2 * Math.PI);

    private static Pulley crank() {
        return new Pulley("crank", "Crank", Pulley.Role.CRANK, 0, 0, 20, R, false, true);
    }

    private static Pulley cam(double x, double y) {
        return new Pulley("cam", "Cam", Pulley.Role.CAM, x, y, 40, 2 * R, false, true);
    }

    private static Pulley tensioner(double x, double y) {
        return new Pulley("tensioner", "Tensioner", Pulley.Role.TENSIONER, x, y, 0, 25, true, false);
    }

    private static LoopFit fit(int teeth, boolean clockwise, Pulley... wheels) {
        return LoopFit.of(new BeltPath(teeth, clockwise, List.of(wheels)));
    }

    /**
     * Source: Shigley, Mechanical Engineering Design, equations 17-1 and 17-2: an open belt over two pulleys has the length
     * √(4C² − (D − d)²) + (D·θ_D + d·θ_d)/2 with θ = π ± 2·asin((D − d)/2C).
     */
    @ParameterizedTest
    @CsvSource({"150, true", "290, true", "290, false", "400, false"})
    void aLoopOverTwoWheelsHasTheLengthOfTheHandbook(double c, boolean clockwise) {
        double large = 4 * R;
        double small = 2 * R;
        double half = Math.asin((large - small) / (2 * c));
        double length = Math.sqrt(4 * c * c - (large - small) * (large - small))
                + (large * (Math.PI + 2 * half) + small * (Math.PI - 2 * half)) / 2;
        LoopFit fit = fit((int) Math.round(length / PITCH), clockwise, crank(), cam(0, c));
        assertThat(fit.lengthMm()).isCloseTo(length, within(1e-9));
        assertThat(fit.pitchMm()).isCloseTo(PITCH, within(1e-9));
        assertThat(fit.wrong()).isEmpty();
    }

    /** The same length walked in small steps along the drawing, as somebody with a thread on it would measure. */
    @Test
    void anOutsideWheelPushesTheLoopIn() {
        LoopFit without = fit(93, true, crank(), cam(0, 300));
        LoopFit with = fit(93, true, crank(), tensioner(-60, 130), cam(0, 300));
        assertThat(with.lengthMm()).isGreaterThan(without.lengthMm());
        assertThat(with.wrong()).isEmpty();
        // Source: geometry; a convex loop over its wheels is the shortest line round them, so any wheel pressed in
        // lengthens it
        LoopFit deeper = fit(93, true, crank(), tensioner(-45, 130), cam(0, 300));
        assertThat(deeper.lengthMm()).isGreaterThan(with.lengthMm());
    }

    @Test
    void teethThatTheWheelsDoNotTakeAreSaid() {
        double needed = fit(90, true, crank(), cam(0, 300)).teethNeeded();
        int teeth = (int) Math.round(needed);
        assertThat(fit(teeth, true, crank(), cam(0, 300)).wrong()).isEmpty();
        assertThat(fit(teeth + 1, true, crank(), cam(0, 300)).wrong()).isEmpty();
        assertThat(fit(teeth + 3, true, crank(), cam(0, 300)).wrong())
                .containsExactly(String.format(
                        Locale.ROOT,
                        "The wheels as placed take %.1f teeth or links of 9.5 mm, the loop has %d.",
                        needed,
                        teeth + 3));
    }

    @Test
    void aTensionerBelongsInTheSlackAndOnTheLoop() {
        // a clockwise crank pulls the loop down on the right as it is looked at, so the slack goes up on the left
        assertThat(words(crank(), cam(0, 300), tensioner(60, 130)))
                .containsExactly(
                        "Tensioner sits in a run that the crank pulls; it belongs where the loop comes off the crank.");
        assertThat(words(crank(), tensioner(-60, 130), cam(0, 300))).isEmpty();
        assertThat(words(crank(), tensioner(-160, 130), cam(0, 300)))
                .contains("The loop does not touch Tensioner where it stands.");
    }

    @Test
    void wheelsThatStandInEachOtherOrHaveAnotherPitchAreSaid() {
        assertThat(words(crank(), tensioner(-60, 270), cam(0, 300))).contains("Tensioner and Cam stand in each other.");
        Pulley wide = new Pulley("cam", "Cam", Pulley.Role.CAM, 0, 300, 40, 2.2 * R, false, true);
        assertThat(words(crank(), wide).get(0))
                .startsWith("Cam: 40 teeth at a radius of 66.7 mm have a pitch of 10.5 mm");
        assertThat(words(crank(), cam(0, 20))).contains("No run goes from Crank to Cam: they lie in each other.");
    }

    /** What is wrong beside the teeth, which are set to what the wheels take. */
    private static List<String> words(Pulley... wheels) {
        double needed = LoopFit.of(new BeltPath(1, true, List.of(wheels))).teethNeeded();
        return new ArrayList<>(LoopFit.of(new BeltPath(Math.max(1, (int) Math.round(needed)), true, List.of(wheels)))
                .wrong());
    }
}
