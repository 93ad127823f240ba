package knollfield.core.completion;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;

class BecameTest {

    private static final LocalDate SAID = LocalDate.of(2026, 5, 10);

    private static Became of(List<Integer> renewed, List<Integer> broken, boolean withdrawn) {
        return Became.of(
                SAID,
                renewed.stream().map(SAID::plusDays).toList(),
                broken.stream().map(SAID::plusDays).toList(),
                withdrawn);
    }

    @Test
    void whatCameFirstDecides() {
        assertThat(of(List.of(), List.of(), false)).isEqualTo(Became.STANDS);
        assertThat(of(List.of(), List.of(), true)).isEqualTo(Became.WITHDRAWN);
        assertThat(of(List.of(0), List.of(), true)).isEqualTo(Became.DONE);
        assertThat(of(List.of(30), List.of(900), false))
                .as("another set by then")
                .isEqualTo(Became.DONE);
        assertThat(of(List.of(30), List.of(20), false)).isEqualTo(Became.BROKE_DOWN);
        assertThat(of(List.of(30), List.of(30), false))
                .as("renewed because of it")
                .isEqualTo(Became.BROKE_DOWN);
        assertThat(of(List.of(-5), List.of(-1), false)).as("before it").isEqualTo(Became.STANDS);
    }
}
