package knollfield.app.vehicle;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import knollfield.app.shared.Words;
import knollfield.core.due.Condition;
import knollfield.core.due.Policy.Timing;
import knollfield.core.due.UseState;

/** What is on file of a vehicle, in the words of its log. */
final class VehicleWords {

    private VehicleWords() {}

    /** The fields of {@code one} that differ from those of {@code other}. */
    static String differences(Vehicle one, Vehicle other, int currencyDigits) {
        Map<String, String> there = fields(other, currencyDigits);
        return fields(one, currencyDigits).entrySet().stream()
                .filter(e -> !e.getValue().equals(there.get(e.getKey())))
                .map(e -> e.getKey() + " " + (e.getValue().isEmpty() ? "none" : e.getValue()))
                .collect(Collectors.joining("; "));
    }

    private static Map<String, String> fields(Vehicle v, int currencyDigits) {
        Map<String, String> fields = new LinkedHashMap<>();
        fields.put("registration", v.registration());
        fields.put("VIN", v.vin().orElse(""));
        fields.put("make and model", v.makeModel());
        fields.put("engine letters", v.engine());
        fields.put("engine family", v.familyCode().orElse(""));
        fields.put("owner", v.ownerName());
        fields.put("phone", v.ownerPhone());
        fields.put("fleet", v.fleet().map(Fleet::name).orElse(""));
        fields.put("usage", v.usageClass());
        fields.put("first registered", Words.DAY.format(v.firstRegistered()));
        fields.put("came with a reading", v.cameWithReading() ? "yes" : "no");
        fields.put(
                "hard use",
                v.conditions().stream().sorted().map(Condition::words).collect(Collectors.joining(", ")));
        fields.put(
                "equipment", String.join(", ", v.equipment().stream().sorted().toList()));
        fields.put(
                "value",
                v.valueMinor().isPresent()
                        ? BigDecimal.valueOf(v.valueMinor().getAsLong(), currencyDigits)
                                .stripTrailingZeros()
                                .toPlainString()
                        : "");
        fields.put("state", state(v.state()));
        fields.put("idle hours a year", Integer.toString(v.idleHoursPerYear()));
        fields.put(
                "own timing",
                v.own().map(o -> timing(o.timing()) + " because " + o.reason()).orElse(""));
        fields.put("belt date code", v.beltDateCode().map(Words.DAY::format).orElse(""));
        return fields;
    }

    private static String state(UseState state) {
        return state.kind().words()
                + state.since().map(d -> " since " + Words.DAY.format(d)).orElse("");
    }

    private static String timing(Timing timing) {
        if (timing instanceof Timing.Early early) {
            return String.format(Locale.ROOT, "at %.0f %% of each limit", 100 * early.share());
        }
        if (timing instanceof Timing.Fixed fixed) {
            return Optional.of(fixed.limit())
                    .map(l -> (l.km().isPresent() ? l.km().getAsInt() + " km" : "")
                            + (l.km().isPresent() && l.months().isPresent() ? " or " : "")
                            + (l.months().isPresent() ? l.months().getAsInt() + " months" : ""))
                    .orElse("");
        }
        return timing instanceof Timing.Careful ? "on its cheapest day" : "at the book limit";
    }
}
