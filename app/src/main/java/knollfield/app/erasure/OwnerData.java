package knollfield.app.erasure;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import knollfield.app.job.Jobs;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.vehicle.Owner;
import knollfield.app.vehicle.Owners;
import knollfield.app.vehicle.VehiclesChanged;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * What an owner may ask for: a copy of all that is kept of them, and that it goes. What was done to the vehicles stays, with
 * its readings, renewals and signed records; who the owner was does not.
 */
@Service
class OwnerData {

    /** Shorter texts stand in other words too. */
    private static final int SHORTEST_REPLACED = 4;

    private static final String ERASED = "(erased)";

    private final OwnerDataRepository repository;
    private final Owners owners;
    private final Jobs jobs;
    private final VehicleLog log;
    private final ApplicationEventPublisher events;

    OwnerData(
            OwnerDataRepository repository,
            Owners owners,
            Jobs jobs,
            VehicleLog log,
            ApplicationEventPublisher events) {
        this.repository = repository;
        this.owners = owners;
        this.jobs = jobs;
        this.log = log;
        this.events = events;
    }

    /** All of it, row by row, by table. */
    @Transactional(readOnly = true)
    public Map<String, List<Map<String, Object>>> copy(long owner) {
        return repository.copy(owners.get(owner).id());
    }

    /**
     * Erases who an owner is.
     *
     * @param name as it stands on file, so that nobody erases another
     * @param version as it was read
     * @throws knollfield.app.problem.InvalidInput where the name is another, or a job is open
     * @throws Conflict where somebody changed the owner meanwhile
     */
    @Transactional
    public void erase(long id, String name, int version) {
        Owner owner = owners.get(id);
        List<Long> vehicles = repository.vehicles(id);
        List<Long> open = vehicles.stream()
                .flatMap(v -> jobs.ofVehicle(v).stream())
                .filter(j -> j.stage().isOpen())
                .map(j -> j.id())
                .toList();
        new Checks()
                .that(
                        name.strip().equals(owner.name()),
                        "/name",
                        "Write the name as it stands on file: %s.".formatted(owner.name()))
                .that(
                        open.isEmpty(),
                        "/name",
                        "Job %s is open; finish it or give it up first."
                                .formatted(open.isEmpty() ? "" : open.get(0).toString()))
                .orThrow();
        if (owner.version() != version) {
            throw new Conflict("%s was changed by somebody else; load again.".formatted(owner.name()));
        }
        String instead = "Erased owner " + id;
        Set<String> texts = texts(owner);
        Map<Long, LocalDate> former = new TreeMap<>();
        if (owner.name().length() >= SHORTEST_REPLACED) {
            repository.elsewhere(id, owner.name()).stream()
                    .filter(b -> was(owner, b))
                    .forEach(b -> former.put(b.vehicle(), b.day()));
        }
        repository.empty(id, instead);
        for (String text : texts) {
            repository.replace(id, text, ERASED);
        }
        former.forEach((vehicle, until) -> {
            repository.emptyAtFormer(vehicle, until, instead);
            texts.forEach(text -> repository.replaceAtFormer(vehicle, text, ERASED));
        });
        for (long vehicle : vehicles) {
            log.write(vehicle, "owner's data erased", "", instead);
        }
        events.publishEvent(new VehiclesChanged(new TreeSet<>(vehicles)));
    }

    /**
     * Whether a vehicle was this owner's before a change: the whole name stood there, and where a number did too, one of the
     * owner's. Somebody whose name is only part of it, or who has the same name and another number, is another.
     */
    private static boolean was(Owner owner, OwnerDataRepository.Before before) {
        boolean given = before.what().equals("owner");
        List<String> parts = List.of(before.text().split(given ? ", " : "; "));
        boolean named = given ? parts.get(0).equals(owner.name()) : parts.contains("owner " + owner.name());
        List<String> numbers = owner.phones().stream().map(p -> p.number()).toList();
        boolean numbered = given ? numbers.isEmpty() : parts.stream().noneMatch(p -> p.startsWith("phone "));
        return named && (numbered || numbers.stream().anyMatch(before.text()::contains));
    }

    /** What names or reaches the owner, the longest first, so that no part of one is left. */
    private static Set<String> texts(Owner owner) {
        return Stream.of(
                        Stream.of(owner.name(), owner.address(), owner.email()),
                        owner.phones().stream().map(p -> p.number()),
                        owner.speakers().stream())
                .flatMap(s -> s)
                .filter(t -> t.length() >= SHORTEST_REPLACED)
                .sorted(Comparator.comparingInt(String::length).reversed())
                .collect(java.util.stream.Collectors.toCollection(LinkedHashSet::new));
    }
}
