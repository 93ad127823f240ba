package knollfield.bench.proving;

/**
 * Ten years of a way of deciding.
 *
 * @param interference drives that failed with interference
 * @param other drives that failed without
 * @param ofChains of all those, chains
 * @param jobs planned ones
 * @param atVisits of them on a visit for other work
 * @param pastBook of them past a limit of the book
 * @param early of them below three quarters of the limits
 * @param unused shares of life left in them, summed
 * @param cost of jobs and failures by their bills
 */
record Outcome(
        int interference,
        int other,
        int ofChains,
        int jobs,
        int atVisits,
        int pastBook,
        int early,
        double unused,
        long cost) {

    static final Outcome NONE = new Outcome(0, 0, 0, 0, 0, 0, 0, 0, 0);

    int breakdowns() {
        return interference + other;
    }

    Outcome plus(Outcome o) {
        return new Outcome(
                interference + o.interference,
                other + o.other,
                ofChains + o.ofChains,
                jobs + o.jobs,
                atVisits + o.atVisits,
                pastBook + o.pastBook,
                early + o.early,
                unused + o.unused,
                cost + o.cost);
    }
}
