package knollfield.core.due;

import knollfield.core.clock.Limit;
import knollfield.core.engine.Interference;

/**
 * How early the workshop acts. All defaults are planning assumptions (rules.md section 2).
 *
 * @param riskInterference chance of passing the limit at which one acts, interference or unknown; 0 to 1
 * @param riskOther the same for engines that do not interfere; 0 to 1
 * @param horizonDays how far ahead "coming" looks, 1 or more
 * @param statedCounts a renewal that somebody only states starts the clocks
 * @param found what findings without a date of their own mean
 */
public record Policy(
        Timing timing,
        double riskInterference,
        double riskOther,
        int horizonDays,
        UnknownRule unknownRule,
        boolean statedCounts,
        Found found) {

    /**
     * Days and km that findings leave; planning assumptions.
     *
     * @param rattleDays a chain that rattles at cold start is seen to within so many days
     * @param rattleKm and within so many km
     * @param slapStopDays slap so soon after a belt job stops the engine
     */
    public record Found(int rattleDays, int rattleKm, int slapStopDays) {
        public Found {
            if (rattleDays < 0 || rattleKm < 0 || slapStopDays < 0) {
                throw new IllegalArgumentException(
                        "days (%d, %d) and km (%d) must be zero or more".formatted(rattleDays, slapStopDays, rattleKm));
            }
        }

        /** 30 days, 1,000 km; 30 days: planning assumptions. */
        public static Found defaults() {
            return new Found(30, 1_000, 30);
        }
    }

    /** When, against the book limit. */
    public sealed interface Timing {
        /** At the book limit. */
        record Book() implements Timing {}

        /**
         * At a share of each limit.
         *
         * @param share μ, above 0 and at most 1
         */
        record Early(double share) implements Timing {
            public Early {
                if (!(share > 0 && share <= 1)) {
                    throw new IllegalArgumentException(
                            "acting early needs a share above 0 and at most 1, not " + share);
                }
            }
        }

        /** On the cheapest day with a stranding's price, never past the book limit. */
        record Careful() implements Timing {}

        /** At the workshop's own limit where that is the smaller one. */
        record Fixed(Limit limit) implements Timing {}
    }

    /**
     * A vehicle's own timing.
     *
     * @param reason why it differs from the workshop's
     */
    public record Own(Timing timing, String reason) {}

    /** What an unknown history is taken for where first registration does not settle it. */
    public enum UnknownRule {
        DUE_NOW,
        FROM_FIRST_REGISTRATION,
        /** After an inspection that read the belt's date code, age counts from that date; until then due now. */
        FROM_DATE_CODE
    }

    public Policy {
        if (!(riskInterference > 0 && riskInterference < 1) || !(riskOther > 0 && riskOther < 1)) {
            throw new IllegalArgumentException(
                    "risks must lie between 0 and 1: %s, %s".formatted(riskInterference, riskOther));
        }
        if (horizonDays < 1) {
            throw new IllegalArgumentException("the horizon must be at least a day, not " + horizonDays);
        }
    }

    /** A policy under which a stated renewal counts, and findings mean what they usually do. */
    public Policy(Timing timing, double riskInterference, double riskOther, int horizonDays, UnknownRule unknownRule) {
        this(timing, riskInterference, riskOther, horizonDays, unknownRule, true, Found.defaults());
    }

    /**
     * Careful, risk 10 % and 50 %, 120 days, unknown is due now: planning assumptions. Without costs to weigh, careful is the
     * book.
     */
    public static Policy defaults() {
        return new Policy(new Timing.Careful(), 0.10, 0.50, 120, UnknownRule.DUE_NOW);
    }

    /** This policy with another timing. */
    public Policy with(Timing other) {
        return new Policy(other, riskInterference, riskOther, horizonDays, unknownRule, statedCounts, found);
    }

    /** The policy this vehicle is judged by: with a timing of its own where it has one. */
    public Policy inForce(VehicleFacts vehicle) {
        return vehicle.special().own().map(own -> with(own.timing())).orElse(this);
    }

    /** μ, the share of a limit at which one acts. */
    public double share() {
        return timing instanceof Timing.Early early ? early.share() : 1.0;
    }

    /** {@code book} after the workshop's own limit, if it has one. */
    public Limit inForce(Limit book) {
        return timing instanceof Timing.Fixed fixed ? book.smallerOf(fixed.limit()) : book;
    }

    public double risk(Interference interference) {
        return interference.worksAsYes() ? riskInterference : riskOther;
    }
}
