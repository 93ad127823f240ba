package knollfield.core.due;

import java.time.LocalDate;

/** Something found on a vehicle that has not ended yet. */
public record Evidence(EvidenceKind kind, LocalDate found) {}
