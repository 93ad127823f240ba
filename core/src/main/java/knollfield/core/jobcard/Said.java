package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.work.Breach;
import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;

/**
 * Law 18 on a card as people read it: a caution of the book stands on every step that touches its thing, what is made
 * tight by a figure asks for it, and every new part is compared by its name.
 */
final class Said {

    private final Anatomy book;
    private final List<Breach> breaches = new ArrayList<>();

    private Said(Anatomy book) {
        this.book = book;
    }

    /** What {@code phases} leave unsaid. */
    static List<Breach> missing(Anatomy book, List<Phase> phases) {
        Said said = new Said(book);
        phases.stream().flatMap(p -> p.steps().stream()).forEach(said::step);
        return said.breaches;
    }

    private void step(Step step) {
        Set<String> things = touched(step.operations());
        book.build().cautions().stream()
                .filter(c -> things.contains(c.thing()))
                .filter(c -> step.caution().filter(s -> s.contains(c.words())).isEmpty())
                .forEach(c -> breach(step, c.thing(), "its caution does not stand on \"%s\"".formatted(step.title())));
        for (Operation o : step.operations()) {
            if (o.verb() == Verb.TIGHTEN && asksForAFigure(o) && step.task() instanceof Task.Tick) {
                breach(step, o.thing(), "its figure is not asked for at \"%s\"".formatted(step.title()));
            }
            if (o.verb() == Verb.COMPARE && !(step.task() instanceof Task.Check)) {
                breach(step, o.thing(), "what it is compared by is not said at \"%s\"".formatted(step.title()));
            }
        }
        if (step.task() instanceof Task.Check check) {
            long compared = step.operations().stream()
                    .filter(o -> o.verb() == Verb.COMPARE)
                    .count();
            if (check.points().size() < compared) {
                breach(step, step.code(), "not every new part is named at \"%s\"".formatted(step.title()));
            }
        }
    }

    /** What a step touches, parts by their joints too. */
    private Set<String> touched(List<Operation> operations) {
        return operations.stream()
                .flatMap(o -> Stream.concat(
                        Stream.of(o.thing()), book.joint(o.thing()).stream().flatMap(j -> j.holds().stream())))
                .collect(Collectors.toSet());
    }

    private boolean asksForAFigure(Operation tighten) {
        return book.joint(tighten.thing())
                .filter(Joint::critical)
                .map(j -> j.stages().get(tighten.stage() - 1))
                .filter(s -> s.torque().isPresent() || s.angleDegrees().isPresent())
                .isPresent();
    }

    private void breach(Step step, String thing, String words) {
        breaches.add(new Breach(List.of(Law.SAID), step.operations().stream().findFirst(), thing, words));
    }
}
