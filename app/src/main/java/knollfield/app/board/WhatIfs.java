package knollfield.app.board;

import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import knollfield.app.away.Absence;
import knollfield.app.away.Absences;
import knollfield.app.problem.Conflict;
import knollfield.core.plan.PlanChange;
import knollfield.core.plan.WhatIf;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What moves if something is away; and making it so. */
@Service
class WhatIfs {

    /** The answer is looked at while somebody waits, and must be the same when it is accepted. */
    private static final long SEED = 1;

    private static final long STEPS = 1_500;

    private final BoardCases cases;
    private final Boards boards;
    private final Absences absences;

    WhatIfs(BoardCases cases, Boards boards, Absences absences) {
        this.cases = cases;
        this.boards = boards;
        this.absences = absences;
    }

    /** The answer and the board it was given for. */
    record Looked(BoardCases.Gathered now, WhatIf.Answer answer) {}

    /** Looks; changes nothing. */
    Looked ask(Absence absence) {
        BoardCases.Gathered now = cases.now();
        BoardCases.Gathered then = cases.with(List.of(absence));
        return new Looked(now, WhatIf.of(now.plan(), now.places(), then.plan(), SEED, STEPS));
    }

    /**
     * Enters the absence and moves what it strikes.
     *
     * @param seen jobs that were said to move, as the person saw it
     * @throws Conflict where the answer is another by now; nothing is changed
     */
    @Transactional
    public void accept(Absence absence, Set<Long> seen) {
        Looked again = ask(absence);
        Set<Long> moving =
                again.answer().changes().stream().map(PlanChange::jobId).collect(Collectors.toSet());
        if (!moving.equals(seen)) {
            throw new Conflict("The board changed meanwhile: other jobs would move now. Look again.");
        }
        absences.add(absence);
        List<Boards.Move> moves = again.answer().changes().stream()
                .sorted(Comparator.comparing(PlanChange::jobId))
                .map(c -> new Boards.Move(c.jobId(), c.to()))
                .toList();
        if (!moves.isEmpty()) {
            boards.accept(moves, "moved for an absence");
        }
    }
}
