package knollfield.core.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

class LevellingTest {

    private static final int DAY = 480;

    /** What a plan has above the room, minutes, and what it costs, counted anew. */
    private record Worth(long over, long cost) implements Comparable<Worth> {

        static Worth of(List<Levelling.Vehicle> vehicles, List<Levelling.Room> room, int[] at) {
            long over = 0;
            for (int m = 0; m < room.size(); m++) {
                int days = 0;
                long minutes = 0;
                for (int i = 0; i < at.length; i++) {
                    if (at[i] == m) {
                        days += vehicles.get(i).offRoadDays();
                        minutes += vehicles.get(i).minutes();
                    }
                }
                over += (long) Math.max(0, days - room.get(m).vehicleDays()) * DAY
                        + Math.max(0, minutes - room.get(m).minutes());
            }
            long cost = IntStream.range(0, at.length)
                    .mapToLong(i -> at[i] == vehicles.get(i).month()
                            ? 0
                            : vehicles.get(i).earlyMinor().get(at[i]))
                    .sum();
            return new Worth(over, cost);
        }

        @Override
        public int compareTo(Worth o) {
            return over == o.over ? Long.compare(cost, o.cost) : Long.compare(over, o.over);
        }
    }

    /** The best of every plan there is. */
    private static Worth enumerated(List<Levelling.Vehicle> vehicles, List<Levelling.Room> room, int i, int[] at) {
        if (i == at.length) {
            return Worth.of(vehicles, room, at);
        }
        Levelling.Vehicle v = vehicles.get(i);
        Worth best = new Worth(Long.MAX_VALUE, Long.MAX_VALUE);
        for (int m = v.earlyMinor().isEmpty() ? v.month() : 0; m <= v.month(); m++) {
            at[i] = m;
            Worth w = enumerated(vehicles, room, i + 1, at);
            best = w.compareTo(best) < 0 ? w : best;
        }
        return best;
    }

    private static Worth worth(Levelling l, List<Levelling.Vehicle> vehicles, List<Levelling.Room> room) {
        return Worth.of(
                vehicles, room, l.month().stream().mapToInt(Integer::intValue).toArray());
    }

    private static Levelling.Vehicle vehicle(Random random, int month, boolean movable) {
        long perMonth = 200 + random.nextInt(4_000);
        List<Long> early = LongStream.range(0, month)
                .map(m -> (month - m) * perMonth + random.nextInt(300))
                .boxed()
                .toList();
        return new Levelling.Vehicle(
                month, 1 + random.nextInt(3), 120 + random.nextInt(900), movable ? early : List.of());
    }

    static LongStream seeds() {
        return LongStream.rangeClosed(1, 60);
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void smallFleetsAreLevelledToTheBestOfAllPlans(long seed) {
        Random random = new Random(seed);
        int months = 4 + random.nextInt(2);
        List<Levelling.Vehicle> vehicles = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            vehicles.add(vehicle(random, random.nextInt(months), random.nextInt(5) > 0));
        }
        // some with room for all of them, some with too little wherever they stand
        List<Levelling.Room> room = IntStream.range(0, months)
                .mapToObj(m -> new Levelling.Room(
                        1 + random.nextInt(5), seed % 3 == 0 ? Long.MAX_VALUE : 300 + random.nextInt(1_800)))
                .toList();

        Levelling levelled = Levelling.of(vehicles, room, DAY);
        Levelling byTheTree = Levelling.of(vehicles, room, DAY, 0, 400_000);
        Levelling bounded = Levelling.of(vehicles, room, DAY, 0, 0);

        Worth best = enumerated(vehicles, room, 0, new int[vehicles.size()]);
        assertThat(worth(levelled, vehicles, room)).isEqualTo(best);
        assertThat(levelled.costMinor()).isEqualTo(best.cost());
        assertThat(levelled.over().minutes()).isEqualTo(best.over());
        assertThat(levelled.isBest()).isTrue();
        assertThat(worth(byTheTree, vehicles, room)).isEqualTo(best);
        assertThat(byTheTree.isBest()).isTrue();
        assertThat(bounded.leastOver()).isLessThanOrEqualTo(best.over());
        if (bounded.over().minutes() == best.over()) {
            assertThat(bounded.leastMinor()).isLessThanOrEqualTo(best.cost());
        }
    }

    @ParameterizedTest
    @ValueSource(longs = {21, 22, 23, 24})
    void aFleetOfSixtyKeepsItsLawsAndSaysHowFarItMayBeFromTheBest(long seed) {
        Random random = new Random(seed);
        List<Levelling.Vehicle> vehicles = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            // most of them fall together, as a fleet that was bought together does
            vehicles.add(vehicle(random, random.nextInt(3) > 0 ? 8 + random.nextInt(3) : random.nextInt(24), true));
        }
        List<Levelling.Room> room = IntStream.range(0, 24)
                .mapToObj(m -> new Levelling.Room(8, 60 * 80))
                .toList();

        Levelling levelled = Levelling.of(vehicles, room, DAY);

        for (int i = 0; i < vehicles.size(); i++) {
            assertThat(levelled.month().get(i)).isBetween(0, vehicles.get(i).month());
        }
        Worth worth = worth(levelled, vehicles, room);
        assertThat(levelled.costMinor()).isEqualTo(worth.cost()).isPositive();
        assertThat(levelled.over().minutes()).isEqualTo(worth.over());
        assertThat(levelled.over().minutes())
                .isLessThan(Levelling.left(vehicles, room, DAY).minutes());
        assertThat(levelled.leastMinor()).isLessThanOrEqualTo(levelled.costMinor());
        if (levelled.over().minutes() == 0) {
            assertThat((double) levelled.costMinor()).isLessThanOrEqualTo(levelled.leastMinor() * 1.03);
        }
        // more room never costs more
        Levelling roomier = Levelling.of(
                vehicles,
                room.stream()
                        .map(r -> new Levelling.Room(r.vehicleDays() + 6, r.minutes() + 60 * 60))
                        .toList(),
                DAY);
        assertThat(roomier.over().minutes()).isLessThanOrEqualTo(levelled.over().minutes());
        assertThat(roomier.costMinor()).isLessThan(levelled.costMinor());
    }

    @Test
    void whereNothingIsAboveTheRoomNothingMoves() {
        List<Levelling.Vehicle> vehicles = List.of(
                new Levelling.Vehicle(2, 1, 300, List.of(0L, 0L)), new Levelling.Vehicle(2, 1, 300, List.of(5L, 5L)));
        List<Levelling.Room> room = List.of(
                new Levelling.Room(2, Long.MAX_VALUE),
                new Levelling.Room(2, Long.MAX_VALUE),
                new Levelling.Room(2, Long.MAX_VALUE));

        Levelling levelled = Levelling.of(vehicles, room, DAY);

        assertThat(levelled.month()).containsExactly(2, 2);
        assertThat(levelled.costMinor()).isZero();
        assertThat(levelled.isBest()).isTrue();
        assertThat(Levelling.of(List.of(), room, DAY).month()).isEmpty();
    }

    @Test
    void whatIsDueNowStaysAndWhatItTakesTooMuchIsSaid() {
        List<Levelling.Vehicle> vehicles = List.of(
                new Levelling.Vehicle(0, 2, 600, List.of()),
                new Levelling.Vehicle(0, 2, 600, List.of()),
                new Levelling.Vehicle(1, 1, 300, List.of(1_000L)),
                new Levelling.Vehicle(1, 1, 300, List.of(900L)));
        List<Levelling.Room> room =
                List.of(new Levelling.Room(3, Long.MAX_VALUE), new Levelling.Room(1, Long.MAX_VALUE));

        Levelling levelled = Levelling.of(vehicles, room, DAY);

        assertThat(levelled.month())
                .as("a day over either way; the free one is kept")
                .containsExactly(0, 0, 1, 1);
        assertThat(levelled.over()).isEqualTo(new Levelling.Over(2, 0, 2 * DAY));
        assertThat(levelled.isBest()).isTrue();
    }

    @Test
    void whatCannotBeLevelledIsRefused() {
        assertThatThrownBy(() -> new Levelling.Vehicle(2, 1, 60, List.of(1L))).hasMessageContaining("levelled");
        assertThatThrownBy(() -> new Levelling.Vehicle(1, 1, 60, List.of(-1L))).hasMessageContaining("levelled");
        assertThatThrownBy(() -> Levelling.of(
                        List.of(new Levelling.Vehicle(1, 1, 60, List.of())), List.of(new Levelling.Room(1, 1)), DAY))
                .hasMessageContaining("beyond");
    }
}
