package knollfield.app.parts;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import knollfield.core.bundle.FitCheck;
import knollfield.core.bundle.Grade;
import org.jspecify.annotations.Nullable;

/** The parts, as they are shown and asked for. */
final class PartsViews {

    private PartsViews() {}

    /** Money in minor units, lengths in mm, lives in km. */
    record PartView(
            String number,
            String name,
            String familyCode,
            String family,
            String itemCode,
            String item,
            Grade.Kind grade,
            String gradeWords,
            long priceMinor,
            @Nullable Integer expectedKm,
            int leadDays,
            @Nullable String replaces,
            @Nullable Integer teeth,
            @Nullable Double widthMm,
            @Nullable Double lengthMm,
            @Nullable Double thicknessMm,
            @Nullable String side,
            int stock,
            LocalDate here,
            int version) {}

    record PartIn(
            String number,
            String name,
            String familyCode,
            String itemCode,
            Grade.Kind grade,
            long priceMinor,
            @Nullable Integer expectedKm,
            int leadDays,
            @Nullable String replaces,
            @Nullable Integer teeth,
            @Nullable Double widthMm,
            @Nullable Double lengthMm,
            @Nullable Double thicknessMm,
            @Nullable String side,
            int version) {

        CatalogPart toPart(String storedNumber) {
            return new CatalogPart(
                    storedNumber.strip(),
                    name.strip(),
                    familyCode,
                    itemCode,
                    grade,
                    priceMinor,
                    expectedKm == null ? OptionalInt.empty() : OptionalInt.of(expectedKm),
                    leadDays,
                    Optional.ofNullable(replaces).filter(r -> !r.isBlank()),
                    new FitCheck.Data(
                            teeth == null ? OptionalInt.empty() : OptionalInt.of(teeth),
                            millimetres(widthMm),
                            millimetres(lengthMm),
                            millimetres(thicknessMm),
                            Optional.ofNullable(side).filter(s -> !s.isBlank())),
                    version);
        }

        private static OptionalDouble millimetres(@Nullable Double value) {
            return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
        }
    }

    /**
     * A family whose book names parts that the catalogue has not.
     *
     * @param parts how many
     */
    record BookParts(String familyCode, String family, int parts) {}

    record NumberAndVersion(String number, int version) {}

    /** @param taken what takes it back, sent as a removal of each */
    record PartsTaken(List<PartView> parts, List<NumberAndVersion> taken) {}
}
