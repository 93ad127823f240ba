package knollfield.app.parts;

import java.util.Optional;
import java.util.OptionalInt;
import knollfield.core.bundle.FitCheck;
import knollfield.core.bundle.Grade;

/**
 * A part that can be fitted as an item of an engine family.
 *
 * @param priceMinor of all pieces the item needs, minor units
 * @param expectedKm life, km; empty where nobody knows
 * @param leadDays days until it is at the ferry where the supplier has none
 * @param replaces number of an older part it stands for
 */
public record CatalogPart(
        String number,
        String name,
        String familyCode,
        String itemCode,
        Grade.Kind grade,
        long priceMinor,
        OptionalInt expectedKm,
        int leadDays,
        Optional<String> replaces,
        FitCheck.Data fit,
        int version) {}
