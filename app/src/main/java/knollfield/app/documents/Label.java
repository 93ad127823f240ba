package knollfield.app.documents;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * What stands on an engine-bay label.
 *
 * @param renewed names of what was renewed
 * @param km odometer at the job
 */
public record Label(
        String workshop,
        String registration,
        List<String> renewed,
        LocalDate date,
        int km,
        Optional<LocalDate> nextOn,
        OptionalInt nextKm) {}
