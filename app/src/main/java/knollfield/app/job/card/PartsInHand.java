package knollfield.app.job.card;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.parts.CatalogPart;
import knollfield.app.parts.Catalogue;
import knollfield.core.bundle.Bundle;
import knollfield.core.bundle.BundleLine;
import knollfield.core.bundle.FitCheck;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.Part;
import knollfield.core.engine.ToolSet;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Loop;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardState;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The parts and tools of a card as hands go through them: what was ordered, what it must measure, what was seen. */
@Component
class PartsInHand {

    private final Jobs jobs;
    private final Catalogue catalogue;

    PartsInHand(Jobs jobs, Catalogue catalogue) {
        this.jobs = jobs;
        this.catalogue = catalogue;
    }

    /** @param teeth teeth or links; what nobody knows is null */
    record PartFigures(
            @Nullable Integer teeth,
            @Nullable Double widthMm,
            @Nullable Double lengthMm,
            @Nullable Double thicknessMm,
            @Nullable String side) {}

    /**
     * A part of the job.
     *
     * @param item code of the item it is; null for what follows from an opened joint, which is not measured
     * @param number as ordered; empty where the owner brings it
     * @param counted teeth or links
     * @param book what the ordered part has, by catalogue and book
     * @param seen as it was measured in hand; null where nobody has
     * @param wrong what does not agree, one sentence each
     * @param notes what is to be known of it, such as a variant that is not settled
     */
    record PartLine(
            @Nullable String item,
            String name,
            String number,
            String partName,
            int quantity,
            boolean ownerSupplied,
            String counted,
            PartFigures book,
            @Nullable PartFigures seen,
            List<String> wrong,
            List<String> notes) {}

    /**
     * What is sold together and holds parts of this job.
     *
     * @param holds names of the job's items in it
     * @param lacks names of the job's items that are not
     * @param leavesOut what the book says it lacks, in words; may be empty
     */
    record KitLine(String number, String name, List<String> holds, List<String> lacks, String leavesOut) {}

    /**
     * A piece of the tool set.
     *
     * @param use what it holds; empty where the book does not say
     * @param failed what was reported of it; null where nothing
     */
    record ToolPieceView(
            String name, String use, int count, @Nullable String failed) {}

    List<PartLine> parts(Job job, CardState state) {
        EngineFamily family = jobs.family(job);
        Bundle bundle = jobs.bundle(job);
        Map<String, CatalogPart> catalogued = catalogue.ofFamily(job.familyCode()).stream()
                .collect(Collectors.toMap(CatalogPart::number, Function.identity(), (a, b) -> a));
        List<PartLine> lines = new ArrayList<>();
        Set<String> items = state.scope().items();
        for (BundleLine line : bundle.lines()) {
            if (line.kind() == BundleLine.Kind.ITEM) {
                if (items.contains(line.code())) {
                    family.item(line.code()).ifPresent(i -> lines.add(item(job, state, family, i, catalogued)));
                }
            } else if (line.included()) {
                line.parts().forEach(p -> lines.add(follows(line, p)));
            }
        }
        return lines;
    }

    private PartLine item(
            Job job, CardState state, EngineFamily family, Item item, Map<String, CatalogPart> catalogued) {
        boolean owners = job.scope().ownerSupplied().contains(item.code());
        String number = jobs.fittedPart(job, item);
        Optional<CatalogPart> part = Optional.ofNullable(catalogued.get(number));
        FitCheck.Data book = part.map(CatalogPart::fit).orElseGet(FitCheck.Data::unknown);
        Optional<Loop> loop = loop(family, item);
        if (book.teeth().isEmpty() && loop.isPresent()) {
            book = new FitCheck.Data(
                    OptionalInt.of(loop.get().teeth()),
                    book.widthMm(),
                    book.lengthMm(),
                    book.thicknessMm(),
                    book.side());
        }
        Optional<FitCheck.Data> seen = Optional.ofNullable(state.partsMeasured().get(item.code()));
        FitCheck.Data ordered = book;
        return new PartLine(
                item.code(),
                item.name(),
                owners ? "" : number,
                part.map(CatalogPart::name).orElse(item.part().name()),
                item.part().quantity(),
                owners,
                family.drive().counted(),
                figures(book),
                seen.map(PartsInHand::figures).orElse(null),
                seen.map(s -> FitCheck.compare(ordered, s).stream()
                                .map(FitCheck.Mismatch::words)
                                .toList())
                        .orElse(List.of()),
                unsettled(job, family, item));
    }

    /** The loop that a belt or chain is; where an item renews several, none is told apart. */
    private static Optional<Loop> loop(EngineFamily family, Item item) {
        List<Loop> loops = family.build().stream().flatMap(b -> loops(b, item)).toList();
        return loops.size() == 1 ? Optional.of(loops.get(0)) : Optional.empty();
    }

    private static Stream<Loop> loops(Build build, Item item) {
        return build.renews().stream()
                .filter(r -> r.item().equals(item.code()))
                .flatMap(r -> r.things().stream())
                .flatMap(t -> build.loops().stream().filter(l -> l.code().equals(t)));
    }

    private List<String> unsettled(Job job, EngineFamily family, Item item) {
        return family.variants().stream()
                .filter(v -> !job.scope().variants().containsKey(v.code()))
                .filter(v -> v.choices().stream().anyMatch(c -> c.parts().containsKey(item.code())))
                .map(v -> "%s decides which one: %s".formatted(v.name(), v.howToTell()))
                .toList();
    }

    private static PartLine follows(BundleLine line, Part part) {
        return new PartLine(
                null,
                line.name(),
                part.number(),
                part.name(),
                part.quantity(),
                false,
                "",
                figures(FitCheck.Data.unknown()),
                null,
                List.of(),
                List.of());
    }

    List<KitLine> kits(Job job, CardState state) {
        EngineFamily family = jobs.family(job);
        Set<String> items = state.scope().items();
        return family.kits().stream()
                .filter(k -> k.items().stream().anyMatch(items::contains))
                .map(k -> new KitLine(
                        k.number(),
                        k.name(),
                        CardViews.names(
                                family,
                                k.items().stream().filter(items::contains).collect(Collectors.toSet())),
                        CardViews.names(
                                family,
                                items.stream()
                                        .filter(i -> !k.items().contains(i))
                                        .collect(Collectors.toSet())),
                        k.leavesOut()))
                .toList();
    }

    static List<ToolPieceView> tools(CardState state) {
        EngineFamily family = state.plan().basis().family();
        Map<String, CardEvent.ToolFailed> failed = state.toolsFailed();
        return state.plan().toolPieces().stream()
                .map(name -> {
                    Optional<ToolSet.Piece> listed = family.tools().pieces().stream()
                            .filter(p -> p.name().equals(name))
                            .findFirst();
                    return new ToolPieceView(
                            name,
                            listed.map(p -> p.use()).orElse(""),
                            listed.map(p -> p.count()).orElse(1),
                            Optional.ofNullable(failed.get(name))
                                    .map(f -> (f.missing() ? "missing" : "broken")
                                            + (f.words().isBlank()
                                                    ? ""
                                                    : ", " + f.words().strip()))
                                    .orElse(null));
                })
                .toList();
    }

    private static PartFigures figures(FitCheck.Data d) {
        return new PartFigures(
                d.teeth().isPresent() ? d.teeth().getAsInt() : null,
                d.widthMm().isPresent() ? d.widthMm().getAsDouble() : null,
                d.lengthMm().isPresent() ? d.lengthMm().getAsDouble() : null,
                d.thicknessMm().isPresent() ? d.thicknessMm().getAsDouble() : null,
                d.side().orElse(null));
    }
}
