package knollfield.app.engine;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import knollfield.app.problem.Checks;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.engine.BeltPath;
import knollfield.core.engine.BookGaps;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.LoopFit;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.TimingGeometry;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.work.Breach;
import knollfield.core.engine.work.Law;
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

    /** @param drawn a drawing of belt or chain is on file */
    record FamilyRow(
            String code,
            String name,
            Drive drive,
            String driveWords,
            Interference interference,
            int version,
            int items,
            int remarks,
            int toolSetCopies,
            boolean drawn) {}

    record RemarkView(String pointer, String words) {}

    /** What is not on file, and what does not work until it is. */
    record BookGapView(String what, String blocks) {}

    record RunView(String from, String to, boolean tight) {}

    /** @param toothDegrees one tooth out, degrees of this wheel; null where it is smooth */
    record WheelView(
            String code,
            String name,
            Pulley.Role role,
            double x,
            double y,
            int teeth,
            double radiusMm,
            boolean outside,
            boolean marked,
            @Nullable Double toothDegrees,
            @Nullable String turns) {}

    /**
     * @param counted what is counted round it: teeth or links
     * @param layingOn names of the wheels in the order in which the loop is laid on
     * @param marksReturnTurns crank turns after which paint marks are back
     */
    record LoopView(
            int teeth,
            String counted,
            boolean clockwise,
            List<WheelView> pulleys,
            List<RunView> runs,
            List<String> layingOn,
            int marksReturnTurns,
            int marks,
            FitView fit) {}

    /**
     * Whether the drawing can be the loop that the book describes.
     *
     * @param lengthMm along the pitch line; 0 where no loop goes over the wheels as placed
     * @param pitchMm of the crank sprocket
     * @param teethNeeded teeth or links the wheels as placed take
     * @param wrong what does not fit, one sentence each
     */
    record FitView(double lengthMm, double pitchMm, double teethNeeded, List<String> wrong) {}

    record VersionView(int version, String changedBy, Instant changedAt, String note) {}

    /**
     * @param family the book's document; its JSON Schema is at /api/engines/schema
     * @param grown how the engine is built is not filed yet, but worked out from steps and joints
     */
    record FamilyView(
            String code,
            String name,
            Drive drive,
            Interference interference,
            int version,
            int newest,
            Map<String, Object> family,
            boolean grown,
            @Nullable LoopView path,
            List<NamedLoop> loops,
            List<RemarkView> remarks,
            List<BookGapView> gaps,
            List<VersionView> versions) {}

    /** A loop of an engine that has several, as drawn. */
    record NamedLoop(String name, LoopView path) {}

    record DifferenceView(String pointer, String before, String after) {}

    /** @param version the version the change was made on; 0 for a family that is not on file */
    record FamilyChange(
            Map<String, Object> family,
            int version,
            @Nullable String note) {}

    /** @param created false where a version of a known family would be added */
    record ImportView(
            String code,
            String name,
            boolean created,
            int version,
            List<DifferenceView> differences,
            List<RemarkView> remarks,
            boolean filed) {}

    @GetMapping
    List<FamilyRow> list() {
        return book.all().stream()
                .map(f -> new FamilyRow(
                        f.family().code(),
                        f.family().name(),
                        f.family().drive(),
                        f.family().drive().words(),
                        f.family().interference(),
                        f.version(),
                        f.family().items().size(),
                        f.family().remarks().size(),
                        book.toolSetCopies(f.family().code()),
                        f.family().path().isPresent()))
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
        EngineFamily family = book.get(code, wanted);
        return new FamilyView(
                code,
                family.name(),
                family.drive(),
                family.interference(),
                wanted,
                newest,
                json.map(family),
                versions.stream().anyMatch(v -> v.version() == wanted && v.grown()),
                family.path().map(p -> path(p, family.drive())).orElse(null),
                loops(family),
                remarks(family),
                BookGaps.of(family).stream()
                        .map(g -> new BookGapView(g.what(), g.blocks()))
                        .toList(),
                versions.stream()
                        .map(v -> new VersionView(v.version(), v.changedBy(), v.changedAt(), v.note()))
                        .toList());
    }

    /** What changed between two versions. */
    @GetMapping("/{code}/differences")
    List<DifferenceView> differences(@PathVariable String code, @RequestParam int from, @RequestParam int to) {
        return views(json.differences(book.get(code, from), book.get(code, to)));
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
        EngineFamily family = json.read(change.family());
        if (loop != null) {
            Loop drawn = family.build().stream()
                    .flatMap(b -> b.loops().stream())
                    .filter(l -> l.code().equals(loop) && l.drawing().isPresent())
                    .findFirst()
                    .orElseThrow(() -> new InvalidInput("/family/build/loops", "There is no drawing to try yet."));
            return path(drawn.drawing().orElseThrow(), drawn.kind());
        }
        return path(
                family.path().orElseThrow(() -> new InvalidInput("/family/path", "There is no drawing to try yet.")),
                family.drive());
    }

    /**
     * A law that fails.
     *
     * @param pointer where in the book it is put right, from the family on; null where no one thing of it is to blame
     * @param list the list of the build that place stands in
     */
    record BreachView(
            int law,
            String lawWords,
            boolean absolute,
            String words,
            @Nullable String at,
            @Nullable String pointer,
            @Nullable String list) {}

    record StitchView(
            String code,
            String title,
            String phase,
            boolean gate,
            @Nullable String why) {}

    /** @param stitches the card, step by step; empty where none is handed out */
    record PurposeView(String name, boolean proven, List<StitchView> stitches, List<BreachView> breaches) {}

    record ProofView(List<PurposeView> purposes) {}

    /** Each purpose the family is used for, its card, and whether it is proven. */
    @GetMapping("/{code}/proof")
    ProofView proof(@PathVariable String code, @RequestParam @Nullable Integer version) {
        VersionedFamily newest =
                book.find(code).orElseThrow(() -> new NotFound("Engine family %s is not on file.".formatted(code)));
        EngineFamily family = book.get(code, Optional.ofNullable(version).orElse(newest.version()));
        return new ProofView(
                BookProof.of(family).stream().map(p -> purpose(family, p)).toList());
    }

    private static PurposeView purpose(EngineFamily family, BookProof.Purpose p) {
        return new PurposeView(
                p.name(),
                p.proven(),
                p.card().stream()
                        .flatMap(c -> c.phases().stream())
                        .flatMap(phase -> phase.steps().stream()
                                .map(s -> new StitchView(
                                        s.code(),
                                        s.title(),
                                        phase.title(),
                                        s.gate().isPresent(),
                                        s.why().orElse(null))))
                        .toList(),
                p.breaches().stream().map(b -> breach(family, b)).toList());
    }

    private static BreachView breach(EngineFamily family, Breach b) {
        Optional<BookProof.Place> place = family.build()
                .flatMap(x -> BookProof.place(x, b.thing()))
                // an item of which the build says nothing yet
                .or(() -> family.item(b.thing()).map(i -> new BookProof.Place("/build/renews", "renews")));
        Law law = b.laws().get(0);
        return new BreachView(
                law.number(),
                law.words(),
                law.absolute(),
                b.words(),
                b.at().map(o -> o.code()).orElse(null),
                place.map(BookProof.Place::pointer).orElse(null),
                place.map(BookProof.Place::list).orElse(null));
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
        List<DifferenceView> differences =
                known.map(k -> views(json.differences(k.family(), family))).orElseGet(List::of);
        int version = known.map(VersionedFamily::version).orElse(0);
        boolean news = known.isEmpty() || !differences.isEmpty();
        if (!preview && news) {
            version = book.file(family, version, current.get().name(), clock.instant(), "imported");
        }
        return new ImportView(
                family.code(), family.name(), known.isEmpty(), version, differences, remarks(family), !preview && news);
    }

    private static List<RemarkView> remarks(EngineFamily family) {
        return family.remarks().stream()
                .map(r -> new RemarkView(r.pointer(), r.words()))
                .toList();
    }

    /** Drawn loops where there is more than one. */
    private static List<NamedLoop> loops(EngineFamily family) {
        List<NamedLoop> drawn = family.build().stream()
                .flatMap(b -> b.loops().stream())
                .filter(l -> l.drawing().isPresent())
                .map(l -> new NamedLoop(l.name(), path(l.drawing().orElseThrow(), l.kind())))
                .toList();
        return drawn.size() > 1 ? drawn : List.of();
    }

    private static List<DifferenceView> views(List<FamilyDifference> differences) {
        return differences.stream()
                .map(d -> new DifferenceView(d.pointer(), d.before(), d.after()))
                .toList();
    }

    private static FitView fit(LoopFit fit) {
        return new FitView(fit.lengthMm(), fit.pitchMm(), fit.teethNeeded(), fit.wrong());
    }

    private static LoopView path(BeltPath path, Drive drive) {
        return new LoopView(
                path.teeth(),
                drive.counted(),
                path.clockwise(),
                path.pulleys().stream()
                        .map(p -> new WheelView(
                                p.code(),
                                p.name(),
                                p.role(),
                                p.x(),
                                p.y(),
                                p.teeth(),
                                p.radiusMm(),
                                p.outside(),
                                p.marked(),
                                p.teeth() == 0 ? null : TimingGeometry.toothDegrees(p.teeth()),
                                p.teeth() == 0
                                        ? null
                                        : "%d : %d"
                                                .formatted(
                                                        path.turnsPerCrankTurn(p)
                                                                .numerator(),
                                                        path.turnsPerCrankTurn(p)
                                                                .denominator())))
                        .toList(),
                TimingGeometry.runs(path).stream()
                        .map(r -> new RunView(r.from(), r.to(), r.pull() == TimingGeometry.Pull.TIGHT))
                        .toList(),
                TimingGeometry.layingOn(path).stream().map(Pulley::name).toList(),
                path.turnsUntilPaintReturns(),
                path.marked().size(),
                fit(LoopFit.of(path)));
    }
}
