package knollfield.app.documents;

import java.util.List;

/**
 * A job card for a day without tablets.
 *
 * @param facts what is to be known before the first step, a line each
 * @param phases in working order
 */
public record PaperCard(
        long job, String workshop, String registration, String makeModel, List<String> facts, List<Phase> phases) {

    public PaperCard {
        facts = List.copyOf(facts);
        phases = List.copyOf(phases);
    }

    /** Steps that belong together. */
    public record Phase(String title, List<Step> steps) {
        public Phase {
            steps = List.copyOf(steps);
        }
    }

    /**
     * One step.
     *
     * @param done it was done before the card was printed
     * @param notes what is to be known for it, safety words first
     * @param answer boxes and lines to be filled in by hand, or what was answered already
     * @param gate what the card does not go past; empty where none rests on the step
     */
    public record Step(String title, boolean done, List<String> notes, List<String> answer, String gate) {
        public Step {
            notes = List.copyOf(notes);
            answer = List.copyOf(answer);
        }
    }
}
