package knollfield.core.dryrun;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import knollfield.core.dryrun.orders.OrdersFile;
import knollfield.core.dryrun.orders.OrdersFile.Judged;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Orders by people who know the work: the right ones pass, the allowed ones too, the wrong ones fail at their law. */
class OrdersTest {

    private static final List<Judged> JUDGED =
            OrdersFile.read(text("/orders.md")).judge(Optional.empty());

    private static String text(String file) {
        try (InputStream in = Objects.requireNonNull(OrdersTest.class.getResourceAsStream(file))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    static Stream<Arguments> lines() {
        return JUDGED.stream().map(j -> Arguments.of(j.engine() + " " + j.line().name(), j));
    }

    // Common practice, no source: the orders are written down from the trade, apart from what is tested here.
    @ParameterizedTest(name = "{0}")
    @MethodSource("lines")
    void isJudgedAsSaid(String name, Judged judged) {
        assertThat(judged.asSaid())
                .as("%s %s: %s", name, judged.line().edits(), judged.answer())
                .isTrue();
    }

    static Stream<Arguments> more() {
        return OrdersFile.read(text("/orders-more.md")).judge(Optional.of(OrdersFile.read(text("/orders.md")))).stream()
                .filter(j -> !j.line().name().equals("right"))
                .map(j -> Arguments.of(j.engine() + " " + j.line().name(), j));
    }

    // From memory: what goes wrong when one thing is left out or done too soon, and what may be done in another order.
    @ParameterizedTest(name = "more: {0}")
    @MethodSource("more")
    void isJudgedAsTheTradeHasIt(String name, Judged judged) {
        isJudgedAsSaid(name, judged);
    }

    @Test
    void theFileIsReadWhole() {
        assertThat(JUDGED.stream().filter(j -> j.line().name().equals("right"))).hasSize(12);
        assertThat(JUDGED.stream().filter(j -> !j.line().right())).hasSize(60);
        assertThat(JUDGED.stream().filter(j -> j.line().name().startsWith("allowed")))
                .hasSize(24);
    }
}
