package knollfield.app.job;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.engine.EngineBook;
import knollfield.app.parts.Catalogue;
import knollfield.app.problem.Checks;
import knollfield.app.problem.NotFound;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.core.bundle.Bundle;
import knollfield.core.bundle.BundlePlan;
import knollfield.core.bundle.BundlePlanner;
import knollfield.core.bundle.BundleRules;
import knollfield.core.bundle.Decision;
import knollfield.core.bundle.Labour;
import knollfield.core.due.JobStage;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.engine.Part;
import knollfield.core.explain.Statement;
import knollfield.core.jobcard.CardBasis;
import knollfield.core.jobcard.CardGenerator;
import knollfield.core.jobcard.CardPlan;
import knollfield.core.jobcard.CardScope;
import knollfield.core.jobcard.Step;
import knollfield.core.risk.Consequence;
import org.springframework.stereotype.Component;

/** Gathers what core needs to say what goes into a job. */
@Component
public class JobBuilds {

    private final Forecasts forecasts;
    private final EngineBook book;
    private final WorkshopSettings settings;
    private final Catalogue catalogue;
    private final WorkshopClock clock;

    JobBuilds(
            Forecasts forecasts, EngineBook book, WorkshopSettings settings, Catalogue catalogue, WorkshopClock clock) {
        this.forecasts = forecasts;
        this.book = book;
        this.settings = settings;
        this.catalogue = catalogue;
        this.clock = clock;
    }

    /** The book the job was built on, with its settled variants. */
    EngineFamily family(Job job) {
        return book.get(job.familyCode(), job.familyVersion())
                .settled(job.scope().variants());
    }

    VehicleState state(Job job) {
        return forecasts
                .find(job.vehicleId())
                .orElseThrow(() -> new NotFound("There is no vehicle " + job.vehicleId() + "."));
    }

    /** What goes into {@code job} as things stand now, what each line costs, and what each school would do. */
    BundlePlan plan(Job job) {
        EngineFamily family = family(job);
        VehicleState state = state(job);
        if (job.scope().isInspection()) {
            return nothing(family, state);
        }
        Workshop workshop = settings.get();
        Consequence consequence = state.consequence()
                .orElseGet(() ->
                        Consequence.of(family, state.vehicle().valueMinor(), state.plannedMinor(), workshop.costs()));
        return BundlePlanner.plan(
                family,
                job.stage() == JobStage.DONE ? before(job, state) : forecasts.forBundle(state),
                job.stage() == JobStage.DONE ? asDone(job, family) : scope(job),
                new BundlePlanner.Outlook(
                        state.forecast(),
                        state.facts().firstRegistered(),
                        workshop.wearModels(),
                        consequence,
                        workshop.labourRateMinor(),
                        job.scope().keptUntil()));
    }

    /** An inspection opens nothing. */
    private BundlePlan nothing(EngineFamily family, VehicleState state) {
        return new BundlePlan(
                new Bundle(List.of(), Labour.of(family, state.vehicle().equipment(), Set.of())),
                List.of(),
                List.of(),
                clock.today(),
                Statement.of("nothing is opened"),
                Optional.empty());
    }

    /** The vehicle as it came to a job that is done: without what the job itself renewed. */
    private BundleRules.Vehicle before(Job job, VehicleState state) {
        VehicleHistory h = state.history();
        VehicleHistory then = new VehicleHistory(
                h.vehicle(),
                h.readings(),
                h.renewals().stream()
                        .filter(r -> !r.jobId().equals(Optional.of(job.id())))
                        .toList(),
                h.evidence(),
                h.trips(),
                h.replacements(),
                h.calls(),
                h.declines(),
                h.forward());
        BundleRules.Vehicle now = forecasts.forBundle(state);
        return new BundleRules.Vehicle(
                now.equipment(),
                then.facts(state.facts().usage()).starts(),
                now.evidence(),
                now.today(),
                now.odometerKm());
    }

    /** A job that is done holds what was renewed in it, whatever the rules say today. */
    private BundleRules.Scope asDone(Job job, EngineFamily family) {
        BundleRules.Scope scope = scope(job);
        Map<String, Decision> done = new HashMap<>();
        for (Item item : family.items()) {
            done.put(item.code(), new Decision(job.items().contains(item.code()), "", ""));
        }
        return new BundleRules.Scope(
                scope.purpose(), scope.school(), scope.seals(), done, scope.parts(), scope.ownerSupplied());
    }

    /** What an inspection looks at, in its order. */
    List<String> looks(Job job) {
        return inspectionCard(job).steps().stream().map(Step::title).toList();
    }

    /** The card of an inspection as it would be begun now. */
    public CardPlan inspectionCard(Job job) {
        CardBasis basis = new CardBasis(
                book.get(job.familyCode(), job.familyVersion()),
                state(job).vehicle().equipment(),
                job.scope().variants().keySet(),
                CardScope.ofInspection().settled(job.scope().variants()));
        return CardGenerator.inspection(basis, job.scope().inspectionMinutes().orElseThrow());
    }

    /** Codes of the items the job is for. */
    Set<String> purpose(Job job) {
        Set<String> own = job.scope().purpose();
        return job.scope().isInspection() || !own.isEmpty() ? own : family(job).driveItems();
    }

    private BundleRules.Scope scope(Job job) {
        JobScope scope = job.scope();
        Workshop workshop = settings.get();
        Map<String, Part> parts = new HashMap<>();
        scope.parts()
                .forEach((item, number) -> catalogue
                        .find(number)
                        .ifPresent(p -> parts.put(item, new Part(p.number(), p.name(), 1, p.priceMinor()))));
        return new BundleRules.Scope(
                purpose(job),
                scope.school().orElse(workshop.school()),
                scope.seals().orElse(workshop.seals()),
                scope.decisions(),
                parts,
                scope.ownerSupplied());
    }

    /** Number of the part that is fitted as {@code item}. */
    public String fitted(Job job, Item item) {
        return Optional.ofNullable(job.scope().parts().get(item.code()))
                .orElse(item.part().number());
    }

    /**
     * Refuses a scope that refers to what is not there, or goes against a rule without what that needs.
     *
     * @throws knollfield.app.problem.InvalidInput with every fault beside its field
     */
    void check(Job job, JobScope scope) {
        EngineFamily family = book.get(job.familyCode(), job.familyVersion());
        Checks checks = new Checks();
        known(checks, family, scope.purpose(), "/purpose");
        known(checks, family, scope.decisions().keySet(), "/decisions");
        known(checks, family, scope.parts().keySet(), "/parts");
        known(checks, family, scope.ownerSupplied(), "/ownerSupplied");
        checks.that(scope.toolHireMinor() >= 0, "/toolHireMinor", "Must be zero or more.");
        scope.keptUntil()
                .ifPresent(d -> checks.that(
                        !d.isBefore(clock.today()), "/keptUntil", "The day lies in the past; leave it open instead."));
        scope.parts()
                .forEach((item, number) -> checks.that(
                        catalogue
                                .find(number)
                                .filter(p -> p.familyCode().equals(family.code())
                                        && p.itemCode().equals(item))
                                .isPresent(),
                        "/parts/" + item,
                        "Part %s is not on file for this item.".formatted(number)));
        scope.parts()
                .forEach((item, number) -> family.item(item)
                        .ifPresent(i -> catalogue
                                .find(number)
                                .ifPresent(p -> checks.that(
                                        BundleRules.takes(i, p.grade()),
                                        "/parts/" + item,
                                        "A front half alone is only fitted as the original maker's part."))));
        scope.variants()
                .forEach((variant, choice) -> checks.that(
                        family.variants().stream()
                                .anyMatch(v -> v.code().equals(variant)
                                        && v.choice(choice).isPresent()),
                        "/variants/" + variant,
                        "%s has no such choice.".formatted(family.name())));
        checks.orThrow();
        Map<String, BundlePlan.Line> rules = plan(job.with(scope.undecided())).byCode();
        scope.decisions()
                .forEach((item, decision) -> Optional.ofNullable(rules.get(item))
                        .map(decision::lacks)
                        .orElseGet(List::of)
                        .forEach(lack ->
                                checks.that(false, "/decisions/%s/%s".formatted(item, lack.field()), lack.words())));
        checks.orThrow();
    }

    private static void known(Checks checks, EngineFamily family, Set<String> items, String pointer) {
        items.stream()
                .filter(i -> family.item(i).isEmpty())
                .forEach(i -> checks.that(false, pointer, "%s has no item %s.".formatted(family.name(), i)));
    }
}
