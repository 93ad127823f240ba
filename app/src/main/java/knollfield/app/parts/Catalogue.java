package knollfield.app.parts;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.engine.EngineBook;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.core.bundle.FitCheck;
import knollfield.core.bundle.Grade;
import knollfield.core.engine.EngineFamily;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The parts the workshop can fit. */
@Service
public class Catalogue {

    /** Until somebody says better (planning assumption). */
    private static final int USUAL_LEAD_DAYS = 2;

    private final PartRepository parts;
    private final EngineBook book;

    Catalogue(PartRepository parts, EngineBook book) {
        this.parts = parts;
        this.book = book;
    }

    public List<CatalogPart> all() {
        return parts.all();
    }

    /** Parts for the items of a family, grade by grade. */
    public List<CatalogPart> ofFamily(String familyCode) {
        return parts.ofFamily(familyCode);
    }

    public Optional<CatalogPart> find(String number) {
        return parts.find(number);
    }

    /**
     * Files a new part.
     *
     * @throws InvalidInput where it cannot be, each fault beside its field
     */
    @Transactional
    public void add(CatalogPart part) {
        Checks checks = check(part);
        checks.that(
                parts.find(part.number()).isEmpty(), "/number", "There is a part %s already.".formatted(part.number()));
        checks.orThrow();
        parts.add(part);
    }

    /**
     * Changes a part; {@code part.version()} is the one it was read with.
     *
     * @throws Conflict where somebody else changed it first
     */
    @Transactional
    public void change(CatalogPart part) {
        check(part).orThrow();
        if (parts.find(part.number()).isEmpty()) {
            throw new NotFound("There is no part " + part.number() + ".");
        }
        if (!parts.update(part)) {
            throw new Conflict(
                    "Part %s was changed while you were at it. Yours was not saved.".formatted(part.number()));
        }
    }

    /** Parts that a family's book names, and the catalogue has not. */
    public List<CatalogPart> missingOf(EngineFamily family) {
        Set<String> there = parts.all().stream().map(CatalogPart::number).collect(Collectors.toSet());
        return family.items().stream()
                .filter(i -> !i.part().number().isBlank() && there.add(i.part().number()))
                .map(i -> new CatalogPart(
                        i.part().number(),
                        i.part().name(),
                        family.code(),
                        i.code(),
                        Grade.Kind.ORIGINAL,
                        i.part().priceMinor(),
                        OptionalInt.empty(),
                        USUAL_LEAD_DAYS,
                        Optional.empty(),
                        FitCheck.Data.unknown(),
                        0))
                .toList();
    }

    /**
     * Takes every part into the catalogue that a family's book names and it has not, at the book's prices.
     *
     * @return those taken in
     */
    @Transactional
    public List<CatalogPart> takeIn(String familyCode) {
        List<CatalogPart> missing = missingOf(book.find(familyCode)
                .orElseThrow(() -> new NotFound("There is no engine family " + familyCode + "."))
                .family());
        missing.forEach(this::add);
        return missing;
    }

    /** True where a part is on the shelf, on order, or chosen for a job. */
    public boolean isUsed(String number) {
        return parts.isUsed(number);
    }

    /**
     * Takes parts out of the catalogue again, all or none.
     *
     * @param versions those they were read with, by number
     *
     * @throws Conflict where it is on the shelf, on order or in a job, or somebody changed it
     */
    @Transactional
    public void remove(Map<String, Integer> versions) {
        versions.forEach((number, version) -> {
            if (parts.isUsed(number)) {
                throw new Conflict("Part %s is on the shelf, on order or in a job.".formatted(number));
            }
            if (!parts.delete(number, version)) {
                throw new Conflict("Part %s was changed meanwhile, or is gone already.".formatted(number));
            }
        });
    }

    /** What is wrong with a part by itself. */
    public Checks check(CatalogPart part) {
        Checks checks = new Checks()
                .text(part.number(), 40, "/number", "The number")
                .text(part.name(), 80, "/name", "The name")
                .that(part.priceMinor() >= 0, "/priceMinor", "The price must be zero or more.")
                .that(
                        part.expectedKm().orElse(1) > 0 && part.expectedKm().orElse(1) <= 2_000_000,
                        "/expectedKm",
                        "The life must be 1 to 2,000,000 km.")
                .that(
                        part.leadDays() >= 0 && part.leadDays() <= 365,
                        "/leadDays",
                        "The lead time must be 0 to 365 days.")
                .that(part.fit().teeth().orElse(1) > 0, "/teeth", "Teeth or links must be above zero.")
                .that(part.fit().widthMm().orElse(1) > 0, "/widthMm", "The width must be above zero.")
                .that(part.fit().lengthMm().orElse(1) > 0, "/lengthMm", "The length must be above zero.")
                .that(part.fit().thicknessMm().orElse(1) > 0, "/thicknessMm", "The thickness must be above zero.");
        book.find(part.familyCode())
                .ifPresentOrElse(
                        f -> checks.that(
                                f.family().item(part.itemCode()).isPresent(),
                                "/itemCode",
                                "%s has no such item.".formatted(f.family().name())),
                        () -> checks.that(false, "/familyCode", "Choose an engine family."));
        return checks;
    }
}
