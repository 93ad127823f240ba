package knollfield.core.engine.build;

import java.util.List;
import knollfield.core.engine.Ratio;

/**
 * A shaft that the timing drive turns, or that turns it.
 *
 * @param ratio turns of this shaft for one turn of the crank
 * @param bank which bank it belongs to, as the workshop calls it; empty words where there is only one
 * @param whenFree what it does once its loop is slack
 * @param freeAnywhere at its own mark it clears every piston wherever the crank goes
 * @param freeAt codes of the crank positions in which it may be moved by itself
 * @param rockDegrees degrees it may be rocked about its mark to meet its link or tooth, zero or more
 */
public record Shaft(
        String code,
        String name,
        Role role,
        Ratio ratio,
        String bank,
        WhenFree whenFree,
        boolean freeAnywhere,
        List<String> freeAt,
        int rockDegrees) {

    /** What a shaft is there for. */
    public enum Role {
        CRANK,
        CAM,
        INJECTION_PUMP,
        AUXILIARY,
        BALANCE
    }

    /** What a shaft does once nothing drives it. */
    public enum WhenFree {
        STAYS,
        SPRINGS,
        ROLLS
    }

    public Shaft {
        freeAt = List.copyOf(freeAt);
        if (rockDegrees < 0 || rockDegrees > 45) {
            throw new IllegalArgumentException(
                    "shaft %s may be rocked by 0 to 45 degrees, not %d".formatted(code, rockDegrees));
        }
    }
}
