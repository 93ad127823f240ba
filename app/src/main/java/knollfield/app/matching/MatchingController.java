package knollfield.app.matching;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.FamilyRules;
import knollfield.core.matching.FamilyRule;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Matching rules and the vehicles they leave open; the manager's alone. */
@RestController
@RequestMapping("/api/setup/matching")
class MatchingController {

    private final Matching matching;
    private final FamilyRules rules;
    private final EngineBook book;

    MatchingController(Matching matching, FamilyRules rules, EngineBook book) {
        this.matching = matching;
        this.rules = rules;
        this.book = book;
    }

    record FamilyName(String code, String name) {}

    /**
     * @param fits vehicles in use that answer it
     * @param otherwise those of them that have another family
     */
    record RuleView(
            long id,
            String family,
            String familyName,
            String makeModel,
            String engine,
            @Nullable Integer yearFrom,
            @Nullable Integer yearTo,
            int fits,
            int otherwise,
            int version) {}

    /** @param year of first registration */
    record OpenView(
            long vehicleId,
            String registration,
            String makeModel,
            String engine,
            int year,
            List<FamilyName> families,
            int version) {}

    /** Vehicles without a family: those the rules give one, none, or several. */
    record MatchingView(List<RuleView> rules, List<OpenView> one, List<OpenView> none, List<OpenView> several) {}

    record RuleIn(
            @Nullable String family,
            @Nullable String makeModel,
            @Nullable String engine,
            @Nullable Integer yearFrom,
            @Nullable Integer yearTo,
            int version) {}

    /** @param family null: none */
    record ChoiceIn(long vehicleId, @Nullable String family, int version) {}

    record Choices(List<ChoiceIn> choices) {}

    /** @param before what takes it back, sent again */
    record Given(MatchingView now, List<ChoiceIn> before) {}

    @GetMapping
    MatchingView view() {
        List<Matching.Open> open = matching.open();
        return new MatchingView(
                matching.effects().stream().map(this::view).toList(),
                open.stream()
                        .filter(o -> o.families().size() == 1)
                        .map(this::view)
                        .toList(),
                open.stream()
                        .filter(o -> o.families().isEmpty())
                        .map(this::view)
                        .toList(),
                open.stream()
                        .filter(o -> o.families().size() > 1)
                        .map(this::view)
                        .toList());
    }

    @PostMapping("/rules")
    MatchingView add(@RequestBody RuleIn r) {
        rules.add(text(r.family()), text(r.makeModel()), text(r.engine()), year(r.yearFrom()), year(r.yearTo()));
        return view();
    }

    @PutMapping("/rules/{id}")
    MatchingView change(@PathVariable long id, @RequestBody RuleIn r) {
        rules.change(
                id,
                text(r.family()),
                text(r.makeModel()),
                text(r.engine()),
                year(r.yearFrom()),
                year(r.yearTo()),
                r.version());
        return view();
    }

    @DeleteMapping("/rules/{id}")
    MatchingView remove(@PathVariable long id, @RequestParam int version) {
        rules.remove(id, version);
        return view();
    }

    @PostMapping("/families")
    Given give(@RequestBody Choices c) {
        List<Matching.Choice> before = matching.give(c.choices().stream()
                .map(x -> new Matching.Choice(x.vehicleId(), Optional.ofNullable(x.family()), x.version()))
                .toList());
        return new Given(
                view(),
                before.stream()
                        .map(b -> new ChoiceIn(b.vehicleId(), b.family().orElse(null), b.version()))
                        .toList());
    }

    private RuleView view(Matching.Effect e) {
        FamilyRule r = e.stored().rule();
        return new RuleView(
                e.stored().id(),
                r.family(),
                name(r.family()).name(),
                r.makeModel(),
                r.engine(),
                r.yearFrom().isPresent() ? r.yearFrom().getAsInt() : null,
                r.yearTo().isPresent() ? r.yearTo().getAsInt() : null,
                e.fits(),
                e.otherwise(),
                e.stored().version());
    }

    private OpenView view(Matching.Open o) {
        return new OpenView(
                o.vehicle().id(),
                o.vehicle().registration(),
                o.vehicle().makeModel(),
                o.vehicle().engine(),
                o.vehicle().firstRegistered().getYear(),
                o.families().stream().map(this::name).toList(),
                o.vehicle().version());
    }

    private FamilyName name(String code) {
        return new FamilyName(code, book.find(code).map(f -> f.family().name()).orElse(code));
    }

    private static String text(@Nullable String value) {
        return Objects.requireNonNullElse(value, "");
    }

    private static OptionalInt year(@Nullable Integer year) {
        return year == null ? OptionalInt.empty() : OptionalInt.of(year);
    }
}
