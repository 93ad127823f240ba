package knollfield.app.fleet;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import knollfield.app.shared.Words;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;
import knollfield.core.fleet.Coming;
import knollfield.core.fleet.FleetMonths;
import knollfield.core.fleet.Levelling;
import org.springframework.stereotype.Component;

/** A fleet's months in words. */
@Component
class FleetWords {

    private final Words words;

    FleetWords(Words words) {
        this.words = words;
    }

    /** @param taxShare of the money before tax, 0 to 1 */
    List<String> of(FleetPlans.Plan p, LocalDate today, String currency, double taxShare) {
        List<Statement> said = new ArrayList<>();
        FleetMonths.Sum year = p.months().first(FleetPlans.YEAR);
        Fact all = new Fact.Count(p.states().size());
        if (year.vehicles() == 0) {
            said.add(Statement.of("Nothing comes due in the next twelve months; vehicles in use: {0}.", all));
        } else {
            said.add(Statement.of(
                    "Due in the next twelve months: {0} of {1} vehicles; {2} to {3}, likely {4} before tax and {5} with it;"
                            + " {6} of work.",
                    new Fact.Count(year.vehicles()),
                    all,
                    new Fact.Money(year.money().low()),
                    new Fact.Money(year.money().high()),
                    new Fact.Money(year.money().likely()),
                    new Fact.Money(Math.round(year.money().likely() * (1 + taxShare))),
                    new Fact.Minutes((int) Math.min(Integer.MAX_VALUE, year.minutes()))));
            said.add(Statement.of(
                    "Days off the road: {0}, of {1} that the fleet can spare.",
                    new Fact.Count(year.offRoadDays()),
                    new Fact.Count(p.months().months().stream()
                            .limit(FleetPlans.YEAR)
                            .mapToInt(FleetMonths.Month::spare)
                            .sum())));
        }
        List<Coming> now = comings(p).filter(c -> c.isDueNow(today)).toList();
        if (!now.isEmpty()) {
            said.add(Statement.of("Waiting today already: {0}.", new Fact.Words(named(now, p))));
        }
        busiest(p)
                .ifPresent(m -> said.add(Statement.of(
                        "Most falls into {0}: {1} vehicles, {2} days off the road.",
                        new Fact.Words(words.month(m.month())),
                        new Fact.Count(m.comes().size()),
                        new Fact.Count(m.sum().offRoadDays()))));
        List<FleetMonths.Month> over =
                p.months().months().stream().filter(FleetMonths.Month::isOver).toList();
        if (!over.isEmpty()) {
            said.add(Statement.of(
                    "More than the fleet can spare falls into {0}.",
                    new Fact.Words(String.join(
                            ", ", over.stream().map(m -> words.month(m.month())).toList()))));
        }
        if (!p.months().without().isEmpty()) {
            said.add(Statement.of(
                    "Without a day, because the book has no interval or nothing is on file: {0}.",
                    new Fact.Words(named(p.months().without(), p))));
        }
        return said.stream().map(s -> words.write(s, currency)).toList();
    }

    /** What making the months level comes to. */
    List<String> ofLevel(FleetLevels.Level level, String currency) {
        List<Statement> said = new ArrayList<>();
        Levelling.Over left = level.left();
        Levelling.Over over = level.result().over();
        if (left.minutes() == 0) {
            said.add(Statement.of("No month holds more than there is room for; nothing need be brought forward."));
        } else if (level.moves().isEmpty()) {
            said.add(Statement.of(
                    "There is {0} more than there is room for, and nothing can be brought forward: it is due now or promised, or no month before has room.",
                    new Fact.Words(above(left))));
        } else {
            said.add(Statement.of(
                    "Left as it is, there is {0} more than there is room for.", new Fact.Words(above(left))));
            said.add(Statement.of(
                    "Bring {0} forward, then {1}. That gives away {2}: what would still have served.",
                    new Fact.Words(
                            level.moves().size() == 1
                                    ? "one vehicle"
                                    : level.moves().size() + " vehicles"),
                    new Fact.Words(over.minutes() == 0 ? "every month has room" : above(over) + " too much is left"),
                    new Fact.Money(level.result().costMinor())));
            said.add(proof(level.result()));
        }
        return said.stream().map(s -> words.write(s, currency)).toList();
    }

    private static Statement proof(Levelling result) {
        if (result.isBest()) {
            return Statement.of("Worked out to the end: no other way leaves less too much, or costs less.");
        }
        return result.leastOver() < result.over().minutes()
                ? Statement.of("Not worked out to the end: another way may leave less too much.")
                : Statement.of(
                        "Not worked out to the end: another way that leaves as little too much costs {0} at least.",
                        new Fact.Money(result.leastMinor()));
    }

    private static String above(Levelling.Over over) {
        List<String> parts = new ArrayList<>();
        if (over.vehicleDays() > 0) {
            parts.add(over.vehicleDays() == 1 ? "1 vehicle-day" : over.vehicleDays() + " vehicle-days");
        }
        if (over.workMinutes() > 0) {
            parts.add(String.format(Locale.ROOT, "%.1f h", over.workMinutes() / 60.0));
        }
        return String.join(" and ", parts);
    }

    private static Stream<Coming> comings(FleetPlans.Plan p) {
        return p.months().months().stream().flatMap(m -> m.comes().stream());
    }

    private static Optional<FleetMonths.Month> busiest(FleetPlans.Plan p) {
        return p.months().months().stream()
                .limit(FleetPlans.YEAR)
                .filter(m -> m.comes().size() > 1)
                .max(Comparator.comparingInt((FleetMonths.Month m) -> m.sum().offRoadDays())
                        .thenComparing(FleetMonths.Month::month, Comparator.reverseOrder()));
    }

    private static String named(List<Coming> all, FleetPlans.Plan p) {
        return String.join(
                ", ",
                all.stream()
                        .map(c -> Objects.requireNonNull(p.states().get(c.vehicleId())))
                        .map(s -> "%s (%s)"
                                .formatted(
                                        s.vehicle().registration(),
                                        s.forecast().statusWords().toLowerCase(Locale.ROOT)))
                        .toList());
    }
}
