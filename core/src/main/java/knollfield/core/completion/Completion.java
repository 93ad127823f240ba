package knollfield.core.completion;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.Policy;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.Schedule;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.InspectionEnd;

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

    /**
     * What a signed card leaves to be done another time: what was noted, old parts that went back, clearances accepted
     * outside their limits, and what was found and has its cause left.
     *
     * @param stays findings that do not end with the job, see {@link #stays}
     */
    public static List<CardEvent.SideFinding> followUps(CardState card, List<Evidence> stays) {
        EngineFamily family = card.plan().basis().family();
        List<CardEvent.SideFinding> all = new ArrayList<>(card.noted(CardEvent.SideFinding.class));
        card.noted(CardEvent.GoesBack.class)
                .forEach(e -> all.add(new CardEvent.SideFinding(
                        "%s: the old one went back, %s"
                                .formatted(
                                        family.item(e.item()).map(Item::name).orElse(e.item()),
                                        e.why().strip()),
                        false)));
        stays.stream()
                .filter(e -> e.kind() != EvidenceKind.CLEARANCE_OUT
                        || card.clearancesAccepted().isEmpty())
                .forEach(e -> all.add(new CardEvent.SideFinding(causeLeft(family, e), false)));
        card.clearancesAccepted().forEach(words -> all.add(new CardEvent.SideFinding(words, false)));
        card.inspectionEnd()
                .filter(d -> d.end().needsAJob())
                .ifPresent(d -> all.add(new CardEvent.SideFinding(inWords(d), true)));
        return all;
    }

    /** Such as "Inspected: the full set. Guide broken on the tight run". */
    static String inWords(InspectionEnd.Decided d) {
        return "Inspected: %s. %s".formatted(d.end().words(), d.reason());
    }

    /**
     * What an inspection says of the drive beside its looks: slack outside the book's figure, or that all was found good,
     * each with its words. All is good only where nothing was found that says otherwise.
     */
    public static Map<Evidence, String> inspected(CardState card, LocalDate day) {
        if (!card.slackAccepted().isEmpty()) {
            return Map.of(
                    new Evidence(EvidenceKind.CHAIN_RATTLE, day, Evidence.Confidence.MEASURED, Optional.empty()),
                    String.join("; ", card.slackAccepted()));
        }
        return card.inspectionEnd()
                .filter(d -> d.end() == InspectionEnd.NOTHING && card.findings().isEmpty())
                .map(d -> Map.of(
                        new Evidence(EvidenceKind.INSPECTED_GOOD, day, Evidence.Confidence.SEEN, Optional.empty()),
                        d.reason()))
                .orElse(Map.of());
    }

    /** Such as "Oil on the belt, wet from the top: its cause is left (cam seals)". */
    static String causeLeft(EngineFamily family, Evidence evidence) {
        String words = evidence.kind().words();
        if (evidence.kind().asksFor().isEmpty()) {
            return "%s%s: not put right".formatted(words.substring(0, 1).toUpperCase(Locale.ROOT), words.substring(1));
        }
        List<String> cause = causes(family, evidence.kind()).stream()
                .map(i -> i.name().toLowerCase(Locale.ROOT))
                .toList();
        return "%s%s: its cause is left%s"
                .formatted(
                        words.substring(0, 1).toUpperCase(Locale.ROOT),
                        words.substring(1),
                        cause.isEmpty() ? ", the book has no such part" : " (" + String.join(", ", cause) + ")");
    }

    /** Valve clearances that were accepted outside their limits, as findings with their words. */
    public static Map<Evidence, String> clearances(CardState card, LocalDate day) {
        return card.clearancesAccepted().isEmpty()
                ? Map.of()
                : Map.of(
                        new Evidence(EvidenceKind.CLEARANCE_OUT, day, Evidence.Confidence.MEASURED, Optional.empty()),
                        String.join("; ", card.clearancesAccepted()));
    }

    /**
     * What a job did, as far as findings go.
     *
     * @param items codes of what it renewed
     * @param declined codes of what the owner left in words
     * @param clearancesSet valve clearances were measured, and all of them are within their limits
     */
    public record Work(EngineFamily family, Set<String> items, Set<String> declined, boolean clearancesSet) {
        public Work {
            items = Set.copyOf(items);
            declined = Set.copyOf(declined);
        }

        /** What {@code card} did. */
        public static Work of(CardState card, Set<String> declined) {
            return new Work(card.plan().basis().family(), Completion.items(card), declined, card.clearancesSet());
        }

        private boolean puts(Item item) {
            return items.contains(item.code()) || declined.contains(item.code());
        }
    }

    private static List<Item> causes(EngineFamily family, EvidenceKind kind) {
        return family.items().stream()
                .filter(i -> kind.asksFor().contains(i.kind()))
                .toList();
    }

    /**
     * Findings with a cause of their own that a job leaves as they are: it renewed not all of the cause, and the owner did
     * not decline the rest in words.
     */
    public static List<Evidence> stays(Work work, Collection<Evidence> found) {
        return found.stream()
                .filter(e -> e.kind().hasACauseOfItsOwn() && !ends(work, e))
                .toList();
    }

    /**
     * The same after {@code card}. An inspection puts nothing right: what was known before it stays as it was, and what it
     * found itself needs no second follow-up where it ends in a job.
     */
    public static List<Evidence> stays(CardState card, Work work, Collection<Evidence> found) {
        if (!card.plan().isInspection()) {
            return stays(work, found);
        }
        Set<EvidenceKind> here =
                card.findings().stream().map(CardState.Finding::kind).collect(Collectors.toSet());
        boolean jobFollows =
                card.inspectionEnd().filter(d -> d.end().needsAJob()).isPresent();
        return stays(work, found).stream()
                .filter(e -> !jobFollows && here.contains(e.kind()))
                .toList();
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
     * True where {@code work} ends what {@code evidence} says: the drive was renewed, or the item it was found on, or
     * every item of the kinds it asks for. What has a cause of its own ends only with all of its cause renewed, or declined
     * by the owner; a clearance with a measurement.
     */
    public static boolean ends(Work work, Evidence evidence) {
        EngineFamily family = work.family();
        Set<String> items = work.items();
        if (evidence.kind() == EvidenceKind.CLEARANCE_OUT) {
            return work.clearancesSet();
        }
        if (evidence.kind().hasACauseOfItsOwn()) {
            List<Item> cause = causes(family, evidence.kind());
            return !cause.isEmpty() && cause.stream().allMatch(work::puts);
        }
        if (items.contains(family.driveItem().code())) {
            return true;
        }
        if (evidence.item().isPresent()) {
            return items.contains(evidence.item().get());
        }
        List<String> asked =
                causes(family, evidence.kind()).stream().map(Item::code).toList();
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
        return new NextDue(km, limit.ageDay(date, share));
    }
}
