package knollfield.app.estimate;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.shared.Words;
import knollfield.core.bundle.Bundle;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.estimate.ChanceWords;
import knollfield.core.estimate.Estimate;
import knollfield.core.risk.Exposure;
import org.springframework.stereotype.Component;

/** Tells the owner in plain sentences what the job is, why it costs what it does and what waiting costs. */
@Component
class PlainWords {

    private static final int WAIT_MONTHS = 6;

    private final Forecasts forecasts;
    private final Words words;

    PlainWords(Forecasts forecasts, Words words) {
        this.forecasts = forecasts;
        this.words = words;
    }

    /** The sentences, in the order they are printed. */
    List<String> of(VehicleState state, EngineFamily family, Bundle bundle, Estimate estimate, String currency) {
        List<String> all = new ArrayList<>();
        String drive = drive(family);
        all.add("What is uncovered: to reach the timing %s we take off or open, in this order: %s."
                .formatted(
                        drive,
                        String.join(
                                "; ",
                                bundle.labour().steps().stream()
                                        .filter(s -> s.neededBy().size() > 1)
                                        .map(s -> s.step().title().toLowerCase(java.util.Locale.ROOT))
                                        .toList())));
        int shared = bundle.labour().sharedMinutes();
        int total = bundle.labour().minutes();
        if (total > 0) {
            all.add(
                    ("Why it costs that much: %s of the %s of work are opening up and closing, whatever is renewed inside. "
                                    + "Parts that sit behind the same covers are renewed in the same visit, so that this is paid once.")
                            .formatted(hours(shared), hours(total)));
        }
        all.add(waiting(state, family, currency));
        all.add("The figures are likely ones: between %s and %s with tax, depending on how the bolts come out."
                .formatted(
                        words.money(estimate.lowTotalMinor(), currency),
                        words.money(estimate.highTotalMinor(), currency)));
        return all;
    }

    /** The same for a look that opens nothing. */
    List<String> ofInspection(VehicleState state, EngineFamily family, Estimate estimate, String currency) {
        return List.of(
                ("What is done: we read the fault codes, listen to the engine cold and warm, and look at the timing %s as "
                                + "far as it can be seen without opening anything. Then we say what follows, and why.")
                        .formatted(drive(family)),
                waiting(state, family, currency),
                "The price with tax is %s; nothing is renewed in it."
                        .formatted(words.money(estimate.totalMinor(), currency)));
    }

    private static String drive(EngineFamily family) {
        return family.drive().isBelt() ? "belt" : "chain";
    }

    private String waiting(VehicleState state, EngineFamily family, String currency) {
        String drive = drive(family);
        LocalDate until = state.forecast().today().plusMonths(WAIT_MONTHS);
        Optional<Exposure> waiting = forecasts.exposure(state, state.forecast(), until);
        if (waiting.isPresent() && state.consequence().isPresent()) {
            String engine = family.interference() == Interference.NO
                    ? "the engine stops and the vehicle has to be fetched"
                    : family.interference() == Interference.YES
                            ? "pistons and valves meet and the engine is damaged"
                            : "pistons and valves may meet; for this engine that is not confirmed";
            return ("What waiting costs: if the %s lets go, %s; that is about %s. The chance of it until %s is %s, "
                            + "by our own planning figures.")
                    .formatted(
                            drive,
                            engine,
                            words.money(state.consequence().get().likely(), currency),
                            words.day(until),
                            ChanceWords.of(waiting.get().chance()));
        }
        return "What waiting costs: our book has no limit for this %s, so nobody can put a figure on waiting."
                .formatted(drive);
    }

    private static String hours(int minutes) {
        return String.format(Locale.ROOT, "%.1f hours", minutes / 60.0);
    }
}
