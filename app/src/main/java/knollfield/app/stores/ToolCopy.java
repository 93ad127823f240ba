package knollfield.app.stores;

/**
 * One copy of an engine family's tool set.
 *
 * @param number 1 for the first copy
 * @param keptAt where it is when no job has it
 */
record ToolCopy(long id, String familyCode, int number, State state, String keptAt, String note, int version) {

    /** What it is like. */
    enum State {
        GOOD("good"),
        WORN("worn, still used"),
        INCOMPLETE("incomplete"),
        BROKEN("broken"),
        LENT("lent out"),
        /** No longer in the house; its number stays for the jobs that were done with it. */
        GIVEN_UP("given up");

        private final String words;

        State(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }

        /** True where jobs can be planned with it. */
        boolean isUsable() {
            return this == GOOD || this == WORN;
        }
    }
}
