package knollfield.app.standins;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import knollfield.app.engine.EngineBook;
import knollfield.app.vehicle.Vehicle;
import knollfield.core.engine.Drive;
import org.springframework.stereotype.Component;

/**
 * A reader that makes codes up: always the same for one vehicle, a correlation code on one chain in four and one belt in
 * twenty, and now and then a code that has nothing to do with the timing drive.
 */
@Component
class SimulatedFaultCodeReader implements FaultCodeReader {

    private static final String[] OTHERS = {"P0420", "P0171", "P0302", "P0128"};

    private final EngineBook book;

    SimulatedFaultCodeReader(EngineBook book) {
        this.book = book;
    }

    @Override
    public List<String> read(Vehicle vehicle) {
        Random random = new Random(vehicle.registration().hashCode());
        Optional<Drive> drive =
                vehicle.familyCode().flatMap(book::find).map(f -> f.family().drive());
        int one = drive.filter(d -> d == Drive.CHAIN).isPresent() ? 4 : 20;
        List<String> codes = new ArrayList<>();
        if (random.nextInt(one) == 0) {
            codes.add("P00" + (16 + random.nextInt(4)));
        }
        if (random.nextInt(3) == 0) {
            codes.add(OTHERS[random.nextInt(OTHERS.length)]);
        }
        return codes;
    }
}
