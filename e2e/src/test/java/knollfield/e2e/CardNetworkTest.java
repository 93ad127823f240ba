package knollfield.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static knollfield.e2e.Hands.PLAIN;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.assertions.LocatorAssertions;
import java.util.LinkedHashSet;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Job cards without a network, through a bad one, and with two people at once: nothing typed is lost. */
class CardNetworkTest {

    @RegisterExtension
    static final Browser BROWSER = new Browser();

    @Test
    void whatIsEnteredWithoutANetworkIsKeptAndSentOnceWhenItReturns() {
        String job = BROWSER.job("HOL-12", PLAIN);
        Hands hands = BROWSER.tablet(job).checkIn();
        long before = ((Number) hands.card(job).get("seq")).longValue();
        hands.page.context().setOffline(true);
        String first = hands.title().textContent();
        hands.answerWell();
        assertThat(hands.title()).not().hasText(first);
        assertThat(hands.page.locator(".kept-note")).containsText("Kept on this tablet: 1 entry");
        String second = hands.title().textContent();
        hands.answerWell();
        assertThat(hands.title()).not().hasText(second);
        assertThat(hands.page.locator(".kept-note")).containsText("2 entries");

        hands.page.context().setOffline(false);
        assertThat(hands.page.locator(".kept-note")).hasCount(0);
        assertThat(((Number) hands.card(job).get("seq")).longValue()).isEqualTo(before + 2);
    }

    @Test
    void aWholeCardIsWorkedWithoutANetworkAndSentBeforeItIsSigned() {
        String job = BROWSER.job("HOL-12", PLAIN);
        Hands hands = new Hands(BROWSER.installed("hedra", 1024, 768))
                .open(BROWSER.address(), job)
                .checkIn();
        hands.page.context().setOffline(true);
        hands.until("Crank turn 1 by hand, running way");
        // the page is shut and opened anew, and the list of jobs with it
        hands.page.navigate(BROWSER.address() + "/jobs");
        assertThat(hands.page.locator(".no-answer")).containsText("The server has not answered since");
        assertThat(hands.page.locator(".no-answer")).containsText("entries wait: job " + job);
        BROWSER.check(hands.page, "jobs without a network");
        hands.open(BROWSER.address(), job);
        hands.until("Entries wait to be sent");
        assertThat(hands.page.locator(".kept-note")).containsText("when the server answers");
        assertThat(hands.button("Sign the job")).isDisabled();

        hands.page.context().setOffline(false);
        assertThat(hands.title()).hasText("Every step is done");
        hands.press("Sign the job");
        assertThat(hands.title()).hasText("Signed");
    }

    /** More of them with {@code -Dknollfield.cards=5}. */
    static IntStream seeds() {
        return IntStream.range(0, Integer.getInteger("knollfield.cards", 1));
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void throughABadNetworkEveryEntryCountsOnceAndInItsOrder(int seed) {
        String job = BROWSER.job("HOL-12", PLAIN);
        Hands hands = BROWSER.tablet(job).checkIn();
        long before = ((Number) hands.card(job).get("seq")).longValue();
        Random random = new Random(seed);
        Set<String> keys = new LinkedHashSet<>();
        AtomicBoolean bad = new AtomicBoolean(true);
        hands.page.route("**/card/events", route -> {
            keys.add(KEY.matcher(route.request().postData())
                    .results()
                    .findFirst()
                    .orElseThrow()
                    .group(1));
            switch (bad.get() ? random.nextInt(6) : 6) {
                case 0 -> route.abort();
                case 1 ->
                    route.fulfill(new Route.FulfillOptions().setStatus(503).setBody("busy"));
                case 2 -> {
                    // the server has it, and its answer is lost
                    route.fetch();
                    route.abort();
                }
                default -> route.resume();
            }
        });
        for (int i = 0; i < 15; i++) {
            String shown = hands.title().textContent();
            hands.answerWell();
            hands.page.waitForCondition(() -> !hands.title().textContent().equals(shown)
                    || hands.page.locator(".bolt-pattern").count() > 0);
        }
        bad.set(false);
        assertThat(hands.page.locator(".kept-note"))
                .hasCount(0, new LocatorAssertions.HasCountOptions().setTimeout(30_000));

        assertThat(keys).hasSizeGreaterThan(10);
        assertThat(((Number) hands.card(job).get("seq")).longValue()).isEqualTo(before + keys.size());
        hands.until("Every step is done");
    }

    private static final Pattern KEY = Pattern.compile("\"clientKey\":\"([^\"]+)\"");

    @Test
    void theSlowerOfTwoSeesBothValuesAndMayPutTheirsInPlace() {
        String job = BROWSER.job("CAL-16", "\"school\": \"WHAT_PAYS\"");
        Hands hedra = BROWSER.tablet(job).checkIn();
        hedra.until("Coolant out, caught and measured");
        Hands perran = new Hands(BROWSER.window("perran", 1024, 768)).open(BROWSER.address(), job);
        assertThat(perran.title()).hasText("Coolant out, caught and measured");
        hedra.keys("5.2");
        perran.keys("4.1");
        // perran's card does not hear of it before the entry is sent
        perran.page.route("**/card", route -> {
            if (route.request().method().equals("GET")) {
                route.abort();
            } else {
                route.resume();
            }
        });
        hedra.press("Enter 5.2 L");
        assertThat(hedra.title()).not().hasText("Coolant out, caught and measured");
        perran.press("Enter 4.1 L");

        Locator objection = perran.page.locator(".objection");
        assertThat(objection).containsText("Hedra Voss entered \"5.2 L\"");
        assertThat(objection).containsText("\"4.1 L\"");
        perran.page.unroute("**/card");
        perran.page.waitForResponse(r -> r.url().endsWith("/card") && r.ok(), () -> {});
        perran.press("Put mine in its place");
        perran.page
                .locator(".seam-phase", new Page.LocatorOptions().setHasText("Drain"))
                .or(perran.page.locator(".folded"))
                .first()
                .waitFor();
        perran.page.waitForCondition(() -> perran.card(job).toString().contains("4.1 L"));
    }
}
