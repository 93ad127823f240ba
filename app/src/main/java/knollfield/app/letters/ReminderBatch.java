package knollfield.app.letters;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.outbox.Channel;
import knollfield.app.outbox.Outbox;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Owner;
import knollfield.app.vehicle.Owners;
import knollfield.app.vehicle.Renewal;
import knollfield.core.due.SetAside;
import knollfield.core.due.Status;
import knollfield.core.engine.EngineFamily;
import knollfield.core.reminder.NotNow;
import knollfield.core.reminder.ReminderRule;
import knollfield.core.reminder.Reminders;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Today's reminders: who is written to about what, shown before it goes, and sent as it was shown. */
@Service
class ReminderBatch {

    private final Forecasts forecasts;
    private final Jobs jobs;
    private final Owners owners;
    private final Outbox outbox;
    private final Letters letters;
    private final LetterWordsRepository repository;
    private final WorkshopClock clock;

    ReminderBatch(
            Forecasts forecasts,
            Jobs jobs,
            Owners owners,
            Outbox outbox,
            Letters letters,
            LetterWordsRepository repository,
            WorkshopClock clock) {
        this.forecasts = forecasts;
        this.jobs = jobs;
        this.owners = owners;
        this.outbox = outbox;
        this.letters = letters;
        this.repository = repository;
        this.clock = clock;
    }

    /**
     * What a letter says of a vehicle.
     *
     * @param sent days on which its owner was reminded of it before, oldest first
     */
    record About(VehicleState state, Reminders.Line line, List<LocalDate> sent) {}

    /** A letter with everything that is to be known before it goes. */
    record Ready(Owner owner, Set<Channel> ways, List<About> about) {

        /** As the owner likes it, else as it is possible; empty where the owner would rather be rung, or nothing is on file. */
        Optional<Channel> suggested() {
            Optional<Channel> liked = switch (owner.prefers()) {
                case PHONE -> Optional.empty();
                case MESSAGE -> Optional.of(Channel.TEXT);
                case EMAIL -> Optional.of(Channel.EMAIL);
                case LETTER -> Optional.of(Channel.LETTER);
            };
            return liked.flatMap(
                    l -> ways.contains(l) ? Optional.of(l) : ways.stream().findFirst());
        }
    }

    /** A vehicle whose owner is not written to. */
    record Kept(VehicleState state, NotNow why) {}

    record Batch(List<Ready> letters, List<Kept> kept) {}

    Batch today() {
        return of(repository.rule().rule());
    }

    private Batch of(ReminderRule rule) {
        Collection<VehicleState> all = forecasts.all();
        Outbox.Reminded reminded = outbox.reminded();
        Set<Long> open = jobs.open().stream().map(Job::vehicleId).collect(Collectors.toSet());
        Map<Long, Owner> byId =
                owners
                        .of(all.stream()
                                .flatMap(s -> s.vehicle().ownerId().stream())
                                .distinct()
                                .toList())
                        .stream()
                        .collect(Collectors.toMap(Owner::id, Function.identity()));
        Map<Long, VehicleState> states = new HashMap<>();
        Map<Long, List<LocalDate>> sent = new HashMap<>();
        List<Reminders.Vehicle> vehicles = new ArrayList<>();
        for (VehicleState s : all) {
            if (!s.vehicle().state().planned()) {
                continue;
            }
            long id = s.vehicle().id();
            states.put(id, s);
            List<LocalDate> before = sinceRenewed(s, reminded.ofVehicle().getOrDefault(id, List.of()));
            sent.put(id, before);
            vehicles.add(new Reminders.Vehicle(
                    id,
                    s.vehicle().ownerId(),
                    s.vehicle().ownerId().map(byId::get).filter(Owner::mayWrite).isPresent(),
                    s.forecast().actBy(),
                    obstacle(s, open.contains(id)),
                    before));
        }
        Reminders.Plan plan = Reminders.of(rule, clock.today(), vehicles, reminded.ofOwner());
        return new Batch(
                plan.letters().stream()
                        .map(l -> ready(of(byId, l.owner()), l.lines(), states, sent))
                        .toList(),
                plan.notNow().entrySet().stream()
                        .map(e -> new Kept(of(states, e.getKey()), e.getValue()))
                        .toList());
    }

    private Ready ready(
            Owner owner, List<Reminders.Line> lines, Map<Long, VehicleState> states, Map<Long, List<LocalDate>> sent) {
        return new Ready(
                owner,
                outbox.ways(owner),
                lines.stream()
                        .map(l -> new About(of(states, l.vehicle()), l, of(sent, l.vehicle())))
                        .toList());
    }

    private static <T> T of(Map<Long, T> all, long id) {
        return Objects.requireNonNull(all.get(id), "the plan names what it was given");
    }

    private static List<LocalDate> sinceRenewed(VehicleState s, List<LocalDate> sent) {
        Set<String> drive = s.family().map(EngineFamily::driveItems).orElse(Set.of());
        Optional<LocalDate> renewed = s.history().renewals().stream()
                .filter(r -> drive.contains(r.itemCode()))
                .map(Renewal::date)
                .max(LocalDate::compareTo);
        return sent.stream()
                .filter(d -> renewed.filter(r -> !d.isAfter(r)).isEmpty())
                .sorted()
                .toList();
    }

    private static Optional<NotNow> obstacle(VehicleState s, boolean jobOpen) {
        if (s.forecast().status() == Status.STOP) {
            return Optional.of(NotNow.MUST_NOT_RUN);
        }
        if (jobOpen) {
            return Optional.of(NotNow.JOB_OPEN);
        }
        return s.aside().map(a -> a.why() == SetAside.Why.DECLINED ? NotNow.DECLINED : NotNow.ASK_AGAIN);
    }

    /** A letter as it would go. */
    LetterText.Template preview(long owner) {
        Ready ready = today().letters().stream()
                .filter(l -> l.owner().id() == owner)
                .findFirst()
                .orElseThrow(() -> new Conflict("Nothing is to be written to this owner today any more."));
        return letters.reminder(ready.owner(), remembered(ready), clock.today());
    }

    private static List<Letters.Remembered> remembered(Ready ready) {
        return ready.about().stream()
                .map(a -> new Letters.Remembered(
                        a.state().vehicle(),
                        a.line().actBy(),
                        a.state().forecast().status() != Status.UNKNOWN_HISTORY))
                .toList();
    }

    /** @param vehicles the letter's, as it was shown */
    record Chosen(long owner, Channel channel, Set<Long> vehicles) {}

    /**
     * Sends what was chosen of today's batch, whole or not at all.
     *
     * @throws Conflict where one of them has changed meanwhile, or was sent by somebody else
     */
    @Transactional
    public int send(List<Chosen> chosen) {
        if (chosen.isEmpty()) {
            throw new InvalidInput("/letters", "Choose at least one.");
        }
        Batch batch = of(repository.lockedRule().rule());
        Map<Long, Ready> byOwner =
                batch.letters().stream().collect(Collectors.toMap(l -> l.owner().id(), Function.identity()));
        for (Chosen c : chosen) {
            Ready ready = Optional.ofNullable(byOwner.remove(c.owner()))
                    .filter(r -> c.vehicles()
                            .equals(r.about().stream()
                                    .map(a -> a.line().vehicle())
                                    .collect(Collectors.toSet())))
                    .orElseThrow(() -> new Conflict(
                            "%s is not written to as was shown: somebody has sent it, or something changed. "
                                            .formatted(owners.get(c.owner()).name())
                                    + "Nothing was sent; look at the list once more."));
            letters.remind(ready.owner(), c.channel(), remembered(ready), clock.today());
        }
        return chosen.size();
    }
}
