package knollfield.core.plan;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import java.util.Set;

/** Invented cases to plan. */
final class Cases {

    static final LocalDate MONDAY = LocalDate.of(2026, 11, 30);
    static final Shop.Prices PRICES = new Shop.Prices(12, 20, 300);

    private Cases() {}

    static Shop.Technician technician(long id, String name, Integer... daysOff) {
        return new Shop.Technician(id, name, Set.of("BELT"), 100, Set.of(daysOff));
    }

    static Shop shop(
            int days, int now, List<Shop.Technician> people, List<Shop.Bay> bays, List<Shop.ToolSet> sets, int cap) {
        return new Shop(
                new Ruler(MONDAY, days),
                0,
                now,
                people,
                bays,
                sets,
                List.of(new Shop.Fleet(7, "Post vans", cap)),
                PRICES);
    }

    static Shop.Bay bay(long id, int liftClass) {
        return new Shop.Bay(id, "Bay " + id, liftClass, Set.of());
    }

    static Shop.ToolSet set(String code, int copies) {
        return new Shop.ToolSet(code, code, copies, Map.of());
    }

    /** A belt job of {@code slots} half-hours for a light vehicle of no fleet, on the tool set CAL. */
    static PlanJob job(long id, int slots, long exposurePerDay, int actBy) {
        return job(id, slots, new WaitingCost.Doubling(exposurePerDay, actBy));
    }

    static PlanJob job(long id, int slots, WaitingCost waits) {
        return new PlanJob(
                id,
                "SKR " + id,
                "CAL",
                Set.of("BELT"),
                slots,
                0,
                1,
                0,
                "",
                Set.of(),
                OptionalLong.empty(),
                waits,
                10,
                new PlanJob.Pin.Free(),
                Optional.empty());
    }

    static PlanJob ofFleet(PlanJob j) {
        return new PlanJob(
                j.id(),
                j.name(),
                j.toolSet(),
                j.skills(),
                j.slots(),
                j.helperMinutes(),
                j.liftClass(),
                j.earliest(),
                j.earliestWhy(),
                j.blockedDays(),
                OptionalLong.of(7),
                j.waits(),
                j.offRoadPerDay(),
                j.pin(),
                j.known());
    }

    /** The job on another tool set, not before {@code earliest}, away on some days. */
    static PlanJob needing(PlanJob j, String toolSet, int earliest, String why, Integer... blocked) {
        return new PlanJob(
                j.id(),
                j.name(),
                toolSet,
                j.skills(),
                j.slots(),
                j.helperMinutes(),
                j.liftClass(),
                earliest,
                why,
                Set.of(blocked),
                j.fleetId(),
                j.waits(),
                j.offRoadPerDay(),
                j.pin(),
                j.known());
    }

    /** Everything at once: part-time people, closed bays, tool sets that are out, caps, promises, places people know. */
    static PlanCase random(Random random, int jobs, int days) {
        Ruler ruler = randomRuler(random, days);
        List<Shop.Technician> people = new ArrayList<>();
        for (int t = 0; t < 2 + random.nextInt(3); t++) {
            Set<Integer> off = new HashSet<>();
            for (int d = 0; d < days; d++) {
                if (random.nextInt(5) == 0) {
                    off.add(d);
                }
            }
            Set<String> skills = random.nextInt(3) == 0 ? Set.of("BELT") : Set.of("BELT", "CHAIN");
            people.add(new Shop.Technician(
                    t + 1, "T" + t, skills, 80 + 10 * random.nextInt(5), off, shorter(random, ruler)));
        }
        List<Shop.Bay> bays = new ArrayList<>();
        for (int b = 0; b < 2 + random.nextInt(2); b++) {
            bays.add(new Shop.Bay(
                    b + 1,
                    "B" + b,
                    1 + random.nextInt(2),
                    random.nextInt(3) == 0 ? Set.of(random.nextInt(days)) : Set.of()));
        }
        List<Shop.ToolSet> sets = List.of(
                new Shop.ToolSet("CAL", "CAL", 1, Map.of()),
                new Shop.ToolSet("OST", "OST", 2, Map.of(random.nextInt(days), 1 + random.nextInt(2))),
                new Shop.ToolSet("TAV", "TAV", 1, Map.of(random.nextInt(days), 1)));
        Shop shop = new Shop(
                ruler,
                0,
                random.nextInt(8),
                people,
                bays,
                sets,
                List.of(new Shop.Fleet(1, "F1", 1), new Shop.Fleet(2, "F2", 2)),
                PRICES);
        List<PlanJob> all = new ArrayList<>();
        for (int j = 0; j < jobs; j++) {
            all.add(randomJob(random, j, days, sets));
        }
        return new PlanCase(shop, all);
    }

    /** Days of any number of half-hours, with a break or none. */
    private static Ruler randomRuler(Random random, int days) {
        List<LocalTime> times = new ArrayList<>(Ruler.times(List.of(new WorkHours(Map.of(
                DayOfWeek.MONDAY,
                List.of(new WorkHours.Span(
                        LocalTime.of(6 + random.nextInt(3), 30 * random.nextInt(2)),
                        LocalTime.of(15 + random.nextInt(4), 30 * random.nextInt(2)))))))));
        times.removeIf(at -> at.getHour() == 12 && random.nextBoolean());
        return new Ruler(MONDAY, days, times);
    }

    /** Somebody who on some days comes later, or goes sooner. */
    private static Set<Integer> shorter(Random random, Ruler ruler) {
        Set<Integer> off = new HashSet<>();
        for (int d = 0; d < ruler.days(); d++) {
            int less = random.nextInt(3) == 0 ? 1 + random.nextInt(ruler.perDay() / 2) : 0;
            boolean morning = random.nextBoolean();
            for (int k = 0; k < less; k++) {
                off.add(d * ruler.perDay() + (morning ? k : ruler.perDay() - 1 - k));
            }
        }
        return off;
    }

    private static PlanJob randomJob(Random random, int id, int days, List<Shop.ToolSet> sets) {
        Set<Integer> blocked = new HashSet<>();
        for (int i = random.nextInt(3); i > 0; i--) {
            blocked.add(random.nextInt(days));
        }
        return new PlanJob(
                id,
                "J" + id,
                sets.get(random.nextInt(sets.size())).code(),
                random.nextInt(4) == 0 ? Set.of("CHAIN") : Set.of("BELT"),
                2 + random.nextInt(20),
                0,
                1 + (random.nextInt(4) == 0 ? 1 : 0),
                random.nextInt(3) == 0 ? random.nextInt(days * 8) : 0,
                "",
                blocked,
                random.nextInt(3) == 0 ? OptionalLong.of(1 + random.nextInt(2)) : OptionalLong.empty(),
                new WaitingCost.Doubling(random.nextInt(20), random.nextInt(days)),
                random.nextInt(40),
                new PlanJob.Pin.Free(),
                Optional.empty());
    }

    /** The job, of which people know that it stands at {@code place}. */
    static PlanJob knownAt(PlanJob j, Place place) {
        return new PlanJob(
                j.id(),
                j.name(),
                j.toolSet(),
                j.skills(),
                j.slots(),
                j.helperMinutes(),
                j.liftClass(),
                j.earliest(),
                j.earliestWhy(),
                j.blockedDays(),
                j.fleetId(),
                j.waits(),
                j.offRoadPerDay(),
                j.pin(),
                Optional.of(place));
    }
}
