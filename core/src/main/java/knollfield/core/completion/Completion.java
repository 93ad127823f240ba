package knollfield.core.completion;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.due.ClockStart;
import knollfield.core.due.Evidence;
import knollfield.core.due.Policy;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.Limit;
import knollfield.core.engine.Schedule;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardState;

/** What a signed card makes of the vehicle (rules.md section 10). */
public final class Completion {

    private Completion() {}

    /** An item whose clocks start again. */
    public record Renewed(Item item, ClockStart start) {}

    /**
     * When the drive is due next, whichever comes first.
     *
     * @param km odometer, rounded down; empty where the book has no distance limit
     * @param date empty where the book has no age limit
     */
    public record NextDue(OptionalInt km, Optional<LocalDate> date) {}

    /** Codes of what a signed card has renewed; none where the same parts went back. */
    public static Set<String> items(CardState card) {
        return card.scope().refitted() ? Set.of() : card.scope().items();
    }

    /** What a signed card leaves to be done another time: what was noted, and old parts that went back. */
    public static List<CardEvent.SideFinding> followUps(CardState card) {
        EngineFamily family = card.plan().basis().family();
        List<CardEvent.SideFinding> all = new ArrayList<>(card.noted(CardEvent.SideFinding.class));
        card.noted(CardEvent.GoesBack.class)
                .forEach(e -> all.add(new CardEvent.SideFinding(
                        "%s: the old one went back, %s"
                                .formatted(
                                        family.item(e.item()).map(Item::name).orElse(e.item()),
                                        e.why().strip()),
                        false)));
        return all;
    }

    /** The items of the job start their clocks on the day and at the odometer of the job; the others keep theirs. */
    public static List<Renewed> renewed(EngineFamily family, Set<String> items, LocalDate date, int odometerKm) {
        ClockStart start = new ClockStart(date, odometerKm, ClockStart.Grade.DOCUMENTED);
        // whoever renews a whole part renews its front half with it, but not the other way round
        return family.items().stream()
                .filter(i -> items.contains(i.code())
                        || i.halfOf().filter(items::contains).isPresent())
                .map(i -> new Renewed(i, start))
                .toList();
    }

    /**
     * True where renewing {@code items} ends what {@code evidence} says: the drive is among them, or the item it was
     * found on, or every item of the kinds it asks for.
     */
    public static boolean ends(EngineFamily family, Set<String> items, Evidence evidence) {
        if (items.contains(family.driveItem().code())) {
            return true;
        }
        if (evidence.item().isPresent()) {
            return items.contains(evidence.item().get());
        }
        List<String> asked = family.items().stream()
                .filter(i -> evidence.kind().asksFor().contains(i.kind()))
                .map(Item::code)
                .toList();
        return !asked.isEmpty() && items.containsAll(asked);
    }

    /**
     * Next due of the drive under the workshop's policy: start + share × limit, the age in days, rounded to whole days.
     *
     * @param severe the severe schedule applies
     */
    public static NextDue nextDue(EngineFamily family, Policy policy, boolean severe, LocalDate date, int odometerKm) {
        Optional<Schedule> schedule = family.driveItem().schedule();
        if (schedule.isEmpty()) {
            return new NextDue(OptionalInt.empty(), Optional.empty());
        }
        Limit book = severe
                ? schedule.get().severe().orElse(schedule.get().normal())
                : schedule.get().normal();
        Limit limit = policy.inForce(book);
        double share = policy.share();
        OptionalInt km = limit.km().isPresent()
                ? OptionalInt.of(
                        odometerKm + (int) Math.floor(share * limit.km().getAsInt()))
                : OptionalInt.empty();
        Optional<LocalDate> due = Optional.empty();
        if (limit.months().isPresent()) {
            long span =
                    ChronoUnit.DAYS.between(date, date.plusMonths(limit.months().getAsInt()));
            due = Optional.of(date.plusDays(Math.round(share * span)));
        }
        return new NextDue(km, due);
    }
}
