package knollfield.app.settings;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.settings.WorkshopSettings.SettingsChanged;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What vehicles are used for, and how far such a vehicle usually goes; one that vehicles have cannot vanish. */
@Service
public class UsageClasses {

    private static final int CODE = 20;

    private final WorkshopRepository repository;
    private final ApplicationEventPublisher events;

    UsageClasses(WorkshopRepository repository, ApplicationEventPublisher events) {
        this.repository = repository;
        this.events = events;
    }

    /**
     * A class as it is on file.
     *
     * @param meanKmPerYear what a vehicle of it goes in a year, km
     * @param sdKmPerYear spread between such vehicles, km a year
     * @param vehicles on file that have it
     */
    public record Listed(
            String code, String name, double meanKmPerYear, double sdKmPerYear, int vehicles, int version) {}

    /** By name, as they are in force: with the distances of Setup's assumptions where those say otherwise. */
    public List<Listed> all() {
        Assumptions set = repository.get().assumptions();
        return repository.listedClasses().stream()
                .map(c -> new Listed(
                        c.code(),
                        c.name(),
                        set.value(Assumptions.meanOf(c.code())).orElse(c.meanKmPerYear()),
                        set.value(Assumptions.spreadOf(c.code())).orElse(c.sdKmPerYear()),
                        c.vehicles(),
                        c.version()))
                .toList();
    }

    /** @throws InvalidInput for a name that is missing or taken, and a distance that is none */
    @Transactional
    public void add(String name, double meanKm, double sdKm, String by, Instant at) {
        check("", name, meanKm, sdKm);
        repository.addClass(code(name), name.strip(), meanKm, sdKm);
        repository.addChange("Usage class", "", name.strip(), by, at);
        events.publishEvent(new SettingsChanged());
    }

    /**
     * Changes what a class is called and what it is taken to go; assumptions that said otherwise are gone with it.
     *
     * @throws Conflict where somebody else changed it first
     */
    @Transactional
    public void change(String code, String name, double meanKm, double sdKm, int version, String by, Instant at) {
        Listed before = existing(code);
        check(code, name, meanKm, sdKm);
        if (!repository.updateClass(code, name.strip(), meanKm, sdKm, version)) {
            throw new Conflict("Somebody else changed \"%s\". Yours was not saved.".formatted(before.name()));
        }
        forgetAssumptions(code);
        repository.addChange("Usage class", words(before), words(existing(code)), by, at);
        events.publishEvent(new SettingsChanged());
    }

    private void forgetAssumptions(String code) {
        repository.forgetAssumption(Assumptions.meanOf(code));
        repository.forgetAssumption(Assumptions.spreadOf(code));
    }

    private static String words(Listed c) {
        return "%s, %s km a year, spread %s km"
                .formatted(c.name(), WorkshopWords.number(c.meanKmPerYear()), WorkshopWords.number(c.sdKmPerYear()));
    }

    /**
     * Gives up a class that no vehicle has.
     *
     * @throws InvalidInput while one has, or where it is the last
     */
    @Transactional
    public void giveUp(String code, int version, String by, Instant at) {
        Listed before = existing(code);
        new Checks()
                .that(
                        before.vehicles() == 0,
                        "/code",
                        "%d %s \"%s\"; give them another class first."
                                .formatted(
                                        before.vehicles(),
                                        before.vehicles() == 1 ? "vehicle is" : "vehicles are",
                                        before.name()))
                .that(all().size() > 1, "/code", "Every vehicle needs a class, so the last one stays.")
                .orThrow();
        if (!repository.deleteClass(code, version)) {
            throw new Conflict("Somebody else changed \"%s\". It was not given up.".formatted(before.name()));
        }
        // a class made later may come to the same code, and has its own distances
        forgetAssumptions(code);
        repository.addChange("Usage class", before.name(), "given up", by, at);
        events.publishEvent(new SettingsChanged());
    }

    private Listed existing(String code) {
        return all().stream()
                .filter(c -> c.code().equals(code))
                .findFirst()
                .orElseThrow(() -> new NotFound("There is no usage class " + code + "."));
    }

    private void check(String code, String name, double meanKm, double sdKm) {
        String key = name.strip().toLowerCase(Locale.ROOT);
        new Checks()
                .text(name, 60, "/name", "The name of the class")
                .that(
                        all().stream()
                                .noneMatch(c -> !c.code().equals(code)
                                        && c.name().toLowerCase(Locale.ROOT).equals(key)),
                        "/name",
                        "There is a class \"%s\" already.".formatted(name.strip()))
                .that(meanKm >= 0 && meanKm <= 300_000, "/meanKm", "A year is 0 to 300,000 km.")
                .that(sdKm >= 1 && sdKm <= 100_000, "/sdKm", "The spread is 1 to 100,000 km a year.")
                .orThrow();
    }

    /** A code of the name's letters that no other class has. */
    private String code(String name) {
        Set<String> taken = all().stream().map(Listed::code).collect(Collectors.toSet());
        String letters =
                name.toUpperCase(Locale.ROOT).replaceAll("[^A-Z0-9]+", "_").replaceAll("^_|_$", "");
        String stem = letters.isEmpty() ? "CLASS" : letters.substring(0, Math.min(CODE - 3, letters.length()));
        String code = stem;
        for (int i = 2; taken.contains(code); i++) {
            code = stem + "_" + i;
        }
        return code;
    }
}
