package knollfield.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Page.GetByLabelOptions;
import com.microsoft.playwright.Page.GetByRoleOptions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

/** From a phone call to an estimate on paper; the engine book; the parts. */
class WhatGoesInTest {

    @RegisterExtension
    static final Browser BROWSER = new Browser();

    private static Locator button(Page page, String name) {
        return page.getByRole(
                AriaRole.BUTTON, new GetByRoleOptions().setName(name).setExact(true));
    }

    /** A vehicle of a family whose drive is due and that has no job yet. */
    private static String dueVehicle(Page page, String family) {
        return (String) page.evaluate("""
                family => fetch('/api/desk?limit=200&family=' + family).then(r => r.json())
                  .then(d => d.rows.find(r => r.nextStep === 'RING').registration)
                """, family);
    }

    @Test
    void fromAPhoneCallToPaperInFourTouches() {
        Page page = BROWSER.as("morwen");
        String registration = dueVehicle(page, "CAL-16");

        page.keyboard().press("/");
        page.keyboard().type(registration.replace(" ", "").toLowerCase(java.util.Locale.ROOT));
        page.keyboard().press("Enter");
        assertThat(page.getByRole(AriaRole.HEADING, new GetByRoleOptions().setLevel(1)))
                .containsText(registration);
        button(page, "Build the job").click();
        assertThat(page.locator(".builder-head")).containsText(registration);
        assertThat(page.locator(".lines")).containsText("Turned by the timing belt");
        BROWSER.check(page, "job builder");
        button(page, "Make the estimate").click();
        Locator paper = page.getByText("Print estimate 1");
        assertThat(paper).isVisible();

        APIResponse pdf = page.request().get(BROWSER.address() + paper.getAttribute("href"));
        Assertions.assertThat(new String(pdf.body(), 0, 5, StandardCharsets.US_ASCII))
                .isEqualTo("%PDF-");
        BROWSER.check(page, "estimate");

        // the owner leaves the pump: that needs words and a signature
        Locator answers = page.locator(".consents tr");
        int lines = answers.count();
        for (int i = 0; i < lines; i++) {
            if (!answers.nth(i).textContent().startsWith("Water pump")) {
                answers.nth(i).getByRole(AriaRole.CHECKBOX).uncheck();
            }
        }
        button(page, "Left").click();
        assertThat(page.locator(".consents .field-note").first()).containsText("risk");
        page.getByLabel("Told of the risk, for lines that are left").fill("it turns with the belt");
        page.getByLabel("The decline of a required line is signed").check();
        button(page, "Left").click();
        assertThat(page.locator(".left-lines")).containsText("it turns with the belt");
        assertThat(page.getByLabel("Water pump in the job")).not().isChecked();
        button(page, "Make estimate 2").click();
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(java.util.regex.Pattern.compile("^Agreed, ")))
                .click();
        assertThat(page.locator(".consents h3")).containsText("all lines answered");
        BROWSER.check(page, "consents");
    }

    @Test
    void anotherSchoolAnotherGradeAndAVariantChangeTheJobAtOnce() {
        Page page = BROWSER.as("ines");
        String registration = dueVehicle(page, "TAV-19D");
        page.keyboard().press("/");
        page.keyboard().type(registration);
        page.keyboard().press("Enter");
        assertThat(page.getByRole(AriaRole.HEADING, new GetByRoleOptions().setLevel(1)))
                .containsText(registration);
        button(page, "Build the job").click();
        Locator total = page.locator(".totals .sum dd");
        String before = total.textContent();
        page.getByText("everything behind the cover").first().click();
        assertThat(page.getByLabel("Cam seals in the job")).isChecked();
        assertThat(total).not().hasText(before);

        button(page, "Water pump").click();
        page.getByLabel(java.util.regex.Pattern.compile("plain, €")).click();
        assertThat(page.locator(".lines .tag").first()).containsText("plain");
        page.locator(".adds button").first().click();
        assertThat(page.locator(".ladder .dim").first()).isVisible();
        BROWSER.check(page, "a line in full");
    }

    @Test
    void theBookIsReadChangedAndItsVersionsAreCompared() {
        Page page = BROWSER.window("ines", 1280, 800);
        page.navigate(BROWSER.address() + "/engines");
        BROWSER.check(page, "engines");
        page.getByText("Sorrel 2.2").click();
        assertThat(page.locator(".book-path")).isVisible();
        BROWSER.check(page, "one family");

        button(page, "Change the book").click();
        page.getByLabel("Blanking plugs").fill("99");
        button(page, "File version 2").click();
        assertThat(page.locator(".problem")).containsText("/blankingPlugs");
        BROWSER.check(page, "the book's editor");
        page.getByLabel("Blanking plugs").fill("2");
        page.getByLabel("Why it is changed", new GetByLabelOptions().setExact(true))
                .fill("two plugs were found");
        for (String part : new String[] {"Path", "Handling", "Items", "Access steps", "Joints", "Tools and kits"}) {
            page.getByLabel("Parts of the book").getByText(part).click();
            assertThat(page.locator(".book-section")).isVisible();
        }
        BROWSER.check(page, "the book's editor, tools");
        page.getByLabel("Parts of the book").getByText("Path").click();
        button(page, "Draw it as it stands here").click();
        assertThat(page.locator(".path-try .book-path")).isVisible();
        BROWSER.check(page, "the book's editor, path");
        button(page, "File version 2").click();
        assertThat(page.locator(".builder-head")).containsText("Version 2");
        assertThat(page.locator(".log")).containsText("two plugs were found");
        assertThat(page.locator(".differences")).containsText("blankingPlugs");
    }

    @Test
    void aDocumentIsLookedAtBeforeItIsFiled() {
        Page page = BROWSER.window("ines", 1280, 800);
        page.navigate(BROWSER.address() + "/engines");
        String text = (String) page.evaluate("fetch('/api/engines/KES-18/document').then(r => r.text())");
        page.locator("#book-file").setInputFiles(json(text.replace("\"CHAIN\"", "\"GEARS\"")));
        assertThat(page.locator(".problem")).containsText("/family/drive");
        page.locator("#book-file").setInputFiles(json(text));
        assertThat(page.getByText("is on file just like this")).isVisible();
        page.locator("#book-file")
                .setInputFiles(json(text.replace("\"KES-18\"", "\"KES-20\"").replace("Kestle 1.8", "Kestle 2.0")));
        button(page, "File version 1").click();
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("Kestle 2.0 is filed as version 1");
        BROWSER.check(page, "a document taken in");
    }

    private static FilePayload json(String text) {
        return new FilePayload("family.json", "application/json", text.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void aPartIsFoundAndItsPriceChanged() {
        Page page = BROWSER.window("morwen", 1280, 800);
        page.navigate(BROWSER.address() + "/stores/parts");
        page.getByLabel("Number, name or item").fill("KF-HOL-12-4P");
        assertThat(page.locator("table.parts tbody tr")).hasCount(1);
        BROWSER.check(page, "parts");
        button(page, "KF-HOL-12-4P").click();
        page.getByLabel("Price", new GetByLabelOptions().setExact(true)).fill("-3");
        button(page, "Keep the change").click();
        assertThat(page.locator(".field-note")).containsText("zero or more");
        page.getByLabel("Price", new GetByLabelOptions().setExact(true)).fill("17.50");
        BROWSER.check(page, "a part");
        button(page, "Keep the change").click();
        assertThat(page.locator("table.parts tbody tr").first()).containsText("€17.50");
    }
}
