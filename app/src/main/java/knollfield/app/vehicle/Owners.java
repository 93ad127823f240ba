package knollfield.app.vehicle;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.Folded;
import knollfield.app.shared.WorkshopClock;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Owners as the workshop keeps them. What changes of one stands in the log of each of the vehicles. */
@Service
public class Owners {

    private static final int MOST_SPEAKERS = 8;
    private static final int MOST_PHONES = 6;

    private final OwnerRepository repository;
    private final VehicleLog log;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final ApplicationEventPublisher events;

    Owners(
            OwnerRepository repository,
            VehicleLog log,
            CurrentPerson current,
            WorkshopClock clock,
            ApplicationEventPublisher events) {
        this.repository = repository;
        this.log = log;
        this.current = current;
        this.clock = clock;
        this.events = events;
    }

    /** Those of {@code ids}, by name. */
    public List<Owner> of(Collection<Long> ids) {
        return repository.of(ids);
    }

    /**
     * An owner; one whose record was merged is the one he was merged into.
     *
     * @throws NotFound where there is none
     */
    public Owner get(long id) {
        long now = id;
        for (Optional<Long> into = repository.mergedInto(now); into.isPresent(); into = repository.mergedInto(now)) {
            now = into.get();
        }
        return repository.find(now).orElseThrow(() -> new NotFound("There is no owner " + id + "."));
    }

    /** What was merged or split and can be undone, newest first. */
    public List<OwnerChange> changes(long owner) {
        return repository.changes(owner);
    }

    /**
     * Numbers of the owners, by name, whose name, e-mail and address hold every word of {@code q}, or one of whose telephone
     * numbers it may be, in any spelling; a blank one finds everybody.
     */
    public List<Long> matching(String q) {
        String asked = Folded.of(q.strip());
        return repository.matching(
                asked.isEmpty() ? List.of() : List.of(asked.split("\\s+")),
                PhoneNumber.asked(asked).orElse(""));
    }

    /** Numbers of others who may be the same: of the same name, or with one of the same telephone numbers. */
    public List<Long> alike(long owner) {
        return repository.alike(owner);
    }

    /**
     * Changes what is on file of an owner; for all of his vehicles at once.
     *
     * @throws InvalidInput for what is missing or cannot be
     * @throws Conflict where somebody else changed it first
     */
    @Transactional
    public void change(Owner after) {
        Owner before = get(after.id());
        Owner checked = checked(after);
        save(checked);
        String was = words(before);
        String is = words(checked);
        if (!was.equals(is)) {
            tell(repository.vehicles(after.id()), "owner", was, is);
        }
    }

    /**
     * Makes {@code from} and {@code into} one owner: the vehicles go to {@code into}, his numbers, and what {@code into} lacks.
     *
     * @throws Conflict where somebody else changed one of them first
     */
    @Transactional
    public void merge(long from, int fromVersion, long into, int intoVersion) {
        if (from == into) {
            throw new InvalidInput("/into", "That is the same owner.");
        }
        Owner goes = known(from, fromVersion);
        Owner stays = known(into, intoVersion);
        List<Owner.Phone> phones = new ArrayList<>(stays.phones());
        goes.phones().stream()
                .filter(p -> phones.stream()
                        .noneMatch(q -> PhoneNumber.digits(q.number()).equals(PhoneNumber.digits(p.number()))))
                .forEach(phones::add);
        save(new Owner(
                into,
                stays.name(),
                stays.kind(),
                stays.address().isEmpty() ? goes.address() : stays.address(),
                stays.email().isEmpty() ? goes.email() : stays.email(),
                stays.prefers(),
                stays.language().isEmpty() ? goes.language() : stays.language(),
                stays.mayWrite() && goes.mayWrite(),
                phones.subList(0, Math.min(MOST_PHONES, phones.size())),
                // whom only the one named was not named by the other
                stays.speakers(),
                stays.version()));
        List<Long> vehicles = repository.vehicles(from);
        move(OwnerChange.What.MERGED, goes, stays, vehicles, Optional.of(stays));
        repository.merged(from, Optional.of(into));
    }

    /**
     * Gives some of an owner's vehicles to another who is made for them.
     *
     * @return number of the new owner
     * @throws InvalidInput for a name that is missing, no vehicle, or all of them
     */
    @Transactional
    public long split(long from, int version, String name, String phone, List<Long> vehicles) {
        Owner owner = known(from, version);
        List<Long> all = repository.vehicles(from);
        List<Long> go = List.copyOf(new TreeSet<>(vehicles));
        new Checks()
                .text(name, 120, "/name", "The name of the other owner")
                .that(phone.length() <= 40, "/phone", "At most 40 characters.")
                .that(!go.isEmpty(), "/vehicles", "Choose the vehicles that are the other's.")
                .that(all.containsAll(go), "/vehicles", "Not all of these are %s's any more.".formatted(owner.name()))
                .that(go.size() < all.size(), "/vehicles", "One at least stays; else change the name.")
                .orThrow();
        if (!repository.touch(from, version)) {
            throw changedMeanwhile(owner);
        }
        long to = repository.add(plain(name.strip(), phone.strip(), Owner.Kind.PERSON));
        move(OwnerChange.What.SPLIT, owner, get(to), go, Optional.empty());
        return to;
    }

    /**
     * Undoes a merge or a split: the vehicles that are still there go back. What a merge added to the owner who stayed is taken
     * off again, unless somebody has changed that owner since.
     *
     * @throws NotFound where it is not there or was undone already
     */
    @Transactional
    public void undo(long owner, long change) {
        OwnerChange c = repository.changes(owner).stream()
                .filter(x -> x.id() == change)
                .findFirst()
                .filter(x -> repository.undone(x.id()))
                .orElseThrow(() -> new NotFound("That was undone already."));
        if (c.what() == OwnerChange.What.MERGED) {
            repository.merged(c.fromId(), Optional.empty());
        }
        c.toBefore().ifPresent(before -> repository.update(before.over(before.version() + 1)));
        repository.give(c.vehicles(), c.toId(), c.fromId());
        tell(c.vehicles(), "owner, undone", c.toName(), c.fromName());
        if (c.what() == OwnerChange.What.SPLIT && repository.vehicles(c.toId()).isEmpty()) {
            repository.merged(c.toId(), Optional.of(c.fromId()));
        }
    }

    private void move(OwnerChange.What what, Owner from, Owner to, List<Long> vehicles, Optional<Owner> toBefore) {
        repository.give(vehicles, from.id(), to.id());
        repository.remember(clock.instant(), current.get().name(), what, from.id(), to.id(), vehicles, toBefore);
        tell(vehicles, "owner", words(from), words(to));
    }

    private Owner known(long id, int version) {
        Owner owner = repository.find(id).orElseThrow(() -> new NotFound("There is no owner " + id + "."));
        if (owner.version() != version) {
            throw changedMeanwhile(owner);
        }
        return owner;
    }

    private void save(Owner owner) {
        if (!repository.update(owner)) {
            throw changedMeanwhile(owner);
        }
    }

    private static Conflict changedMeanwhile(Owner owner) {
        return new Conflict("%s was changed by somebody else. Yours was not saved.".formatted(owner.name()));
    }

    /**
     * Number of the owner whom a vehicle's name and telephone mean: the one chosen; where only the number changed, the one it
     * had, with that number first; else one of that name and number, who is made where there is none. Empty where nothing is
     * stated.
     */
    Optional<Long> of(Vehicle vehicle, Optional<Vehicle> before) {
        Optional<Long> had = before.flatMap(Vehicle::ownerId);
        if (vehicle.ownerId().isPresent() && !vehicle.ownerId().equals(had)) {
            return Optional.of(chosen(vehicle.ownerId().get()));
        }
        String name = vehicle.ownerName().strip();
        String phone = vehicle.ownerPhone().strip();
        boolean sameName =
                before.filter(b -> b.ownerName().equalsIgnoreCase(name)).isPresent();
        if (sameName && had.isPresent()) {
            if (!before.get().ownerPhone().equals(phone)) {
                ringFirst(had.get(), phone);
            }
            return had;
        }
        return named(name, phone, vehicle.fleet().isPresent() ? Owner.Kind.FIRM : Owner.Kind.PERSON);
    }

    private long chosen(long id) {
        return repository
                .find(id)
                .map(Owner::id)
                .orElseThrow(() -> new InvalidInput("/ownerId", "There is no such owner any more. Choose once more."));
    }

    /** Number of an owner of that name and telephone, made where there is none; empty where nothing is stated. */
    @Transactional
    public Optional<Long> named(String name, String phone) {
        return named(name, phone, Owner.Kind.PERSON);
    }

    private Optional<Long> named(String name, String phone, Owner.Kind kind) {
        if (isNothing(name) && PhoneNumber.digits(phone).isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(repository.named(name, phone).orElseGet(() -> repository.add(plain(name, phone, kind))));
    }

    /** The number the workshop rings from now on; those on file stay behind it. */
    private void ringFirst(long id, String phone) {
        Owner o = get(id);
        List<Owner.Phone> phones = new ArrayList<>();
        String digits = PhoneNumber.digits(phone);
        if (!digits.isEmpty()) {
            phones.add(new Owner.Phone(phone, ""));
        }
        o.phones().stream()
                .filter(p -> !PhoneNumber.digits(p.number()).equals(digits))
                .forEach(phones::add);
        save(o.with(phones.subList(0, Math.min(MOST_PHONES, phones.size()))));
        if (!o.phones().isEmpty()) {
            tell(repository.vehicles(id), "owner's phone", o.phones().get(0).number(), phone);
        }
    }

    private static boolean isNothing(String name) {
        return name.isEmpty() || name.equalsIgnoreCase(Owner.NOT_STATED);
    }

    private static Owner plain(String name, String phone, Owner.Kind kind) {
        List<Owner.Phone> phones =
                PhoneNumber.digits(phone).isEmpty() ? List.of() : List.of(new Owner.Phone(phone, ""));
        return new Owner(0, name, kind, "", "", Owner.Prefers.PHONE, "", true, phones, List.of(), 1);
    }

    private void tell(List<Long> vehicles, String what, String before, String after) {
        vehicles.forEach(v -> log.write(v, what, before, after));
        events.publishEvent(new VehiclesChanged(new TreeSet<>(vehicles)));
    }

    private static String words(Owner o) {
        List<String> words = new ArrayList<>(List.of(o.name(), o.kind().words()));
        o.phones().forEach(p -> words.add((p.label() + " " + p.number()).strip()));
        if (!o.email().isEmpty()) {
            words.add(o.email());
        }
        if (!o.address().isEmpty()) {
            words.add(o.address().replace("\n", ", "));
        }
        words.add(o.prefers().words());
        if (!o.language().isEmpty()) {
            words.add("letters in " + o.language());
        }
        if (!o.speakers().isEmpty()) {
            words.add("may speak for the owner: " + String.join(", ", o.speakers()));
        }
        if (!o.mayWrite()) {
            words.add("not to be written to");
        }
        return String.join(", ", words);
    }

    private static Owner checked(Owner o) {
        Checks checks = new Checks()
                .text(o.name(), 120, "/name", "The name")
                .that(o.address().length() <= 400, "/address", "At most 400 characters.")
                .that(
                        o.email().isEmpty()
                                || (o.email().length() <= 200 && o.email().matches("[^\\s@]+@[^\\s@]+\\.[^\\s@]+")),
                        "/email",
                        "An e-mail address has a name, an @ and a place: name@place.example.")
                .that(
                        o.language().isEmpty() || o.language().matches("[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*"),
                        "/language",
                        "A language's tag, such as en or el.")
                .that(o.phones().size() <= MOST_PHONES, "/phones", "At most %d numbers.".formatted(MOST_PHONES))
                .that(
                        o.prefers() != Owner.Prefers.EMAIL || !o.email().isEmpty(),
                        "/prefers",
                        "There is no e-mail address to write to.")
                .that(
                        o.prefers() != Owner.Prefers.LETTER || !o.address().isBlank(),
                        "/prefers",
                        "There is no address to write to.");
        checks.that(o.speakers().size() <= MOST_SPEAKERS, "/speakers", "At most %d names.".formatted(MOST_SPEAKERS))
                .that(
                        o.speakers().stream().noneMatch(n -> n.isBlank() || n.length() > 120 || n.contains("\n")),
                        "/speakers",
                        "A name has letters, and at most 120 of them.");
        for (int i = 0; i < o.phones().size(); i++) {
            Owner.Phone p = o.phones().get(i);
            checks.that(
                            !PhoneNumber.digits(p.number()).isEmpty()
                                    && p.number().length() <= 40,
                            "/phones/%d/number".formatted(i),
                            "A number has digits, and at most 40 characters.")
                    .that(p.label().length() <= 40, "/phones/%d/label".formatted(i), "At most 40 characters.");
        }
        checks.orThrow();
        return new Owner(
                o.id(),
                o.name().strip(),
                o.kind(),
                o.address().strip(),
                o.email().strip(),
                o.prefers(),
                o.language().strip(),
                o.mayWrite(),
                o.phones().stream()
                        .map(p -> new Owner.Phone(p.number().strip(), p.label().strip()))
                        .toList(),
                o.speakers().stream().map(String::strip).distinct().toList(),
                o.version());
    }
}
