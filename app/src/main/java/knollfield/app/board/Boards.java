package knollfield.app.board;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.job.card.Cards;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.security.Person;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.due.JobStage;
import knollfield.core.plan.Board;
import knollfield.core.plan.Broken;
import knollfield.core.plan.Offers;
import knollfield.core.plan.Place;
import knollfield.core.plan.PlanCase;
import knollfield.core.plan.PlanJob;
import knollfield.core.plan.Ruler;
import knollfield.core.plan.Shop;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Changing the board: every place is checked by core's board under one lock, and every change can be taken back. */
@Service
public class Boards {

    /** A change older than this is no slip any more. */
    private static final Duration UNDO_WITHIN = Duration.ofHours(12);

    private final BoardCases cases;
    private final BoardRepository repository;
    private final Jobs jobs;
    private final Cards cards;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    Boards(
            BoardCases cases,
            BoardRepository repository,
            Jobs jobs,
            Cards cards,
            CurrentPerson current,
            WorkshopClock clock) {
        this.cases = cases;
        this.repository = repository;
        this.jobs = jobs;
        this.cards = cards;
        this.current = current;
        this.clock = clock;
    }

    /**
     * Where somebody wants a job.
     *
     * @param technicianId null for whoever can
     * @param bayId null for whichever is free
     */
    public record Wanted(
            @Nullable Long technicianId, @Nullable Long bayId, LocalDate day, LocalTime time) {}

    /**
     * What the board says to a place.
     *
     * @param broken every rule it breaks; empty where it may be taken
     */
    public record Answer(Shop shop, Place place, Optional<Job.Booking> booking, List<Broken> broken) {}

    /**
     * Places for a job that can be offered now, the cheapest first, on different days; none where the job is not open.
     *
     * @param most how many
     */
    public List<Job.Booking> offered(long jobId, int most) {
        BoardCases.Gathered gathered = cases.now();
        Ruler ruler = gathered.plan().shop().ruler();
        Board board = Board.lay(gathered.plan(), Map.of());
        return offers(gathered, jobId, most).stream()
                .map(Offers.Offer::place)
                .flatMap(p -> board.endAt(jobId, p).stream()
                        .map(end -> new Job.Booking(
                                p.technicianId(), p.bayId(), ruler.startOf(p.start()), ruler.endOf(end), true)))
                .toList();
    }

    static List<Offers.Offer> offers(BoardCases.Gathered gathered, long jobId, int most) {
        if (gathered.plan().jobs().stream().noneMatch(j -> j.id() == jobId)) {
            return List.of();
        }
        return Offers.best(
                gathered.plan(),
                new HashMap<>(Board.lay(gathered.plan(), gathered.places()).places()),
                jobId,
                most);
    }

    /** What taking that place would mean; changes nothing. */
    public Answer ask(long jobId, Wanted wanted) {
        return answer(cases.now(), jobId, wanted, false);
    }

    /** The first of {@code wanted} that breaks nothing; empty where each does. */
    public Optional<Wanted> firstThatFits(long jobId, Stream<Wanted> wanted) {
        BoardCases.Gathered now = cases.now();
        return wanted.filter(w -> answer(now, jobId, w, false).broken().isEmpty())
                .findFirst();
    }

    private Answer answer(BoardCases.Gathered gathered, long jobId, Wanted wanted, boolean promised) {
        PlanCase free = gathered.plan().with(job(gathered, jobId).with(new PlanJob.Pin.Free()));
        Map<Long, Place> others = new HashMap<>(gathered.places());
        others.remove(jobId);
        Board board = Board.lay(free, others);
        Ruler ruler = free.shop().ruler();
        OptionalInt slot = ruler.slotAt(wanted.day().atTime(wanted.time()));
        if (slot.isEmpty()) {
            boolean outside = ruler.day(wanted.day()) < 0 || ruler.day(wanted.day()) >= ruler.days();
            throw outside
                    ? new InvalidInput(
                            "/day",
                            wanted.day().isBefore(clock.today())
                                    ? "That time has passed."
                                    : "The board goes to %s.".formatted(ruler.date(ruler.days() - 1)))
                    : new InvalidInput(
                            "/time",
                            "A job starts on a half-hour in which somebody works, %s to %s."
                                    .formatted(
                                            ruler.times().get(0), ruler.times().get(ruler.perDay() - 1)));
        }
        Place best = null;
        List<Broken> fewest = List.of();
        for (Place place : candidates(gathered, jobId, wanted, slot.getAsInt())) {
            List<Broken> broken = board.broken(jobId, place);
            if (best == null || broken.size() < fewest.size()) {
                best = place;
                fewest = broken;
            }
        }
        if (best == null) {
            throw new InvalidInput("/technicianId", "Nobody here does this work.");
        }
        Place found = best;
        return new Answer(
                free.shop(),
                found,
                board.endAt(jobId, found)
                        .map(end -> new Job.Booking(
                                found.technicianId(),
                                found.bayId(),
                                ruler.startOf(found.start()),
                                ruler.endOf(end),
                                promised)),
                fewest);
    }

    /** The wanted technician and bay, or all there are: those the job has now first. */
    private static List<Place> candidates(BoardCases.Gathered gathered, long jobId, Wanted wanted, int slot) {
        Shop shop = gathered.plan().shop();
        PlanJob job = gathered.plan().job(jobId);
        Optional<Place> now = job.known();
        List<Shop.Technician> technicians = shop.technicians().stream()
                .filter(t -> wanted.technicianId() == null
                        ? t.skills().containsAll(job.skills())
                        : t.id() == wanted.technicianId())
                .sorted(Comparator.comparing(
                        t -> !now.map(p -> p.technicianId() == t.id()).orElse(false)))
                .toList();
        List<Shop.Bay> bays = shop.bays().stream()
                .filter(b -> wanted.bayId() == null || b.id() == wanted.bayId())
                .sorted(Comparator.comparing((Shop.Bay b) ->
                                !now.map(p -> p.bayId() == b.id()).orElse(false))
                        .thenComparing(b -> b.liftClass() < job.liftClass())
                        .thenComparing(Shop.Bay::liftClass))
                .toList();
        if (wanted.technicianId() != null && technicians.isEmpty()) {
            throw new InvalidInput("/technicianId", "Choose a technician.");
        }
        if (bays.isEmpty()) {
            throw new InvalidInput("/bayId", "Choose a bay.");
        }
        List<Place> places = new ArrayList<>();
        technicians.forEach(t -> bays.forEach(b -> places.add(new Place(t.id(), b.id(), slot))));
        return places;
    }

    private static PlanJob job(BoardCases.Gathered gathered, long jobId) {
        return gathered.plan().jobs().stream()
                .filter(j -> j.id() == jobId)
                .findFirst()
                .orElseThrow(() -> new NotFound("Job %d is not open.".formatted(jobId)));
    }

    /**
     * Places or moves a job.
     *
     * @throws InvalidInput with every rule the place would break
     * @throws Conflict where the job was changed meanwhile, or is at the bench
     */
    @Transactional
    public void place(long jobId, Wanted wanted, boolean promised, int version) {
        jobs.lockBoard();
        Answer answer = answer(cases.now(), jobId, wanted, promised);
        if (!answer.broken().isEmpty()) {
            throw new InvalidInput(problems(answer.broken()));
        }
        Job before = jobs.get(jobId);
        Job.Booking after = answer.booking().orElseThrow();
        jobs.put(jobId, Optional.of(after), version, "job %d %s".formatted(jobId, promised ? "promised" : "planned"));
        remember(
                (promised ? "promised " : "placed ") + registration(before),
                List.of(new BoardRepository.Moved(jobId, before.booking().orElse(null), after)));
    }

    private String registration(Job job) {
        return jobs.state(job).vehicle().registration();
    }

    private static List<FieldProblem> problems(List<Broken> broken) {
        return broken.stream()
                .map(b -> new FieldProblem(
                        switch (b.rule()) {
                            case SKILL, TECHNICIAN_BUSY -> "/technicianId";
                            case BAY_CLASS, BAY_BUSY, BAY_CLOSED -> "/bayId";
                            default -> "/day";
                        },
                        b.words()))
                .toList();
    }

    /** Promises the place a job has, or takes the promise back; the place stays. */
    @Transactional
    public void promise(long jobId, boolean promised, int version) {
        jobs.lockBoard();
        Job job = jobs.get(jobId);
        Job.Booking before = job.booking()
                .orElseThrow(() -> new Conflict("Job %d has no place on the board to promise.".formatted(jobId)));
        Job.Booking after =
                new Job.Booking(before.technicianId(), before.bayId(), before.start(), before.end(), promised);
        jobs.put(
                jobId,
                Optional.of(after),
                version,
                "job %d %s".formatted(jobId, promised ? "promised" : "no longer promised"));
        remember(
                (promised ? "promised " : "took the promise back of ") + registration(job),
                List.of(new BoardRepository.Moved(jobId, before, after)));
    }

    /** Takes the job off the board; it waits again. */
    @Transactional
    public void takeOff(long jobId, int version) {
        jobs.lockBoard();
        Job job = jobs.get(jobId);
        jobs.put(jobId, Optional.empty(), version, "job " + jobId + " taken off the board");
        job.booking()
                .ifPresent(b -> remember(
                        "took %s off the board".formatted(registration(job)),
                        List.of(new BoardRepository.Moved(jobId, b, null))));
    }

    /**
     * The vehicle did not come: its slot is free, the job waits again, and the vehicle's history keeps it.
     *
     * @throws Conflict where its time has not come yet
     */
    @Transactional
    public void noShow(long jobId, String note, int version) {
        jobs.lockBoard();
        Job job = jobs.get(jobId);
        Job.Booking booking =
                job.booking().orElseThrow(() -> new Conflict("Job %d has no place on the board.".formatted(jobId)));
        if (booking.start().isAfter(clock.now())) {
            throw new Conflict("%s is not expected before %s.".formatted(registration(job), booking.start()));
        }
        if (note.length() > 200) {
            throw new InvalidInput("/note", "The note is longer than 200 characters.");
        }
        repository.addNoShow(jobId, booking, note.strip(), current.get().name(), clock.instant());
        jobs.put(jobId, Optional.empty(), version, "did not come to job " + jobId);
        remember(registration(job) + " did not come", List.of(new BoardRepository.Moved(jobId, booking, null)));
    }

    List<BoardRepository.NoShow> noShows(long jobId) {
        return repository.noShows(jobId);
    }

    /** Notes when the owner can bring the vehicle. */
    @Transactional
    public void wish(long jobId, Job.Wishes wishes, int version) {
        jobs.lockBoard();
        jobs.wish(jobId, wishes, version);
    }

    /**
     * A job that grew or shrank keeps its start, technician and bay, and must still fit there. One that only shrank stays even
     * where its place was broken before, such as by parts that slipped: an owner's no must not wait for a better day.
     */
    @EventListener
    void resized(Jobs.JobResized event) {
        Job job = jobs.get(event.jobId());
        lasts(job);
        if (job.stage() != JobStage.PLANNED || job.booking().isEmpty()) {
            return;
        }
        Job.Booking b = job.booking().get();
        Answer answer = answer(
                cases.now(),
                job.id(),
                new Wanted(
                        b.technicianId(),
                        b.bayId(),
                        b.start().toLocalDate(),
                        b.start().toLocalTime()),
                b.promised());
        Optional<Job.Booking> now = answer.booking();
        if (!answer.broken().isEmpty()) {
            now = cases.end(b, jobs.outline(job).minutes())
                    .filter(end -> !end.isAfter(b.end()))
                    .map(end -> new Job.Booking(b.technicianId(), b.bayId(), b.start(), end, b.promised()));
            if (now.isEmpty()) {
                throw new InvalidInput(problems(answer.broken()));
            }
        }
        if (!now.equals(Optional.of(b))) {
            jobs.put(job.id(), now, job.version(), "time of job " + job.id());
        }
    }

    /** More work than planned holds technician and bay for longer; the board then shows who stands in its way. */
    @EventListener
    void moreWork(Cards.MoreWork event) {
        lasts(jobs.get(event.jobId()));
    }

    private void lasts(Job job) {
        if (job.stage() != JobStage.UNDER_WAY) {
            return;
        }
        int minutes = jobs.outline(job).minutes() + cards.state(job).moreMinutes();
        job.booking().flatMap(b -> cases.end(b, minutes)).ifPresent(end -> jobs.lasts(job.id(), end));
    }

    /** A change of several jobs at once, to be made whole or not at all. */
    record Move(long jobId, Optional<Place> to) {}

    /**
     * Makes the chosen changes of a plan.
     *
     * @throws InvalidInput naming each that no longer fits; nothing is then changed
     */
    @Transactional
    public void accept(List<Move> moves, String what) {
        jobs.lockBoard();
        BoardCases.Gathered gathered = cases.now();
        PlanCase plan = gathered.plan();
        Map<Long, Place> others = new HashMap<>(gathered.places());
        for (Move m : moves) {
            plan = plan.with(job(gathered, m.jobId()).with(new PlanJob.Pin.Free()));
            others.remove(m.jobId());
        }
        Board board = Board.lay(plan, others);
        List<FieldProblem> problems = new ArrayList<>();
        for (Move m : moves) {
            m.to().ifPresent(place -> {
                List<Broken> broken = board.broken(m.jobId(), place);
                if (broken.isEmpty()) {
                    board.place(m.jobId(), place);
                } else {
                    problems.add(new FieldProblem(
                            "/jobs/" + m.jobId(),
                            "%s no longer fits there: %s"
                                    .formatted(
                                            gathered.plan().job(m.jobId()).name(),
                                            broken.get(0).words())));
                }
            });
        }
        if (!problems.isEmpty()) {
            throw new InvalidInput(problems);
        }
        Ruler ruler = plan.shop().ruler();
        List<BoardRepository.Moved> moved = new ArrayList<>();
        for (Move m : moves) {
            Job job = jobs.get(m.jobId());
            boolean promised = job.booking().map(Job.Booking::promised).orElse(false);
            Optional<Job.Booking> after = m.to().map(p -> new Job.Booking(
                    p.technicianId(),
                    p.bayId(),
                    ruler.startOf(p.start()),
                    ruler.endOf(board.endAt(m.jobId(), p).orElseThrow()),
                    promised));
            jobs.put(job.id(), after, job.version(), "job %d %s".formatted(job.id(), what));
            moved.add(new BoardRepository.Moved(job.id(), job.booking().orElse(null), after.orElse(null)));
        }
        remember("%s: %d jobs".formatted(what, moved.size()), moved);
    }

    private void remember(String what, List<BoardRepository.Moved> moved) {
        Person person = current.get();
        if (!person.hasAccount()) {
            // who has no account takes nothing back on the board
            return;
        }
        // judged at once, so what is broken now was broken before
        Map<Long, List<Broken>> broken = brokenBack(moved);
        List<Job> open = jobs.open();
        List<BoardRepository.Moved> noted = moved.stream()
                .map(m -> m.with(new BoardRepository.Was(
                        broken.getOrDefault(m.jobId(), List.of()).stream()
                                .map(Boards::name)
                                .collect(Collectors.toSet()),
                        beside(m, open))))
                .toList();
        repository.add(person.id(), person.name(), clock.instant(), what, noted);
    }

    /** What each job's place before would break now if it went back there, by job. */
    private Map<Long, List<Broken>> brokenBack(List<BoardRepository.Moved> moved) {
        BoardCases.Gathered gathered = cases.now();
        PlanCase plan = gathered.plan();
        Map<Long, Place> others = new HashMap<>(gathered.places());
        for (BoardRepository.Moved m : moved) {
            plan = plan.with(job(gathered, m.jobId()).with(new PlanJob.Pin.Free()));
            others.remove(m.jobId());
        }
        Board board = Board.lay(plan, others);
        Ruler ruler = plan.shop().ruler();
        Map<Long, List<Broken>> broken = new HashMap<>();
        for (BoardRepository.Moved m : moved) {
            Job.Booking before = m.before();
            if (before == null) {
                continue;
            }
            OptionalInt slot = ruler.slotAt(before.start());
            Place place = new Place(before.technicianId(), before.bayId(), slot.orElse(-1));
            broken.put(
                    m.jobId(),
                    board.broken(m.jobId(), place).stream()
                            // going back to where it was is no new promise, so what has passed meanwhile is no obstacle
                            .filter(b -> !Set.of(Broken.Rule.IN_THE_PAST, Broken.Rule.NOT_THERE_YET)
                                    .contains(b.rule()))
                            .toList());
        }
        return broken;
    }

    /** Bookings of other jobs at the time of the place a job has left. */
    private static Map<Long, Job.Booking> beside(BoardRepository.Moved m, List<Job> open) {
        Map<Long, Job.Booking> beside = new HashMap<>();
        Job.Booking before = m.before();
        if (before != null) {
            open.stream()
                    .filter(j -> j.id() != m.jobId())
                    .forEach(j -> j.booking()
                            .filter(b -> b.start().isBefore(before.end())
                                    && before.start().isBefore(b.end()))
                            .ifPresent(b -> beside.put(j.id(), b)));
        }
        return beside;
    }

    /** Whether a rule was broken there before already: that one itself, or by jobs that stand as they stood. */
    private boolean wasSo(Broken b, BoardRepository.@Nullable Was was) {
        if (was == null) {
            return false;
        }
        return was.broken().contains(name(b))
                || !b.inTheWay().isEmpty()
                        && b.inTheWay().stream()
                                .allMatch(id -> jobs.get(id)
                                        .booking()
                                        .equals(Optional.ofNullable(was.beside().get(id))));
    }

    /** A broken rule and who stands in the way, to know it again by. */
    private static String name(Broken b) {
        return b.rule() + " " + b.inTheWay();
    }

    /** What {@link #undo} would take back. */
    Optional<BoardRepository.Change> lastChange() {
        return repository.last(current.get().id(), clock.instant().minus(UNDO_WITHIN));
    }

    /**
     * Takes the person's own last change back.
     *
     * @throws Conflict where somebody has moved one of its jobs since, or an old place is no longer free
     */
    @Transactional
    public void undo() {
        jobs.lockBoard();
        BoardRepository.Change change =
                lastChange().orElseThrow(() -> new Conflict("There is no change of yours to take back."));
        for (BoardRepository.Moved m : change.moved()) {
            Job job = jobs.get(m.jobId());
            if (!job.booking().equals(Optional.ofNullable(m.after()))) {
                throw new Conflict(
                        "%s was moved again since; that change cannot be taken back.".formatted(registration(job)));
            }
        }
        Map<Long, List<Broken>> broken = brokenBack(change.moved());
        for (BoardRepository.Moved m : change.moved()) {
            broken.getOrDefault(m.jobId(), List.of()).stream()
                    // what was so before is no reason to refuse going back to it
                    .filter(b -> !wasSo(b, m.was()))
                    .findFirst()
                    .ifPresent(b -> {
                        throw new Conflict("That cannot be taken back: " + b.words());
                    });
        }
        for (BoardRepository.Moved m : change.moved()) {
            Job job = jobs.get(m.jobId());
            jobs.put(
                    m.jobId(),
                    Optional.ofNullable(m.before()),
                    job.version(),
                    "change of job %d taken back".formatted(m.jobId()));
            if (m.before() != null && m.after() == null) {
                repository.takeBackNoShow(m.jobId(), m.before().start());
            }
        }
        repository.undone(change.id());
    }
}
