package knollfield.app.job.card;

import knollfield.app.problem.Conflict;

/** Somebody answered the same step first. Both answers are told, so that nothing is lost. */
final class CardConflict extends Conflict {

    private static final long serialVersionUID = 1L;

    CardConflict(String by, String theirs, String yours) {
        super("%s entered \"%s\" at this step while you were at it. Yours, \"%s\", was not saved."
                .formatted(by, theirs, yours));
    }
}
