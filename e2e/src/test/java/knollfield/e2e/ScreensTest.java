package knollfield.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Page.GetByRoleOptions;
import com.microsoft.playwright.options.AriaRole;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Each place by itself: keyboard, refusals, what a role is offered, and axe. */
class ScreensTest {

    @RegisterExtension
    static final Browser BROWSER = new Browser();

    @ParameterizedTest(name = "{0}")
    @CsvSource({
        "desk, /, Setup",
        "setup, /setup, Rates and costs",
        "people, /setup/people, Signs in as",
        "workshop, /setup/workshop, Working hours",
        "breakdowns, /setup/breakdowns, Expected against happened",
        "matching, /setup/matching, Add a rule",
        "everything, /setup/everything, Passwords are not in it",
        "places, /setup/places, Add a fleet",
        "outside, /setup/outside, What a delivery is called",
        "kinds, /engines/new, Choose what the engine is like",
        "import, /setup/import, Choose a list",
        "ready, /setup/ready, Everything is there",
        "password, /password, Your password",
        "assumptions, /setup/assumptions, Trust in readings",
        "ahead, /ahead, Next to cross",
        "add a vehicle, /vehicles/new, Usage class",
        "readings, /readings?drive=CHAIN, Odometer readings",
        "jobs, /jobs, Promised",
        "find, /find?q=tonkin, worst first",
        "owner, /owners/1, may be written to",
        "fleets, /fleets, 'Fleets, the next twelve months'",
        "fleet, /fleets/1, By month",
        "month, /month, Exposure carried",
        "letters, /letters, Reminders for today",
        "letters in setup, /setup/letters, Mail server",
        "board, /board, Fourteen days from",
        "card, /jobs/1/card, Parts and tools in hand",
        "vehicle, /vehicles/45, Item clocks",
        "engines, /engines, Engines",
        "stores, /stores, Coming jobs",
        "orders, /stores/orders, What arrives goes onto the shelf",
        "tool sets, /stores/tool-sets, Tool sets",
        "recall, /recall, Recall",
        "practice, /practice, Practice",
        "calculators, /calculators, Belt",
        "backups, /setup/backups, Backup"
    })
    void placesHoldTogetherAt1280By800EnlargedTwiceAndOnAPhone(String screen, String path, String words) {
        Page page = BROWSER.lookingRound("ines");
        page.navigate(BROWSER.address() + path);
        assertThat(page.getByText(words).first()).isVisible();
        page.waitForTimeout(300);
        BROWSER.check(page, screen);
        BROWSER.checkReflow(page, screen);
    }

    @Test
    void theSignInSaysWhatIsWrongAndKeepsTheName() {
        Page page = BROWSER.stranger(1280, 800);
        page.getByLabel("Sign-in name").waitFor();
        BROWSER.check(page, "sign-in");
        BROWSER.checkReflow(page, "sign-in");
        page.getByLabel("Sign-in name").fill("ines");
        page.getByLabel("Password", new Page.GetByLabelOptions().setExact(true)).fill("not this one");
        page.keyboard().press("Enter");

        assertThat(page.locator(".field-note")).containsText("do not belong together");
        assertThat(page.getByLabel("Sign-in name")).hasValue("ines");
    }

    @Test
    void theDeskIsWalkedByKeys() {
        Page page = BROWSER.as("ines");
        Locator current = page.locator(".row[aria-current=true] .registration");
        current.waitFor();
        String first = current.textContent();
        page.keyboard().press("ArrowDown");
        assertThat(current).not().hasText(first);
        String second = current.textContent();
        assertThat(page.locator(".desk-dossier .title")).containsText(second);
        page.keyboard().press("o");
        assertThat(page.getByLabel("Odometer", new Page.GetByLabelOptions().setExact(true)))
                .isFocused();
        page.keyboard().type("1o");
        assertThat(page.locator(".desk-dossier .title")).containsText(second);
        page.keyboard().press("Enter");
        assertThat(page.locator(".card-form .field-note")).containsText("“1o” is not a number");
        // beside the registration, which is a link
        page.locator(".row .what").first().click();
        page.keyboard().press("?");
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("walk the list");
    }

    @Test
    void aReadingThatRunsBackwardsIsSaidBesideItsFieldAndNotLost() {
        Page page = BROWSER.as("morwen");
        page.locator(".row .who .registration").nth(3).click();
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName("Odometer"))
                .click();
        Locator value = page.getByLabel("Odometer", new Page.GetByLabelOptions().setExact(true));
        value.fill("1");
        page.getByText("Record it", new Page.GetByTextOptions().setExact(true)).click();

        assertThat(page.locator(".card-form .field-note")).containsText("runs backwards");
        assertThat(value).hasValue("1");
        value.fill("9999999999");
        page.getByText("Record it", new Page.GetByTextOptions().setExact(true)).click();
        assertThat(page.locator(".card-form .field-note")).containsText("9999999999 is not one");
        BROWSER.check(page, "reading form");
        page.getByText("Leave it").click();
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName("Evidence"))
                .click();
        assertThat(page.getByLabel("What was found")).isVisible();
        BROWSER.check(page, "evidence form");
    }

    @Test
    void filtersStandInTheAddressAndLeadBack() {
        Page page = BROWSER.as("ines");
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(Pattern.compile("^Stop")))
                .click();
        assertThat(page.locator(".row")).hasCount(1);
        assertThat(page.url()).contains("status=STOP");
        page.getByLabel("Narrow the list by a word").fill("no such owner");
        assertThat(page.locator(".empty")).containsText("No vehicle fits.");
        page.getByText("Show all again").click();
        assertThat(page.locator(".row").nth(20)).isAttached();
    }

    @Test
    void aTechnicianIsOfferedTheBenchAndNothingElse() {
        Page page = BROWSER.as("hedra");
        assertThat(page.locator("header nav a"))
                .hasText(new String[] {"Desk", "Ahead", "Board", "Jobs", "Fleets", "Engines", "Stores"});
        page.navigate(BROWSER.address() + "/engines/CAL-16");
        page.locator(".book-path").waitFor();
        assertThat(page.getByText("Change the book")).hasCount(0);
        page.navigate(BROWSER.address() + "/stores/parts");
        page.locator("table.parts").waitFor();
        assertThat(page.getByText("Add a part")).hasCount(0);
        page.navigate(BROWSER.address() + "/setup");
        assertThat(page.getByText("Labour")).hasCount(0);
        page.navigate(BROWSER.address() + "/vehicles/1");
        page.locator(".dossier-head").waitFor();
        assertThat(page.getByText("Build the job")).hasCount(0);
        assertThat(page.getByRole(AriaRole.CHECKBOX)).hasCount(0);
    }

    @Test
    void aFleetContactReadsTheOwnFleet() {
        Page page = BROWSER.as("jory");
        assertThat(page.locator("header nav a")).hasText(new String[] {"Desk", "Ahead", "Fleets"});
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(Pattern.compile("^Clear")))
                .click();
        assertThat(page.locator(".row .who .second").first()).hasText("Harbour taxis");
        assertThat(page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName("Odometer")))
                .hasCount(0);
        BROWSER.check(page, "fleet contact's desk");

        // what is coming in twelve months: one touch, and another for a month
        page.getByRole(AriaRole.LINK, new GetByRoleOptions().setName("Fleets")).click();
        assertThat(page.locator("h1")).hasText("Harbour taxis");
        assertThat(page.locator(".fleet-words p").first()).containsText("next twelve months");
        assertThat(page.locator("tfoot")).containsText("Next twelve months");
        page.locator(".fleet-months .month").nth(1).click();
        assertThat(page.getByText("All months")).isVisible();
        BROWSER.check(page, "fleet contact's fleet");
        page.navigate(BROWSER.address() + "/fleets/1");
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("not yours to see");
    }

    @Test
    void aFleetContactAnswersAnEstimateAndTheDeskHasTheConsent() {
        Page ines = BROWSER.as("ines");
        Number job = (Number) ines.evaluate("""
                async () => {
                  const token = decodeURIComponent(document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1]);
                  const call = async (method, path, body) =>
                    (await fetch(path, {
                      method,
                      headers: { 'Content-Type': 'application/json', 'X-XSRF-TOKEN': token },
                      body: body && JSON.stringify(body),
                    })).json();
                  const fleet = (await call('GET', '/api/fleets')).find((f) => f.name === 'Harbour taxis');
                  const page = await call('GET', `/api/fleets/${fleet.id}`);
                  const taxi = page.vehicles.findLast((v) => !v.plannedOn);
                  const job = await call('POST', '/api/jobs', { vehicleId: taxi.vehicleId });
                  await call('POST', `/api/jobs/${job.id}/estimates`, {});
                  return job.id;
                }
                """);
        Page jory = BROWSER.as("jory");
        jory.getByRole(AriaRole.LINK, new GetByRoleOptions().setName("Fleets")).click();
        assertThat(jory.locator(".own-jobs .count")).hasText("1 waits for your answer");
        BROWSER.check(jory, "fleet contact's estimate");
        jory.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(Pattern.compile("^Agree to all")))
                .click();
        assertThat(jory.locator(".own-jobs .count")).hasText("nothing waits for you");

        ines.navigate(BROWSER.address() + "/jobs/" + job.longValue());
        assertThat(ines.getByText("all lines answered")).isVisible();
        assertThat(ines.getByText("by Jory Pask, by the fleet itself").first()).isVisible();
    }

    @Test
    void anOwnerAnswersOnAPhoneWithoutAccountAndWithoutScripts() {
        Page ines = BROWSER.as("ines");
        String address = (String) ines.evaluate("""
                async () => {
                  const token = decodeURIComponent(document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1]);
                  const call = async (method, path, body) =>
                    (await fetch(path, {
                      method,
                      headers: { 'Content-Type': 'application/json', 'X-XSRF-TOKEN': token },
                      body: body && JSON.stringify(body),
                    })).json();
                  const house = await call('GET', '/api/setup/house');
                  await call('PUT', '/api/setup/house', { ...house, outsideAddress: location.origin });
                  const desk = await call('GET', '/api/desk?limit=200&status=COMING,CLEAR');
                  for (const row of desk.rows.toReversed()) {
                    const job = await call('POST', '/api/jobs', { vehicleId: row.vehicleId });
                    if (!job.id) continue;
                    await call('POST', `/api/jobs/${job.id}/estimates`, {});
                    return (await call('POST', `/api/jobs/${job.id}/private-page`, {})).address;
                  }
                }
                """);
        ines.setViewportSize(390, 844);
        ines.navigate(address);
        BROWSER.check(ines, "owner's page");

        Page page = BROWSER.withoutScripts(390, 844);
        page.navigate(address);
        assertThat(page.getByRole(AriaRole.HEADING, new GetByRoleOptions().setLevel(1)))
                .containsText("Estimate for");
        assertThat(page.locator(".left").first()).isVisible();
        page.locator("input[name=agree]").first().check();
        assertThat(page.locator(".left").first()).isHidden();
        page.locator("input[name=agree]").first().uncheck();
        page.getByLabel("Your name").fill("Åse Bø");
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName("Send my answer"))
                .click();
        assertThat(page.getByText("Nothing was sent yet")).isVisible();
        assertThat(page.getByLabel("Your name")).hasValue("Åse Bø");
        page.locator("input[name=agree]").all().forEach(Locator::check);
        page.locator("input[name=slot]").first().check();
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName("Send my answer"))
                .click();
        assertThat(page.getByText("We expect the vehicle on")).isVisible();
        page.navigate(address);
        assertThat(page.getByText("has been answered")).isVisible();
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', textBlock = """
            empty         | ''                                     | The file is empty
            not text      | 'a,b,c NUL b'                          | not text
            a bad line    | 'registration,date,odometer\nX,2020-01-01,5' | X is not on file
            """)
    void aBadListIsSaidLineByLine(String behaviour, String csv, String words) {
        Page page = BROWSER.window("morwen", 1280, 800);
        page.navigate(BROWSER.address() + "/setup/import");
        page.locator("#file")
                .setInputFiles(new com.microsoft.playwright.options.FilePayload(
                        "list.csv",
                        "text/csv",
                        csv.replace("\\n", "\n").replace("NUL", "\0").getBytes(StandardCharsets.UTF_8)));

        assertThat(page.locator(".field-note").first()).containsText(words);
        List<String> buttons = page.locator("button:enabled").allTextContents();
        assertThat(buttons).noneMatch(b -> b.startsWith("Take in"));
    }

    @Test
    void theManagersChangeOfPolicyIsKeptOrRefusedAtItsField() {
        Page page = BROWSER.window("ines", 1280, 800);
        page.navigate(BROWSER.address() + "/setup");
        Locator horizon = page.getByLabel("Coming means within");
        horizon.fill("0");
        page.getByText("Keep these figures").click();
        assertThat(page.locator(".setting .field-note")).containsText("1 to 730 days");
        horizon.fill("121");
        page.getByText("Keep these figures").click();
        assertThat(page.getByText("Every vehicle has been judged anew").first()).isVisible();
        // the form is made anew with the version that was kept
        assertThat(page.getByText("last changed by Ines Carrow")).isVisible();
        horizon.fill("120");
        page.getByText("Keep these figures").click();
        assertThat(page.locator("form.settings button[type=submit]")).isDisabled();
        assertThat(horizon).hasValue("120");
    }
}
