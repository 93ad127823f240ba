package knollfield.app.ahead;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import knollfield.app.due.Forecasts;
import knollfield.app.due.Kept;
import knollfield.app.due.VehicleFilter;
import knollfield.app.due.VehicleState;
import knollfield.app.security.Person;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleService.View;
import knollfield.core.due.Ahead;
import knollfield.core.due.Ahead.Track;
import knollfield.core.due.ItemForecast.Binding;
import org.springframework.stereotype.Service;

/** Moves all vehicles to a day and says which of them cross a limit on the way. */
@Service
class Crowd {

    private final Forecasts forecasts;
    private final WorkshopClock clock;
    private final Kept<Question, Walkers> kept = new Kept<>();

    Crowd(Forecasts forecasts, WorkshopClock clock) {
        this.forecasts = forecasts;
        this.clock = clock;
    }

    /**
     * A vehicle on the day.
     *
     * @param now where it stands today
     * @param then where it stands on the day
     */
    record Mark(VehicleState state, Ahead now, Ahead then) {}

    /**
     * The vehicles in the window on a day.
     *
     * @param size how many there are
     * @param without vehicles with no limit or no known start, which have no place in it
     * @param past how many are past a limit today already
     * @param crossers those that cross a limit after today and by the day, in the order in which they do
     * @param next the first day after the day on which vehicles cross, and how many
     */
    record Scene(
            LocalDate today,
            LocalDate date,
            int size,
            int without,
            int past,
            List<Mark> crossers,
            Optional<NextCrossing> next,
            Walkers walkers) {

        /** Every vehicle. */
        List<Mark> marks() {
            List<Mark> all = new ArrayList<>(size);
            for (int i = 0; i < size; i++) {
                all.add(walkers.mark(i, date));
            }
            return all;
        }

        /** Those inside a part of the window, both ends included, the closest to a limit first. */
        List<Mark> inside(double ageFrom, double ageTo, double distanceFrom, double distanceTo) {
            return marks().stream()
                    .filter(m -> m.then().age() >= ageFrom && m.then().age() <= ageTo)
                    .filter(m -> m.then().distance() >= distanceFrom && m.then().distance() <= distanceTo)
                    .sorted(Comparator.comparingDouble((Mark m) ->
                                    -Math.max(m.then().age(), m.then().distance()))
                            .thenComparing(m -> m.state().vehicle().registration()))
                    .toList();
        }

        /**
         * How many vehicles stand in each cell of a grid, row by row from the corner, distance rising by row; whatever is
         * beyond {@code reach} counts in the last cell.
         */
        int[] density(int cells, double reach) {
            int[] counts = new int[cells * cells];
            for (int i = 0; i < size; i++) {
                Track track = walkers.tracks[i];
                int row = cell(track.distanceOn(date), cells, reach);
                counts[row * cells + cell(track.ageOn(date), cells, reach)]++;
            }
            return counts;
        }

        private static int cell(double share, int cells, double reach) {
            return (int) Math.min(cells - 1.0, Math.max(0, Math.floor(share / reach * cells)));
        }

        /** Whether a mark crosses: 0 not by the day, 1 on the way, 2 past a limit today already. */
        int crossing(Mark mark) {
            return mark.then().crossedBy(today) ? 2 : mark.then().crossedBy(date) ? 1 : 0;
        }
    }

    record NextCrossing(LocalDate date, int vehicles) {}

    private record Question(View view, VehicleFilter filter) {}

    /**
     * The vehicles a filter lets through, with their ways through the window worked out; as arrays, because every
     * movement of the day's slider passes through all of them.
     */
    static final class Walkers {
        private final VehicleState[] states;
        private final Track[] tracks;
        private final long[] crossesDay;
        private final int without;

        private Walkers(List<VehicleState> states, List<Track> tracks, int without) {
            this.states = states.toArray(VehicleState[]::new);
            this.tracks = tracks.toArray(Track[]::new);
            this.crossesDay = tracks.stream().mapToLong(Track::crossesDay).toArray();
            this.without = without;
        }

        private Mark mark(int i, LocalDate date) {
            return new Mark(states[i], tracks[i].today(), tracks[i].on(date));
        }
    }

    Scene on(LocalDate date, Person person, VehicleFilter filter) {
        LocalDate today = clock.today();
        List<VehicleState> all = forecasts.worstFirst();
        Walkers walkers = kept.get(all, new Question(View.of(person), filter), q -> walkers(all, q, today));
        long todayDay = today.toEpochDay();
        long day = date.toEpochDay();
        int past = 0;
        long next = Track.NEVER;
        int nextCount = 0;
        List<Mark> crossers = new ArrayList<>();
        for (int i = 0; i < walkers.crossesDay.length; i++) {
            long crosses = walkers.crossesDay[i];
            if (crosses <= todayDay) {
                past++;
            } else if (crosses <= day) {
                crossers.add(walkers.mark(i, date));
            } else if (crosses < next) {
                next = crosses;
                nextCount = 1;
            } else if (crosses == next && next != Track.NEVER) {
                nextCount++;
            }
        }
        crossers.sort(Comparator.comparing((Mark m) -> m.then().crosses().orElse(LocalDate.MAX))
                .thenComparing(m -> m.state().vehicle().registration()));
        return new Scene(
                today,
                date,
                walkers.states.length,
                walkers.without,
                past,
                Collections.unmodifiableList(crossers),
                next == Track.NEVER
                        ? Optional.empty()
                        : Optional.of(new NextCrossing(LocalDate.ofEpochDay(next), nextCount)),
                walkers);
    }

    private static Walkers walkers(List<VehicleState> all, Question q, LocalDate today) {
        VehicleFilter.Test test = q.filter().on(today);
        List<VehicleState> states = new ArrayList<>();
        List<Track> tracks = new ArrayList<>();
        int without = 0;
        for (VehicleState s : all) {
            if (!test.matches(s) || !q.view().includes(s.vehicle())) {
                continue;
            }
            Optional<Track> track = Track.of(s.forecast());
            if (track.isPresent()) {
                states.add(s);
                tracks.add(track.get());
            } else {
                without++;
            }
        }
        return new Walkers(states, tracks, without);
    }

    static long countAt(List<Mark> marks, Binding wall) {
        return marks.stream().filter(m -> m.then().wall() == wall).count();
    }
}
