package knollfield.app.matching;

import java.util.List;
import java.util.Optional;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.FamilyRules;
import knollfield.app.matching.MatchingViews.ChoiceIn;
import knollfield.app.matching.MatchingViews.Choices;
import knollfield.app.matching.MatchingViews.FamilyName;
import knollfield.app.matching.MatchingViews.Given;
import knollfield.app.matching.MatchingViews.MatchingView;
import knollfield.app.matching.MatchingViews.OpenView;
import knollfield.app.matching.MatchingViews.RuleIn;
import knollfield.app.matching.MatchingViews.RuleView;
import knollfield.core.matching.FamilyRule;
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
        rules.add(
                MatchingViews.text(r.family()),
                MatchingViews.text(r.makeModel()),
                MatchingViews.text(r.engine()),
                MatchingViews.year(r.yearFrom()),
                MatchingViews.year(r.yearTo()));
        return view();
    }

    @PutMapping("/rules/{id}")
    MatchingView change(@PathVariable long id, @RequestBody RuleIn r) {
        rules.change(
                id,
                MatchingViews.text(r.family()),
                MatchingViews.text(r.makeModel()),
                MatchingViews.text(r.engine()),
                MatchingViews.year(r.yearFrom()),
                MatchingViews.year(r.yearTo()),
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
}
