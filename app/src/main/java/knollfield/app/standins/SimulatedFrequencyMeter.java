package knollfield.app.standins;

import java.util.Random;
import knollfield.core.engine.Handling;
import org.springframework.stereotype.Component;

/**
 * A meter that makes readings up: near the window at the first attempt, inside it later, and never twice quite the same.
 */
@Component
class SimulatedFrequencyMeter implements FrequencyMeter {

    private final Random noise = new Random();

    @Override
    public double read(long vehicleId, Handling.Acceptance window, int attempt) {
        double middle = (window.low() + window.high()) / 2;
        double half = (window.high() - window.low()) / 2;
        // the first setting is off by as much as the whole window is wide, either way by vehicle
        double off = new Random(vehicleId).nextDouble(-2, 2) * half / (attempt * attempt);
        double reading = middle + off + noise.nextGaussian() * half / 20;
        return Math.round(reading * 10) / 10.0;
    }
}
