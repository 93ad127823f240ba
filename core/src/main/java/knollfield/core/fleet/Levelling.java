package knollfield.core.fleet;

import java.util.List;

/**
 * A fleet's months made level: which vehicles to bring forward, never past the month of their act-by day, so that as little as
 * can be lies above what the fleet can spare and the workshop gives it, and of such plans the cheapest.
 *
 * <p>A generalized assignment with two capacities a month. A plan is sought by moves, exchanges and annealing; a bound by
 * Lagrangian relaxation of the capacities (M. L. Fisher, Management Science 27 (1981), pages 1 to 18) with subgradient steps;
 * branch and bound with that bound closes the rest, up to a number of nodes.
 *
 * @param month for each vehicle, in the order given, the month it comes to stand in
 * @param costMinor of bringing forward, minor units
 * @param leastMinor no plan with so little above the room costs less, minor units
 * @param over what lies above the room
 * @param leastOver no plan has less above the room, minutes
 */
public record Levelling(List<Integer> month, long costMinor, long leastMinor, Over over, long leastOver) {

    private static final int NODES = 400_000;
    private static final int ANNEALINGS = 3;

    public Levelling {
        month = List.copyOf(month);
    }

    /** True where it is known that no plan has less above the room, nor costs less with as little. */
    public boolean isBest() {
        return leastOver >= over.minutes() && leastMinor >= costMinor;
    }

    /**
     * A vehicle to place.
     *
     * @param month it stands in when it is left, 0 or more
     * @param offRoadDays vehicle-days its job takes, zero or more
     * @param minutes of work, zero or more
     * @param earlyMinor what bringing it forward to each month before its own costs, minor units, zero or more; empty where it
     *     cannot be moved: it is due now, or promised
     */
    public record Vehicle(int month, int offRoadDays, int minutes, List<Long> earlyMinor) {

        public Vehicle {
            earlyMinor = List.copyOf(earlyMinor);
            if (month < 0
                    || offRoadDays < 0
                    || minutes < 0
                    || (!earlyMinor.isEmpty() && earlyMinor.size() != month)
                    || earlyMinor.stream().anyMatch(c -> c < 0)) {
                throw new IllegalArgumentException("month %d, %d days, %d min, %s cannot be levelled"
                        .formatted(month, offRoadDays, minutes, earlyMinor));
            }
        }
    }

    /**
     * What a month has room for.
     *
     * @param vehicleDays that the fleet can spare, zero or more
     * @param minutes of work that the workshop gives it, zero or more; {@link Long#MAX_VALUE} where nobody has set any
     */
    public record Room(int vehicleDays, long minutes) {}

    /**
     * What lies above the room of all months together.
     *
     * @param minutes both as minutes of work, a vehicle-day as a whole day of it
     */
    public record Over(int vehicleDays, long workMinutes, long minutes) {}

    /**
     * Levels {@code vehicles} over {@code room}.
     *
     * @param room of one month after the other; at least as many as the vehicles' months need
     * @param minutesPerDay of work on a day, above zero
     */
    public static Levelling of(List<Vehicle> vehicles, List<Room> room, int minutesPerDay) {
        if (vehicles.stream().anyMatch(v -> v.month() >= room.size())) {
            throw new IllegalArgumentException("a vehicle stands beyond the last of %d months".formatted(room.size()));
        }
        return of(vehicles, room, minutesPerDay, ANNEALINGS, NODES);
    }

    /** The same with so many annealings before the tree is searched, and so many of its nodes: each part by itself. */
    static Levelling of(List<Vehicle> vehicles, List<Room> room, int minutesPerDay, int annealings, int mostNodes) {
        return new LevelSolver(vehicles, room, minutesPerDay, mostNodes).solve(annealings);
    }

    /** What lies above {@code room} where every vehicle is left in its month. */
    public static Over left(List<Vehicle> vehicles, List<Room> room, int minutesPerDay) {
        return new LevelSolver(vehicles, room, minutesPerDay, 0).over();
    }
}
