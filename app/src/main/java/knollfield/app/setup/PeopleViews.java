package knollfield.app.setup;

import java.time.DayOfWeek;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import knollfield.app.hours.HoursView;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.Role;
import knollfield.core.engine.Drive;
import knollfield.core.plan.WorkHours;
import org.jspecify.annotations.Nullable;

/** The people, as they are shown and asked for. */
final class PeopleViews {

    private PeopleViews() {}

    /**
     * @param hours own ones of a technician, all seven days; null: as the workshop works, on the working days
     * @param hasPassword false for one who came with a list and cannot sign in yet
     */
    record PersonView(
            long id,
            String signIn,
            String name,
            Role role,
            @Nullable Long fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            @Nullable List<HoursView.DayHours> hours,
            boolean active,
            boolean hasPassword,
            boolean secondFactor,
            List<PersonDevice> devices,
            int version) {}

    /**
     * Where somebody is signed in.
     *
     * @param place network address it was begun from
     */
    record PersonDevice(UUID key, Instant since, String place, String kind) {}

    /** @param before empty for a new account */
    record PersonChangeLine(Instant at, String by, String name, String before, String after) {}

    record NewPerson(
            String signIn,
            String name,
            Role role,
            @Nullable Long fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            @Nullable List<HoursView.DayHours> hours,
            String password) {}

    record PersonChange(
            String name,
            Role role,
            @Nullable Long fleetId,
            Set<Drive> skills,
            Set<DayOfWeek> workingDays,
            @Nullable List<HoursView.DayHours> hours,
            boolean active,
            int version) {}

    record NewPassword(String password) {}

    static Optional<WorkHours> hours(@Nullable List<HoursView.DayHours> hours) {
        Optional<WorkHours> own = Optional.ofNullable(hours).map(h -> HoursView.read(h, "/hours"));
        if (own.filter(h -> h.byDay().isEmpty()).isPresent()) {
            throw new InvalidInput("/hours", "Own hours need at least one day; or choose the workshop's.");
        }
        return own;
    }
}
