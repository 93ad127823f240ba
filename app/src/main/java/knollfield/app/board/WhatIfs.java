package knollfield.app.board;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import knollfield.app.away.Absence;
import knollfield.app.away.Absences;
import knollfield.app.job.Jobs;
import knollfield.app.problem.Conflict;
import knollfield.core.plan.PlanChange;
import knollfield.core.plan.Ruler;
import knollfield.core.plan.Shop;
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
    private final Jobs jobs;

    WhatIfs(BoardCases cases, Boards boards, Absences absences, Jobs jobs) {
        this.jobs = jobs;
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
     * @param takeOver who takes over what is on the lift, by job
     * @throws Conflict where the answer is another by now; nothing is changed
     */
    @Transactional
    public void accept(Absence absence, Set<Long> seen, Map<Long, Long> takeOver) {
        Looked again = ask(absence);
        Set<Long> moving =
                again.answer().changes().stream().map(PlanChange::jobId).collect(Collectors.toSet());
        if (!moving.equals(seen)) {
            throw new Conflict("The board changed meanwhile: other jobs would move now. Look again.");
        }
        Map<Long, WhatIf.OnLift> onLift =
                again.answer().onLift().stream().collect(Collectors.toMap(WhatIf.OnLift::jobId, Function.identity()));
        boolean free = takeOver.values().stream().distinct().count() == takeOver.size()
                && takeOver.entrySet().stream()
                        .allMatch(t -> onLift.containsKey(t.getKey())
                                && onLift.get(t.getKey()).takers().contains(t.getValue()));
        if (!free) {
            throw new Conflict("Whoever was to take over is no longer free, or the job has ended. Look again.");
        }
        absences.add(absence);
        onLift.forEach((job, lift) -> Optional.ofNullable(takeOver.get(job))
                .ifPresent(technician -> handOver(again.now(), lift, technician)));
        List<Boards.Move> moves = again.answer().changes().stream()
                .sorted(Comparator.comparing(PlanChange::jobId))
                .map(c -> new Boards.Move(c.jobId(), c.to()))
                .toList();
        if (!moves.isEmpty()) {
            boards.accept(moves, "moved for an absence");
        }
    }

    /** From the taker's next half-hour, for as long as is left. */
    private void handOver(BoardCases.Gathered now, WhatIf.OnLift lift, long technicianId) {
        Ruler ruler = now.ruler();
        Shop.Technician taker = now.plan().shop().technician(technicianId).orElseThrow();
        int[] slots = IntStream.range(now.plan().shop().now(), ruler.slots())
                .filter(s -> taker.worksIn(s, ruler))
                .limit(lift.slotsLeft())
                .toArray();
        jobs.handOver(
                lift.jobId(),
                technicianId,
                taker.name(),
                ruler.startOf(slots[0]),
                ruler.endOf(slots[slots.length - 1] + 1));
    }
}
