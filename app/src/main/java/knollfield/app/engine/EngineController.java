package knollfield.app.engine;

import java.util.List;
import java.util.Optional;
import knollfield.app.engine.EngineViews.DifferenceView;
import knollfield.app.engine.EngineViews.FamilyChange;
import knollfield.app.engine.EngineViews.FamilyRow;
import knollfield.app.engine.EngineViews.FamilyView;
import knollfield.app.engine.EngineViews.ImportView;
import knollfield.app.engine.EngineViews.LoopView;
import knollfield.app.engine.EngineViews.ProofView;
import knollfield.app.problem.Checks;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.engine.EngineFamily;
import knollfield.core.jobcard.BookProof;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** The engine book: list, one family, its versions, and its documents in and out. */
@RestController
@RequestMapping("/api/engines")
class EngineController {

    private final EngineBook book;
    private final FamilyJson json;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    EngineController(EngineBook book, FamilyJson json, CurrentPerson current, WorkshopClock clock) {
        this.book = book;
        this.json = json;
        this.current = current;
        this.clock = clock;
    }

    @GetMapping
    List<FamilyRow> list() {
        return book.all().stream()
                .map(f -> EngineViews.row(f, book.toolSetCopies(f.family().code())))
                .toList();
    }

    /** The JSON Schema of the documents. */
    @GetMapping(path = "/schema", produces = "application/schema+json")
    ResponseEntity<String> schema() {
        return ResponseEntity.ok(json.schema());
    }

    @GetMapping("/{code}")
    FamilyView get(@PathVariable String code, @RequestParam @Nullable Integer version) {
        List<VersionedFamily> versions = book.versions(code);
        if (versions.isEmpty()) {
            throw new NotFound("Engine family %s is not on file.".formatted(code));
        }
        int newest = versions.get(0).version();
        int wanted = Optional.ofNullable(version).orElse(newest);
        return EngineViews.family(book.get(code, wanted), wanted, versions, json);
    }

    /** What changed between two versions. */
    @GetMapping("/{code}/differences")
    List<DifferenceView> differences(@PathVariable String code, @RequestParam int from, @RequestParam int to) {
        return EngineViews.views(json.differences(book.get(code, from), book.get(code, to)));
    }

    /** Files the next version of a family, or a new one. */
    @PutMapping("/{code}")
    FamilyView change(@PathVariable String code, @RequestBody FamilyChange change) {
        EngineFamily family = json.read(change.family());
        String note = Optional.ofNullable(change.note()).orElse("").strip();
        new Checks()
                .that(family.code().equals(code), "/family/code", "The code of a family stays: %s.".formatted(code))
                .that(note.length() <= 200, "/note", "The note is longer than 200 characters.")
                .orThrow();
        book.file(family, change.version(), current.get().name(), clock.instant(), note);
        return get(code, null);
    }

    /**
     * What a drawing of a family that is being edited gives; files nothing.
     *
     * @param loop code of a loop of the build; missing: the family's own path
     */
    @PostMapping("/check")
    LoopView check(@RequestBody FamilyChange change, @RequestParam @Nullable String loop) {
        return EngineViews.drawn(json.read(change.family()), loop);
    }

    /** Each purpose the family is used for, its card, and whether it is proven. */
    @GetMapping("/{code}/proof")
    ProofView proof(@PathVariable String code, @RequestParam @Nullable Integer version) {
        VersionedFamily newest =
                book.find(code).orElseThrow(() -> new NotFound("Engine family %s is not on file.".formatted(code)));
        EngineFamily family = book.get(code, Optional.ofNullable(version).orElse(newest.version()));
        return new ProofView(BookProof.of(family).stream()
                .map(p -> EngineViews.purpose(family, p))
                .toList());
    }

    /** The family's document. */
    @GetMapping(path = "/{code}/document", produces = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<JsonNode> document(@PathVariable String code, @RequestParam @Nullable Integer version) {
        VersionedFamily newest =
                book.find(code).orElseThrow(() -> new NotFound("Engine family %s is not on file.".formatted(code)));
        int wanted = Optional.ofNullable(version).orElse(newest.version());
        return ResponseEntity.ok()
                .header("Content-Disposition", "attachment; filename=\"%s.json\"".formatted(code))
                .body(json.write(book.get(code, wanted)));
    }

    /** Reads a document; files it as the next version unless {@code preview}. */
    @PostMapping(path = "/documents", consumes = MediaType.TEXT_PLAIN_VALUE)
    ImportView takeIn(@RequestBody String text, @RequestParam boolean preview) {
        if (text.isBlank()) {
            throw new InvalidInput("", "The file is empty.");
        }
        EngineFamily family = json.read(text);
        Optional<VersionedFamily> known = book.find(family.code());
        List<DifferenceView> differences = known.map(k -> EngineViews.views(json.differences(k.family(), family)))
                .orElseGet(List::of);
        int version = known.map(VersionedFamily::version).orElse(0);
        boolean news = known.isEmpty() || !differences.isEmpty();
        if (!preview && news) {
            version = book.file(family, version, current.get().name(), clock.instant(), "imported");
        }
        return new ImportView(
                family.code(),
                family.name(),
                known.isEmpty(),
                version,
                differences,
                EngineViews.remarks(family),
                !preview && news);
    }
}
