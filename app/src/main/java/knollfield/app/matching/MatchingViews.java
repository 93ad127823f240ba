package knollfield.app.matching;

import java.util.List;
import java.util.Objects;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;

/** Engines and rules that match them, as they are shown. */
final class MatchingViews {

    private MatchingViews() {}

    record FamilyName(String code, String name) {}

    /**
     * @param fits vehicles in use that answer it
     * @param otherwise those of them that have another family
     */
    record RuleView(
            long id,
            String family,
            String familyName,
            String makeModel,
            String engine,
            @Nullable Integer yearFrom,
            @Nullable Integer yearTo,
            int fits,
            int otherwise,
            int version) {}

    /** @param year of first registration */
    record OpenView(
            long vehicleId,
            String registration,
            String makeModel,
            String engine,
            int year,
            List<FamilyName> families,
            int version) {}

    /** Vehicles without a family: those the rules give one, none, or several. */
    record MatchingView(List<RuleView> rules, List<OpenView> one, List<OpenView> none, List<OpenView> several) {}

    record RuleIn(
            @Nullable String family,
            @Nullable String makeModel,
            @Nullable String engine,
            @Nullable Integer yearFrom,
            @Nullable Integer yearTo,
            int version) {}

    /** @param family null: none */
    record ChoiceIn(long vehicleId, @Nullable String family, int version) {}

    record Choices(List<ChoiceIn> choices) {}

    /** @param before what takes it back, sent again */
    record Given(MatchingView now, List<ChoiceIn> before) {}

    static String text(@Nullable String value) {
        return Objects.requireNonNullElse(value, "");
    }

    static OptionalInt year(@Nullable Integer year) {
        return year == null ? OptionalInt.empty() : OptionalInt.of(year);
    }
}
