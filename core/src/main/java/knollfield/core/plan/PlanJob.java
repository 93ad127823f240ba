package knollfield.core.plan;

import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;

/**
 * A job to be placed.
 *
 * @param name how people call it: the registration
 * @param toolSet code of the tool set it needs
 * @param skills all of which its technician must have
 * @param slots half-hours of work at the book's pace, one or more
 * @param helperMinutes during which a second pair of hands is needed; shown, not planned
 * @param earliest first slot by which parts, vehicle and consent are there
 * @param earliestWhy what it waits for until then, such as "parts come with Friday's ferry"; empty where nothing
 * @param blockedDays days of the ruler on which the vehicle cannot be in the workshop
 * @param waits what its waiting may cost
 * @param offRoadPerDay what a day off the road costs, minor units, zero or more
 * @param pin what of its place is promised
 * @param known the place people know it at; empty where it has none
 */
public record PlanJob(
        long id,
        String name,
        String toolSet,
        Set<String> skills,
        int slots,
        int helperMinutes,
        int liftClass,
        int earliest,
        String earliestWhy,
        Set<Integer> blockedDays,
        OptionalLong fleetId,
        WaitingCost waits,
        long offRoadPerDay,
        Pin pin,
        Optional<Place> known) {

    public PlanJob {
        skills = Set.copyOf(skills);
        blockedDays = Set.copyOf(blockedDays);
        if (slots < 1 || offRoadPerDay < 0) {
            throw new IllegalArgumentException(
                    "%s: %d half-hours, off the road %d cannot be planned".formatted(name, slots, offRoadPerDay));
        }
    }

    /** What of a job's place may not change. */
    public sealed interface Pin {

        /** Nothing. */
        record Free() implements Pin {}

        /** It must start in this slot; technician and bay may change. */
        record AtStart(int slot) implements Pin {}

        /**
         * It stays where it is.
         *
         * @param begun its vehicle is on the lift, even where that is sooner than was planned
         */
        record AtPlace(Place place, boolean begun) implements Pin {
            public AtPlace(Place place) {
                this(place, false);
            }
        }

        /** What of a place is fixed: all of it where the owner was promised it, or its time has come. */
        static Pin of(Place place, boolean promised, int now) {
            return promised || place.start() < now ? new AtPlace(place) : new Free();
        }
    }

    /** This job, promised as {@code other} says. */
    public PlanJob with(Pin other) {
        return new PlanJob(
                id,
                name,
                toolSet,
                skills,
                slots,
                helperMinutes,
                liftClass,
                earliest,
                earliestWhy,
                blockedDays,
                fleetId,
                waits,
                offRoadPerDay,
                other,
                known);
    }

    /** This job with only so many half-hours left, to be begun at once. */
    PlanJob left(int slotsLeft) {
        return new PlanJob(
                id,
                name,
                toolSet,
                skills,
                slotsLeft,
                0,
                liftClass,
                0,
                "",
                Set.of(),
                OptionalLong.empty(),
                waits,
                offRoadPerDay,
                new Pin.Free(),
                known);
    }

    /** True where the job may be nowhere but on the board. */
    boolean mustBePlanned() {
        return !(pin instanceof Pin.Free);
    }

    /** What waiting from {@code today} to {@code day} may cost, whole minor units; zero where {@code day} is not later. */
    public long waiting(int today, int day) {
        return Math.round(waits.between(today, day));
    }
}
