package knollfield.app.engine;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import knollfield.app.engine.EngineForms.Answers;
import knollfield.app.engine.EngineForms.Form;
import knollfield.core.engine.EngineFamily;
import knollfield.core.kinds.Extra;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.Kinds;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** A new engine family on one page: begun from a kind or a family on file, answered, proven while it grows, filed. */
@RestController
@RequestMapping("/api/setup/engine-forms")
class EngineFormController {

    private final EngineForms forms;
    private final EngineBook book;

    EngineFormController(EngineForms forms, EngineBook book) {
        this.forms = forms;
        this.book = book;
    }

    record ExtraChoice(Extra code, String words) {}

    /**
     * A kind one can begin from.
     *
     * @param has what the work on it renews and is timed by, in words
     * @param extras what it may have besides
     */
    record KindChoice(String code, String name, String drive, List<String> has, List<ExtraChoice> extras) {}

    record FamilyChoice(String code, String name) {}

    record Beginnings(List<KindChoice> kinds, List<FamilyChoice> families) {}

    /** Whether the work for a purpose is proven; {@code breaches} say what breaks, in words. */
    record PurposeProof(String name, boolean proven, int steps, List<String> breaches) {}

    record FormCheck(List<EngineViews.BookGapView> gaps, List<PurposeProof> purposes) {}

    record FiledFamily(String code, String name) {}

    @GetMapping
    Beginnings beginnings() {
        return new Beginnings(
                Kinds.all().stream().map(EngineFormController::choice).toList(),
                book.all().stream()
                        .map(f -> new FamilyChoice(f.family().code(), f.family().name()))
                        .toList());
    }

    private static KindChoice choice(Kind kind) {
        return new KindChoice(
                kind.code(),
                kind.name(),
                kind.build().loops().get(0).kind().words(),
                EngineForms.has(kind),
                Arrays.stream(Extra.values())
                        .filter(e -> e.fits(kind.build()))
                        .map(e -> new ExtraChoice(e, e.words()))
                        .toList());
    }

    /** The page as it is first shown, begun from one of the two. */
    @GetMapping("/begin")
    Form begin(
            @RequestParam @Nullable String like,
            @RequestParam @Nullable String copy,
            @RequestParam @Nullable List<Extra> extras) {
        return forms.begin(
                Optional.ofNullable(like),
                Optional.ofNullable(copy),
                extras == null || extras.isEmpty() ? Set.of() : EnumSet.copyOf(extras));
    }

    /** What the answers so far would block, and whether their cards are proven; files nothing. */
    @PostMapping("/check")
    FormCheck check(@RequestBody Answers answers) {
        EngineForms.Checked checked = forms.check(answers);
        return new FormCheck(
                checked.gaps().stream()
                        .map(g -> new EngineViews.BookGapView(g.what(), g.blocks()))
                        .toList(),
                checked.purposes().stream()
                        .map(p -> new PurposeProof(
                                p.name(),
                                p.proven(),
                                p.card().map(c -> c.steps().size()).orElse(0),
                                p.breaches().stream()
                                        .map(b -> "%s (law %d)"
                                                .formatted(
                                                        b.words(),
                                                        b.laws().get(0).number()))
                                        .toList()))
                        .toList());
    }

    @PostMapping
    FiledFamily file(@RequestBody Answers answers) {
        EngineFamily family = forms.file(Objects.requireNonNull(answers));
        return new FiledFamily(family.code(), family.name());
    }
}
