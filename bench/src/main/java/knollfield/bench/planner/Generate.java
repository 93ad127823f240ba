package knollfield.bench.planner;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;

/**
 * Invents planning instances: a workshop that could do about nine tenths of what it is asked for in time. Technicians, bays
 * and tool sets grow with the jobs.
 */
public final class Generate {

    private static final int PER_DAY = 16;

    private Generate() {}

    /** @param args number of jobs, seed, file, and where bays are to be the scarce thing how many per ten technicians */
    public static void main(String[] args) throws IOException {
        int jobs = Integer.parseInt(args[0]);
        long seed = Long.parseLong(args[1]);
        of(jobs, seed, args.length > 3 ? Integer.parseInt(args[3]) : 10).write(Path.of(args[2]));
    }

    static Instance of(int jobs, long seed, int baysPerTenTechnicians) {
        Random random = new Random(seed * 1_000_003L + jobs);
        int days = jobs <= 60 ? 20 : 40;
        int techs = Math.max(3, Math.round(jobs / (days * 0.62f)));
        int familyCount = Math.max(4, jobs / 14);
        List<Instance.Tech> people = new ArrayList<>();
        for (int t = 0; t < techs; t++) {
            TreeSet<Integer> off = new TreeSet<>();
            int weekday = random.nextInt(5);
            boolean partTime = random.nextInt(3) == 0;
            for (int d = 0; d < days; d++) {
                if (partTime && d % 5 == weekday) {
                    off.add(d);
                }
            }
            int away = random.nextInt(days);
            for (int d = away; d < Math.min(days, away + random.nextInt(6)); d++) {
                off.add(d);
            }
            List<String> skills = new ArrayList<>(List.of("BELT"));
            if (t % 2 == 0 || random.nextBoolean()) {
                skills.add("CHAIN");
            }
            if (t % 3 == 0) {
                skills.add("DIESEL");
            }
            people.add(new Instance.Tech(
                    t, skills, new int[] {80, 90, 100, 100, 110, 125}[random.nextInt(6)], List.copyOf(off)));
        }
        List<Instance.Bay> bays = new ArrayList<>();
        for (int b = 0; b < Math.max(2, techs * baysPerTenTechnicians / 10); b++) {
            bays.add(new Instance.Bay(b, b % 3 == 0 ? 2 : 1));
        }
        List<Instance.Family> families = new ArrayList<>();
        for (int f = 0; f < familyCount; f++) {
            List<String> skills = new ArrayList<>(List.of(random.nextInt(3) == 0 ? "CHAIN" : "BELT"));
            if (random.nextInt(4) == 0) {
                skills.add("DIESEL");
            }
            families.add(new Instance.Family(f, random.nextInt(4) > 0, skills, random.nextInt(4) == 0 ? 2 : 1));
        }
        List<Instance.Fleet> fleets = new ArrayList<>();
        for (int f = 0; f < Math.max(2, jobs / 30); f++) {
            fleets.add(new Instance.Fleet(f, 1 + random.nextInt(2)));
        }
        List<Instance.Job> all = new ArrayList<>();
        for (int j = 0; j < jobs; j++) {
            all.add(job(j, random, days, families, fleets.size()));
        }
        return new Instance(
                "G-" + jobs + "-" + seed, seed, days, PER_DAY, 12, 300, people, bays, families, fleets, all);
    }

    private static Instance.Job job(int id, Random random, int days, List<Instance.Family> families, int fleets) {
        Instance.Family family = families.get(random.nextInt(families.size()));
        TreeSet<Integer> blocked = new TreeSet<>();
        for (int i = random.nextInt(4); i > 0; i--) {
            blocked.add(random.nextInt(days));
        }
        return new Instance.Job(
                id,
                family.id(),
                family.skills(),
                4 + random.nextInt(12) + (random.nextInt(6) == 0 ? 8 : 0),
                random.nextInt(5) == 0 ? 2 : 1,
                random.nextInt(5) < 3 ? 0 : random.nextInt(days / 2),
                List.copyOf(blocked),
                random.nextInt(5) < 2 ? random.nextInt(fleets) : null,
                1 + random.nextInt(25),
                random.nextInt(days),
                10 + random.nextInt(50),
                null);
    }
}
