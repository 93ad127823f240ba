package knollfield.app.vehicle;

import java.util.Optional;
import knollfield.core.identity.Vin;

/** What is said of a VIN that is typed or comes with a list. */
public final class VinWarning {

    /** Why a text is no VIN at all. */
    public static final String SHAPE = "A VIN has 17 letters and digits, without I, O and Q.";

    private VinWarning() {}

    /** Why a VIN looks mistyped although it may be right; empty where nothing is odd or the text is no VIN. */
    public static Optional<String> of(String typed) {
        return Vin.of(typed)
                .filter(vin -> !vin.checks())
                .map(vin ->
                        "The ninth character is %c where the check digit would be %c. Some makers use no check digit; else look again."
                                .formatted(vin.text().charAt(8), vin.expectedCheckDigit()));
    }
}
