package knollfield.app.desk;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import knollfield.app.aftercare.Aftercare;
import knollfield.app.desk.DossierViews.CallView;
import knollfield.app.desk.DossierViews.CostView;
import knollfield.app.desk.DossierViews.DeclineView;
import knollfield.app.desk.DossierViews.DossierView;
import knollfield.app.desk.DossierViews.JobRef;
import knollfield.app.desk.DossierViews.LogView;
import knollfield.app.desk.DossierViews.OwnTimingView;
import knollfield.app.desk.DossierViews.ReasonView;
import knollfield.app.desk.DossierViews.StateView;
import knollfield.app.desk.DossierViews.TripView;
import knollfield.app.desk.DossierViews.UsageView;
import knollfield.app.due.Forecasts;
import knollfield.app.due.Unjudged;
import knollfield.app.due.VehicleState;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.log.VehicleLog;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.Timings;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.vehicle.CallNote;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.StandingDecline;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.due.NextStep;
import knollfield.core.due.Standing;
import knollfield.core.due.VehicleForecast;
import knollfield.core.engine.EngineFamily;
import knollfield.core.odometer.ClassLearning;
import knollfield.core.odometer.UsageClass;
import knollfield.core.odometer.UsageRate;
import org.springframework.stereotype.Component;

/** A vehicle’s dossier, put together. */
@Component
class DossierPage {

    private static final int LOG_LINES = 40;

    private final Forecasts forecasts;
    private final VehicleService vehicles;
    private final Jobs jobs;
    private final VehicleLog log;
    private final Aftercare aftercare;
    private final WorkshopSettings settings;
    private final Words words;
    private final CurrentPerson current;

    DossierPage(
            Forecasts forecasts,
            VehicleService vehicles,
            Jobs jobs,
            VehicleLog log,
            Aftercare aftercare,
            WorkshopSettings settings,
            Words words,
            CurrentPerson current) {
        this.forecasts = forecasts;
        this.vehicles = vehicles;
        this.jobs = jobs;
        this.log = log;
        this.aftercare = aftercare;
        this.settings = settings;
        this.words = words;
        this.current = current;
    }

    /** As whoever asks may see it. */
    DossierView of(long id) {
        Vehicle v = vehicles.get(id);
        VehicleState state = forecasts.find(id).orElseThrow(() -> new NotFound("There is no vehicle " + id + "."));
        VehicleForecast f = state.forecast();
        Workshop workshop = settings.get();
        Optional<EngineFamily> family = state.family();
        List<Job> all = jobs.ofVehicle(id);
        // what the house notes for itself is not for outside
        boolean outside = current.get().isOutside();
        UnaryOperator<String> names = current.names();
        Optional<Job> open = all.stream().filter(j -> j.stage().isOpen()).findFirst();
        return new DossierView(
                v.id(),
                v.version(),
                v.registration(),
                v.vin().orElse(null),
                v.makeModel(),
                family.map(EngineFamily::name).orElse(null),
                family.map(EngineFamily::interference).orElse(null),
                v.ownerId().orElse(null),
                v.ownerName(),
                v.ownerPhone(),
                v.fleet().map(Fleet::name).orElse(null),
                v.fleet().map(x -> x.contactName() + ", " + x.phone()).orElse(null),
                v.firstRegistered(),
                new StateView(
                        v.state().kind(),
                        v.state().kind().words(),
                        v.state().since().orElse(null)),
                v.own()
                        .map(o -> new OwnTimingView(
                                Timings.kindOf(o.timing()),
                                Timings.share(o.timing()),
                                Timings.km(o.timing()),
                                Timings.months(o.timing()),
                                o.reason()))
                        .orElse(null),
                v.idleHoursPerYear(),
                v.beltDateCode().orElse(null),
                state.callBack(),
                state.aside()
                        .map(a -> "%s until %s".formatted(a.why().words(), words.day(a.until())))
                        .orElse(null),
                state.unjudged().map(Unjudged.Part::words).orElse(null),
                f.status(),
                f.statusWords(),
                words.write(Standing.of(f, family), workshop.currency()),
                f.actBy().orElse(null),
                NextStep.of(
                        f,
                        open.map(Job::stage),
                        state.callBack(),
                        aftercare.dueToday().containsKey(id),
                        open.filter(Job::awaitsOwner).isPresent()),
                open.map(Job::id).orElse(null),
                state.exposurePerWeekMinor().isPresent()
                        ? state.exposurePerWeekMinor().getAsLong()
                        : null,
                state.consequence()
                        .map(c -> new CostView(c.low(), c.likely(), c.high()))
                        .orElse(null),
                usage(state),
                DossierViews.economic(state, workshop).orElse(null),
                f.deciding().map(d -> WindowView.of(f, d, state.history())).orElse(null),
                f.reasons().stream()
                        .map(r -> new ReasonView(r.topic().words(), words.write(r.statement(), workshop.currency())))
                        .toList(),
                f.items().stream().map(DossierViews::item).toList(),
                DossierViews.readings(state, names),
                DossierViews.evidence(state, outside, names),
                DossierViews.conditions(v.conditions(), state.family()),
                DossierViews.renewals(state, names),
                state.history().trips().stream()
                        .filter(t -> t.cancelledOn().isEmpty() && t.trip().to().isAfter(f.today()))
                        .map(t -> new TripView(
                                t.id(), t.trip().from(), t.trip().to(), t.trip().extraKm()))
                        .toList(),
                state.history().calls().stream()
                        .filter(c -> !outside)
                        .sorted(Comparator.comparing(CallNote::id).reversed())
                        .map(c -> new CallView(
                                c.id(),
                                c.spokenOn(),
                                c.spokeWith(),
                                c.note(),
                                c.askAgainOn().orElse(null),
                                c.enteredBy()))
                        .toList(),
                state.history().declines().stream()
                        .sorted(Comparator.comparing(StandingDecline::id).reversed())
                        .map(d -> new DeclineView(
                                d.id(),
                                d.declinedOn(),
                                names.apply(d.declinedBy()),
                                d.told(),
                                d.until(),
                                d.withdrawnOn().orElse(null),
                                names.apply(d.enteredBy())))
                        .toList(),
                all.stream()
                        .map(j -> new JobRef(
                                j.id(),
                                j.stage(),
                                j.done().map(Job.Done::on).orElse(null),
                                j.done().map(Job.Done::km).orElse(null)))
                        .toList(),
                log.newest(id, outside ? 0 : LOG_LINES).stream()
                        .map(l -> new LogView(l.at(), l.by(), l.what(), l.before(), l.after()))
                        .toList());
    }

    private UsageView usage(VehicleState state) {
        UsageRate rate = state.forecast().projection().rate();
        UsageClass usage = state.facts().usage();
        Optional<ClassLearning> learning =
                Optional.ofNullable(forecasts.classes().get(usage.code()));
        return new UsageView(
                rate.kmPerYear(),
                Math.sqrt(rate.variance()),
                rate.observed().map(UsageRate.Observed::kmPerYear).orElse(null),
                usage.name(),
                usage.meanKmPerYear(),
                usage.sdKmPerYear(),
                learning.map(ClassLearning::learned).orElse(false),
                learning.map(ClassLearning::vehicles).orElse(0));
    }
}
