package knollfield.app.due;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleHistory;

/** Why a vehicle cannot be judged: what of it has to be left out before the rules give an answer. */
public final class Unjudged {

    /** What may be left out, what is mended most easily first. */
    public enum Part {
        TRIPS("its known trips cannot be reckoned with"),
        EVIDENCE("something found on it cannot be reckoned with"),
        READINGS("its readings cannot be reckoned with"),
        RENEWALS("its renewals cannot be reckoned with"),
        BOOK("its engine's book cannot be reckoned with"),
        ALL("what is on file of it cannot be reckoned with");

        private final String words;

        Part(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    private Unjudged() {}

    /** {@code h} without a part of what is on file. */
    static VehicleHistory without(VehicleHistory h, Part part, LocalDate today) {
        boolean all = part == Part.ALL;
        Vehicle v = h.vehicle();
        return new VehicleHistory(
                all ? v.bare(today) : part == Part.BOOK ? v.described(v.engine(), Optional.empty()) : v,
                all || part == Part.READINGS ? List.of() : h.readings(),
                all || part == Part.RENEWALS ? List.of() : h.renewals(),
                all || part == Part.EVIDENCE ? List.of() : h.evidence(),
                all || part == Part.TRIPS ? List.of() : h.trips(),
                all || part == Part.READINGS ? List.of() : h.replacements(),
                h.calls(),
                h.declines(),
                all ? Optional.empty() : h.forward());
    }
}
