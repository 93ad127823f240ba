package knollfield.app.parts;

import java.util.List;
import java.util.Optional;
import knollfield.app.engine.EngineBook;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The parts the workshop can fit. */
@Service
public class Catalogue {

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
