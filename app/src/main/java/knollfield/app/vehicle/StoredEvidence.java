package knollfield.app.vehicle;

import java.time.LocalDate;
import java.util.Optional;
import knollfield.core.due.EvidenceKind;

/** Something found, and how it ended. */
public record StoredEvidence(
        long id,
        EvidenceKind kind,
        LocalDate found,
        String note,
        Optional<LocalDate> endedOn,
        Optional<String> endedWhy,
        String enteredBy) {}
