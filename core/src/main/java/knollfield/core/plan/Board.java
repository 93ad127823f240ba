package knollfield.core.plan;

import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.IntPredicate;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import knollfield.core.plan.Broken.Rule;

/**
 * The board: every job's place, always feasible. A place that breaks a hard rule cannot be taken and is answered with the
 * rule. Not for use by several threads at once.
 */
public final class Board {

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEEE d MMM", Locale.UK);
    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.UK);

    private final PlanCase plan;
    private final Tracks tracks;
    private final Map<Long, Integer> position;
    private final Map<Long, List<Broken>> clashes = new TreeMap<>();

    private Board(PlanCase plan) {
        this.plan = plan;
        tracks = new Tracks(plan);
        position = Tracks.positionsOf(plan);
    }

    /**
     * The board as it stands, with the jobs at {@code places}; what is promised or under way is laid first. A job whose place
     * has come to break a rule of its own (its parts come later now) still holds technician, bay and tool set; only where
     * something else is there it is left out. Either way it stands in {@link #clashes()}.
     */
    public static Board lay(PlanCase plan, Map<Long, Place> places) {
        Board board = new Board(plan);
        List<PlanJob> inOrder = plan.jobs().stream()
                .sorted(Comparator.comparing((PlanJob j) -> !(j.pin() instanceof PlanJob.Pin.AtPlace))
                        .thenComparing(j -> start(j, places)))
                .toList();
        for (PlanJob job : inOrder) {
            int j = board.at(job.id());
            if (job.pin() instanceof PlanJob.Pin.AtPlace at) {
                if (!board.tracks.placeFixed(j, at.place())) {
                    board.clashes.put(job.id(), board.broken(job.id(), at.place()));
                    board.tracks.leaveOut(j);
                }
            } else if (places.containsKey(job.id())) {
                Place place = places.get(job.id());
                if (!board.tracks.placeAt(j, place) && !board.tracks.placeHeld(j, place)) {
                    board.clashes.put(job.id(), board.broken(job.id(), place));
                }
            }
        }
        for (PlanJob job : inOrder) {
            board.placeOf(job.id()).ifPresent(p -> {
                List<Broken> broken = board.brokenStanding(job.id(), p);
                if (!broken.isEmpty()) {
                    board.clashes.put(job.id(), broken);
                }
            });
        }
        return board;
    }

    /** As {@link #lay}, without the jobs that could be moved and break a rule where they stand. */
    static Board lawful(PlanCase plan, Map<Long, Place> places) {
        Board board = lay(plan, places);
        for (PlanJob job : plan.jobs()) {
            if (!(job.pin() instanceof PlanJob.Pin.AtPlace) && board.clashes.containsKey(job.id())) {
                board.remove(job.id());
            }
        }
        return board;
    }

    /** What of {@link #broken} still matters to a job that stands there; one that has begun is there already. */
    private List<Broken> brokenStanding(long jobId, Place place) {
        Set<Rule> settled = place.start() < plan.shop().now()
                ? EnumSet.of(Rule.IN_THE_PAST, Rule.VEHICLE_AWAY)
                : EnumSet.noneOf(Rule.class);
        return broken(jobId, place).stream()
                .filter(b -> !settled.contains(b.rule()))
                .toList();
    }

    /** What the plan costs in which the jobs that break a rule where they stand, and could be moved, have no place. */
    public static PlanCost lawfulCost(PlanCase plan, Map<Long, Place> places) {
        return lawful(plan, places).cost();
    }

    private static int start(PlanJob job, Map<Long, Place> places) {
        if (job.pin() instanceof PlanJob.Pin.AtPlace at) {
            return at.place().start();
        }
        return places.containsKey(job.id()) ? places.get(job.id()).start() : 0;
    }

    Tracks tracks() {
        return tracks;
    }

    public PlanCase plan() {
        return plan;
    }

    /** Jobs that break a rule where they should stand, and the rules. */
    public Map<Long, List<Broken>> clashes() {
        return Map.copyOf(clashes);
    }

    public Optional<Place> placeOf(long jobId) {
        int j = at(jobId);
        return tracks.isPlaced(j) ? Optional.of(tracks.placeOf(j)) : Optional.empty();
    }

    /** Every placed job's place, by job id. */
    public Map<Long, Place> places() {
        return tracks.places();
    }

    /** The slot after the last one that work would hold from {@code place}; empty on a day off, or beyond the ruler. */
    public Optional<Integer> endAt(long jobId, Place place) {
        int t = tracks.technician(place);
        int e = t < 0 ? -1 : tracks.endFrom(t, at(jobId), place.start());
        return e < 0 ? Optional.empty() : Optional.of(e);
    }

    public PlanCost cost() {
        return tracks.parts();
    }

    /**
     * Places or moves a job.
     *
     * @throws PlaceRefused where that breaks a rule; the board is then as before
     */
    public void place(long jobId, Place place) {
        List<Broken> broken = broken(jobId, place);
        if (!broken.isEmpty()) {
            throw new PlaceRefused(broken);
        }
        remove(jobId);
        tracks.placeAt(at(jobId), place);
    }

    /** Back to a place it was just taken from, promised ones included. */
    void putBack(long jobId, Place place) {
        int j = at(jobId);
        tracks.place(j, tracks.technician(place), tracks.bay(place), place.start());
    }

    /** Takes a job off the board; nothing happens where it is not on it. */
    public void remove(long jobId) {
        if (tracks.isPlaced(at(jobId))) {
            tracks.remove(at(jobId));
        }
    }

    private int at(long jobId) {
        Integer j = position.get(jobId);
        if (j == null) {
            throw new IllegalArgumentException("job %d is not in this case".formatted(jobId));
        }
        return j;
    }

    /** Every rule that placing the job there would break, as if it were not on the board yet; empty where it may. */
    public List<Broken> broken(long jobId, Place place) {
        int j = at(jobId);
        Shop shop = plan.shop();
        PlanJob job = plan.jobs().get(j);
        Shop.Technician technician = shop.technician(place.technicianId())
                .orElseThrow(() -> new IllegalArgumentException("no technician " + place.technicianId()));
        Shop.Bay bay =
                shop.bay(place.bayId()).orElseThrow(() -> new IllegalArgumentException("no bay " + place.bayId()));
        List<Broken> broken = new ArrayList<>();
        int start = place.start();
        Ruler ruler = shop.ruler();
        if (start < 0 || start >= ruler.slots()) {
            return List.of(new Broken(Rule.TOO_LATE, "That lies outside the days of the board."));
        }
        if (start < shop.now()) {
            broken.add(new Broken(Rule.IN_THE_PAST, "That time has passed."));
        } else if (start < job.earliest()) {
            broken.add(new Broken(
                    Rule.NOT_THERE_YET,
                    "Not before %s: %s."
                            .formatted(
                                    moment(Math.min(job.earliest(), ruler.slots() - 1)),
                                    job.earliestWhy().isEmpty() ? "it cannot start sooner" : job.earliestWhy())));
        }
        if (job.pin() instanceof PlanJob.Pin.AtStart at && at.slot() != start) {
            broken.add(new Broken(Rule.PROMISED, "Promised for %s.".formatted(moment(at.slot()))));
        }
        if (!technician.skills().containsAll(job.skills())) {
            broken.add(new Broken(
                    Rule.SKILL,
                    "%s does not do this work (%s)."
                            .formatted(technician.name(), String.join(", ", new TreeSet<>(job.skills())))));
        }
        if (bay.liftClass() < job.liftClass()) {
            broken.add(new Broken(Rule.BAY_CLASS, "%s is too light for this vehicle.".formatted(bay.name())));
        }
        int t = tracks.technician(place);
        if (technician.daysOff().contains(plan.shop().ruler().dayOf(start))) {
            broken.add(new Broken(
                    Rule.DAY_OFF,
                    "%s does not work on %s."
                            .formatted(
                                    technician.name(), day(plan.shop().ruler().dayOf(start)))));
            return broken;
        }
        if (technician.slotsOff().contains(start)) {
            broken.add(new Broken(Rule.DAY_OFF, "%s does not work on %s.".formatted(technician.name(), moment(start))));
            return broken;
        }
        int end = tracks.endFrom(t, j, start);
        if (end < 0) {
            broken.add(new Broken(Rule.TOO_LATE, "It would not be done by %s.".formatted(day(ruler.days() - 1))));
            return broken;
        }
        addHeld(broken, j, technician, bay, start, end);
        return broken;
    }

    private void addHeld(List<Broken> broken, int j, Shop.Technician technician, Shop.Bay bay, int start, int end) {
        PlanJob job = plan.jobs().get(j);
        int first = plan.shop().ruler().dayOf(start);
        int last = plan.shop().ruler().dayOf(end - 1);
        IntStream.rangeClosed(first, last)
                .filter(d -> job.blockedDays().contains(d))
                .findFirst()
                .ifPresent(d -> broken.add(
                        new Broken(Rule.VEHICLE_AWAY, "The vehicle cannot be here on %s.".formatted(day(d)))));
        IntStream.rangeClosed(first, last)
                .filter(d -> bay.daysClosed().contains(d))
                .findFirst()
                .ifPresent(d ->
                        broken.add(new Broken(Rule.BAY_CLOSED, "%s is closed on %s.".formatted(bay.name(), day(d)))));
        List<Integer> others = others(j, k -> tracks.start[k] < end && start < tracks.end[k]);
        busy(others, k -> plan.shop().technicians().get(tracks.tech[k]).id() == technician.id())
                .ifPresent(k -> broken.add(new Broken(
                        Rule.TECHNICIAN_BUSY,
                        "%s has %s then, until %s.".formatted(technician.name(), name(k), ends(k)),
                        List.of(id(k)))));
        busy(others, k -> plan.shop().bays().get(tracks.bay[k]).id() == bay.id())
                .ifPresent(k -> broken.add(new Broken(
                        Rule.BAY_BUSY,
                        "%s holds %s then, until %s.".formatted(bay.name(), name(k), ends(k)),
                        List.of(id(k)))));
        toolSet(j, others, start, end).ifPresent(broken::add);
        fleet(j, first, last).ifPresent(broken::add);
    }

    private Optional<Broken> toolSet(int j, List<Integer> others, int start, int end) {
        Shop.ToolSet set = plan.shop().toolSets().get(tracks.toolSet[j]);
        List<Integer> with = others.stream()
                .filter(k -> tracks.toolSet[k] == tracks.toolSet[j])
                .toList();
        for (int s = start; s < end; s++) {
            int at = s;
            int copies = set.copiesOn(plan.shop().ruler().dayOf(s));
            List<Integer> now = with.stream()
                    .filter(k -> tracks.start[k] <= at && at < tracks.end[k])
                    .toList();
            if (now.size() < copies) {
                continue;
            }
            if (copies == 0) {
                return Optional.of(new Broken(
                        Rule.TOOL_SET_OUT,
                        "No tool set for %s can be used on %s."
                                .formatted(set.name(), day(plan.shop().ruler().dayOf(s)))));
            }
            return Optional.of(new Broken(
                    Rule.TOOL_SET_BUSY,
                    "%s for %s %s with %s, until %s."
                            .formatted(
                                    copies == 1 ? "The only tool set" : "All %d tool sets".formatted(copies),
                                    set.name(),
                                    copies == 1 ? "is" : "are",
                                    names(now),
                                    ends(now.stream()
                                            .min(Comparator.comparing(k -> tracks.end[k]))
                                            .orElseThrow())),
                    now.stream().map(this::id).toList()));
        }
        return Optional.empty();
    }

    private Optional<Broken> fleet(int j, int first, int last) {
        int f = tracks.fleet[j];
        if (f < 0) {
            return Optional.empty();
        }
        Shop.Fleet fleet = plan.shop().fleets().get(f);
        for (int d = first; d <= last; d++) {
            List<Integer> off = offTheRoad(j, f, d);
            if (off.size() < fleet.cap()) {
                continue;
            }
            int room = d + 1;
            while (room < plan.shop().ruler().days() && offTheRoad(j, f, room).size() >= fleet.cap()) {
                room++;
            }
            return Optional.of(new Broken(
                    Rule.FLEET_CAP,
                    "%s: %d of %d off the road on %s.%s%s"
                            .formatted(
                                    fleet.name(),
                                    off.size(),
                                    fleet.cap(),
                                    day(d),
                                    off.isEmpty()
                                            ? ""
                                            : " %s %s in.".formatted(names(off), off.size() == 1 ? "is" : "are"),
                                    fleet.cap() == 0
                                                    || room
                                                            >= plan.shop()
                                                                    .ruler()
                                                                    .days()
                                            ? ""
                                            : " Room again on %s.".formatted(day(room))),
                    off.stream().map(this::id).toList()));
        }
        return Optional.empty();
    }

    private List<Integer> offTheRoad(int except, int fleet, int day) {
        return others(
                except,
                k -> tracks.fleet[k] == fleet
                        && plan.shop().ruler().dayOf(tracks.start[k]) <= day
                        && day <= plan.shop().ruler().dayOf(tracks.end[k] - 1));
    }

    private List<Integer> others(int except, IntPredicate which) {
        return IntStream.range(0, tracks.jobs)
                .filter(k -> k != except && tracks.isPlaced(k) && which.test(k))
                .boxed()
                .toList();
    }

    private Optional<Integer> busy(List<Integer> others, IntPredicate which) {
        return others.stream().filter(which::test).min(Comparator.comparing(k -> tracks.start[k]));
    }

    private long id(int j) {
        return plan.jobs().get(j).id();
    }

    private String name(int j) {
        return plan.jobs().get(j).name();
    }

    private String names(List<Integer> all) {
        List<String> names = all.stream().map(this::name).toList();
        return names.size() < 2
                ? String.join("", names)
                : names.subList(0, names.size() - 1).stream().collect(Collectors.joining(", "))
                        + " and "
                        + names.get(names.size() - 1);
    }

    private String day(int day) {
        return DAY.format(plan.shop().ruler().date(day));
    }

    private String moment(int slot) {
        return MOMENT.format(plan.shop().ruler().startOf(slot));
    }

    private String ends(int j) {
        return MOMENT.format(plan.shop().ruler().endOf(tracks.end[j]));
    }

    /** What the job alone costs where it stands: its waiting, its days off the road, the tool-set changes it makes. */
    public Optional<Share> share(long jobId) {
        return placeOf(jobId).map(p -> {
            int j = at(jobId);
            tracks.remove(j);
            Share share = shareAt(jobId, p);
            putBack(jobId, p);
            return share;
        });
    }

    /**
     * What a job costs at a place, or without one, by its own waiting and days off the road alone; minor units. Asks for
     * nothing that stands there.
     */
    public long alone(long jobId, Optional<Place> place) {
        PlanJob job = plan.job(jobId);
        Shop shop = plan.shop();
        if (place.isEmpty()) {
            return job.waiting(shop.today(), shop.ruler().days())
                    + shop.prices().unplanned();
        }
        int start = plan.shop().ruler().dayOf(place.get().start());
        int end = endAt(jobId, place.get())
                .map(e -> plan.shop().ruler().dayOf(e - 1))
                .orElse(start);
        return job.waiting(shop.today(), start) + (end - start + 1) * job.offRoadPerDay();
    }

    /** As {@link #share}, for a place the job may take and does not hold. */
    Share shareAt(long jobId, Place place) {
        int j = at(jobId);
        int t = tracks.technician(place);
        int b = tracks.bay(place);
        int end = tracks.endFrom(t, j, place.start());
        PlanJob job = plan.jobs().get(j);
        int days = plan.shop().ruler().dayOf(end - 1) - plan.shop().ruler().dayOf(place.start()) + 1;
        long waiting = job.waiting(plan.shop().today(), plan.shop().ruler().dayOf(place.start()));
        long off = days * job.offRoadPerDay();
        boolean moved = job.known().isPresent() && !job.known().get().equals(place);
        long move = moved ? plan.shop().prices().move() : 0;
        return new Share(waiting, days, off, tracks.costAt(j, t, b, place.start()) - waiting - off - move, move);
    }

    /**
     * One job's part of the cost, minor units.
     *
     * @param changeovers may be below zero where the job spares one between its neighbours
     */
    public record Share(long waiting, int daysOffRoad, long offRoad, long changeovers, long move) {
        public long total() {
            return waiting + offRoad + changeovers + move;
        }
    }

    /**
     * The first free place of each day with each technician, in the order of time. The job must not be on the board.
     */
    List<Place> freePlaces(long jobId) {
        int j = at(jobId);
        List<Place> free = new ArrayList<>();
        for (int t : tracks.techniciansFor(j)) {
            for (int day = plan.shop().ruler().dayOf(plan.shop().now());
                    day < plan.shop().ruler().days();
                    day++) {
                firstOf(j, t, day).ifPresent(free::add);
            }
        }
        free.sort(Comparator.comparing(Place::start));
        return free;
    }

    private Optional<Place> firstOf(int j, int t, int day) {
        for (int s = day * plan.shop().ruler().perDay();
                s < (day + 1) * plan.shop().ruler().perDay();
                s++) {
            int e = tracks.endFrom(t, j, s);
            int b = e < 0 ? -1 : tracks.freeBay(j, s, e);
            if (b >= 0 && tracks.fits(j, t, b, s)) {
                return Optional.of(new Place(
                        plan.shop().technicians().get(t).id(),
                        plan.shop().bays().get(b).id(),
                        s));
            }
        }
        return Optional.empty();
    }

    /** Places {@code jobs} one after the other where each costs least, those first that lose most by waiting. */
    void fill(List<Long> jobs) {
        java.util.Random unused = new java.util.Random(0);
        jobs.stream()
                .map(this::at)
                .filter(j -> !tracks.isPlaced(j) && !tracks.fixed[j])
                .sorted(Comparator.<Integer>comparingDouble(
                                j -> -tracks.ratePerDay[j] / plan.jobs().get(j).slots())
                        .thenComparing(this::id))
                .forEach(j -> {
                    if (tracks.find(j, tracks.unplanned[j], unused, 0)) {
                        tracks.place(j, tracks.foundTech, tracks.foundBay, tracks.foundStart);
                    }
                });
    }
}
