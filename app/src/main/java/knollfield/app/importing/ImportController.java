package knollfield.app.importing;

import java.util.List;
import java.util.Objects;
import knollfield.app.importing.ImportViews.BatchView;
import knollfield.app.importing.ImportViews.Imported;
import knollfield.app.importing.ImportViews.MappingIn;
import knollfield.app.importing.ImportViews.Preview;
import knollfield.app.problem.Checks;
import knollfield.app.security.CurrentPerson;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.json.JsonMapper;

/** Lists as people have them: looked at first, then taken; the whole of one can be taken back. */
@RestController
@RequestMapping("/api/imports")
class ImportController {

    private final Importer imports;
    private final ImportTurn turn;
    private final JsonMapper json;
    private final ListWriter writer;
    private final CurrentPerson current;

    ImportController(Importer imports, ImportTurn turn, JsonMapper json, ListWriter writer, CurrentPerson current) {
        this.imports = imports;
        this.turn = turn;
        this.json = json;
        this.writer = writer;
        this.current = current;
    }

    /**
     * Reads a list and changes nothing.
     *
     * @param as what is said of it, as JSON ({@code Said}); missing: all of it is found out
     */
    @PostMapping("/preview")
    Preview preview(@RequestBody(required = false) byte @Nullable [] body, @RequestParam @Nullable String as) {
        return ImportViews.preview(imports.read(ImportViews.bytes(body), ImportViews.said(as, json)));
    }

    /** Takes a list in; all of it, or its good lines where that is said. */
    @PostMapping
    Imported take(
            @RequestBody(required = false) byte @Nullable [] body,
            @RequestParam @Nullable String as,
            @RequestParam @Nullable String name) {
        Importer.Taken t = turn.inTurn(() -> imports.take(
                ImportViews.bytes(body), ImportViews.said(as, json), Objects.requireNonNullElse(name, "")));
        return new Imported(
                t.kind(),
                t.batch().isPresent() ? t.batch().getAsLong() : null,
                t.made() + t.changed(),
                t.made(),
                t.changed(),
                t.left(),
                t.bad());
    }

    /** The lines that cannot be taken, as a list to mend and take again, each with what is wrong. */
    @PostMapping("/bad-lines")
    ResponseEntity<byte[]> badLines(
            @RequestBody(required = false) byte @Nullable [] body, @RequestParam @Nullable String as) {
        return ImportViews.csv(
                "lines-to-mend.csv",
                ImportViews.badLines(imports.read(ImportViews.bytes(body), ImportViews.said(as, json))));
    }

    /** An empty list of a kind, with its columns and a line that shows how they are filled. */
    @GetMapping("/template")
    ResponseEntity<byte[]> template(@RequestParam ImportKind kind) {
        return ImportViews.csv(
                kind.words() + ".csv",
                List.of(
                        kind.fields().stream().map(ImportField::words).toList(),
                        kind.fields().stream().map(ImportField::example).toList()));
    }

    /** What is on file, in the form of the template. */
    @GetMapping("/list")
    ResponseEntity<byte[]> list(@RequestParam ImportKind kind) {
        if (kind == ImportKind.PEOPLE && !current.get().isManager()) {
            throw new AccessDeniedException("people are the manager's");
        }
        return ImportViews.csv(kind.words() + "-on-file.csv", writer.of(kind));
    }

    @GetMapping
    List<BatchView> taken() {
        return imports.taken().stream()
                .map(b -> new BatchView(b.id(), b.kind().words(), b.fileName(), b.at(), b.by(), b.made(), b.changed()))
                .toList();
    }

    /** How far the import of whoever asks is. */
    @GetMapping("/progress")
    Importer.Progress progress() {
        return imports.progress();
    }

    @PostMapping("/{id}/take-back")
    List<BatchView> takeBack(@PathVariable long id) {
        imports.takeBack(id);
        return taken();
    }

    @GetMapping("/mappings")
    List<ImportRepository.Mapping> mappings() {
        return imports.mappings();
    }

    @PutMapping("/mappings")
    List<ImportRepository.Mapping> keep(@RequestBody MappingIn m) {
        String body = Objects.requireNonNullElse(m.body(), "");
        new Checks()
                .text(m.name(), 60, "/name", "A name")
                .that(body.length() <= 10_000, "/body", "The mapping is too long.")
                .orThrow();
        imports.keep(
                new ImportRepository.Mapping(Objects.requireNonNull(m.name()).strip(), body));
        return imports.mappings();
    }

    @DeleteMapping("/mappings/{name}")
    List<ImportRepository.Mapping> forget(@PathVariable String name) {
        imports.forgetMapping(name);
        return imports.mappings();
    }
}
