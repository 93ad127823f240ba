package knollfield.core.due;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import knollfield.core.due.FindingEffect.Call;
import knollfield.core.engine.EngineFamily;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;

/** How a vehicle stands, in one sentence that answers a phone call. */
public final class Standing {

    private Standing() {}

    public static Statement of(VehicleForecast f, Optional<EngineFamily> family) {
        Fact item =
                Fact.Words.midSentence(f.deciding().map(d -> d.item().name()).orElse("timing drive"));
        Fact engine = new Fact.Words(family.map(EngineFamily::interference)
                .map(i -> switch (i) {
                    case YES -> "an interference engine";
                    case UNKNOWN -> "interference unconfirmed";
                    case NO -> "not an interference engine";
                })
                .orElse("engine not in the book"));
        Optional<LocalDate> actBy = f.actBy();
        Fact day = new Fact.Day(actBy.orElse(f.today()));
        return switch (f.status()) {
            case STOP ->
                Statement.of(
                        "Do not run the engine: {0}.",
                        new Fact.Words(found(f, Call.STOP).orElse("evidence says so")));
            case OVERDUE ->
                Statement.of("Past the limit of its {0} for {1} days; {2}.", item, new Fact.Count(daysOver(f)), engine);
            case UNKNOWN_HISTORY ->
                Statement.of("Nobody knows when its {0} was renewed; {1}: ask the owner, or do it now.", item, engine);
            case NO_BOOK ->
                Statement.of(
                        family.isPresent()
                                ? "The book has no interval for its {0}; inspect it, and listen."
                                : "No engine family is on file; find out which engine it has.",
                        item);
            case ACT_NOW ->
                found(f, Call.ACT_NOW)
                        .or(() -> found(f, Call.ACT_SOON))
                        .map(words ->
                                Statement.of("What was found calls for it: {0}; {1}.", new Fact.Words(words), engine))
                        .orElseGet(
                                () -> Statement.of("Its {0} should have been seen to by {1}; {2}.", item, day, engine));
            case COMING -> Statement.of("See to its {0} by {1}; {2}.", item, day, engine);
            case CLEAR ->
                actBy.isPresent()
                        ? Statement.of("Nothing to do until {0}; {1}.", day, engine)
                        : Statement.of("Nothing calls for action; {0}.", engine);
        };
    }

    /** What was found and calls for {@code call}, in words. */
    public static Optional<String> found(VehicleForecast f, Call call) {
        return f.findings().stream()
                .filter(e -> e.call() == call)
                .map(e -> e.evidence().kind().words())
                .findFirst();
    }

    /** Days since the limit that decides was reached; zero where none is. */
    public static long daysOver(VehicleForecast f) {
        return f.deciding()
                .flatMap(d -> d.binding() == ItemForecast.Binding.AGE
                        ? d.age().map(ItemForecast.AgeClock::date)
                        : d.distance().flatMap(ItemForecast.DistanceClock::median))
                .map(limit -> Math.max(0, ChronoUnit.DAYS.between(limit, f.today())))
                .orElse(0L);
    }
}
