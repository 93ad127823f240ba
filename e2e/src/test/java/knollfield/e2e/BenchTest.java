package knollfield.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Page.GetByLabelOptions;
import com.microsoft.playwright.Page.GetByRoleOptions;
import com.microsoft.playwright.options.AriaRole;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

/** The bench when things do not go by the book, and two people at one record. */
class BenchTest {

    @RegisterExtension
    static final Browser BROWSER = new Browser();

    private static Locator button(Page page, String name) {
        return page.getByRole(
                AriaRole.BUTTON, new GetByRoleOptions().setName(name).setExact(true));
    }

    /** The demo's job that stands half done, before its marks are looked at after the two turns. */
    private static Page halfDone() {
        Page page = BROWSER.window("hedra", 1024, 768);
        page.navigate(BROWSER.address() + "/jobs");
        page.getByText("go on", new Page.GetByTextOptions().setExact(true))
                .first()
                .click();
        page.locator(".bench-step h1").waitFor();
        return page;
    }

    @Test
    void aMarkThatIsNotTrueStartsTheTimingAgainAndAShutGateSaysWhatItWaitsFor() {
        Page page = halfDone();
        assertThat(page.locator(".bench-step h1")).hasText("References after two turns");
        assertThat(page.locator(".gate").first()).containsText("References true afterwards");
        button(page, "inlet pin: true").click();
        button(page, "Record it, and set the timing again").click();

        assertThat(page.getByText("Attempt 2 at the timing.")).isVisible();
        // it goes back as it is: marked, off, every shaft to its mark, laid, turned and proven once more
        assertThat(page.locator(".bench-step h1")).hasText("Mark timing belt: running way and teeth");
        new Hands(page).until("Crank pin, inlet pin, exhaust pin in, counted");
        assertThat(page.locator(".seam")).containsText("Correction");
        assertThat(page.locator(".seam")).containsText("Turn twice");
        BROWSER.check(page, "bench, second attempt");

        managerOpensAGateWithWords(page.url());
    }

    private static void managerOpensAGateWithWords(String card) {
        Page page = BROWSER.window("ines", 1280, 800);
        page.navigate(card);
        page.locator(".bench-step h1").waitFor();
        Locator gate = page.locator(".gate", new Page.LocatorOptions().setHasText("Cams held"));
        gate.getByText("Open with words").click();
        Locator words = page.getByLabel("Why; this is printed on the record");
        assertThat(button(page, "Open it with these words")).isDisabled();
        words.fill("seen by two pairs of eyes");
        button(page, "Open it with these words").click();
        assertThat(page.locator(".gate.open")).containsText("Opened with words: Cams held");
        assertThat(page.locator(".gate", new Page.LocatorOptions().setHasText("Two turns by hand"))
                        .getByRole(AriaRole.BUTTON))
                .hasCount(0);
    }

    @Test
    void theLoserOfAConflictIsToldWhoAndWhat() {
        Page ines = BROWSER.as("ines");
        Page morwen = BROWSER.as("morwen");
        for (Page page : new Page[] {ines, morwen}) {
            page.navigate(BROWSER.address() + "/vehicles/5");
            page.locator(".dossier-head").waitFor();
        }
        Locator towing = ines.getByLabel("towing");
        boolean was = towing.isChecked();
        towing.click();
        assertThat(ines.locator(".log li").first()).containsText("hard use");
        assertThat(towing).isEnabled();
        morwen.getByLabel("long idling").click();

        assertThat(morwen.locator(".problem")).containsText("Ines Carrow changed \"hard use\"");
        assertThat(morwen.locator(".problem")).containsText("Yours was not saved");
        assertThat(ines.getByLabel("towing").isChecked()).isEqualTo(!was);
    }

    @Test
    void aReadingMarkedWrongIsLeftOutAndCanBeTakenBackIn() {
        Page page = BROWSER.window("ines", 1280, 800);
        page.navigate(BROWSER.address() + "/vehicles/9");
        Locator first = page.locator("table.plain tr", new Page.LocatorOptions().setHasText(Pattern.compile("Wrong$")))
                .first();
        first.getByText("Wrong").click();
        assertThat(page.getByText("marked wrong").first()).isVisible();
        page.getByText("Take back in").first().click();
        assertThat(page.getByText("Take back in")).hasCount(0);
    }

    @Test
    void evidenceStopsAVehicleUntilItIsWithdrawn() {
        Page page = BROWSER.window("hedra", 1280, 800);
        page.navigate(BROWSER.address() + "/vehicles/11");
        button(page, "Evidence").click();
        Browser.choose(page, page.getByLabel("What was found"), "guide broken or fractured");
        button(page, "Note it").click();
        assertThat(page.locator(".sentence")).containsText("Stop. Do not run the engine");

        Page ines = BROWSER.window("ines", 1280, 800);
        ines.navigate(BROWSER.address() + "/vehicles/11");
        button(ines, "Withdraw").click();
        ines.getByLabel("Why", new GetByLabelOptions().setExact(true)).fill("wrong vehicle");
        button(ines, "Withdraw it").click();
        assertThat(ines.locator(".sentence")).not().containsText("Do not run");
        assertThat(ines.locator("li.ended")).containsText("wrong vehicle");
    }

    @Test
    void aLapsedSignInLaysTheFormOverThePageAndKeepsWhatWasTyped() {
        Page page = BROWSER.window("ines", 1280, 800);
        page.navigate(BROWSER.address() + "/vehicles/13");
        button(page, "Odometer").click();
        Locator value = page.getByLabel("Odometer", new GetByLabelOptions().setExact(true));
        value.fill("12");
        page.context().clearCookies(new BrowserContext.ClearCookiesOptions().setName("JSESSIONID"));
        button(page, "Record it").click();

        Locator dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText("Your sign-in has lapsed");
        dialog.getByLabel("Sign-in name").fill("ines");
        dialog.getByLabel("Password", new Locator.GetByLabelOptions().setExact(true))
                .fill(Browser.PASSWORD);
        dialog.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Sign in"))
                .click();
        assertThat(dialog).hasCount(0);
        assertThat(value).hasValue("12");
    }

    @Test
    void aPlaceThatBreaksARuleSaysWhichBesideItsField() {
        Page page = BROWSER.window("ines", 1280, 800);
        page.navigate(BROWSER.address() + "/jobs");
        page.getByText("promise", new Page.GetByTextOptions().setExact(true))
                .first()
                .click();
        page.locator(".booking .week").waitFor();
        // Hedra is at the bench from eight on the first working day from today
        Locator taken = page.locator("button:enabled[aria-label*='Hedra Voss'][aria-label*='from 08:00']")
                .first();
        if (taken.count() == 0) {
            page.getByText("later", new Page.GetByTextOptions().setExact(true)).click();
        }
        taken.click();
        Browser.choose(page, page.getByLabel("Bay", new GetByLabelOptions().setExact(true)), "Bay 3, low lift");
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(Pattern.compile("^Promise \\d")))
                .click();

        assertThat(page.locator(".booking .field-note").first())
                .containsText(Pattern.compile("Hedra Voss has SKR|passed"));
        assertThat(page.locator(".promised")).hasCount(0);
        BROWSER.check(page, "booking refused");
    }
}
