package knollfield.app.engine;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import knollfield.app.problem.NotFound;
import knollfield.core.engine.EngineFamily;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The workshop's book of engine families. */
@Service
public class EngineBook {

    private final EngineFamilyRepository repository;
    private final AtomicReference<@Nullable Map<String, VersionedFamily>> newest = new AtomicReference<>();

    EngineBook(EngineFamilyRepository repository) {
        this.repository = repository;
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

    public int toolSetCopies(String familyCode) {
        return repository.toolSetCopies(familyCode);
    }

    /** Files a new family with its tool set. */
    @Transactional
    public void add(EngineFamily family, int toolSetCopies) {
        repository.add(family, 1);
        repository.addToolSet(family.code(), toolSetCopies);
        newest.set(null);
    }
}
