package knollfield.bench.proving;

/** What things cost on the island, in its money. */
final class Costs {

    static final long PLANNED = 640;
    /** A job done while the vehicle is in for other work is cheaper by so much, whoever decides. */
    static final long VISIT = 90;

    private static final long FAILED_INTERFERENCE = 5_200;
    private static final long FAILED_OTHER = 1_210;

    private Costs() {}

    static long failure(boolean interference) {
        return interference ? FAILED_INTERFERENCE : FAILED_OTHER;
    }
}
