package knollfield.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Page.GetByRoleOptions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

/** The board as a manager works it: by mouse, by keys, by form; the planner, what if, and back again. */
class BoardTest {

    private static final int LABEL = 128;

    @RegisterExtension
    static final Browser BROWSER = new Browser();

    private static Page board() {
        Page page = BROWSER.as("ines");
        page.getByRole(AriaRole.LINK, new GetByRoleOptions().setName("Board")).click();
        page.locator(".board-track.technician .job-bar").first().waitFor();
        return page;
    }

    private static Locator button(Page page, String name) {
        return page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(name));
    }

    private static void carry(Page page, Locator job, double x, double y) {
        BoundingBox from = job.boundingBox();
        page.mouse().move(from.x + 10, from.y + 6);
        page.mouse().down();
        page.mouse().move(from.x + 30, from.y + 30);
        page.mouse().move(x + 10, y, new com.microsoft.playwright.Mouse.MoveOptions().setSteps(8));
    }

    @Test
    void aCapIsReadBeforeTheDropAndThePlannerIsTakenInPartAndBack() {
        Page page = board();
        Locator bars = page.locator(".board-track.technician .job-bar");
        assertThat(bars.first()).isVisible();
        int ofAll = bars.count();
        Browser.choose(page, page.getByLabel("Fleet shown"), "Fish co-operative");
        // until the others are gone
        assertThat(bars).not().hasCount(ofAll);
        Locator waiting = page.locator(".hanging").first();
        Locator planned = bars.first();
        assertThat(planned).isVisible();
        assertThat(waiting).isVisible();
        String registration = waiting.locator(".name").textContent();
        BoundingBox there = planned.boundingBox();
        // the same day, with somebody else
        Locator other = page.locator(".board-track.technician")
                .filter(new Locator.FilterOptions().setHasNot(page.locator(".job-bar")))
                .first();
        carry(page, waiting, there.x, other.boundingBox().y + 20);
        assertThat(page.locator(".ghost.broken .say")).isVisible();
        page.mouse().up();

        Locator refusal = page.locator(".refusal");
        assertThat(refusal).containsText("Fish co-operative: 1 of 1 off the road on");
        assertThat(refusal).containsText("Room again on");
        BROWSER.check(page, "board refused");
        button(page, "Leave it where it was").click();
        assertThat(refusal).hasCount(0);

        waiting.click();
        button(page, "Five best slots").click();
        Locator first = page.locator(".offers tbody tr").first();
        first.getByRole(AriaRole.BUTTON).click();
        Locator bar = page.locator(".board-track.technician .job-bar")
                .filter(new Locator.FilterOptions().setHasText(registration));
        assertThat(page.locator(".job-where")).containsText(", Bay ");
        boolean beyond = page.locator(".job-where").textContent().contains("not within the days shown");
        assertThat(button(page, "Take the promise back")).isVisible();
        BROWSER.check(page, "board with a job");

        Browser.choose(page, page.getByLabel("Fleet shown"), "all fleets and owners");
        button(page, "Close").click();
        button(page, "Work out a plan").click();
        assertThat(page.locator(".plan-sheet")).containsText("changes against the board", longEnough());
        BROWSER.check(page, "plan compared");
        button(page, "Tick none").click();
        Locator count = page.locator(".ruler .track-label b");
        int waitingBefore = waiting(count);
        acceptOne(page);
        Locator takeBack = page.getByRole(
                AriaRole.BUTTON, new GetByRoleOptions().setName(Pattern.compile("^Take back: accepted")));
        assertThat(takeBack).isVisible();
        assertThat(count).hasText("Waiting " + (waitingBefore - 1));
        takeBack.click();
        assertThat(takeBack).hasCount(0);
        assertThat(count).hasText("Waiting " + waitingBefore);
        if (beyond) {
            page.getByRole(
                            AriaRole.BUTTON,
                            new GetByRoleOptions().setName("later").setExact(true))
                    .click();
        }
        assertThat(bar.or(page.locator(".board-words").filter(new Locator.FilterOptions().setHasText(registration)))
                        .first())
                .isAttached();
    }

    /** Accepts the first change of a waiting job that does not need another change with it. */
    private static void acceptOne(Page page) {
        page.locator(".changes tbody tr")
                .filter(new Locator.FilterOptions().setHasText("waiting").setHasNotText("only with"))
                .first()
                .getByRole(AriaRole.CHECKBOX)
                .check();
        button(page, "Accept 1 of").click();
    }

    private static int waiting(Locator count) {
        return Integer.parseInt(count.textContent().replaceAll("\\D", ""));
    }

    private static com.microsoft.playwright.assertions.LocatorAssertions.ContainsTextOptions longEnough() {
        return new com.microsoft.playwright.assertions.LocatorAssertions.ContainsTextOptions().setTimeout(60_000);
    }

    @Test
    void aJobIsCarriedByTheKeysAndPutBackByEscape() {
        Page page = board();
        Locator bar = page.locator(".board-track.technician .job-bar.planned").first();
        String before = bar.getAttribute("aria-label");
        bar.focus();
        page.keyboard().press("Space");
        String days = page.locator("h1").textContent();
        page.keyboard().press("PageDown");
        page.keyboard().press("ArrowRight");
        assertThat(page.locator(".ghost").first()).isVisible();
        // the arrows are the job's while it is carried, and the board's after
        assertThat(page.locator("h1")).hasText(days);
        page.keyboard().press("Escape");
        assertThat(page.locator(".ghost")).hasCount(0);
        assertThat(page.locator(".board-track.technician .job-bar.planned").first())
                .hasAttribute("aria-label", before);
    }

    @Test
    void thePlaceFormSaysWhatIsWrongBeforeAnythingIsKept() {
        Page page = board();
        page.locator(".board-track.technician .job-bar.promised").first().click();
        button(page, "Place…").click();
        page.getByLabel("Day", new Page.GetByLabelOptions().setExact(true))
                .fill(java.time.LocalDate.now()
                        .plusDays(21)
                        .with(java.time.DayOfWeek.SUNDAY)
                        .toString());
        assertThat(page.locator(".broken-rule").first()).containsText("does not work on Sunday");
        assertThat(button(page, "Move it, still promised")).isDisabled();
        BROWSER.check(page, "place form");
        button(page, "Why here?").click();
        assertThat(page.locator(".why-list")).containsText("promised or under way");
    }

    @Test
    void whatIfShowsWhatMovesAndChangesNothing() {
        Page page = board();
        String before = page.locator(".board-words").textContent();
        button(page, "What if…").click();
        Browser.choose(page, page.getByLabel("Technician", new Page.GetByLabelOptions().setExact(true)), "Hedra Voss");
        page.getByLabel("to, that day too")
                .fill(java.time.LocalDate.now().plusDays(14).toString());
        button(page, "See what moves").click();
        assertThat(page.locator(".what-if-sheet")).containsText("Nothing has changed yet");
        assertThat(page.locator(".what-if-sheet")).containsText("Hedra Voss does not work on");
        BROWSER.check(page, "what if");
        org.assertj.core.api.Assertions.assertThat(page.locator(".board-words").textContent())
                .isEqualTo(before);
    }

    @Test
    void capsAbsencesAndCalendarStandInTheirSheets() {
        Page page = board();
        button(page, "Absences and caps").click();
        assertThat(page.locator(".rules-sheet")).containsText("Odo Brack is away");
        BROWSER.check(page, "absences and caps");
        button(page, "Calendar").click();
        button(page, "Make a private address").click();
        assertThat(page.locator(".feeds code")).containsText("/api/feeds/");
        BROWSER.check(page, "calendar");
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName("Revoke"))
                .first()
                .click();
        assertThat(page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName("Revoke")))
                .hasCount(0);
    }

    @Test
    void storesOrderWhatIsShortAndKeepToolSets() {
        Page page = BROWSER.as("ines");
        page.getByRole(AriaRole.LINK, new GetByRoleOptions().setName("Stores")).click();
        assertThat(page.getByRole(AriaRole.HEADING, new GetByRoleOptions().setName("Short")))
                .isVisible();
        BROWSER.check(page, "stores");
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(Pattern.compile("^Order \\d+ parts")))
                .click();
        assertThat(page.getByText("Nothing is short")).isVisible();
        page.getByRole(AriaRole.LINK, new GetByRoleOptions().setName("Orders")).click();
        Locator first = page.locator("tbody tr").first();
        first.getByText("It is here").click();
        assertThat(page.locator("tbody")).containsText("came");
        BROWSER.check(page, "orders");
        page.getByRole(AriaRole.LINK, new GetByRoleOptions().setName("Tool sets"))
                .click();
        assertThat(page.locator(".tool-set").first()).containsText("Copy 1");
        BROWSER.check(page, "tool sets");
    }

    @Test
    void aTechnicianReadsTheBoardAndMovesNothing() {
        Page page = BROWSER.as("hedra");
        page.getByRole(AriaRole.LINK, new GetByRoleOptions().setName("Board")).click();
        page.locator(".board-track.technician .job-bar").first().click();
        assertThat(button(page, "Why here?")).isVisible();
        assertThat(button(page, "Place…")).hasCount(0);
        assertThat(button(page, "Work out a plan")).hasCount(0);
    }
}
