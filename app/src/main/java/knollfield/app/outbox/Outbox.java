package knollfield.app.outbox;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.Owner;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Letters and messages: put in, looked at, tried again, taken back. */
@Service
public class Outbox {

    private static final int ENDED_SHOWN = 50;

    private final OutboxRepository repository;
    private final MailServers servers;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final VehicleLog log;

    Outbox(
            OutboxRepository repository,
            MailServers servers,
            CurrentPerson current,
            WorkshopClock clock,
            VehicleLog log) {
        this.repository = repository;
        this.servers = servers;
        this.current = current;
        this.clock = clock;
        this.log = log;
    }

    /** Ways in which an owner can be reached in writing, with what is on file. */
    public Set<Channel> ways(Owner owner) {
        Set<Channel> ways = EnumSet.noneOf(Channel.class);
        if (MailServers.isAddress(owner.email()) && !servers.sender().isEmpty()) {
            ways.add(Channel.EMAIL);
        }
        if (!owner.phones().isEmpty()) {
            ways.add(Channel.TEXT);
        }
        if (!owner.address().isBlank()) {
            ways.add(Channel.LETTER);
        }
        return ways;
    }

    /** Where a message for an owner goes. */
    public static String place(Owner owner, Channel channel) {
        return switch (channel) {
            case EMAIL -> owner.email();
            case TEXT -> owner.phones().get(0).number();
            case LETTER -> owner.address().strip();
        };
    }

    /** Puts a message in, within the change that calls for it; its number. */
    @Transactional(propagation = Propagation.MANDATORY)
    public long put(Message.Draft draft) {
        long id = repository.add(draft, clock.instant(), current.get().name());
        for (long vehicle : draft.vehicles()) {
            log.write(
                    vehicle,
                    "%s %s written"
                            .formatted(draft.kind().words(), draft.channel().words()),
                    "",
                    draft.toName());
        }
        return id;
    }

    /**
     * Days on which owners were reminded.
     *
     * @param ofVehicle by vehicle
     * @param ofOwner the last one, by owner
     */
    public record Reminded(Map<Long, List<LocalDate>> ofVehicle, Map<Long, LocalDate> ofOwner) {}

    public Reminded reminded() {
        Map<Long, List<LocalDate>> ofVehicle = new java.util.HashMap<>();
        Map<Long, LocalDate> ofOwner = new java.util.HashMap<>();
        for (OutboxRepository.Written w : repository.reminders()) {
            LocalDate day = LocalDate.ofInstant(w.at(), clock.zone());
            ofVehicle.computeIfAbsent(w.vehicleId(), v -> new ArrayList<>()).add(day);
            w.ownerId().ifPresent(o -> ofOwner.merge(o, day, (a, b) -> a.isAfter(b) ? a : b));
        }
        return new Reminded(ofVehicle, ofOwner);
    }

    List<Message> open() {
        return repository.open();
    }

    List<Message> ended() {
        return repository.ended(ENDED_SHOWN);
    }

    Map<String, Integer> counts() {
        return repository.counts();
    }

    /**
     * Takes back what has not gone.
     *
     * @throws Conflict where it goes at this moment, or has gone
     */
    @Transactional
    public void takeBack(long id) {
        end(id, List.of(Message.State.WAITING, Message.State.FAILED), Message.State.TAKEN_BACK, "taken back");
    }

    /** Somebody has looked: what may have gone has. */
    @Transactional
    public void hasGone(long id) {
        end(id, List.of(Message.State.UNSURE), Message.State.SENT, "gone, by hand");
    }

    /** Lets what failed, or may not have gone, go once more. */
    @Transactional
    public void again(long id) {
        end(id, List.of(Message.State.FAILED, Message.State.UNSURE), Message.State.WAITING, "to go again");
    }

    private void end(long id, List<Message.State> from, Message.State to, String words) {
        Message m = repository.find(id).orElseThrow(() -> new NotFound("There is no message %d.".formatted(id)));
        if (!repository.move(id, from, to, "", clock.instant(), clock.instant())) {
            throw new Conflict("The message for %s is %s by now."
                    .formatted(m.toName(), m.state().words()));
        }
        told(m, words);
    }

    /** Letters that wait for the printer, and those of {@code ids} that were printed before. */
    List<Message> letters(List<Long> ids) {
        return ids.stream()
                .map(id -> repository
                        .find(id)
                        .filter(m -> m.channel() == Channel.LETTER)
                        .orElseThrow(() -> new NotFound("There is no letter %d.".formatted(id))))
                .toList();
    }

    /** Notes that letters came out of the printer. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void printed(Message m) {
        if (repository.move(
                m.id(),
                List.of(Message.State.WAITING, Message.State.SENT),
                Message.State.SENT,
                "",
                clock.instant(),
                clock.instant())) {
            told(m, m.state() == Message.State.SENT ? "printed again" : "printed");
        } else {
            throw new Conflict("The letter to %s is %s by now."
                    .formatted(m.toName(), m.state().words()));
        }
    }

    void told(Message m, String words) {
        for (long vehicle : m.vehicles()) {
            log.write(
                    vehicle,
                    "%s %s %s".formatted(m.kind().words(), m.channel().words(), words),
                    "",
                    m.toName() + (m.channel() == Channel.LETTER ? "" : ", " + m.toPlace()));
        }
    }

    Optional<Message> find(long id) {
        return repository.find(id);
    }
}
