package knollfield.app.parts;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.parts.PartsViews.BookParts;
import knollfield.app.parts.PartsViews.NumberAndVersion;
import knollfield.app.parts.PartsViews.PartIn;
import knollfield.app.parts.PartsViews.PartView;
import knollfield.app.parts.PartsViews.PartsTaken;
import knollfield.app.problem.InvalidInput;
import knollfield.app.shared.WorkshopClock;
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

    @GetMapping
    List<PartView> list() {
        List<CatalogPart> parts = catalogue.all();
        Map<String, PartsSupplier.Quote> quotes = supplier.ask(parts, clock.today()).stream()
                .collect(Collectors.toMap(PartsSupplier.Quote::number, Function.identity()));
        return parts.stream().map(p -> view(p, quotes.get(p.number()))).toList();
    }

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
