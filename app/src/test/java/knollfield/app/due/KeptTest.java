package knollfield.app.due;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class KeptTest {

    private final Kept<Integer, String> kept = new Kept<>();
    private final AtomicInteger worked = new AtomicInteger();

    private String ask(List<VehicleState> vehicles, int question) {
        return kept.get(vehicles, question, q -> q + " worked out " + worked.incrementAndGet());
    }

    @Test
    void anAnswerIsWorkedOutOnceForAsLongAsNothingChanges() {
        List<VehicleState> vehicles = new ArrayList<>();
        assertThat(ask(vehicles, 1)).isEqualTo("1 worked out 1");
        assertThat(ask(vehicles, 1)).isEqualTo("1 worked out 1");
        assertThat(ask(vehicles, 2)).isEqualTo("2 worked out 2");
    }

    @Test
    void aNewListOfTheSameVehiclesIsAskedAnew() {
        ask(new ArrayList<>(), 1);
        assertThat(ask(new ArrayList<>(), 1)).isEqualTo("1 worked out 2");
    }

    @Test
    void manyQuestionsDoNotPileUp() {
        List<VehicleState> vehicles = new ArrayList<>();
        for (int question = 0; question < 1_000; question++) {
            ask(vehicles, question);
        }
        assertThat(ask(vehicles, 999)).isEqualTo("999 worked out 1000");
        assertThat(ask(vehicles, 0)).as("forgotten meanwhile").isEqualTo("0 worked out 1001");
    }
}
