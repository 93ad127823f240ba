package knollfield.app.due;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.app.shared.Folded;
import knollfield.app.vehicle.PhoneNumber;
import knollfield.app.vehicle.Registration;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.due.UseState;
import knollfield.core.engine.Drive;
import knollfield.core.engine.Interference;

/**
 * Which vehicles a list shows; whatever is empty does not choose.
 *
 * @param withinDays act-by today or within so many days
 * @param states vehicle states; empty: those that are planned
 * @param q words that registration, owner, fleet, make and model, VIN or phone contain
 */
public record VehicleFilter(
        Optional<Long> fleet,
        Optional<Drive> drive,
        Optional<String> family,
        Optional<Interference> interference,
        Optional<Integer> withinDays,
        Set<UseState.Kind> states,
        String q) {

    /** Fewer letters of a VIN are in too many of them. */
    private static final int LEAST_OF_VIN = 4;

    public VehicleFilter {
        states = Set.copyOf(states);
    }

    /** Vehicles that are planned and match {@code q}. */
    public static VehicleFilter words(String q) {
        return new VehicleFilter(
                Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), Set.of(), q);
    }

    /** This filter, made ready for a list as of {@code today}. */
    public Test on(LocalDate today) {
        List<Word> words = Arrays.stream(Folded.of(q.strip()).split("\\s+"))
                .filter(w -> !w.isEmpty())
                .map(w -> new Word(w, Registration.key(w)))
                .toList();
        return new Test(this, today, words, Registration.key(Folded.of(q)), q.strip());
    }

    /** A word as it is searched, and as registrations are. */
    record Word(String text, String key) {}

    /** A filter with its words taken apart once. */
    public record Test(VehicleFilter filter, LocalDate today, List<Word> words, String key, String asked) {

        public boolean matches(VehicleState s) {
            Vehicle v = s.vehicle();
            boolean state = filter.states.isEmpty()
                    ? v.state().planned()
                    : filter.states.contains(v.state().kind());
            return state
                    && (filter.fleet.isEmpty()
                            || v.fleet()
                                    .filter(f -> f.id() == filter.fleet.get())
                                    .isPresent())
                    && (filter.family.isEmpty() || v.familyCode().equals(filter.family))
                    && (filter.drive.isEmpty()
                            || s.family()
                                    .filter(f -> f.drive() == filter.drive.get())
                                    .isPresent())
                    && (filter.interference.isEmpty()
                            || s.family()
                                    .filter(f -> f.interference() == filter.interference.get())
                                    .isPresent())
                    && (filter.withinDays.isEmpty()
                            || s.forecast()
                                    .actBy()
                                    .filter(d -> !d.isAfter(today.plusDays(filter.withinDays.get())))
                                    .isPresent())
                    && found(s.search());
        }

        private boolean found(VehicleState.Search search) {
            return words.isEmpty()
                    || (!key.isEmpty() && search.key().contains(key))
                    || (key.length() >= LEAST_OF_VIN && search.vin().contains(key))
                    || PhoneNumber.matches(search.phone(), asked)
                    || words.stream().allMatch(w -> holds(search, w));
        }

        private static boolean holds(VehicleState.Search search, Word word) {
            return search.words().contains(word.text())
                    || (!word.key().isEmpty() && search.key().contains(word.key()))
                    || (word.key().length() >= LEAST_OF_VIN && search.vin().contains(word.key()));
        }
    }
}
