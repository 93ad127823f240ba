package knollfield.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Page.GetByRoleOptions;
import com.microsoft.playwright.Page.GetByTextOptions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.Media;
import java.io.IOException;
import java.nio.file.Files;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

/** What is due, and why: the Desk's filters, the what-if handle, Ahead, wishes, and the assumptions behind it. */
class DueTest {

    @RegisterExtension
    static final Browser BROWSER = new Browser();

    private static Locator button(Page page, String name) {
        return page.getByRole(
                AriaRole.BUTTON, new GetByRoleOptions().setName(name).setExact(true));
    }

    private static void choose(Page page, String filter, String option) {
        Browser.choose(
                page,
                page.getByLabel(filter, new Page.GetByLabelOptions().setExact(true))
                        .first(),
                option);
    }

    private static void openMore(Page page, String what) {
        button(page, "More").click();
        page.getByText(what, new GetByTextOptions().setExact(true)).click();
    }

    @Test
    void filtersStandInTheAddressAreKeptUnderANameAndTakenOutAsCsv() throws IOException {
        Page page = BROWSER.as("ines");
        page.locator(".row").first().waitFor();
        choose(page, "Drive", "chain");
        choose(page, "Order of the list", "by act-by date");
        assertThat(page).hasURL(Pattern.compile("drive=CHAIN.*order=ACT_BY"));
        assertThat(page.locator(".row .what .second").first()).containsText(", chain");
        button(page, "Views").click();
        page.getByLabel("Name for the list as it is narrowed now").fill("chains by day");
        button(page, "Keep").click();
        page.locator(".list-head").getByText("chains by day").waitFor();
        button(page, "Show all").click();
        assertThat(page).hasURL(Pattern.compile("[^A-Z]$"));
        button(page, "Views").click();
        button(page, "chains by day").click();
        assertThat(page).hasURL(Pattern.compile("drive=CHAIN"));

        button(page, "List").click();
        Download csv =
                page.waitForDownload(() -> page.getByText("This list as CSV", new GetByTextOptions().setExact(true))
                        .click());
        String text = Files.readString(csv.path());
        List<String> listed = text.lines()
                .skip(1)
                .limit(3)
                .map(l -> l.substring(0, l.indexOf(',')))
                .toList();
        assertThat(listed).hasSize(3);
        for (int i = 0; i < listed.size(); i++) {
            assertThat(page.locator(".row .registration").nth(i)).hasText(listed.get(i));
        }
    }

    @Test
    void onPaperTheWholeListStandsAndNothingToClick() {
        Page page = BROWSER.as("ines");
        page.locator(".row").first().waitFor();
        int inSight = page.locator(".row").count();
        page.emulateMedia(new Page.EmulateMediaOptions().setMedia(Media.PRINT));
        page.evaluate("window.dispatchEvent(new Event('beforeprint'))");
        assertThat(page.locator(".printed .row").nth(inSight + 10)).isVisible();
        assertThat(page.locator(".shell")).isHidden();
        assertThat(page.locator(".desk-dossier")).isHidden();
        page.evaluate("window.dispatchEvent(new Event('afterprint'))");
        assertThat(page.locator(".printed")).hasCount(0);
    }

    /** As the screens write a day. */
    private static String shown(LocalDate day) {
        return DateTimeFormatter.ofPattern("d MMM yyyy", Locale.UK).format(day);
    }

    @Test
    void whatHappensIfSheWaitsIsAskedByKeysByTypingAndByDragging() {
        Page page = BROWSER.as("ines");
        String registration =
                page.locator(".row").nth(4).locator(".registration").textContent();
        page.locator(".row").nth(4).click();
        assertThat(page.locator(".desk-dossier .title")).containsText(registration);
        Locator handle = page.getByRole(AriaRole.SLIDER);
        Locator answer = page.locator(".what-if-answer");
        Locator day = page.getByLabel("Wait until", new Page.GetByLabelOptions().setExact(true));
        handle.press("ArrowRight");
        assertThat(day).hasValue(shown(LocalDate.now().plusDays(7)));
        assertThat(answer).containsText(Pattern.compile("^Wait until .*km, exposure .*; then "));
        handle.press("PageUp");
        assertThat(day).hasValue(shown(LocalDate.now().plusDays(7).plusMonths(1)));
        String before = answer.textContent();

        page.getByLabel("Yearly distance, km").fill("90000");
        assertThat(answer).not().hasText(before);
        BROWSER.check(page, "what if");
        button(page, "Put back").click();
        assertThat(day).hasValue(shown(LocalDate.now()));
        assertThat(answer).containsText("Nothing is saved");

        BoundingBox box = handle.boundingBox();
        page.mouse().move(box.x + box.width / 2, box.y + box.height / 2);
        page.mouse().down();
        page.mouse().move(box.x + box.width / 2 + 12, box.y);
        page.mouse().up();
        assertThat(day).not().hasValue(shown(LocalDate.now()));
        assertThat(answer).containsText("Wait until");
    }

    @Test
    void aCallWithADayToAskAgainTakesTheRowAwayAndKeepsWhatWasSaid() {
        Page page = BROWSER.as("morwen");
        Locator row = page.locator(".row", new Page.LocatorOptions().setHasText("ask owner"))
                .nth(2);
        String registration = row.locator(".registration").textContent();
        row.getByText("ask owner").click();
        assertThat(page.locator(".desk-dossier .title")).containsText(registration);
        button(page, "Note the call").click();
        assertThat(page.locator(".card-form .field-note").first()).containsText("What was said is missing");
        page.getByLabel("What was said").fill("looks for the invoice");
        page.getByLabel("Ask again on, if wished")
                .fill(LocalDate.now().plusDays(14).toString());
        button(page, "Note the call").click();

        assertThat(page.locator(".row .registration", new Page.LocatorOptions().setHasText(registration)))
                .hasCount(0);
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(Pattern.compile("^Set aside")))
                .click();
        Locator aside = page.locator(".row", new Page.LocatorOptions().setHasText(registration));
        assertThat(aside).containsText("ask again until");
        aside.click();
        assertThat(page.locator(".desk-dossier")).containsText("looks for the invoice");
    }

    @Test
    void aVehicleIsAddedGivenItsOwnTimingAndLaidUp() {
        Page page = BROWSER.window("ines", 1280, 800);
        page.navigate(BROWSER.address() + "/vehicles/new");
        button(page, "Add the vehicle").click();
        assertThat(page.locator(".field-note").first()).containsText("missing");
        page.getByLabel("Registration", new Page.GetByLabelOptions().setExact(true))
                .fill("NEW 1 A");
        page.getByLabel("Make and model").fill("Windle Lark 1.5");
        page.getByLabel("VIN, 17 letters and digits, if known").fill("1M8GDM9A1KP042788");
        assertThat(page.locator(".warning-note")).containsText("check digit would be X");
        page.getByLabel("Owner", new Page.GetByLabelOptions().setExact(true)).fill("Kerra Bray");
        page.getByLabel("Phone", new Page.GetByLabelOptions().setExact(true)).fill("0555 777 01");
        page.getByLabel("First registered on")
                .fill(LocalDate.now().minusYears(12).toString());
        Browser.choose(page, page.locator("#class"), "private");
        page.locator("#family").fill("Windle");
        page.keyboard().press("Enter");
        button(page, "Add the vehicle").click();
        assertThat(page.locator(".dossier-head")).containsText("History unknown");
        BROWSER.check(page, "a vehicle just added");

        openMore(page, "When to act on this vehicle");
        page.getByText("early", new GetByTextOptions().setExact(true)).click();
        button(page, "Keep").click();
        assertThat(page.locator(".card-form .field-note")).containsText("The reason is missing");
        page.getByLabel("Why").fill("tows a boat");
        button(page, "Keep").click();
        assertThat(page.locator(".dossier")).containsText("tows a boat");
        openMore(page, "Laid up, sold, scrapped");
        page.getByText("laid up", new GetByTextOptions().setExact(true)).click();
        button(page, "Keep").click();
        assertThat(page.locator(".dossier-head")).containsText("Laid up since");
    }

    @Test
    void aheadMovesEveryVehicleAndListsThoseThatCross() {
        Page page = BROWSER.window("ines", 1280, 800);
        page.navigate(BROWSER.address() + "/ahead");
        Locator head = page.locator(".cross-head h2");
        Locator twin = page.locator(".twin");
        assertThat(twin).containsText("stand in the window on");
        LocalDate day = LocalDate.now().plusDays(400);
        page.getByLabel("On", new Page.GetByLabelOptions().setExact(true)).fill(day.toString());
        String written = DateTimeFormatter.ofPattern("d MMM uuuu", Locale.UK).format(day);
        assertThat(twin).containsText("window on " + written);
        assertThat(page.locator(".cross-row").nth(20)).isVisible();
        int crossing = Integer.parseInt(head.textContent().split(" ")[0]);
        assertThat(page.locator(".cross-row")).hasCount(crossing);
        assertThat(page.locator("canvas")).hasAttribute("aria-label", Pattern.compile(crossing + " cross a limit"));

        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(Pattern.compile("^Next to cross")))
                .click();
        assertThat(head).not().hasText(Pattern.compile("^" + crossing + " "));
        BROWSER.check(page, "ahead");

        BoundingBox box = page.locator("canvas").boundingBox();
        page.mouse().move(box.x + 60, box.y + 60);
        page.mouse().down();
        page.mouse().move(box.x + 500, box.y + 480);
        page.mouse().up();
        assertThat(head).containsText("in the box");
        assertThat(page).hasURL(Pattern.compile("ageFrom="));
        page.getByText("Back to those that cross").click();
        assertThat(head).containsText("cross by");
    }

    @Test
    void aChangedAssumptionIsPreviewedKeptToldOnTheDeskAndPutBack() {
        Page page = BROWSER.window("ines", 1280, 800);
        page.navigate(BROWSER.address() + "/setup/assumptions");
        Locator mean = page.getByLabel("Private, mean");
        String usual = mean.inputValue();
        mean.fill("30000");
        button(page, "What would it move?").click();
        assertThat(page.locator(".preview h2")).containsText("would move");
        assertThat(page.locator(".preview tbody tr").first()).isVisible();
        BROWSER.check(page, "preview of an assumption");
        button(page, "Keep these figures").click();
        assertThat(page.getByText("Ines Carrow").nth(1)).isVisible();
        page.navigate(BROWSER.address() + "/");
        assertThat(page.locator(".moved")).containsText("moved with the changed assumptions");
        page.locator(".moved").getByText("Show").click();
        assertThat(page.getByRole(AriaRole.DIALOG).locator("tbody tr").first()).isVisible();

        page.navigate(BROWSER.address() + "/setup/assumptions");
        page.getByText("as usual").first().click();
        assertThat(mean).hasValue(usual);
        button(page, "Keep these figures").click();
        assertThat(page.getByText("as usual", new GetByTextOptions().setExact(true)))
                .hasCount(0);
    }

    @Test
    void readingsOfAWholeListAreTypedInOneGo() {
        Page page = BROWSER.window("morwen", 1280, 800);
        page.navigate(BROWSER.address() + "/readings?q=harbour");
        Page.GetByLabelOptions exact = new Page.GetByLabelOptions().setExact(true);
        page.getByLabel("Odometer, line 1", exact).fill("1");
        page.getByLabel("Odometer, line 2", exact).fill("2");
        button(page, "Record 2 readings").click();
        assertThat(page.locator(".sheet .field-note")).hasCount(2);
        assertThat(page.getByLabel("Odometer, line 2", exact)).hasValue("2");
        page.getByLabel("Odometer, line 2", exact).fill("");
        page.getByRole(AriaRole.CHECKBOX).first().check();
        button(page, "Record 1 reading").click();
        assertThat(page.locator(".done")).containsText("1 reading recorded");
    }
}
