package knollfield.app.ahead;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import knollfield.app.ahead.Crowd.Mark;
import knollfield.app.ahead.Crowd.Scene;
import knollfield.app.problem.InvalidInput;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.due.Status;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import org.jspecify.annotations.Nullable;

/** The months ahead, as they are shown. */
final class AheadViews {

    private AheadViews() {}

    /**
     * Marks as columns of one length, so that many stay small. Shares are in thousandths of the limits.
     *
     * @param age share of the age limit on the day
     * @param distance share of the distance limit on the day
     * @param ageToday the same today
     * @param distanceToday the same today
     * @param interference 1 yes, 0 no, 2 unconfirmed
     * @param crossing 0 no limit by the day, 1 crosses on the way, 2 past a limit today already
     * @param wall the limit reached first: 0 distance, 1 age, 2 none
     */
    record MarksView(
            List<Long> vehicleId,
            List<String> registration,
            List<Integer> age,
            List<Integer> distance,
            List<Integer> ageToday,
            List<Integer> distanceToday,
            List<Integer> interference,
            List<Integer> crossing,
            List<Integer> wall) {}

    /**
     * How many vehicles stand where, for a crowd too large to mark.
     *
     * @param cells cells along each side
     * @param reach share of the limits at the far side of the last cell
     * @param counts row by row from the corner, distance rising by row, age within a row
     */
    record DensityView(int cells, double reach, int[] counts) {}

    record NextView(LocalDate date, int vehicles) {}

    /**
     * @param vehicles in the window
     * @param without vehicles that have no limit or no known start and so no place in it
     * @param past past a limit today already
     * @param atDistance cross their distance limit by the day
     * @param atAge cross their age limit by the day
     * @param minutes labour of the jobs of those that cross
     * @param moneyMinor their price
     * @param density null where every vehicle is marked
     * @param words the picture in words
     */
    record AheadView(
            LocalDate today,
            LocalDate date,
            int vehicles,
            int without,
            int past,
            int atDistance,
            int atAge,
            long minutes,
            long moneyMinor,
            MarksView marks,
            @Nullable DensityView density,
            @Nullable NextView next,
            List<String> words) {}

    record CrossRow(
            long vehicleId,
            String registration,
            String ownerName,
            @Nullable String fleet,
            String makeModel,
            Status status,
            String statusWords,
            Binding wall,
            @Nullable LocalDate crosses,
            @Nullable LocalDate actBy,
            int minutes,
            long moneyMinor,
            @Nullable Long exposurePerWeekMinor) {}

    record CrossList(int total, int offset, long minutes, long moneyMinor, List<CrossRow> rows) {}

    static List<Mark> chosen(
            Scene scene,
            @Nullable Double ageFrom,
            @Nullable Double ageTo,
            @Nullable Double distanceFrom,
            @Nullable Double distanceTo) {
        if (ageFrom == null && ageTo == null && distanceFrom == null && distanceTo == null) {
            return scene.crossers();
        }
        if (ageFrom == null || ageTo == null || distanceFrom == null || distanceTo == null) {
            throw new InvalidInput("/ageFrom", "A part of the window needs all four of its sides.");
        }
        return scene.inside(ageFrom, ageTo, distanceFrom, distanceTo);
    }

    static long minutes(List<Mark> marks) {
        return marks.stream().mapToLong(m -> m.state().plannedMinutes()).sum();
    }

    static long money(List<Mark> marks) {
        return marks.stream().mapToLong(m -> m.state().plannedMinor()).sum();
    }

    static CrossRow row(Mark mark) {
        Vehicle v = mark.state().vehicle();
        return new CrossRow(
                v.id(),
                v.registration(),
                v.ownerName(),
                v.fleet().map(Fleet::name).orElse(null),
                v.makeModel(),
                mark.state().forecast().status(),
                mark.state().forecast().statusWords(),
                mark.then().wall(),
                mark.then().crosses().orElse(null),
                mark.state().forecast().actBy().orElse(null),
                mark.state().plannedMinutes(),
                mark.state().plannedMinor(),
                mark.state().exposurePerWeekMinor().isPresent()
                        ? mark.state().exposurePerWeekMinor().getAsLong()
                        : null);
    }

    static MarksView marks(List<Mark> marks, Scene scene) {
        MarksView view = new MarksView(
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()),
                new ArrayList<>(marks.size()));
        for (Mark m : marks) {
            view.vehicleId().add(m.state().vehicle().id());
            view.registration().add(m.state().vehicle().registration());
            view.age().add(thousandths(m.then().age()));
            view.distance().add(thousandths(m.then().distance()));
            view.ageToday().add(thousandths(m.now().age()));
            view.distanceToday().add(thousandths(m.now().distance()));
            Interference interference =
                    m.state().family().map(EngineFamily::interference).orElse(Interference.UNKNOWN);
            view.interference().add(interference == Interference.YES ? 1 : interference == Interference.NO ? 0 : 2);
            view.crossing().add(scene.crossing(m));
            view.wall().add(wall(m.then().wall()));
        }
        return view;
    }

    static int wall(Binding wall) {
        return switch (wall) {
            case DISTANCE -> 0;
            case AGE -> 1;
            case NONE -> 2;
        };
    }

    static int thousandths(double share) {
        return (int) Math.round(1_000 * share);
    }
}
