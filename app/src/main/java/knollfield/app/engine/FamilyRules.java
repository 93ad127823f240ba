package knollfield.app.engine;

import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.CurrentPerson;
import knollfield.core.matching.FamilyRule;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The workshop's rules by which make, model, engine letters and year say which engine family a vehicle has. */
@Service
public class FamilyRules {

    private static final int FIRST_YEAR = 1900;
    private static final int LAST_YEAR = 2100;

    private final FamilyRuleRepository repository;
    private final EngineBook book;
    private final CurrentPerson current;

    FamilyRules(FamilyRuleRepository repository, EngineBook book, CurrentPerson current) {
        this.repository = repository;
        this.book = book;
        this.current = current;
    }

    /** A rule on file. */
    public record Stored(long id, FamilyRule rule, int version) {}

    public List<Stored> all() {
        return repository.all();
    }

    /** The rules themselves, to be asked of many vehicles. */
    public List<FamilyRule> rules() {
        return repository.all().stream().map(Stored::rule).toList();
    }

    /** Families that the rules give a vehicle; none, one, or several. */
    public Set<String> families(FamilyRule.Described vehicle) {
        return FamilyRule.families(rules(), vehicle);
    }

    /** @throws InvalidInput for an unknown family, a rule that asks nothing, and years that cannot be */
    @Transactional
    public void add(String family, String makeModel, String engine, OptionalInt from, OptionalInt to) {
        repository.add(
                checked(family, makeModel, engine, from, to), current.get().name());
    }

    /** @throws Conflict where somebody else changed it first */
    @Transactional
    public void change(
            long id, String family, String makeModel, String engine, OptionalInt from, OptionalInt to, int version) {
        if (!repository.update(
                id,
                checked(family, makeModel, engine, from, to),
                version,
                current.get().name())) {
            throw changedMeanwhile();
        }
    }

    /** Takes a rule away; vehicles keep the family it gave them. */
    @Transactional
    public void remove(long id, int version) {
        if (!repository.delete(id, version)) {
            throw changedMeanwhile();
        }
    }

    private static Conflict changedMeanwhile() {
        return new Conflict("Somebody else changed this rule, or took it away. Yours was not saved.");
    }

    private FamilyRule checked(String family, String makeModel, String engine, OptionalInt from, OptionalInt to) {
        new Checks()
                .that(book.find(family).isPresent(), "/family", "Choose an engine family that is on file.")
                .that(makeModel.length() <= 80, "/makeModel", "Words of make and model: at most 80 characters.")
                .that(engine.length() <= 120, "/engine", "Letters of engines: at most 120 characters.")
                .that(isYear(from), "/yearFrom", "A year is 1900 to 2100.")
                .that(isYear(to), "/yearTo", "A year is 1900 to 2100.")
                .that(
                        from.isEmpty() || to.isEmpty() || from.getAsInt() <= to.getAsInt(),
                        "/yearTo",
                        "The last year lies before the first.")
                .that(
                        hasWords(makeModel) || hasWords(engine),
                        "/makeModel",
                        "Say at least words of make and model, or the engine's letters.")
                .orThrow();
        return new FamilyRule(family, makeModel.strip(), engine.strip(), from, to);
    }

    private static boolean hasWords(String text) {
        return text.codePoints().anyMatch(Character::isLetterOrDigit);
    }

    private static boolean isYear(OptionalInt year) {
        return year.isEmpty() || (year.getAsInt() >= FIRST_YEAR && year.getAsInt() <= LAST_YEAR);
    }
}
