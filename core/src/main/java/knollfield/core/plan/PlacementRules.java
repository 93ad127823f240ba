package knollfield.core.plan;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.core.engine.Drive;

/** The hard rules of a placement, each broken one said in words (rules.md section 11). */
public final class PlacementRules {

    private PlacementRules() {}

    /** Which rule a placement breaks. */
    public enum Rule {
        IN_THE_PAST,
        DAY_OFF,
        SKILL,
        BAY_CLASS,
        TECHNICIAN_BUSY,
        BAY_BUSY,
        TOOL_SET_BUSY,
        FLEET_CAP
    }

    /** A broken rule and the sentence that says so. */
    public record Broken(Rule rule, String words) {}

    /**
     * A technician.
     *
     * @param skills drives this person may work on
     */
    public record Technician(long id, String name, Set<Drive> skills, WorkCalendar calendar) {}

    /**
     * A bay.
     *
     * @param liftClass 1 for light, 2 for heavy vehicles
     */
    public record Bay(long id, String name, int liftClass) {}

    /**
     * What a job needs.
     *
     * @param toolSet key of the tool set, with {@code toolSetCopies} of it in the house
     * @param fleet the fleet it belongs to
     */
    public record Needs(
            long jobId, Drive drive, int liftClass, String toolSet, int toolSetCopies, Optional<FleetCap> fleet) {}

    /** How many vehicles of a fleet may be off the road on one day. */
    public record FleetCap(long fleetId, String name, int cap) {}

    /** A job already on the board. */
    public record Booked(Placement placement, String registration, String toolSet, Optional<Long> fleetId) {}

    /** Every rule that placing the job so would break; empty where it may be placed. */
    public static List<Broken> check(
            Needs needs, Placement place, Technician technician, Bay bay, List<Booked> board, LocalDateTime now) {
        List<Broken> broken = new ArrayList<>();
        if (place.start().isBefore(now)) {
            broken.add(new Broken(Rule.IN_THE_PAST, "That time has passed."));
        }
        if (!technician.calendar().worksOn(place.start().toLocalDate())) {
            broken.add(new Broken(Rule.DAY_OFF, "%s does not work on that day.".formatted(technician.name())));
        }
        if (!technician.skills().contains(needs.drive())) {
            broken.add(new Broken(
                    Rule.SKILL,
                    "%s does not work on a %s."
                            .formatted(technician.name(), needs.drive().words())));
        }
        if (bay.liftClass() < needs.liftClass()) {
            broken.add(new Broken(Rule.BAY_CLASS, "%s is too light for this vehicle.".formatted(bay.name())));
        }
        List<Booked> others = board.stream()
                .filter(b ->
                        b.placement().jobId() != needs.jobId() && b.placement().overlaps(place))
                .toList();
        others.stream()
                .filter(b -> b.placement().technicianId() == technician.id())
                .findFirst()
                .ifPresent(b -> broken.add(new Broken(
                        Rule.TECHNICIAN_BUSY, "%s has %s then.".formatted(technician.name(), b.registration()))));
        others.stream()
                .filter(b -> b.placement().bayId() == bay.id())
                .findFirst()
                .ifPresent(b -> broken.add(
                        new Broken(Rule.BAY_BUSY, "%s holds %s then.".formatted(bay.name(), b.registration()))));
        List<Booked> sameSet =
                others.stream().filter(b -> b.toolSet().equals(needs.toolSet())).toList();
        if (mostAtOnce(sameSet, place) >= needs.toolSetCopies()) {
            broken.add(new Broken(Rule.TOOL_SET_BUSY, "The tool set is out: %s.".formatted(registrations(sameSet))));
        }
        needs.fleet().ifPresent(f -> overCap(f, needs, place, board).ifPresent(broken::add));
        return broken;
    }

    /** The greatest number of {@code booked} that hold at one moment within {@code place}. */
    private static int mostAtOnce(List<Booked> booked, Placement place) {
        int most = 0;
        for (Booked b : booked) {
            LocalDateTime at =
                    b.placement().start().isAfter(place.start()) ? b.placement().start() : place.start();
            int here = (int) booked.stream()
                    .filter(o -> !o.placement().start().isAfter(at)
                            && o.placement().end().isAfter(at))
                    .count();
            most = Math.max(most, here);
        }
        return most;
    }

    private static Optional<Broken> overCap(FleetCap fleet, Needs needs, Placement place, List<Booked> board) {
        LocalDate last = place.end().toLocalDate();
        for (LocalDate d = place.start().toLocalDate(); !d.isAfter(last); d = d.plusDays(1)) {
            LocalDate day = d;
            List<Booked> off = board.stream()
                    .filter(b -> b.placement().jobId() != needs.jobId())
                    .filter(b -> b.fleetId().filter(id -> id == fleet.fleetId()).isPresent())
                    .filter(b -> !b.placement().start().toLocalDate().isAfter(day)
                            && !b.placement().end().toLocalDate().isBefore(day))
                    .toList();
            if (off.size() >= fleet.cap()) {
                return Optional.of(new Broken(
                        Rule.FLEET_CAP,
                        "%s: %d of %d off the road on %s: %s."
                                .formatted(fleet.name(), off.size(), fleet.cap(), day, registrations(off))));
            }
        }
        return Optional.empty();
    }

    private static String registrations(List<Booked> booked) {
        return String.join(
                ", ",
                new LinkedHashSet<>(booked.stream().map(Booked::registration).toList()));
    }
}
