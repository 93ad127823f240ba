package knollfield.app.settings;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import knollfield.app.shared.Style;
import knollfield.core.units.DistanceUnit;

/**
 * Who the workshop is, beside its name and currency, and how it writes figures.
 *
 * @param address lines parted by line breaks; may be empty, as all words here may
 * @param outsideAddress where people outside reach this server, such as {@code https://garage.example}; empty: they do not
 * @param zone a region of the IANA time zone database; empty: as the computer has it
 */
public record House(
        String address,
        String phone,
        String email,
        String taxNumber,
        String outsideAddress,
        String zone,
        DistanceUnit unit,
        Style.NumberStyle numbers,
        int version,
        String changedBy) {

    /** What stands under the workshop's name on paper, line by line; what is not on file has none. */
    public List<String> letterhead() {
        List<String> lines = new ArrayList<>();
        address.lines().map(String::strip).filter(l -> !l.isEmpty()).forEach(lines::add);
        List<String> reach = new ArrayList<>();
        if (!phone.isEmpty()) {
            reach.add("Phone " + phone);
        }
        if (!email.isEmpty()) {
            reach.add(email);
        }
        if (!reach.isEmpty()) {
            lines.add(String.join(", ", reach));
        }
        if (!taxNumber.isEmpty()) {
            lines.add("Tax number " + taxNumber);
        }
        return lines;
    }

    ZoneId zoneId() {
        return zone.isEmpty() ? ZoneId.systemDefault() : ZoneId.of(zone);
    }
}
