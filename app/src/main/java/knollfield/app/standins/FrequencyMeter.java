package knollfield.app.standins;

import knollfield.core.engine.Handling;

/** Reads the frequency at which a free run of a belt swings. */
public interface FrequencyMeter {

    /**
     * One reading, in hertz.
     *
     * @param vehicleId on whose engine the meter is held
     * @param window the book's window for that run
     * @param attempt how often the tension has been set, from 1 on
     */
    double read(long vehicleId, Handling.Acceptance window, int attempt);
}
