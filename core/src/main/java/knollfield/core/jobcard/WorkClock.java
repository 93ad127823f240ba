package knollfield.core.jobcard;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * How long a card was worked on, from its entries: who was at it, in which phase, and what kept them.
 *
 * @param byPhase minutes of work by phase code, in working order; two people count twice
 * @param byStep the same by code of the step whose answer ended them, not rounded; what was ticked together shares them
 * @param byPerson minutes by name
 * @param present names of those who are at it at the end
 * @param waits what the job waited for
 * @param uncounted minutes that lie across a night nobody noted; they are counted as no work
 */
public record WorkClock(
        Map<String, Integer> byPhase,
        Map<String, Double> byStep,
        Map<String, Integer> byPerson,
        Set<String> present,
        List<Wait> waits,
        int uncounted) {

    /** @param minutes empty while the job still waits */
    public record Wait(String why, String words, Instant from, Optional<Integer> minutes) {}

    public WorkClock {
        byPhase = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(byPhase));
        byStep = Map.copyOf(byStep);
        byPerson = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(byPerson));
        present = Set.copyOf(present);
        waits = List.copyOf(waits);
    }

    /** Minutes of work altogether. */
    public int minutes() {
        return byPhase.values().stream().mapToInt(Integer::intValue).sum();
    }

    /**
     * Reads {@code entries}. The time up to an entry belongs to the phase of the step it answers; what is entered beside
     * the steps belongs to the phase before.
     *
     * @param plan the card as it stands at the end
     * @param zone the workshop's, so that a night is known as one
     * @param now time up to here counts while the job is under way; empty for a signed card
     */
    public static WorkClock of(CardPlan plan, List<CardEntry> entries, ZoneId zone, Optional<Instant> now) {
        return new Reading(plan, zone).read(entries, now);
    }

    private static final class Reading {
        private final CardPlan plan;
        private final ZoneId zone;
        private final Map<String, Duration> phases = new LinkedHashMap<>();
        private final Map<String, Double> steps = new LinkedHashMap<>();
        private final Map<String, Duration> people = new LinkedHashMap<>();
        private final Set<String> here = new LinkedHashSet<>();
        private final List<Wait> waits = new ArrayList<>();
        private Duration lost = Duration.ZERO;
        private Optional<Instant> since = Optional.empty();
        private String phase;
        private List<String> answered = List.of();

        Reading(CardPlan plan, ZoneId zone) {
            this.plan = plan;
            this.zone = zone;
            this.phase = plan.phases().get(0).code();
        }

        WorkClock read(List<CardEntry> entries, Optional<Instant> now) {
            for (CardEntry entry : entries) {
                phaseOf(entry.event()).ifPresent(p -> phase = p);
                answered = stepsOf(entry.event());
                count(entry.at());
                apply(entry);
            }
            answered = List.of();
            now.ifPresent(this::count);
            return new WorkClock(inOrder(), steps, minutes(people), here, waits, minutes(lost));
        }

        private void apply(CardEntry entry) {
            CardEvent event = entry.event();
            since = Optional.of(entry.at());
            if (event instanceof CardEvent.Paused p) {
                waits.add(new Wait(p.why().words(), p.words(), entry.at(), Optional.empty()));
                since = Optional.empty();
            } else if (event instanceof CardEvent.Resumed) {
                Wait w = waits.remove(waits.size() - 1);
                int waited = minutes(Duration.between(w.from(), entry.at()));
                waits.add(new Wait(w.why(), w.words(), w.from(), Optional.of(waited)));
                here.add(entry.by());
            } else if (event instanceof CardEvent.HandedOver h) {
                here.remove(entry.by());
                here.add(h.to());
            } else if (event instanceof CardEvent.Left) {
                here.remove(entry.by());
            } else if (event instanceof CardEvent.Started || event instanceof CardEvent.Joined) {
                here.add(entry.by());
            }
            boolean waiting =
                    !waits.isEmpty() && waits.get(waits.size() - 1).minutes().isEmpty();
            if (waiting || event instanceof CardEvent.Completed) {
                since = Optional.empty();
            }
        }

        private void count(Instant until) {
            if (since.isEmpty() || !until.isAfter(since.get())) {
                return;
            }
            Duration span = Duration.between(since.get(), until);
            if (!since.get()
                    .atZone(zone)
                    .toLocalDate()
                    .equals(until.atZone(zone).toLocalDate())) {
                lost = lost.plus(span);
                return;
            }
            Duration all = span.multipliedBy(here.size());
            phases.merge(phase, all, Duration::plus);
            answered.forEach(s -> steps.merge(s, all.toMillis() / 60_000.0 / answered.size(), Double::sum));
            here.forEach(p -> people.merge(p, span, Duration::plus));
        }

        private List<String> stepsOf(CardEvent event) {
            return event instanceof CardEvent.PhaseTicked e
                    ? plan.phase(e.phase()).stream()
                            .flatMap(p -> p.steps().stream())
                            .filter(s -> s.task() instanceof Task.Tick)
                            .map(Step::code)
                            .toList()
                    : stepOf(event).stream().toList();
        }

        private Optional<String> phaseOf(CardEvent event) {
            if (event instanceof CardEvent.PhaseTicked e) {
                return Optional.of(e.phase());
            }
            return stepOf(event)
                    .flatMap(code -> plan.phases().stream()
                            .filter(p ->
                                    p.steps().stream().anyMatch(s -> s.code().equals(code)))
                            .map(Phase::code)
                            .findFirst());
        }

        private Map<String, Integer> inOrder() {
            Map<String, Integer> ordered = new LinkedHashMap<>();
            plan.phases()
                    .forEach(p -> Optional.ofNullable(phases.get(p.code()))
                            .ifPresent(d -> ordered.put(p.code(), minutes(d))));
            return ordered;
        }

        private static Map<String, Integer> minutes(Map<String, Duration> by) {
            Map<String, Integer> minutes = new LinkedHashMap<>();
            by.forEach((k, d) -> minutes.put(k, minutes(d)));
            return minutes;
        }

        private static int minutes(Duration d) {
            return (int) Math.round(d.toSeconds() / 60.0);
        }
    }

    /** The step an event answers; empty for what is entered beside the steps. */
    static Optional<String> stepOf(CardEvent event) {
        if (event instanceof CardEvent.Ticked e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.Inspected e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.Chosen e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.Counted e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.Checked e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.Measured e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.RunsCounted e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.MarksCounted e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.Passed e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.TorqueEntered e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.Turned e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.MarksRead e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.Deviated e) {
            return Optional.of(e.step());
        } else if (event instanceof CardEvent.Deferred e) {
            return Optional.of(e.step());
        }
        return Optional.empty();
    }
}
