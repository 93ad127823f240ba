package knollfield.app.record;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import knollfield.app.aftercare.Aftercare;
import knollfield.app.breakdown.Breakdown;
import knollfield.app.breakdown.Breakdowns;
import knollfield.app.due.Forecasts;
import knollfield.app.due.VehicleState;
import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.job.card.Cards;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Words;
import knollfield.app.vehicle.Renewal;
import knollfield.app.vehicle.StoredEvidence;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.core.completion.Completion;
import knollfield.core.due.JobStage;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardState;
import knollfield.core.jobcard.GateKind;
import org.springframework.stereotype.Service;

/** What has happened to a vehicle's timing drive, as sentences, each with what proves it. */
@Service
class Story {

    private final Forecasts forecasts;
    private final Jobs jobs;
    private final Cards cards;
    private final Aftercare aftercare;
    private final Breakdowns breakdowns;
    private final WorkshopSettings settings;
    private final Words words;
    private final CurrentPerson current;

    Story(
            Forecasts forecasts,
            Jobs jobs,
            Cards cards,
            Aftercare aftercare,
            Breakdowns breakdowns,
            WorkshopSettings settings,
            Words words,
            CurrentPerson current) {
        this.forecasts = forecasts;
        this.jobs = jobs;
        this.cards = cards;
        this.aftercare = aftercare;
        this.breakdowns = breakdowns;
        this.settings = settings;
        this.words = words;
        this.current = current;
    }

    /** How sure a statement is. */
    enum Proof {
        /** A card of this workshop, step by step. */
        RECORD("job record"),
        /** Papers, or something measured. */
        PAPER("documented"),
        /** Somebody looked. */
        SEEN("seen"),
        /** Somebody said so. */
        SAID("said only");

        private final String words;

        Proof(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }
    }

    /**
     * A sentence of the story.
     *
     * @param by who says so
     * @param job whose record proves it
     */
    record Chapter(LocalDate on, String sentence, Proof proof, String by, Optional<Long> job) {}

    /**
     * The story, newest first; for whoever owns the vehicle without what the house notes for itself.
     */
    List<Chapter> of(long vehicleId) {
        boolean outside = current.get().isOutside();
        UnaryOperator<String> names = current.names();
        VehicleState state =
                forecasts.find(vehicleId).orElseThrow(() -> new NotFound("There is no vehicle " + vehicleId + "."));
        VehicleHistory history = state.history();
        List<Chapter> story = new ArrayList<>();
        story.add(new Chapter(
                history.vehicle().firstRegistered(), "First registered.", Proof.PAPER, "papers", Optional.empty()));
        jobs.ofVehicle(vehicleId).forEach(j -> job(j, names).ifPresent(story::add));
        renewals(history, state.family(), story, names);
        evidence(history, story, outside, names);
        breakdowns.ofVehicle(vehicleId).stream()
                .filter(Breakdown::stands)
                .forEach(b -> story.add(broken(b, state.family(), names)));
        history.declines()
                .forEach(d -> story.add(new Chapter(
                        d.declinedOn(),
                        "%s declined the work until %s, told: %s."
                                .formatted(names.apply(d.declinedBy()), words.day(d.until()), d.told()),
                        Proof.SAID,
                        names.apply(d.enteredBy()),
                        Optional.empty())));
        aftercare
                .rechecks(vehicleId)
                .forEach(r -> r.done()
                        .ifPresent(c -> story.add(new Chapter(
                                c.on(),
                                "Rechecked, %s: %s.".formatted(lower(r.what()), c.result()),
                                Proof.SEEN,
                                names.apply(c.by()),
                                Optional.of(r.jobId())))));
        aftercare.followUps(vehicleId).stream()
                .filter(f -> !outside)
                .forEach(f -> story.add(new Chapter(
                        f.notedOn(),
                        "To follow up: %s%s"
                                .formatted(
                                        f.what(),
                                        f.closed()
                                                .map(c ->
                                                        "; settled on %s: %s.".formatted(words.day(c.on()), c.result()))
                                                .orElse("; still open.")),
                        Proof.SEEN,
                        f.notedBy(),
                        f.jobId())));
        story.sort(Comparator.comparing(Chapter::on).reversed());
        return story;
    }

    private Chapter broken(Breakdown b, Optional<EngineFamily> family, UnaryOperator<String> names) {
        String what = family.flatMap(f -> f.item(b.itemCode())).map(Item::name).orElse("Timing drive");
        return new Chapter(
                b.on(),
                "Broke down at %s, %s: %s%s.%s"
                        .formatted(
                                words.km(b.km()),
                                lower(what),
                                b.what(),
                                b.costMinor().isPresent()
                                        ? "; it came to "
                                                + words.money(
                                                        b.costMinor().getAsLong(),
                                                        settings.get().currency())
                                        : "",
                                b.declined() ? " The work had been declined." : ""),
                Proof.SEEN,
                names.apply(b.enteredBy()),
                Optional.empty());
    }

    private static String inspected(CardState card) {
        return card.inspectionEnd()
                .map(d -> "Inspected, nothing opened: %s, %s".formatted(d.end().words(), d.reason()))
                .orElse("Inspected, nothing opened");
    }

    private Optional<Chapter> job(Job job, UnaryOperator<String> names) {
        if (job.stage() != JobStage.DONE || job.done().isEmpty()) {
            return Optional.empty();
        }
        Job.Done done = job.done().get();
        CardState card = cards.state(job);
        EngineFamily family = jobs.family(job);
        Set<String> items = Completion.items(card);
        String what = job.scope().isInspection()
                ? inspected(card)
                : items.isEmpty() ? "Opened again and put back with the same parts" : named(family, items) + " renewed";
        boolean readTrue = card.plan().feeding(GateKind.REFERENCES_TRUE).stream()
                .anyMatch(s -> card.answers().containsKey(s.code()));
        String proven = readTrue ? " Turned over twice, references true at attempt %d.".formatted(card.attempt()) : "";
        int overridden = card.overrides().size();
        String again = job.rework()
                .map(r -> " Came back from job %d: %s.".formatted(r.of(), r.reason()))
                .orElse("");
        String deviations = overridden == 0
                ? ""
                : " %d %s opened by the manager, with words."
                        .formatted(overridden, overridden == 1 ? "gate was" : "gates were");
        int pictures = card.noted(CardEvent.PhotoTaken.class).size();
        return Optional.of(new Chapter(
                done.on(),
                "%s at %s.%s%s%s%s"
                        .formatted(
                                what,
                                words.km(done.km()),
                                proven,
                                deviations,
                                again,
                                pictures == 0
                                        ? ""
                                        : " %d %s.".formatted(pictures, pictures == 1 ? "picture" : "pictures")),
                Proof.RECORD,
                card.signature().map(CardState.Signature::by).map(names).orElse(""),
                Optional.of(job.id())));
    }

    /** Renewals that no card of ours proves, one sentence a day. */
    private void renewals(
            VehicleHistory history, Optional<EngineFamily> family, List<Chapter> story, UnaryOperator<String> names) {
        history.renewals().stream()
                .filter(r -> r.jobId().isEmpty())
                .collect(Collectors.groupingBy(r -> r.date() + " " + r.km() + " " + r.grade()))
                .values()
                .forEach(together -> {
                    Renewal r = together.get(0);
                    Set<String> items = together.stream().map(Renewal::itemCode).collect(Collectors.toSet());
                    story.add(new Chapter(
                            r.date(),
                            "%s renewed at %s, elsewhere or before the records."
                                    .formatted(
                                            family.map(f -> named(f, items)).orElse(String.join(", ", items)),
                                            words.km(r.km())),
                            r.grade() == knollfield.core.clock.ClockStart.Grade.DOCUMENTED ? Proof.PAPER : Proof.SAID,
                            names.apply(r.enteredBy()),
                            Optional.empty()));
                });
    }

    private static void evidence(
            VehicleHistory history, List<Chapter> story, boolean outside, UnaryOperator<String> names) {
        for (StoredEvidence e : history.evidence()) {
            Proof proof = switch (e.evidence().confidence()) {
                case MEASURED -> Proof.PAPER;
                case SEEN -> Proof.SEEN;
                case SAID, SIMULATED -> Proof.SAID;
            };
            story.add(new Chapter(
                    e.evidence().found(),
                    "Found: %s%s%s"
                            .formatted(
                                    e.evidence().kind().words(),
                                    outside || e.note().isBlank() ? "" : " (" + e.note() + ")",
                                    e.endedWhy()
                                            .map(w -> outside ? "; no longer." : "; " + w + ".")
                                            .orElse("; still stands.")),
                    proof,
                    e.source() + ", " + names.apply(e.enteredBy()),
                    Optional.empty()));
        }
    }

    private static String named(EngineFamily family, Set<String> items) {
        List<String> names = family.items().stream()
                .filter(i -> items.contains(i.code()))
                .map(Item::name)
                .toList();
        if (names.isEmpty()) {
            return String.join(", ", items);
        }
        StringBuilder text = new StringBuilder(names.get(0));
        for (int i = 1; i < names.size(); i++) {
            text.append(i == names.size() - 1 ? " and " : ", ").append(lower(names.get(i)));
        }
        return text.toString();
    }

    private static String lower(String text) {
        return text.substring(0, 1).toLowerCase(Locale.ROOT) + text.substring(1);
    }
}
