package knollfield.app.practice;

import java.util.Arrays;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.PathView;
import knollfield.app.practice.PracticeViews.DecisionView;
import knollfield.app.practice.PracticeViews.LawBroken;
import knollfield.app.practice.PracticeViews.NextAnswer;
import knollfield.app.practice.PracticeViews.NextMarks;
import knollfield.app.practice.PracticeViews.NextMove;
import knollfield.app.practice.PracticeViews.NextQuestion;
import knollfield.app.practice.PracticeViews.RoundAnswers;
import knollfield.app.practice.PracticeViews.RoundMarks;
import knollfield.app.practice.PracticeViews.RoundPart;
import knollfield.app.practice.PracticeViews.RoundView;
import knollfield.app.problem.Checks;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import knollfield.core.engine.EngineFamily;
import knollfield.core.jobcard.Step;
import knollfield.core.jobcard.WhatNext;
import knollfield.core.practice.Exercise;
import knollfield.core.practice.Marks;
import knollfield.core.practice.Skill;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Rounds of practice; no job, vehicle or log is touched, and answers are kept only for those who wish it. */
@RestController
@RequestMapping("/api/practice")
class PracticeController {

    private final EngineBook book;
    private final Courses courses;

    PracticeController(EngineBook book, Courses courses) {
        this.book = book;
        this.courses = courses;
    }

    /** The round that {@code seed} stands for. */
    @GetMapping("/{family}")
    RoundView round(@PathVariable String family, @RequestParam long seed) {
        EngineFamily engine = engine(family);
        Exercise e = Exercise.of(PracticeViews.path(engine), engine.handling(), seed);
        return new RoundView(
                engine.code(),
                engine.name(),
                seed,
                PathView.of(PracticeViews.path(engine), engine.drive()),
                PracticeViews.path(engine).crankTeeth(),
                engine.handling().turningBackDegrees().isPresent()
                        ? engine.handling().turningBackDegrees().getAsInt()
                        : null,
                e.startTeeth(),
                e.wheels(),
                e.wheelOut(),
                e.degreesOut(),
                e.situation().words(),
                Arrays.stream(Exercise.Decision.values())
                        .map(d -> new DecisionView(d, d.words()))
                        .toList());
    }

    /** Scores a round by core's geometry. */
    @PostMapping("/marks")
    RoundMarks marks(@RequestBody RoundAnswers a) {
        new Checks()
                .that(a.turns().size() <= 500, "/turns", "More than 500 moves.")
                .that(
                        a.turns().stream().allMatch(t -> Math.abs(t) <= 1_000),
                        "/turns",
                        "A move is at most 1,000 teeth.")
                .that(a.order().size() <= 60, "/order", "More wheels than any engine has.")
                .orThrow();
        EngineFamily engine = engine(a.family());
        Marks marks = Marks.of(
                Exercise.of(PracticeViews.path(engine), engine.handling(), a.seed()),
                new Marks.Answers(a.turns(), a.order(), a.wheelOut(), a.teethOut(), a.decision()));
        courses.note(engine.code(), a.seed(), marks);
        return new RoundMarks(
                marks.points(),
                marks.parts().stream()
                        .map(p -> new RoundPart(p.skill().words(), p.points(), Marks.MOST, p.words()))
                        .toList());
    }

    /** What comes next on a family's card, as {@code seed} asks. */
    @GetMapping("/{family}/next")
    NextQuestion next(@PathVariable String family, @RequestParam long seed) {
        EngineFamily engine = engine(family);
        WhatNext question = PracticeViews.question(engine, seed);
        return new NextQuestion(
                engine.code(),
                engine.name(),
                seed,
                question.done().stream().map(Step::title).toList(),
                question.choices().stream()
                        .map(s -> new NextMove(s.code(), s.title()))
                        .toList());
    }

    /** The dry run's answer. */
    @PostMapping("/next")
    NextMarks next(@RequestBody NextAnswer a) {
        WhatNext.Verdict verdict = PracticeViews.question(engine(a.family()), a.seed())
                .answer(a.choice())
                .orElseThrow(() -> new InvalidInput("/choice", "The question has no such answer."));
        courses.note(a.family(), a.seed(), Skill.WHAT_NEXT, verdict.right() ? 1 : 0, 1);
        return new NextMarks(
                verdict.right(),
                verdict.breaches().stream()
                        .map(b -> new LawBroken(
                                b.laws().get(0).number(), b.laws().get(0).words(), b.words()))
                        .distinct()
                        .limit(3)
                        .toList(),
                verdict.may().stream().map(Step::title).toList(),
                verdict.may().stream()
                        .flatMap(s -> s.why().stream())
                        .findFirst()
                        .orElse(null));
    }

    private EngineFamily engine(String code) {
        return book.find(code)
                .orElseThrow(() -> new NotFound("Engine family %s is not on file.".formatted(code)))
                .family();
    }
}
