package knollfield.app.setup;

import java.util.ArrayList;
import java.util.List;
import knollfield.app.engine.EngineBook;
import knollfield.app.job.Jobs;
import knollfield.app.security.People;
import knollfield.app.settings.Workshop;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.vehicle.OnFile;
import knollfield.app.vehicle.VehicleService;
import org.springframework.stereotype.Service;

/** What a workshop of its own still lacks, in the order that serves it best; nothing is forced. */
@Service
class GettingReady {

    /** What a workshop is called before anybody has named it. */
    private static final String UNNAMED = "Workshop";

    private final WorkshopSettings settings;
    private final People people;
    private final Jobs jobs;
    private final EngineBook book;
    private final VehicleService vehicles;

    GettingReady(WorkshopSettings settings, People people, Jobs jobs, EngineBook book, VehicleService vehicles) {
        this.settings = settings;
        this.people = people;
        this.jobs = jobs;
        this.book = book;
        this.vehicles = vehicles;
    }

    /** What needs it. */
    enum For {
        DUE_LIST,
        ESTIMATE,
        PROMISE,
        CARD
    }

    /**
     * One thing that is missing.
     *
     * @param there what there is, in words
     * @param next what to do
     * @param path of the screen where it is done
     * @param blocks what does not work without it; empty where it is only better with it
     */
    record Missing(String code, String title, String there, String next, String path, List<For> blocks) {}

    /** @param ready what works already */
    record Ready(List<Missing> missing, List<For> ready) {}

    Ready ready() {
        List<Missing> missing = new ArrayList<>();
        Workshop workshop = settings.get();
        if (workshop.name().equals(UNNAMED)) {
            missing.add(new Missing(
                    "workshop",
                    "Workshop",
                    "It has no name of its own yet; its hours and its labour rate are first guesses.",
                    "Name it and set its hours",
                    "/setup/workshop",
                    List.of()));
        }
        if (people.technicians().isEmpty()) {
            missing.add(new Missing(
                    "people",
                    "People",
                    "Nobody works at the bench yet.",
                    "Add a technician",
                    "/setup/people",
                    List.of(For.PROMISE, For.CARD)));
        }
        if (jobs.bays().isEmpty()) {
            missing.add(new Missing(
                    "bays",
                    "Bays",
                    "There is no bay to promise a place in.",
                    "Add a bay",
                    "/setup/places",
                    List.of(For.PROMISE, For.CARD)));
        }
        if (book.all().isEmpty()) {
            missing.add(new Missing(
                    "engines",
                    "Engines",
                    "No engine family is on file, so that nothing can be due.",
                    "Write down an engine family",
                    "/engines/new",
                    List.of(For.values())));
        }
        OnFile onFile = vehicles.onFile();
        vehicles(onFile, missing);
        List<For> ready = new ArrayList<>(List.of(For.values()));
        missing.forEach(m -> ready.removeAll(m.blocks()));
        return new Ready(missing, ready);
    }

    private static void vehicles(OnFile onFile, List<Missing> missing) {
        if (onFile.vehicles() == 0) {
            missing.add(new Missing(
                    "vehicles",
                    "Vehicles",
                    "No vehicle is on file.",
                    "Import a list",
                    "/setup/import",
                    List.of(For.values())));
            return;
        }
        boolean none = onFile.withoutFamily() == onFile.vehicles();
        if (onFile.withoutFamily() > 0) {
            missing.add(new Missing(
                    "families",
                    "Engines of vehicles",
                    "%d of %d vehicles have no engine family, so that nothing is due on them."
                            .formatted(onFile.withoutFamily(), onFile.vehicles()),
                    "Give them their engines",
                    "/setup/matching",
                    none ? List.of(For.values()) : List.of()));
        }
        if (onFile.withoutReading() > 0) {
            missing.add(new Missing(
                    "readings",
                    "Odometers",
                    "%d of %d vehicles have no odometer reading; their dates rest on age alone."
                            .formatted(onFile.withoutReading(), onFile.vehicles()),
                    "Enter readings",
                    "/readings",
                    List.of()));
        }
    }
}
