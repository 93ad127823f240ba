package knollfield.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

/** Cards worked out from how an engine is built, worked on a tablet. */
class BuiltCardTest {

    @RegisterExtension
    static final Browser BROWSER = new Browser();

    private static final String DRIVE_ONLY = "\"school\": \"BOOK_MINIMUM\"";

    @Test
    void aPlainBeltJobTakesAtMostFortyTouchesFromStartToSigned() {
        Hands hands = BROWSER.tablet(BROWSER.job("PEL-14", DRIVE_ONLY));
        hands.checkIn().until("Every step is done").press("Sign the job");
        assertThat(hands.title()).hasText("Signed");
        assertThat(hands.touches())
                .as("touches, the odometer's figures among them")
                .isBetween(15, 40);
    }

    @Test
    void aChainOnEachBankIsWorkedBankByBankToItsRecord() {
        Hands hands = BROWSER.tablet(BROWSER.job("ZEL-32V", DRIVE_ONLY)).checkIn();
        hands.until("Turn the running way: key at 11 o'clock");
        assertThat(hands.page.locator(".notes")).containsText("600° on from key at 3 o'clock");
        assertThat(hands.page.locator(".why-here")).containsText("Why here");
        BROWSER.check(hands.page, "the other bank");
        hands.answerWell();
        hands.until("Turn the running way: key at 3 o'clock");
        assertThat(hands.page.locator(".notes")).containsText("120° on from key at 11 o'clock");
        hands.until("Every step is done").press("Sign the job");
        assertThat(hands.title()).hasText("Signed");
        assertThat(hands.page.locator(".record")).not().hasCount(0);
    }

    @Test
    void theEnginesPageShowsEachCardWithItsProofAndLeadsToThePlaceThatIsWrong() {
        Page page = BROWSER.window("ines", 1280, 800);
        page.navigate(BROWSER.address() + "/engines/NAN-20");
        page.getByText("1 of 2 cards are not handed out").waitFor();
        page.locator(".proof-head").first().click();
        assertThat(page.locator(".breaches")).containsText("Law 2, What is agreed is done");
        BROWSER.check(page, "proof of a book");
        page.getByText("put it right there").click();
        assertThat(page.locator(".book-section")).containsText("What each item renews");
    }
}
