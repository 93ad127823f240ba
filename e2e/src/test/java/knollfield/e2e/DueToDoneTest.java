package knollfield.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Page.GetByLabelOptions;
import com.microsoft.playwright.Page.GetByRoleOptions;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.regex.Pattern;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;

/** One vehicle from due to done, as a manager and a technician would go. */
class DueToDoneTest {

    @RegisterExtension
    static final Browser BROWSER = new Browser();

    @TempDir
    Path folder;

    @Test
    void fromAListToALabel() throws IOException {
        Page desk = BROWSER.as("ines");
        importThreeVehicles(desk);
        findTheOneThatIsDue(desk);
        String job = buildAndPromise(desk);

        Page bench = BROWSER.as("hedra", 1024, 768);
        workTheCard(bench, job);
        seeTheClocksRestart(desk);
    }

    private void importThreeVehicles(Page page) throws IOException {
        LocalDate today = LocalDate.now();
        Path csv = folder.resolve("vehicles.csv");
        Files.writeString(csv, """
                registration,make_model,engine_family,owner,phone,usage,first_registered,odometer,odometer_unit,odometer_date,belt_renewed_on,belt_renewed_odometer,conditions
                WALK 1,Calder Dunlin 1.6,Calder 1.6,"Orde, Tamsin",0555 777 01,private,%s,138000,km,%s,%s,40000,dust
                WALK 2,Hollin Post 1.2,Hollin 1.2,Ruan Keast,0555 777 02,private,%s,20000,km,%s,,,
                WALK 3,Windle Lark 1.5,WIN-15,Kerra Bray,0555 777 03,private,%s,15000,miles,%s,,,
                """.formatted(
                        today.minusYears(9),
                        today.minusDays(3),
                        today.minusMonths(54),
                        today.minusYears(2),
                        today.minusDays(3),
                        today.minusYears(2),
                        today.minusDays(3)));
        page.getByRole(AriaRole.LINK, new GetByRoleOptions().setName("Setup")).click();
        page.getByRole(AriaRole.LINK, new GetByRoleOptions().setName("Import a list"))
                .click();
        page.locator("#file").setInputFiles(csv);
        assertThat(page.getByText("3 new")).isVisible();
        BROWSER.check(page, "import");
        page.getByText("Take in 3 lines").click();
        assertThat(page.locator(".done")).containsText("3 vehicles taken in");
    }

    private void findTheOneThatIsDue(Page page) {
        page.getByRole(AriaRole.LINK, new GetByRoleOptions().setName("See the Desk"))
                .click();
        page.keyboard().press("/");
        page.keyboard().type("walk1");
        page.keyboard().press("Enter");
        assertThat(page.getByRole(AriaRole.HEADING, new GetByRoleOptions().setLevel(1)))
                .containsText("WALK 1");
        assertThat(page.locator(".sentence")).containsText("Overdue.");
        Locator reasons = page.getByLabel("Reasons");
        assertThat(reasons)
                .containsText(Pattern.compile("98,\\d\\d\\d\\skm of 70,000\\skm used, 28,\\d\\d\\d\\skm over"));
        assertThat(reasons).containsText("Severe, because of dust");
        assertThat(page.locator(".due-window")).isVisible();
        BROWSER.check(page, "dossier");
    }

    private String buildAndPromise(Page page) {
        page.getByText("Build the job").click();
        Locator pump = page.locator(
                ".lines tr",
                new Page.LocatorOptions()
                        .setHas(page.getByRole(
                                AriaRole.BUTTON,
                                new GetByRoleOptions().setName("Water pump").setExact(true))));
        assertThat(pump).containsText("must");
        Locator button =
                page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(Pattern.compile("^Promise \\d")));
        String before = button.textContent();
        Locator seals = page.getByRole(AriaRole.CHECKBOX, new GetByRoleOptions().setName("Cam seals in the job"));
        seals.click();
        assertThat(seals).isChecked();
        assertThat(button).not().hasText(before);
        BROWSER.check(page, "job builder");

        // three weeks on, where the demo has promised nothing whatever day it is started on
        Locator later = page.getByText("later", new Page.GetByTextOptions().setExact(true));
        Locator week = page.locator(".week-head span");
        for (int i = 0; i < 3; i++) {
            String shown = week.textContent();
            later.click();
            assertThat(week).not().hasText(shown);
        }
        page.locator("button:enabled[aria-label^='Hedra Voss'][aria-label$=': free']")
                .first()
                .click();
        choose(page, "Bay", "Bay 3, low lift");
        button.click();
        assertThat(page.locator(".promised")).containsText("Hedra Voss, Bay 3");
        return page.url().substring(page.url().lastIndexOf('/') + 1);
    }

    private static void choose(Page page, String label, String option) {
        Browser.choose(page, page.getByLabel(label, new GetByLabelOptions().setExact(true)), option);
    }

    private void workTheCard(Page page, String job) throws IOException {
        Hands hands = new Hands(page).open(BROWSER.address(), job);
        hands.keys("138500");
        BROWSER.check(page, "check-in");
        hands.press("Check in and start");
        assertThat(hands.title()).containsText("Parts here");

        hands.until("Tensioner plate to torque");
        BROWSER.check(page, "torque step");
        hands.keys("53");
        hands.press("lb·ft");
        hands.press("Enter 53 lb·ft");
        assertThat(page.locator(".guard")).containsText("71.86 N·m; the book says 6 N·m");
        hands.press("Yes, lb·in");
        assertThat(hands.title()).not().hasText("Tensioner plate to torque");

        hands.until("Crank turn 1 by hand, running way");
        BROWSER.check(page, "turn step");
        // signing is not even offered here; the server refuses it all the same
        String refusal = (String) page.evaluate("""
                async job => {
                  const token = decodeURIComponent(/XSRF-TOKEN=([^;]*)/.exec(document.cookie)[1]);
                  const r = await fetch(`/api/jobs/${job}/card/events`, { method: 'POST',
                    headers: { 'Content-Type': 'application/json', 'X-XSRF-TOKEN': token },
                    body: JSON.stringify({ clientKey: 'early', basedOn: 0, type: 'COMPLETE' }) });
                  return r.status + ' ' + (await r.json()).detail;
                }
                """, job);
        assertThat(refusal).isEqualTo("422 Two turns by hand: turn 1 of 2 not done.");
        assertThat(hands.button("Sign the job")).hasCount(0);
        assertThat(page.getByText("turn 1 of 2 not done").first()).isVisible();

        hands.until("Crank bolt to torque");
        // 130 N·m is 95.9 lb·ft
        hands.keys("96");
        hands.press("lb·ft");
        hands.press("Enter 96 lb·ft and 90°");
        assertThat(hands.title()).not().hasText("Crank bolt to torque");

        hands.until("Every step is done");
        BROWSER.check(page, "sign");
        hands.press("Sign the job");
        assertThat(page.locator(".sign h1")).hasText("Signed");
        assertThat(page.locator(".next-due")).containsText("whichever comes first");
        BROWSER.check(page, "signed");
        assertThat(labelText(page)).contains("WALK 1", "Timing belt", "138,500 km", "Next due, whichever first");
    }

    private String labelText(Page page) throws IOException {
        Download download = page.waitForDownload(() -> page.evaluate("""
                () => { const a = document.querySelector('a[href$="label.pdf"]').cloneNode();
                        a.download = 'label.pdf'; a.removeAttribute('target'); document.body.append(a); a.click(); }
                """));
        Path pdf = folder.resolve("label.pdf");
        download.saveAs(pdf);
        try (PDDocument document = Loader.loadPDF(pdf.toFile())) {
            return new PDFTextStripper().getText(document);
        }
    }

    private void seeTheClocksRestart(Page page) {
        page.keyboard().press("1");
        page.getByLabel("Find by registration, owner, phone, part of a VIN, engine or job")
                .fill("walk 1");
        page.locator(".found").first().waitFor();
        page.keyboard().press("Enter");
        assertThat(page.locator(".dossier-page .title")).containsText("WALK 1");
        assertThat(page.locator(".sentence")).containsText("Clear.");
        Locator belt = page.locator("table tr", new Page.LocatorOptions().setHasText("Timing belt"))
                .first();
        assertThat(belt).containsText("138,500");
        assertThat(belt).containsText("0 of 70,000");
        assertThat(page.getByText("signed").first()).isVisible();
    }
}
