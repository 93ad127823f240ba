package knollfield.app.setup;

import java.util.Map;
import knollfield.app.due.Forecasts;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.Assumptions;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.setup.SetupViews.AssumptionsChange;
import knollfield.app.setup.SetupViews.AssumptionsView;
import knollfield.app.setup.SetupViews.ChangeView;
import knollfield.app.setup.SetupViews.ClassView;
import knollfield.app.setup.SetupViews.PreviewView;
import knollfield.app.setup.SetupViews.WorkshopView;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.odometer.ClassLearning;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Policy, rates and planning assumptions, and what a change of them would move; the manager's alone. */
@RestController
@RequestMapping("/api/setup")
class SetupController {

    private final WorkshopSettings settings;
    private final Forecasts forecasts;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    SetupController(WorkshopSettings settings, Forecasts forecasts, CurrentPerson current, WorkshopClock clock) {
        this.settings = settings;
        this.forecasts = forecasts;
        this.current = current;
        this.clock = clock;
    }

    @GetMapping("/workshop")
    WorkshopView workshop() {
        return SetupViews.view(settings.get());
    }

    @PutMapping("/workshop")
    WorkshopView changeWorkshop(@RequestBody WorkshopChange c) {
        settings.change(workshop(c), c.amounts());
        return SetupViews.view(settings.get());
    }

    /** What the change would move; changes nothing. */
    @PostMapping("/workshop/preview")
    PreviewView previewWorkshop(@RequestBody WorkshopChange c) {
        return SetupViews.preview(forecasts.preview(workshop(c)));
    }

    @GetMapping("/assumptions")
    AssumptionsView assumptions() {
        Assumptions set = settings.get().assumptions();
        Map<String, WorkshopSettings.Changed> changed = settings.assumptionChanges();
        return new AssumptionsView(
                settings.get().version(),
                settings.catalogue().stream()
                        .map(a ->
                                SetupViews.view(a, set, changed, settings.get().currency()))
                        .toList(),
                forecasts.classes().values().stream()
                        .sorted(java.util.Comparator.comparing(c -> c.assumed().name()))
                        .map(c -> new ClassView(
                                c.assumed().name(),
                                c.vehicles(),
                                c.learned(),
                                ClassLearning.MIN_VEHICLES,
                                c.assumed().meanKmPerYear(),
                                c.assumed().sdKmPerYear(),
                                c.inForce().meanKmPerYear(),
                                c.inForce().sdKmPerYear()))
                        .toList(),
                settings.changes().stream()
                        .map(c -> new ChangeView(c.at(), c.by(), c.what(), c.before(), c.after()))
                        .toList());
    }

    @PutMapping("/assumptions")
    AssumptionsView changeAssumptions(@RequestBody AssumptionsChange c) {
        settings.assume(c.amounts(), c.version(), current.get().name(), clock.instant());
        return assumptions();
    }

    /** What the change would move; changes nothing. */
    @PostMapping("/assumptions/preview")
    PreviewView previewAssumptions(@RequestBody AssumptionsChange c) {
        Workshop next = settings.get()
                .with(settings.checked(c.amounts()), c.version(), current.get().name(), clock.instant());
        return SetupViews.preview(forecasts.preview(next));
    }

    private Workshop workshop(WorkshopChange c) {
        return c.on(settings.get(), current.get().name(), clock.instant());
    }
}
