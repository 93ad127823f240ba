package knollfield.app.engine;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import knollfield.app.engine.EngineViews.BookGapView;
import knollfield.app.engine.EngineViews.DifferenceView;
import knollfield.app.engine.EngineViews.FamilyRow;
import knollfield.app.engine.EngineViews.FamilyView;
import knollfield.app.engine.EngineViews.LoopView;
import knollfield.app.engine.EngineViews.VersionView;
import knollfield.app.problem.InvalidInput;
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

/** The book, as it is shown. */
final class EngineViews {

    private EngineViews() {}

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

    static PurposeView purpose(EngineFamily family, BookProof.Purpose p) {
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

    static BreachView breach(EngineFamily family, Breach b) {
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

    static List<RemarkView> remarks(EngineFamily family) {
        return family.remarks().stream()
                .map(r -> new RemarkView(r.pointer(), r.words()))
                .toList();
    }

    /** Drawn loops where there is more than one. */
    static List<NamedLoop> loops(EngineFamily family) {
        List<NamedLoop> drawn = family.build().stream()
                .flatMap(b -> b.loops().stream())
                .filter(l -> l.drawing().isPresent())
                .map(l -> new NamedLoop(l.name(), path(l.drawing().orElseThrow(), l.kind())))
                .toList();
        return drawn.size() > 1 ? drawn : List.of();
    }

    static List<DifferenceView> views(List<FamilyDifference> differences) {
        return differences.stream()
                .map(d -> new DifferenceView(d.pointer(), d.before(), d.after()))
                .toList();
    }

    static FitView fit(LoopFit fit) {
        return new FitView(fit.lengthMm(), fit.pitchMm(), fit.teethNeeded(), fit.wrong());
    }

    static LoopView path(BeltPath path, Drive drive) {
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

    static FamilyRow row(VersionedFamily f, int toolSetCopies) {
        return new FamilyRow(
                f.family().code(),
                f.family().name(),
                f.family().drive(),
                f.family().drive().words(),
                f.family().interference(),
                f.version(),
                f.family().items().size(),
                f.family().remarks().size(),
                toolSetCopies,
                f.family().path().isPresent());
    }

    /**
     * A family in one of its versions.
     *
     * @param versions all of them, the newest first
     */
    static FamilyView family(EngineFamily family, int wanted, List<VersionedFamily> versions, FamilyJson json) {
        return new FamilyView(
                family.code(),
                family.name(),
                family.drive(),
                family.interference(),
                wanted,
                versions.get(0).version(),
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

    /** @param loop code of a loop of the build; none: the family's own path */
    static LoopView drawn(EngineFamily family, @Nullable String loop) {
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
}
