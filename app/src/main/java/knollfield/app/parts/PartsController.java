package knollfield.app.parts;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.problem.InvalidInput;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.bundle.FitCheck;
import knollfield.core.bundle.Grade;
import knollfield.core.engine.Item;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The catalogue: list, add, change, and what the supplier says today. */
@RestController
@RequestMapping("/api/parts")
class PartsController {

    private final Catalogue catalogue;
    private final EngineBook book;
    private final PartsSupplier supplier;
    private final WorkshopClock clock;

    PartsController(Catalogue catalogue, EngineBook book, PartsSupplier supplier, WorkshopClock clock) {
        this.catalogue = catalogue;
        this.book = book;
        this.supplier = supplier;
        this.clock = clock;
    }

    /** Money in minor units, lengths in mm, lives in km. */
    record PartView(
            String number,
            String name,
            String familyCode,
            String family,
            String itemCode,
            String item,
            Grade.Kind grade,
            String gradeWords,
            long priceMinor,
            @Nullable Integer expectedKm,
            int leadDays,
            @Nullable String replaces,
            @Nullable Integer teeth,
            @Nullable Double widthMm,
            @Nullable Double lengthMm,
            @Nullable Double thicknessMm,
            @Nullable String side,
            int stock,
            LocalDate here,
            int version) {}

    record PartIn(
            String number,
            String name,
            String familyCode,
            String itemCode,
            Grade.Kind grade,
            long priceMinor,
            @Nullable Integer expectedKm,
            int leadDays,
            @Nullable String replaces,
            @Nullable Integer teeth,
            @Nullable Double widthMm,
            @Nullable Double lengthMm,
            @Nullable Double thicknessMm,
            @Nullable String side,
            int version) {

        CatalogPart toPart(String storedNumber) {
            return new CatalogPart(
                    storedNumber.strip(),
                    name.strip(),
                    familyCode,
                    itemCode,
                    grade,
                    priceMinor,
                    expectedKm == null ? OptionalInt.empty() : OptionalInt.of(expectedKm),
                    leadDays,
                    Optional.ofNullable(replaces).filter(r -> !r.isBlank()),
                    new FitCheck.Data(
                            teeth == null ? OptionalInt.empty() : OptionalInt.of(teeth),
                            millimetres(widthMm),
                            millimetres(lengthMm),
                            millimetres(thicknessMm),
                            Optional.ofNullable(side).filter(s -> !s.isBlank())),
                    version);
        }

        private static OptionalDouble millimetres(@Nullable Double value) {
            return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
        }
    }

    @GetMapping
    List<PartView> list() {
        List<CatalogPart> parts = catalogue.all();
        Map<String, PartsSupplier.Quote> quotes = supplier.ask(parts, clock.today()).stream()
                .collect(Collectors.toMap(PartsSupplier.Quote::number, Function.identity()));
        return parts.stream().map(p -> view(p, quotes.get(p.number()))).toList();
    }

    /**
     * A family whose book names parts that the catalogue has not.
     *
     * @param parts how many
     */
    record BookParts(String familyCode, String family, int parts) {}

    record NumberAndVersion(String number, int version) {}

    /** @param taken what takes it back, sent as a removal of each */
    record PartsTaken(List<PartView> parts, List<NumberAndVersion> taken) {}

    @GetMapping("/of-books")
    List<BookParts> ofBooks() {
        return book.newest().values().stream()
                .map(f -> new BookParts(
                        f.family().code(),
                        f.family().name(),
                        catalogue.missingOf(f.family()).size()))
                .filter(b -> b.parts() > 0)
                .sorted(Comparator.comparing(BookParts::family))
                .toList();
    }

    @PostMapping("/of-books/{code}")
    PartsTaken takeIn(@PathVariable String code) {
        List<CatalogPart> taken = catalogue.takeIn(code);
        return new PartsTaken(
                list(),
                taken.stream().map(p -> new NumberAndVersion(p.number(), 1)).toList());
    }

    /** Takes parts out again, all or none. */
    @PostMapping("/removals")
    List<PartView> remove(@RequestBody List<NumberAndVersion> parts) {
        int missing = parts.indexOf(null);
        if (missing >= 0) {
            throw new InvalidInput("/" + missing, "This part is missing.");
        }
        catalogue.remove(parts.stream()
                .collect(Collectors.toMap(NumberAndVersion::number, NumberAndVersion::version, (a, b) -> a)));
        return list();
    }

    @PostMapping
    List<PartView> add(@RequestBody PartIn body) {
        catalogue.add(body.toPart(body.number()));
        return list();
    }

    @PutMapping("/{number}")
    List<PartView> change(@PathVariable String number, @RequestBody PartIn body) {
        catalogue.change(body.toPart(number));
        return list();
    }

    private PartView view(CatalogPart p, PartsSupplier.@Nullable Quote quote) {
        Optional<VersionedFamily> family = book.find(p.familyCode());
        return new PartView(
                p.number(),
                p.name(),
                p.familyCode(),
                family.map(f -> f.family().name()).orElse(p.familyCode()),
                p.itemCode(),
                family.flatMap(f -> f.family().item(p.itemCode()))
                        .map(Item::name)
                        .orElse(p.itemCode()),
                p.grade(),
                p.grade().words(),
                p.priceMinor(),
                p.expectedKm().isPresent() ? p.expectedKm().getAsInt() : null,
                p.leadDays(),
                p.replaces().orElse(null),
                p.fit().teeth().isPresent() ? p.fit().teeth().getAsInt() : null,
                p.fit().widthMm().isPresent() ? p.fit().widthMm().getAsDouble() : null,
                p.fit().lengthMm().isPresent() ? p.fit().lengthMm().getAsDouble() : null,
                p.fit().thicknessMm().isPresent() ? p.fit().thicknessMm().getAsDouble() : null,
                p.fit().side().orElse(null),
                quote == null ? 0 : quote.stock(),
                quote == null ? clock.today().plusDays(p.leadDays()) : quote.here(),
                p.version());
    }
}
