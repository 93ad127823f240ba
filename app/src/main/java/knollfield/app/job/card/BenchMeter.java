package knollfield.app.job.card;

import knollfield.app.job.Job;
import knollfield.app.job.Jobs;
import knollfield.app.problem.Conflict;
import knollfield.app.standins.FrequencyMeter;
import knollfield.app.standins.Outside;
import knollfield.core.calculator.BeltTension;
import knollfield.core.engine.Handling;
import knollfield.core.jobcard.CardState;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The belt-frequency meter held to the belt of a job. */
@Component
class BenchMeter {

    private final Jobs jobs;
    private final Cards cards;
    private final FrequencyMeter meter;
    private final Outside outside;

    BenchMeter(Jobs jobs, Cards cards, FrequencyMeter meter, Outside outside) {
        this.jobs = jobs;
        this.cards = cards;
        this.meter = meter;
        this.outside = outside;
    }

    /** @param newtons tension of a string that swings like that; null where the book has no free run */
    /** @param simulated a stand-in said it, so that it is not measured */
    record MeterReading(double hertz, @Nullable Double newtons, boolean simulated) {}

    /** One reading; nothing is entered by it. */
    MeterReading read(long jobId) {
        Job job = jobs.get(jobId);
        CardState state = cards.state(job);
        Handling.Acceptance window = state.plan()
                .basis()
                .family()
                .handling()
                .acceptance()
                .filter(a -> a.quantity() == Handling.Quantity.FREQUENCY_HZ)
                .orElseThrow(() -> new Conflict("This engine's tension is not set by frequency."));
        if (!outside.get().beltMeter()) {
            throw new Conflict("No meter is connected. Type what yours shows.");
        }
        double hertz = meter.read(job.vehicleId(), window, state.attempt());
        outside.simulated(jobId, hertz);
        return new MeterReading(
                hertz, window.run().map(r -> BeltTension.newtons(r, hertz)).orElse(null), true);
    }
}
