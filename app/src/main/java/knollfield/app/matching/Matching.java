package knollfield.app.matching;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.FamilyRules;
import knollfield.app.problem.Conflict;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.matching.FamilyRule;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Gives vehicles their engine family, by the rules or one by one. */
@Service
class Matching {

    private final FamilyRules rules;
    private final VehicleService vehicles;
    private final EngineBook book;

    Matching(FamilyRules rules, VehicleService vehicles, EngineBook book) {
        this.rules = rules;
        this.vehicles = vehicles;
        this.book = book;
    }

    /** A vehicle without a family, and the families the rules give it. */
    record Open(Vehicle vehicle, Set<String> families) {}

    /**
     * A rule, and what it does to the vehicles on file.
     *
     * @param fits vehicles that answer it
     * @param otherwise those of them that have another family
     */
    record Effect(FamilyRules.Stored stored, int fits, int otherwise) {}

    /** A vehicle's family as it is to be; empty: none. */
    record Choice(long vehicleId, Optional<String> family, int version) {}

    /** Vehicles in use without a family, by registration. */
    List<Open> open() {
        List<FamilyRule> all = rules.rules();
        return inUse().stream()
                .filter(v -> v.familyCode().isEmpty())
                .map(v -> new Open(v, FamilyRule.families(all, described(v))))
                .sorted(Comparator.comparing(o -> o.vehicle().registration()))
                .toList();
    }

    List<Effect> effects() {
        List<Vehicle> all = inUse();
        return rules.all().stream()
                .map(r -> {
                    List<Vehicle> fitting = all.stream()
                            .filter(v -> r.rule().fits(described(v)))
                            .toList();
                    return new Effect(r, fitting.size(), (int) fitting.stream()
                            .filter(v -> v.familyCode()
                                    .filter(f -> !f.equals(r.rule().family()))
                                    .isPresent())
                            .count());
                })
                .toList();
    }

    /**
     * Gives vehicles these families, all or none; each is written in its vehicle's log.
     *
     * @return the vehicles as they were, with the versions they have now, so that it can be taken back
     * @throws InvalidInput for a family that is not on file
     * @throws Conflict where a vehicle was changed meanwhile
     */
    @Transactional
    public List<Choice> give(List<Choice> choices) {
        List<FieldProblem> problems = new ArrayList<>();
        for (int i = 0; i < choices.size(); i++) {
            if (choices.get(i).family().filter(f -> book.find(f).isEmpty()).isPresent()) {
                problems.add(new FieldProblem("/choices/%d/family".formatted(i), "No such engine family is on file."));
            }
        }
        if (choices.isEmpty()) {
            problems.add(new FieldProblem("/choices", "Choose at least one vehicle."));
        }
        if (!problems.isEmpty()) {
            throw new InvalidInput(problems);
        }
        List<Choice> before = new ArrayList<>();
        for (Choice c : choices) {
            Vehicle v = vehicles.get(c.vehicleId());
            if (v.version() != c.version()) {
                throw new Conflict(
                        "%s was changed by somebody else meanwhile. Nothing was saved.".formatted(v.registration()));
            }
            vehicles.change(v.described(v.engine(), c.family()), "engine family");
            before.add(new Choice(v.id(), v.familyCode(), v.version() + 1));
        }
        return before;
    }

    private List<Vehicle> inUse() {
        return vehicles.all().stream().filter(v -> v.state().planned()).toList();
    }

    private static FamilyRule.Described described(Vehicle v) {
        return new FamilyRule.Described(
                v.makeModel(), v.engine(), v.firstRegistered().getYear());
    }
}
