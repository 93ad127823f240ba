package knollfield.app.engine;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.NotFound;
import knollfield.core.engine.EngineFamily;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;

/** The workshop's book of engine families. */
@Service
public class EngineBook {

    private final EngineFamilyRepository repository;
    private final AtomicReference<@Nullable Map<String, VersionedFamily>> newest = new AtomicReference<>();

    private final ApplicationEventPublisher events;

    EngineBook(EngineFamilyRepository repository, ApplicationEventPublisher events) {
        this.repository = repository;
        this.events = events;
    }

    /** The newest version of each family, by code. */
    public Map<String, VersionedFamily> newest() {
        Map<String, VersionedFamily> known = newest.get();
        if (known == null) {
            known = repository.newest();
            newest.set(known);
        }
        return known;
    }

    /** The newest version of each family, by name. */
    public List<VersionedFamily> all() {
        return newest().values().stream()
                .sorted(Comparator.comparing(f -> f.family().name()))
                .toList();
    }

    public Optional<VersionedFamily> find(String code) {
        return Optional.ofNullable(newest().get(code));
    }

    /** The family as a job was built on it. */
    public EngineFamily get(String code, int version) {
        return find(code)
                .filter(f -> f.version() == version)
                .map(VersionedFamily::family)
                .or(() -> repository.find(code, version))
                .orElseThrow(
                        () -> new NotFound("Engine family %s, version %d is not on file.".formatted(code, version)));
    }

    /** Copies of the family's tool set that can be worked with. */
    public int toolSetCopies(String familyCode) {
        return repository.toolSetCopies(familyCode);
    }

    /** All versions of a family, the newest first. */
    public List<VersionedFamily> versions(String code) {
        return repository.versions(code);
    }

    /** Files a new family with its tool set. */
    @Transactional
    public void add(EngineFamily family, int toolSetCopies, String by, Instant at) {
        repository.add(family, 1, by, at, "");
        repository.addToolSet(family.code(), toolSetCopies);
        events.publishEvent(new BookChanged(family.code()));
    }

    /**
     * Files the next version of a family; jobs keep the one they were built on.
     *
     * @param readVersion the version the change was made on; 0 for a family that is not on file
     * @throws Conflict where somebody else filed another one meanwhile
     */
    @Transactional
    public int file(EngineFamily family, int readVersion, String by, Instant at, String note) {
        List<VersionedFamily> known = repository.versions(family.code());
        int newestVersion = known.isEmpty() ? 0 : known.get(0).version();
        if (newestVersion != readVersion) {
            throw new Conflict(
                    newestVersion == 0
                            ? "%s is not on file any more.".formatted(family.code())
                            : "%s filed version %d of %s meanwhile%s. Yours was not saved."
                                    .formatted(
                                            known.get(0).changedBy(),
                                            newestVersion,
                                            family.name(),
                                            known.get(0).note().isEmpty()
                                                    ? ""
                                                    : " (" + known.get(0).note() + ")"));
        }
        repository.add(family, newestVersion + 1, by, at, note);
        if (newestVersion == 0) {
            repository.addToolSet(family.code(), 1);
        }
        events.publishEvent(new BookChanged(family.code()));
        return newestVersion + 1;
    }

    /** A family's book has a new version. */
    public record BookChanged(String code) {}

    /** All books have come from elsewhere, none of them a correction of another. */
    public record BooksReplaced() {}

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    @Order(0)
    void forget(BooksReplaced event) {
        newest.set(null);
    }

    /** Before anyone else listens, so that they read the new book. */
    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    @Order(0)
    void forget(BookChanged event) {
        newest.set(null);
    }
}
