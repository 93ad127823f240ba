package knollfield.app.job;

import java.util.List;
import java.util.Locale;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Where work is promised: bays are made, changed and given up; one that work is promised in cannot vanish. */
@Service
public class Bays {

    private static final int HEAVIEST = 2;

    private final JobRepository repository;
    private final Jobs jobs;

    Bays(JobRepository repository, Jobs jobs) {
        this.repository = repository;
        this.jobs = jobs;
    }

    /** Those in use, then those given up. */
    public List<Bay> all() {
        return repository.bays().stream()
                .sorted((a, b) -> Boolean.compare(b.active(), a.active()))
                .toList();
    }

    /** @throws InvalidInput for a name that is missing, too long or taken, and a class that is none */
    @Transactional
    public void add(Bay bay) {
        repository.lockBoard();
        check(bay);
        repository.addBay(stripped(bay));
    }

    /**
     * Changes a bay, gives it up or takes it back.
     *
     * @throws Conflict where somebody else changed it first
     * @throws InvalidInput where work is promised in it that it could not take any more
     */
    @Transactional
    public void change(Bay bay) {
        repository.lockBoard();
        Bay before = repository.bays().stream()
                .filter(b -> b.id() == bay.id())
                .findFirst()
                .orElseThrow(() -> new NotFound("There is no bay " + bay.id() + "."));
        if (bay.active()) {
            check(bay);
        }
        List<Job> promised = repository.open().stream()
                .filter(j -> j.booking().filter(b -> b.bayId() == bay.id()).isPresent())
                .toList();
        if (!bay.active() && !promised.isEmpty()) {
            throw new InvalidInput(
                    "/active",
                    "%s has work promised in it: %s. Give it another place first."
                            .formatted(before.name(), named(promised)));
        }
        List<Job> heavier = promised.stream()
                .filter(j -> jobs.state(j).history().vehicle().liftClass() > bay.liftClass())
                .toList();
        if (!heavier.isEmpty()) {
            throw new InvalidInput(
                    "/liftClass",
                    "%s is promised to heavy vehicles: %s. Give them another place first."
                            .formatted(before.name(), named(heavier)));
        }
        if (!repository.updateBay(stripped(bay))) {
            throw new Conflict("%s was changed by somebody else; now: %s%s. Yours was not saved."
                    .formatted(before.name(), before.name(), before.active() ? "" : ", given up"));
        }
    }

    private static Bay stripped(Bay b) {
        return new Bay(
                b.id(),
                b.name().strip(),
                b.note().strip(),
                b.liftClass(),
                b.posts(),
                b.carriesKg(),
                b.active(),
                b.version());
    }

    private void check(Bay bay) {
        Integer posts = bay.posts();
        Integer carries = bay.carriesKg();
        new Checks()
                .text(bay.name(), 40, "/name", "The name of the bay")
                .that(bay.note().length() <= 60, "/note", "What it is: at most 60 characters.")
                .that(
                        bay.liftClass() >= 1 && bay.liftClass() <= HEAVIEST,
                        "/liftClass",
                        "A bay takes light or heavy vehicles.")
                .that(posts == null || (posts >= 0 && posts <= 8), "/posts", "A lift has 0 to 8 posts.")
                .that(
                        carries == null || (carries >= 100 && carries <= 60_000),
                        "/carriesKg",
                        "A lift carries 100 to 60,000 kg.")
                .orThrow();
        String key = bay.name().strip().toLowerCase(Locale.ROOT);
        boolean taken = repository.bays().stream()
                .anyMatch(b -> b.id() != bay.id()
                        && b.active()
                        && b.name().toLowerCase(Locale.ROOT).equals(key));
        if (taken) {
            throw new InvalidInput(
                    "/name",
                    "There is a bay \"%s\" already.".formatted(bay.name().strip()));
        }
    }

    private String named(List<Job> promised) {
        return promised.stream()
                .map(j -> jobs.state(j).history().vehicle().registration())
                .distinct()
                .sorted()
                .limit(5)
                .reduce((a, b) -> a + ", " + b)
                .orElse("");
    }
}
