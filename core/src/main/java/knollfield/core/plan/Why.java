package knollfield.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;

/** Why a job stands where it stands, or nowhere: said from the board's own rules and cost (rules.md section 11). */
public final class Why {

    /** Earlier days that are gone through one by one; more would not be read. */
    private static final int EARLIER_DAYS = 10;

    private static final int SINGLE_RULES = 3;

    /** Five technicians and four bays have as many in fifty days of ten hours. */
    private static final int MOST_PLACES = 20_000;

    /** Rules that say nothing about what is in the way. */
    private static final Set<Broken.Rule> OF_THE_RULER =
            EnumSet.of(Broken.Rule.DAY_OFF, Broken.Rule.IN_THE_PAST, Broken.Rule.TOO_LATE);

    private Why() {}

    /** Why the job stands where it stands; empty where it has no place. The board is afterwards as before. */
    public static List<Statement> here(Board board, long jobId) {
        Optional<Place> place = board.placeOf(jobId);
        if (place.isEmpty()) {
            return List.of();
        }
        Board.Share share = board.share(jobId).orElseThrow();
        PlanJob job = board.plan().job(jobId);
        Shop shop = board.plan().shop();
        List<Statement> why = new ArrayList<>();
        int day = shop.ruler().dayOf(place.get().start());
        why.add(Statement.of(
                "Waiting until {0} may cost {1}, {2} off the road {3}.",
                new Fact.Day(shop.ruler().date(day)),
                new Fact.Money(share.waiting()),
                days(share.daysOffRoad()),
                new Fact.Money(share.offRoad())));
        if (share.changeovers() > 0) {
            why.add(Statement.of("It adds tool-set changes of {0}.", new Fact.Money(share.changeovers())));
        } else if (share.changeovers() < 0) {
            why.add(Statement.of("It spares a tool-set change: {0}.", new Fact.Money(-share.changeovers())));
        }
        if (job.pin() instanceof PlanJob.Pin.AtPlace) {
            why.add(Statement.of("It is promised or under way, so the planner leaves it there."));
            return why;
        }
        board.remove(jobId);
        sooner(board, job, day, share.total(), why);
        board.freePlaces(jobId).stream()
                .filter(p -> shop.ruler().dayOf(p.start()) > day)
                .min(Comparator.comparing(p -> board.shareAt(jobId, p).total()))
                .ifPresent(p -> why.add(differs(
                        "Later, {0} with {1} would be next: {2} {3}.",
                        board, p, board.shareAt(jobId, p).total() - share.total())));
        board.putBack(jobId, place.get());
        return why;
    }

    private static void sooner(Board board, PlanJob job, int day, long cost, List<Statement> why) {
        Shop shop = board.plan().shop();
        int first = shop.ruler().dayOf(Math.max(shop.now(), job.earliest()));
        if (job.earliest() > shop.now() && !job.earliestWhy().isEmpty()) {
            why.add(Statement.of(
                    "It cannot start before {0}: {1}.",
                    new Fact.Day(shop.ruler().date(first)), new Fact.Words(job.earliestWhy())));
        }
        List<Place> free = board.freePlaces(job.id());
        String last = "";
        for (int d = Math.max(first, day - EARLIER_DAYS); d < day; d++) {
            int here = d;
            Optional<Place> open = free.stream()
                    .filter(p -> shop.ruler().dayOf(p.start()) == here)
                    .min(Comparator.comparing(p -> board.shareAt(job.id(), p).total()));
            if (open.isPresent()) {
                why.add(differs(
                        "Sooner, {0} with {1} is free too: {2} {3}.",
                        board, open.get(), board.shareAt(job.id(), open.get()).total() - cost));
                return;
            }
            String words = nearest(board, job.id(), d)
                    .map(n -> n.broken().get(0).words())
                    .orElse("");
            if (!words.isEmpty() && !words.equals(last)) {
                why.add(Statement.of("{0}: {1}", new Fact.Day(shop.ruler().date(d)), new Fact.Words(words)));
                last = words;
            }
        }
    }

    private static Statement differs(String text, Board board, Place place, long difference) {
        Shop shop = board.plan().shop();
        return Statement.of(
                text,
                new Fact.Day(shop.ruler().date(shop.ruler().dayOf(place.start()))),
                new Fact.Words(shop.technician(place.technicianId())
                        .map(Shop.Technician::name)
                        .orElse("")),
                new Fact.Money(Math.abs(difference)),
                new Fact.Words(difference < 0 ? "cheaper" : "dearer"));
    }

    private static Fact.Words days(int days) {
        return new Fact.Words(days == 1 ? "one day" : days + " days");
    }

    private record Near(Place place, List<Broken> broken) {}

    /** The place of a day without a free one that breaks fewest rules; empty where nobody works then. */
    private static Optional<Near> nearest(Board board, long jobId, int day) {
        Near best = null;
        for (Shop.Technician t : board.plan().shop().technicians()) {
            if (t.daysOff().contains(day)) {
                continue;
            }
            for (Shop.Bay b : board.plan().shop().bays()) {
                for (int k = 0; k < board.plan().shop().ruler().perDay(); k++) {
                    Place place = new Place(
                            t.id(), b.id(), day * board.plan().shop().ruler().perDay() + k);
                    List<Broken> broken = board.broken(jobId, place);
                    if (best == null || broken.size() < best.broken.size()) {
                        best = new Near(place, broken);
                    }
                    // it is asked of days without a free place, so that nothing breaks fewer
                    if (broken.size() == 1) {
                        return Optional.of(best);
                    }
                }
            }
        }
        return Optional.ofNullable(best);
    }

    /** Why the job has no place, and what alone stands in the way of which one. */
    public static List<Statement> notPlanned(Board board, long jobId) {
        PlanJob job = board.plan().job(jobId);
        Shop shop = board.plan().shop();
        if (board.placeOf(jobId).isPresent()) {
            return List.of();
        }
        List<Statement> why = new ArrayList<>();
        Optional<Place> free = board.freePlaces(jobId).stream()
                .min(Comparator.comparing(p -> board.shareAt(jobId, p).total()));
        if (free.isPresent()) {
            why.add(Statement.of(
                    "Nothing forbids it: {0} with {1} is free, and waiting there would cost {2} instead of {3}.",
                    new Fact.Day(shop.ruler().date(shop.ruler().dayOf(free.get().start()))),
                    new Fact.Words(shop.technician(free.get().technicianId())
                            .map(Shop.Technician::name)
                            .orElse("")),
                    new Fact.Money(board.shareAt(jobId, free.get()).total()),
                    new Fact.Money(job.waiting(shop.today(), shop.ruler().days())
                            + shop.prices().unplanned())));
            return why;
        }
        if (shop.technicians().stream().noneMatch(t -> t.skills().containsAll(job.skills()))) {
            why.add(Statement.of(
                    "Nobody here does this work ({0}).",
                    new Fact.Words(String.join(", ", new java.util.TreeSet<>(job.skills())))));
        }
        if (shop.bays().stream().noneMatch(b -> b.liftClass() >= job.liftClass())) {
            why.add(Statement.of("No bay takes so heavy a vehicle."));
        }
        if (!why.isEmpty()) {
            return why;
        }
        Singles singles = singleRules(board, jobId);
        if (singles.byRule.isEmpty()) {
            why.add(Statement.of(
                    "Every place up to {0} breaks two rules or more.",
                    new Fact.Day(shop.ruler().date(singles.lastDay))));
        }
        singles.byRule.values().stream()
                .sorted(Comparator.comparing(n -> n.place.start()))
                .limit(SINGLE_RULES)
                .forEach(n -> why.add(Statement.of(
                        "{0} with {1} fails by one rule only: {2}",
                        new Fact.Day(shop.ruler().date(shop.ruler().dayOf(n.place.start()))),
                        new Fact.Words(shop.technician(n.place.technicianId())
                                .map(Shop.Technician::name)
                                .orElse("")),
                        new Fact.Words(n.broken.get(0).words()))));
        return why;
    }

    /** @param lastDay the last day of which every place was looked at; at least that of now */
    private record Singles(Map<Broken.Rule, Near> byRule, int lastDay) {}

    /**
     * For each rule the first place that breaks only it; as far into the future as {@value #MOST_PLACES} places go, and no
     * further than the rules that are said.
     */
    private static Singles singleRules(Board board, long jobId) {
        Map<Broken.Rule, Near> single = new EnumMap<>(Broken.Rule.class);
        Shop shop = board.plan().shop();
        int places = 0;
        int s = shop.now();
        while (s < shop.ruler().slots() && single.size() < SINGLE_RULES && places < MOST_PLACES) {
            for (Shop.Technician t : shop.technicians()) {
                for (Shop.Bay b : shop.bays()) {
                    Place place = new Place(t.id(), b.id(), s);
                    List<Broken> broken = board.broken(jobId, place);
                    if (broken.size() == 1
                            && !OF_THE_RULER.contains(broken.get(0).rule())) {
                        single.putIfAbsent(broken.get(0).rule(), new Near(place, broken));
                    }
                    places++;
                }
            }
            s++;
        }
        int whole = s < shop.ruler().slots()
                ? shop.ruler().dayOf(s) - 1
                : shop.ruler().days() - 1;
        return new Singles(single, Math.max(shop.ruler().dayOf(shop.now()), whole));
    }
}
