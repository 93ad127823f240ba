package knollfield.app.practice;

import java.util.List;
import knollfield.app.engine.PathView;
import knollfield.app.problem.InvalidInput;
import knollfield.core.engine.BeltPath;
import knollfield.core.engine.EngineFamily;
import knollfield.core.jobcard.WhatNext;
import knollfield.core.practice.Exercise;
import org.jspecify.annotations.Nullable;

/** Practice jobs, as they are shown and asked for. */
final class PracticeViews {

    private PracticeViews() {}

    record DecisionView(Exercise.Decision code, String words) {}

    /**
     * @param startTeeth crank teeth from where it stands to its marks
     * @param wheels in no order
     * @param degreesOut by which the mark of {@code wheelOut} stands beside its pointer; this is what is drawn
     */
    record RoundView(
            String family,
            String name,
            long seed,
            PathView path,
            int crankTeeth,
            @Nullable Integer turningBackDegrees,
            int startTeeth,
            List<String> wheels,
            String wheelOut,
            double degreesOut,
            String situation,
            List<DecisionView> decisions) {}

    record RoundAnswers(
            String family,
            long seed,
            List<Integer> turns,
            List<String> order,
            String wheelOut,
            int teethOut,
            Exercise.Decision decision) {}

    record RoundPart(String name, int points, int most, String words) {}

    record RoundMarks(int points, List<RoundPart> parts) {}

    record NextMove(String code, String title) {}

    /** @param done titles of what is done so far, in order */
    record NextQuestion(String family, String name, long seed, List<String> done, List<NextMove> choices) {}

    record NextAnswer(String family, long seed, String choice) {}

    record LawBroken(int law, String name, String words) {}

    /**
     * @param broken what it would break, the nearest first
     * @param may titles of the choices that may be done now
     * @param why the card has its own next step there; null where none is told
     */
    record NextMarks(
            boolean right,
            List<LawBroken> broken,
            List<String> may,
            @Nullable String why) {}

    static WhatNext question(EngineFamily engine, long seed) {
        return WhatNext.of(engine, seed)
                .orElseThrow(() -> new InvalidInput(
                        "/family", "%s gives no proven card to practise on.".formatted(engine.name())));
    }

    static BeltPath path(EngineFamily engine) {
        return engine.path()
                .orElseThrow(() -> new InvalidInput(
                        "/family", "%s has no drawing on file to practise on.".formatted(engine.name())));
    }
}
