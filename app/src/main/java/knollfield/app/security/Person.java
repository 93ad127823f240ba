package knollfield.app.security;

import java.time.DayOfWeek;
import java.util.Optional;
import java.util.Set;
import knollfield.core.engine.Drive;
import knollfield.core.plan.WorkHours;

/**
 * Somebody who signs in.
 *
 * @param fleetId the fleet a contact may see; empty for everybody else
 * @param skills drives a technician works on
 * @param workingDays days of the week a technician works
 * @param hours own hours of a technician; empty: as the workshop works, on those days
 */
public record Person(
        long id,
        String signIn,
        String name,
        Role role,
        Optional<Long> fleetId,
        Set<Drive> skills,
        Set<DayOfWeek> workingDays,
        Optional<WorkHours> hours,
        boolean active,
        int version) {

    private static final long NO_ACCOUNT = 0;

    /**
     * Somebody who acts from outside by a private address or a key.
     *
     * @param fleetId the fleet whose vehicles there are to be seen; empty: none at all
     */
    static Person withoutAccount(String name, Optional<Long> fleetId) {
        return new Person(
                NO_ACCOUNT, "", name, Role.FLEET_CONTACT, fleetId, Set.of(), Set.of(), Optional.empty(), true, 1);
    }

    public boolean hasAccount() {
        return id != NO_ACCOUNT;
    }

    /** Not of the house: sees one fleet, and nothing that the house notes for itself. */
    public boolean isOutside() {
        return role == Role.FLEET_CONTACT;
    }

    public boolean isManager() {
        return role == Role.MANAGER;
    }
}
