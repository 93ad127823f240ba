package knollfield.app.board;

import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import knollfield.core.plan.Place;
import knollfield.core.plan.Shop;
import knollfield.core.plan.WhatIf;
import org.jspecify.annotations.Nullable;

/** Plans and what-ifs, as they are shown. */
final class PlanViews {

    private PlanViews() {}

    /**
     * @param seed of the search; 1 where left out
     * @param steps of each of its two chains, for a run that repeats exactly; the usual time where left out
     */
    record PlanIn(@Nullable Long seed, @Nullable Long steps) {}

    record AcceptIn(List<Long> jobIds) {}

    /**
     * One job that would stand elsewhere.
     *
     * @param savesMinor what its own waiting and days off the road change by
     * @param needs jobs whose changes must be made with it, as they stand in its way now
     * @param tell the owner who counts on the time it has now, with the number to ring; null where nobody does
     */
    record PlanChangeView(
            long jobId,
            String registration,
            BoardViews.@Nullable PlaceView from,
            BoardViews.@Nullable PlaceView to,
            long savesMinor,
            Set<Long> needs,
            @Nullable String tell) {}

    /**
     * A run.
     *
     * @param done 0 to 1
     * @param changes what would move; empty while it runs, and where nothing better was found
     * @param boardChanged somebody changed the board since it began
     */
    record PlanView(
            long id,
            String by,
            Instant began,
            Planner.Phase phase,
            boolean stopped,
            double done,
            long steps,
            BoardViews.PlanCostView before,
            BoardViews.PlanCostView best,
            List<PlanChangeView> changes,
            boolean boardChanged) {}

    record LastPlanView(@Nullable PlanView plan) {}

    record StruckView(long jobId, String registration, List<String> words, boolean promiseBroken) {}

    /** What would move if the worse happened; money in minor units. */
    record BoardWhatIfView(
            BoardViews.PlanCostView before,
            BoardViews.PlanCostView after,
            List<StruckView> struck,
            List<PlanChangeView> changes,
            List<OnLiftView> onLift) {}

    record TakerView(long technicianId, String name) {}

    /**
     * A vehicle on the lift of whoever is away.
     *
     * @param minutesLeft of its work
     * @param takers who knows the work and is free for it
     */
    record OnLiftView(long jobId, String registration, String technician, int minutesLeft, List<TakerView> takers) {}

    record TakeOverIn(long jobId, long technicianId) {}

    /** @param takeOver who takes over what is on the lift; what is not named there stays open */
    record WhatIfAcceptIn(
            BoardJobViews.AbsenceIn absence,
            Set<Long> jobIds,
            @Nullable List<TakeOverIn> takeOver) {}

    static OnLiftView onLift(BoardCases.Gathered now, WhatIf.OnLift lift) {
        Shop shop = now.plan().shop();
        Place place = Objects.requireNonNull(now.places().get(lift.jobId()));
        return new OnLiftView(
                lift.jobId(),
                now.plan().job(lift.jobId()).name(),
                shop.technician(place.technicianId()).map(Shop.Technician::name).orElse(""),
                lift.slotsLeft() * BoardCases.MINUTES_PER_SLOT,
                lift.takers().stream()
                        .flatMap(id -> shop.technician(id).stream())
                        .map(t -> new TakerView(t.id(), t.name()))
                        .toList());
    }
}
