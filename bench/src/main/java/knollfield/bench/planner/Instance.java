package knollfield.bench.planner;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import knollfield.core.plan.Place;
import knollfield.core.plan.PlanCase;
import knollfield.core.plan.PlanJob;
import knollfield.core.plan.Ruler;
import knollfield.core.plan.Shop;
import knollfield.core.plan.WaitingCost;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** A planning instance as its file has it; days are working days, and money has no unit. */
record Instance(
        String name,
        long seed,
        int days,
        int slotsPerDay,
        int changeoverCost,
        int unplannedPenalty,
        List<Tech> techs,
        List<Bay> bays,
        List<Family> families,
        List<Fleet> fleets,
        List<Job> jobs) {

    private static final ObjectMapper JSON = JsonMapper.builder()
            .enable(SerializationFeature.INDENT_OUTPUT)
            .disable(tools.jackson.databind.DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .build();

    record Tech(int id, List<String> skills, int speedPct, List<Integer> daysOff) {}

    record Bay(int id, int liftClass) {}

    record Family(int id, boolean interference, List<String> skills, int kitCopies) {}

    record Fleet(int id, int cap) {}

    record Job(
            int id,
            int family,
            List<String> skills,
            int durationSlots,
            int liftClass,
            int earliestDay,
            List<Integer> blockedDays,
            Integer fleet,
            int dailyRisk,
            int dueDay,
            int offRoadPerDay,
            Integer appointmentSlot) {}

    private record Assignment(int job, int start, int tech, int bay) {}

    private record PlanFile(List<Assignment> assignments) {}

    static Instance read(Path file) throws IOException {
        Instance read = JSON.readValue(Files.readString(file), Instance.class);
        if (read.slotsPerDay != Ruler.USUAL_TIMES.size()) {
            throw new IOException("%s has %d half-hours a day; the board has %d"
                    .formatted(file, read.slotsPerDay, Ruler.USUAL_TIMES.size()));
        }
        return read;
    }

    void write(Path file) throws IOException {
        Files.writeString(file, JSON.writeValueAsString(this));
    }

    static void writePlan(Path file, Map<Long, Place> places) throws IOException {
        PlanFile plan = new PlanFile(places.entrySet().stream()
                .map(e -> new Assignment(
                        e.getKey().intValue(),
                        e.getValue().start(),
                        (int) e.getValue().technicianId(),
                        (int) e.getValue().bayId()))
                .sorted(Comparator.comparing(Assignment::job))
                .toList());
        Files.writeString(file, JSON.writeValueAsString(plan));
    }

    /** This instance as the product's planner reads it. */
    PlanCase toCase() {
        Shop shop = new Shop(
                new Ruler(LocalDate.of(2026, 1, 5), days),
                0,
                0,
                techs.stream()
                        .map(t -> new Shop.Technician(
                                t.id, "technician " + t.id, Set.copyOf(t.skills), t.speedPct, Set.copyOf(t.daysOff)))
                        .toList(),
                bays.stream()
                        .map(b -> new Shop.Bay(b.id, "bay " + b.id, b.liftClass, Set.of()))
                        .toList(),
                families.stream()
                        .map(f -> new Shop.ToolSet("F" + f.id, "family " + f.id, f.kitCopies, Map.of()))
                        .toList(),
                fleets.stream()
                        .map(f -> new Shop.Fleet(f.id, "fleet " + f.id, f.cap))
                        .toList(),
                new Shop.Prices(changeoverCost, 0, unplannedPenalty));
        return new PlanCase(
                shop,
                jobs.stream()
                        .map(j -> new PlanJob(
                                j.id,
                                "job " + j.id,
                                "F" + j.family,
                                Set.copyOf(j.skills),
                                j.durationSlots,
                                0,
                                j.liftClass,
                                j.earliestDay * Ruler.USUAL_TIMES.size(),
                                "",
                                Set.copyOf(j.blockedDays),
                                j.fleet == null ? OptionalLong.empty() : OptionalLong.of(j.fleet),
                                new WaitingCost.Doubling(j.dailyRisk, j.dueDay),
                                j.offRoadPerDay,
                                j.appointmentSlot == null
                                        ? new PlanJob.Pin.Free()
                                        : new PlanJob.Pin.AtStart(j.appointmentSlot),
                                Optional.empty()))
                        .toList());
    }
}
