package knollfield.app.job;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import knollfield.core.bundle.Decision;
import knollfield.core.bundle.School;

/**
 * How a job is meant, as it is kept with it.
 *
 * @param purpose codes of the items it is for; empty: the belt or chain
 * @param school empty: the workshop's
 * @param seals empty: the workshop's
 * @param keptUntil the day the owner parts with the vehicle
 * @param decisions what a person decided, by item code
 * @param parts numbers of catalogue parts fitted in place of the book's, by item code
 * @param ownerSupplied codes of items whose part the owner brings
 * @param variants settled points, choice by variant code
 * @param inspectionMinutes the job opens nothing and renews nothing: so long one looks; empty for every other job
 */
public record JobScope(
        Set<String> purpose,
        Optional<School> school,
        Optional<School.Seals> seals,
        Optional<LocalDate> keptUntil,
        Map<String, Decision> decisions,
        Map<String, String> parts,
        Set<String> ownerSupplied,
        Map<String, String> variants,
        long toolHireMinor,
        OptionalInt inspectionMinutes) {

    public JobScope {
        purpose = Set.copyOf(purpose);
        decisions = Map.copyOf(decisions);
        parts = Map.copyOf(parts);
        ownerSupplied = Set.copyOf(ownerSupplied);
        variants = Map.copyOf(variants);
    }

    /** The whole job by the workshop's own rules. */
    public static JobScope usual() {
        return new JobScope(
                Set.of(),
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Map.of(),
                Map.of(),
                Set.of(),
                Map.of(),
                0,
                OptionalInt.empty());
    }

    /** A look that opens nothing. */
    static JobScope inspection(int minutes) {
        return usual().looking(OptionalInt.of(minutes));
    }

    /** This scope as an inspection of so many minutes, or as none. */
    JobScope looking(OptionalInt minutes) {
        return new JobScope(
                purpose, school, seals, keptUntil, decisions, parts, ownerSupplied, variants, toolHireMinor, minutes);
    }

    /** Nothing is opened and nothing renewed. */
    public boolean isInspection() {
        return inspectionMinutes.isPresent();
    }

    /** This scope with nothing decided by a person. */
    JobScope undecided() {
        return new JobScope(
                purpose,
                school,
                seals,
                keptUntil,
                Map.of(),
                parts,
                ownerSupplied,
                variants,
                toolHireMinor,
                inspectionMinutes);
    }

    /** This scope with one more decision. */
    public JobScope with(String item, Decision decision) {
        Map<String, Decision> all = new HashMap<>(decisions);
        all.put(item, decision);
        return new JobScope(
                purpose,
                school,
                seals,
                keptUntil,
                all,
                parts,
                ownerSupplied,
                variants,
                toolHireMinor,
                inspectionMinutes);
    }
}
