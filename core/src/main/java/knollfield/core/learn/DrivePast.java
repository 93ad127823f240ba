package knollfield.core.learn;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.clock.LimitClock;
import knollfield.core.odometer.Reading;
import knollfield.core.odometer.ReadingChain;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.units.Years;

/**
 * What is on file of one vehicle's belt or chain, and the lives it tells of (rules.md section 4): each enters when it was
 * first seen and leaves at a failure, a renewal, a finding or the last reading.
 *
 * @param renewals known ones, in any order
 * @param failures days on which it failed
 * @param findings days on which something was found that calls for action
 * @param limit in force on this vehicle
 * @param kmPerYear of the vehicle, idling included, zero or more
 * @param idleKmPerYear that part of it
 */
public record DrivePast(
        ReadingChain readings,
        LocalDate firstRegistered,
        List<ClockStart> renewals,
        List<LocalDate> failures,
        List<LocalDate> findings,
        Limit limit,
        double kmPerYear,
        double idleKmPerYear) {

    public DrivePast {
        renewals =
                renewals.stream().sorted(Comparator.comparing(ClockStart::date)).toList();
        failures = failures.stream().sorted().toList();
        findings = findings.stream().sorted().toList();
    }

    /** Its lives, oldest first; none where it was never seen twice. */
    public List<DriveLife> lives() {
        Optional<LocalDate> seen = readings.kept().stream()
                .filter(r -> r.source() != ReadingSource.FIRST_REGISTRATION)
                .map(Reading::date)
                .findFirst();
        if (seen.isEmpty()) {
            return List.of();
        }
        List<ClockStart> starts = new ArrayList<>();
        if (renewals.isEmpty() || renewals.get(0).date().isAfter(firstRegistered)) {
            starts.add(ClockStart.atFirstRegistration(firstRegistered));
        }
        starts.addAll(renewals);
        List<DriveLife> lives = new ArrayList<>();
        for (int i = 0; i < starts.size(); i++) {
            Optional<LocalDate> next =
                    i + 1 < starts.size() ? Optional.of(starts.get(i + 1).date()) : Optional.empty();
            life(starts.get(i), seen.get(), next).ifPresent(lives::add);
        }
        return lives;
    }

    private Optional<DriveLife> life(ClockStart start, LocalDate seen, Optional<LocalDate> renewed) {
        LocalDate leaves = readings.last().orElseThrow().date();
        DriveLife.End end = DriveLife.End.LAST_READING;
        if (renewed.isPresent() && !renewed.get().isAfter(leaves)) {
            leaves = renewed.get();
            end = DriveLife.End.RENEWED;
        }
        // what failed on the day of a renewal is what was renewed
        Optional<LocalDate> failed = first(failures, start.date());
        if (failed.isPresent() && !failed.get().isAfter(leaves)) {
            leaves = failed.get();
            end = DriveLife.End.FAILED;
        }
        Optional<LocalDate> found = first(findings, start.date());
        if (found.isPresent() && found.get().isBefore(leaves)) {
            leaves = found.get();
            end = DriveLife.End.FOUND;
        }
        if (start.grade() == ClockStart.Grade.FIRST_REGISTRATION) {
            Optional<LocalDate> passed = passed(start);
            if (passed.isPresent() && passed.get().isBefore(leaves)) {
                leaves = passed.get();
                end = DriveLife.End.NO_LONGER_KNOWN;
            }
        }
        LocalDate enters = start.date().isBefore(seen) ? seen : start.date();
        if (!leaves.isAfter(enters)) {
            return Optional.empty();
        }
        return Optional.of(new DriveLife(start, enters, leaves, end, years(start, enters, leaves), perYear()));
    }

    private static Optional<LocalDate> first(List<LocalDate> days, LocalDate after) {
        return days.stream().filter(d -> d.isAfter(after)).findFirst();
    }

    /** The day a limit was passed. */
    private Optional<LocalDate> passed(ClockStart start) {
        Optional<LocalDate> byAge = limit.ageEnd(start.date());
        Optional<LocalDate> byDistance = limit.km().isPresent()
                ? readings.dateReached(start.km() + limit.km().getAsInt(), idleKmPerYear, start.date())
                : Optional.empty();
        return byAge.isPresent() && byDistance.isPresent()
                ? byAge.filter(byDistance.get()::isAfter).or(() -> byDistance)
                : byAge.or(() -> byDistance);
    }

    private List<DriveLife.Year> years(ClockStart start, LocalDate enters, LocalDate leaves) {
        List<DriveLife.Year> years = new ArrayList<>();
        LocalDate from = enters;
        while (from.isBefore(leaves)) {
            LocalDate newYear = LocalDate.of(from.getYear() + 1, 1, 1);
            LocalDate to = newYear.isBefore(leaves) ? newYear : leaves;
            years.add(new DriveLife.Year(from.getYear(), used(start, from), used(start, to)));
            from = to;
        }
        return years;
    }

    private LimitsUsed used(ClockStart start, LocalDate day) {
        double years = Years.between(start.date(), day);
        double km = readings.interpolatedKm(day)
                        .orElse(readings.last().orElseThrow().km())
                - start.km()
                + idleKmPerYear * years;
        LimitClock clock = new LimitClock(start, limit);
        return new LimitsUsed(clock.distanceUsed(km), clock.ageUsed(day));
    }

    private LimitsUsed perYear() {
        return new LimitsUsed(limit.distanceUsed(kmPerYear), limit.agePerYear());
    }
}
