package knollfield.app.standins;

import java.util.List;
import knollfield.app.vehicle.Vehicle;

/** A device that reads the fault codes an engine's control unit has stored. */
public interface FaultCodeReader {

    /** Codes as the control unit writes them, such as {@code P0016}; empty where it has stored none. */
    List<String> read(Vehicle vehicle);
}
