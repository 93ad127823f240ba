package knollfield.app.recall;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import knollfield.app.aftercare.Aftercare;
import knollfield.app.engine.EngineBook;
import knollfield.app.engine.VersionedFamily;
import knollfield.app.job.Job;
import knollfield.app.job.JobRepository;
import knollfield.app.job.card.Cards;
import knollfield.app.problem.Checks;
import knollfield.app.vehicle.Renewal;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.app.vehicle.VehicleService;
import knollfield.core.engine.TorqueSpec;
import knollfield.core.engine.work.Verb;
import knollfield.core.jobcard.Answer;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.Step;
import knollfield.core.jobcard.Task;
import knollfield.core.jobcard.TorqueWords;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Finds every vehicle that something was fitted to, or done with, and makes follow-ups of what was found. */
@Service
class Recall {

    /** A value entered is within this of the one asked for, N·m. */
    private static final double SAME_NM = 0.5;

    private final VehicleService vehicles;
    private final EngineBook book;
    private final JobRepository jobs;
    private final Cards cards;
    private final Aftercare aftercare;

    Recall(VehicleService vehicles, EngineBook book, JobRepository jobs, Cards cards, Aftercare aftercare) {
        this.vehicles = vehicles;
        this.book = book;
        this.jobs = jobs;
        this.cards = cards;
        this.aftercare = aftercare;
    }

    /**
     * One vehicle and what it has.
     *
     * @param on the day of the work
     * @param km odometer then
     * @param jobId empty where the work was not ours
     * @param what it has, in words
     */
    record Found(Vehicle vehicle, LocalDate on, int km, Optional<Long> jobId, String what) {}

    /** A vehicle a follow-up is made for, and the job it speaks of. */
    record Target(long vehicleId, Optional<Long> jobId) {}

    /** Vehicles whose part number holds {@code number}; case, blanks and hyphens do not matter. */
    List<Found> byPart(String number) {
        return renewals(number, Renewal::part);
    }

    /** Vehicles with a part whose batch holds {@code batch}; case, blanks and hyphens do not matter. */
    List<Found> byBatch(String batch) {
        return renewals(batch, Renewal::batch);
    }

    private List<Found> renewals(String asked, Function<Renewal, String> field) {
        String plain = plain(asked);
        new Checks().that(!plain.isEmpty(), "/q", "Say what to look for.").orThrow();
        List<Found> found = new ArrayList<>();
        for (VehicleHistory history : vehicles.allHistories()) {
            for (Renewal r : history.renewals()) {
                if (plain(field.apply(r)).contains(plain)) {
                    boolean gone = history.renewals().stream()
                            .anyMatch(later -> later.itemCode().equals(r.itemCode())
                                    && later.date().isAfter(r.date()));
                    String words = words(history.vehicle(), r) + (gone ? " (renewed again since)" : "");
                    found.add(new Found(history.vehicle(), r.date(), r.km(), r.jobId(), words));
                }
            }
        }
        return sorted(found);
    }

    private String words(Vehicle vehicle, Renewal r) {
        String item = vehicle.familyCode()
                .flatMap(book::find)
                .flatMap(f -> f.family().item(r.itemCode()))
                .map(i -> i.name())
                .orElse(r.itemCode());
        return "%s: %s%s".formatted(item, r.part(), r.batch().isEmpty() ? "" : ", batch " + r.batch());
    }

    private static String plain(String text) {
        return text.toLowerCase(Locale.ROOT).replaceAll("[\\s\\p{Pd}]+", "");
    }

    /**
     * Signed jobs that did a joint up.
     *
     * @param newtonMetres only where the book asked for this much; empty: whatever it asked for
     */
    List<Found> byJoint(String family, String joint, OptionalDouble newtonMetres) {
        known(family);
        new Checks().that(!joint.isBlank(), "/joint", "Choose the joint.").orThrow();
        List<Found> found = new ArrayList<>();
        for (Job job : jobs.signedOf(family)) {
            CardState card = cards.state(job);
            card.plan().steps().stream()
                    .filter(s -> doesUp(s, joint))
                    .filter(s -> newtonMetres.isEmpty()
                            || spec(s.task())
                                    .filter(t ->
                                            Math.abs(t.torque().newtonMetres() - newtonMetres.getAsDouble()) <= SAME_NM)
                                    .isPresent())
                    .flatMap(s -> Optional.ofNullable(card.answers().get(s.code())).stream()
                            .map(a -> found(job, words(s, a))))
                    .forEach(found::add);
        }
        return sorted(found);
    }

    private static boolean doesUp(Step step, String joint) {
        return step.operations().stream()
                        .anyMatch(o -> o.verb() == Verb.TIGHTEN && o.thing().equals(joint))
                || (step.task() instanceof Task.Tighten t && t.jointCode().equals(joint));
    }

    private static Optional<TorqueSpec> spec(Task task) {
        return task instanceof Task.Tighten t ? t.spec() : task instanceof Task.Passes p ? p.spec() : Optional.empty();
    }

    private static String words(Step step, Answer answer) {
        return spec(step.task())
                .map(t -> "%s: %s; the book then %s".formatted(step.title(), answer.words(), TorqueWords.of(t)))
                .orElse("%s: %s".formatted(step.title(), answer.words()));
    }

    /** Signed jobs that were worked by one version of a family's book. */
    List<Found> byBook(String family, int version) {
        known(family);
        return sorted(jobs.signedOf(family).stream()
                .filter(j -> j.familyVersion() == version)
                .map(j -> found(j, "worked by version %d of the book".formatted(version)))
                .toList());
    }

    /** Names of the joints that any version of the family's book has or had, by code, in the book's order. */
    Map<String, String> joints(String family) {
        known(family);
        Map<String, String> joints = new LinkedHashMap<>();
        for (VersionedFamily version : book.versions(family)) {
            version.family().build().ifPresent(b -> b.joints().forEach(j -> joints.putIfAbsent(j.code(), j.name())));
            version.family().joints().forEach(j -> joints.putIfAbsent(j.code(), j.name()));
        }
        return joints;
    }

    /** Versions of the family's book, newest first. */
    List<Integer> versions(String family) {
        known(family);
        return book.versions(family).stream().map(VersionedFamily::version).toList();
    }

    private void known(String family) {
        new Checks()
                .that(book.find(family).isPresent(), "/family", "There is no engine family %s.".formatted(family))
                .orThrow();
    }

    private Found found(Job job, String what) {
        Job.Done done = job.done().orElseThrow();
        return new Found(vehicles.get(job.vehicleId()), done.on(), done.km(), Optional.of(job.id()), what);
    }

    /** What was done to one vehicle at once is one row; newest first. */
    private static List<Found> sorted(List<Found> found) {
        record At(long vehicleId, LocalDate on, int km, Optional<Long> jobId) {}
        Map<At, Found> rows = new LinkedHashMap<>();
        for (Found f : found) {
            rows.merge(
                    new At(f.vehicle().id(), f.on(), f.km(), f.jobId()),
                    f,
                    (a, b) -> new Found(a.vehicle(), a.on(), a.km(), a.jobId(), a.what() + "; " + b.what()));
        }
        return rows.values().stream()
                .sorted(Comparator.comparing(Found::on)
                        .reversed()
                        .thenComparing(f -> f.vehicle().registration()))
                .toList();
    }

    /**
     * Makes one follow-up for each vehicle; where the same one is open already, nothing is made.
     *
     * @return how many were made
     */
    @Transactional
    int followUps(List<Target> targets, String words, boolean urgent) {
        new Checks()
                .text(words, 380, "/words", "What is to be done")
                .that(!targets.isEmpty(), "/targets", "Choose at least one vehicle.")
                .orThrow();
        return (int) targets.stream()
                .filter(t -> aftercare.followUp(vehicles.get(t.vehicleId()).id(), own(t), words, urgent))
                .count();
    }

    /** @throws knollfield.app.problem.InvalidInput where the job is not one of the vehicle's */
    private Optional<Long> own(Target target) {
        boolean own = target.jobId()
                .map(id -> jobs.find(id)
                        .filter(j -> j.vehicleId() == target.vehicleId())
                        .isPresent())
                .orElse(true);
        new Checks().that(own, "/targets", "A job is not one of its vehicle.").orThrow();
        return target.jobId();
    }
}
