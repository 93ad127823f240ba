package knollfield.app.board;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.app.away.Absence;
import knollfield.app.away.Absences;
import knollfield.core.plan.Broken;
import org.jspecify.annotations.Nullable;

/** A job on the board, as it is shown and asked for. */
final class BoardJobViews {

    private BoardJobViews() {}

    /** @param technicianId and bayId null for whoever can and whichever is free */
    record PlaceIn(
            @Nullable Long technicianId,
            @Nullable Long bayId,
            LocalDate day,
            LocalTime time,
            boolean promised,
            int version) {

        Boards.Wanted wanted() {
            return new Boards.Wanted(technicianId, bayId, day, time);
        }
    }

    record BookingRequest(long technicianId, long bayId, LocalDate day, LocalTime time, int version) {}

    record PromiseIn(boolean promised, int version) {}

    record NoShowIn(String note, int version) {}

    record WishesIn(@Nullable LocalDate notBefore, Set<DayOfWeek> days, int version) {}

    record AbsenceIn(
            Absence.Kind kind,
            @Nullable Long technicianId,
            @Nullable Long bayId,
            @Nullable String familyCode,
            LocalDate from,
            LocalDate to,
            @Nullable String why) {

        /** Checked, and entered nowhere yet. */
        Absence checked(Absences absences) {
            return absences.of(
                    kind,
                    technicianId,
                    bayId,
                    familyCode,
                    from,
                    to,
                    Optional.ofNullable(why).orElse(""));
        }
    }

    record FleetRuleIn(int cap, Set<DayOfWeek> days, int version) {}

    record BrokenView(Broken.Rule rule, String words) {}

    /** @param place null where work could not even end there */
    record AskedView(BoardViews.@Nullable PlaceView place, List<BrokenView> broken) {}

    record NoShowView(LocalDateTime start, String note, String enteredBy) {}

    /**
     * A job as the board knows it.
     *
     * @param why sentences: why it stands where it stands, or why it stands nowhere
     */
    record BoardJobView(
            long jobId,
            int version,
            String registration,
            BoardViews.@Nullable PlaceView place,
            boolean promised,
            @Nullable LocalDate notBefore,
            Set<DayOfWeek> days,
            List<NoShowView> noShows,
            List<String> why,
            List<WhileHereView> whileHere) {}

    /** A vehicle that is not due but worth doing on a visit, and what brings the visit about. */
    record WhileHereView(long vehicleId, String registration, String occasion) {}

    record LaterView(
            long jobId, String registration, @Nullable Integer days) {}

    /** Money in minor units; {@code restMinor} is what jobs that still wait lose by it. */
    record SlotOfferView(
            BoardViews.PlaceView place,
            long waitingMinor,
            long offRoadMinor,
            long changeoverMinor,
            long restMinor,
            long totalMinor,
            List<LaterView> later) {}

    record UndoneView(boolean more) {}
}
