package knollfield.bench.proving;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import knollfield.core.due.Policy;
import knollfield.core.due.Policy.Timing;

/** The ways that are compared: each a line of settings, so that none is judged by one point. */
final class Frontiers {

    /** A way at one setting. */
    record Setting(String name, Way way) {}

    private Frontiers() {}

    private static Policy at(Timing timing, double risk) {
        Policy usual = Policy.defaults();
        return new Policy(timing, risk, Math.max(risk, 0.5), usual.horizonDays(), usual.unknownRule());
    }

    private static Policy early(double share) {
        return at(share == 1 ? new Timing.Book() : new Timing.Early(share), 0.1);
    }

    /** By the name of the line. */
    static Map<String, List<Setting>> all() {
        Map<String, List<Setting>> lines = new LinkedHashMap<>();
        for (Way.Look look : Way.Look.values()) {
            List<Setting> line = new ArrayList<>();
            for (int percent = 80; percent <= 120; percent += 5) {
                line.add(new Setting(percent + " %", Way.list(look, percent / 100.0)));
            }
            lines.put(
                    switch (look) {
                        case LAST -> "list, last reading";
                        case FILTERED -> "list, slips filtered";
                        case PROJECTED -> "list, filtered and projected";
                    },
                    line);
        }
        List<Setting> listVisits = new ArrayList<>();
        List<Setting> early = new ArrayList<>();
        List<Setting> visits = new ArrayList<>();
        for (int percent = 70; percent <= 100; percent += 5) {
            early.add(new Setting(percent + " %", Way.product(early(percent / 100.0))));
        }
        for (int percent = 75; percent <= 95; percent += 5) {
            listVisits.add(
                    new Setting("from " + percent + " %", Way.listAtVisits(Way.Look.PROJECTED, percent / 100.0)));
            visits.add(new Setting("from " + percent + " %", Way.withVisits(early(0.95), percent / 100.0)));
        }
        List<Setting> chance = new ArrayList<>();
        for (double risk : new double[] {0.02, 0.05, 0.1, 0.2, 0.5}) {
            chance.add(new Setting(Math.round(100 * risk) + " %", Way.product(at(new Timing.Book(), risk))));
        }
        List<Setting> careful = new ArrayList<>();
        List<Setting> carefulVisits = new ArrayList<>();
        for (long stranding : new long[] {0, 5_000, 10_000, 20_000, 40_000, 80_000}) {
            careful.add(new Setting("%,d".formatted(stranding), Way.careful(stranding, false)));
            carefulVisits.add(new Setting("%,d".formatted(stranding), Way.careful(stranding, true)));
        }
        lines.put("list, projected, at visits from a share", listVisits);
        lines.put("early, at a share of the limits", early);
        lines.put("early (95 %), at visits from a share", visits);
        lines.put("book, by the chance of passing it", chance);
        lines.put("careful, without visits", careful);
        lines.put("careful, with visits", carefulVisits);
        lines.put("wait for evidence", List.of(new Setting("", Way.nothing())));
        return lines;
    }

    static Way early() {
        return Way.product(early(0.95));
    }

    static Way careful() {
        return Way.careful(10_000, true);
    }
}
