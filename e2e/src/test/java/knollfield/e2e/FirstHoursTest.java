package knollfield.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Page.GetByLabelOptions;
import com.microsoft.playwright.Page.GetByRoleOptions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.Charset;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

/** From an empty folder to a signed card, a printed label and a restarted clock, through screens alone. */
class FirstHoursTest {

    @RegisterExtension
    static final Browser BROWSER = Browser.empty();

    private static final LocalDate TODAY = LocalDate.now();
    private static final DateTimeFormatter GARAGE = DateTimeFormatter.ofPattern("dd.MM.yyyy");

    private Page page;
    private int fields;
    private int touches;

    @Test
    void aWorkshopOfItsOwnGetsToItsFirstSignedJob() {
        Instant begun = Instant.now();
        page = BROWSER.stranger(1280, 800);
        firstAccount();
        nameTheWorkshop();
        person("Bench One", "bench", "technician");
        person("Front Desk", "front", "front desk");
        bay();
        int before = fields;
        family();
        int ofFamily = fields - before;
        vehicleByHand();
        list();
        String job = promise();
        Hands hands = bench(job);
        clocksRestarted();

        long minutes = Duration.between(begun, Instant.now()).toMinutes();
        System.out.printf(
                "first hours: %d fields (%d for the family), %d touches, %d touches at the bench, %d min by machine%n",
                fields, ofFamily, touches, hands.touches(), minutes);
        assertThat(ofFamily).as("fields of a keyed belt family").isLessThanOrEqualTo(120);
    }

    private void fill(String label, String value) {
        page.getByLabel(label, new GetByLabelOptions().setExact(true)).fill(value);
        fields++;
    }

    private void press(String name) {
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(name).setExact(true))
                .click();
        touches++;
    }

    private void choose(String label, String option) {
        Browser.choose(page, page.getByLabel(label, new GetByLabelOptions().setExact(true)), option);
        fields++;
    }

    private void go(String path) {
        page.navigate(BROWSER.address() + path);
        touches++;
    }

    private void firstAccount() {
        fill("Code", Browser.CODE);
        fill("Your name", "Ada Holm");
        fill("Sign-in name", "ines");
        fill("Password", Browser.PASSWORD);
        press("Create the account");
        page.getByText("Add a technician").waitFor();
        assertThat(page.locator("body")).containsText("Write down an engine family");
        BROWSER.check(page, "getting ready");
    }

    private void nameTheWorkshop() {
        go("/setup/workshop");
        fill("Name", "Holm Motors");
        press("Keep the workshop’s details");
        page.getByText("Kept.").first().waitFor();
    }

    private void person(String name, String signIn, String role) {
        go("/setup/people");
        press("Add a person");
        fill("Name", name);
        fill("Signs in as", signIn);
        page.locator("#person-password").fill(Browser.PASSWORD);
        fields++;
        choose("Role", role);
        press("Add");
        page.getByText(name).first().waitFor();
    }

    private void bay() {
        go("/setup/places");
        press("Add a bay");
        fill("Name", "Left");
        press("Add");
        page.getByRole(AriaRole.CELL, new GetByRoleOptions().setName("Left")).waitFor();
    }

    private void family() {
        go("/engines/new");
        page.getByText("Keyed four, one cam").click();
        touches++;
        page.getByText("Water pump, turned by the belt").click();
        page.getByLabel("Water pump: limit, km").waitFor();
        fields++;
        fill("Short code", "HM-16");
        fill("Name, as you call it", "Sixteen hundred");
        choose("Interference", "yes: valves and pistons meet");
        fill("Timing belt, teeth", "127");
        fill("Where limits and torques come from", "own book, page 4");
        for (String item : new String[] {"Timing belt", "Tensioner", "Water pump"}) {
            fill(item + ": limit, km", "100.000");
            fill(item + ": limit, months", "6 years");
            fill(item + ": part number", "HM " + item);
            fill(item + ": price each", "49,50");
        }
        Locator torques = page.getByLabel(Pattern.compile(": torque, N·m$"));
        for (int i = 0; i < torques.count(); i++) {
            torques.nth(i).fill("25 Nm");
            fields++;
        }
        fill("Twist of the longest run, at least", "75");
        fill("Twist of the longest run, at most", "95");
        fill("Coolant, filling", "6,5");
        fill("Repair, likely", "2.800");
        assertThat(page.locator(".engine-state")).containsText("Every card is proven");
        BROWSER.check(page, "a new family");
        press("File the family");
        page.getByRole(AriaRole.HEADING, new GetByRoleOptions().setName(Pattern.compile("^Sixteen hundred")))
                .waitFor();
        BROWSER.check(page, "a family without a drawing");
    }

    private void vehicleByHand() {
        go("/vehicles/new");
        fill("Registration", "HM 100");
        fill("Make and model", "Sixteen saloon");
        fill("Owner", "Jonas Berg");
        fill("Phone", "0555 3");
        choose("Engine family", "Sixteen hundred");
        fill("First registered on", "3.4." + TODAY.minusYears(9).getYear());
        choose("Usage class", "private");
        BROWSER.check(page, "a vehicle by hand");
        press("Add the vehicle");
        page.getByRole(AriaRole.HEADING, new GetByRoleOptions().setName(Pattern.compile("HM 100")))
                .first()
                .waitFor();
    }

    private void list() {
        String csv = """
                     Kennzeichen;Fahrzeug;Halter;Erstzulassung;km-Stand;Stand vom;Motor
                     HM 200;Kombi;Jürgen Groß;%s;64.785;%s;Sixteen hundred
                     HM 300;Kasten;Åse Bø;%s;121.004,5;%s;HM-16
                     """.formatted(
                        TODAY.minusYears(5).format(GARAGE),
                        TODAY.minusDays(20).format(GARAGE),
                        TODAY.minusYears(8).format(GARAGE),
                        TODAY.minusDays(13).format(GARAGE));
        go("/setup/import");
        page.locator("#file")
                .setInputFiles(new FilePayload("liste.csv", "text/csv", csv.getBytes(Charset.forName("windows-1252"))));
        page.getByText("2 new").waitFor();
        BROWSER.check(page, "a list as it is understood");
        press("Take in 2 lines");
        page.getByText("2 vehicles taken in").waitFor();
        go("/");
        // eight years old and nobody knows of a belt; the other is inside both limits since it was new
        assertThat(page.locator("body")).containsText("HM 300");
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(Pattern.compile("^Clear")))
                .click();
        assertThat(page.locator("body")).containsText("HM 200");
    }

    private String promise() {
        page.keyboard().press("/");
        page.keyboard().type("hm100");
        page.keyboard().press("Enter");
        page.getByRole(AriaRole.HEADING, new GetByRoleOptions().setName(Pattern.compile("HM 100")))
                .first()
                .waitFor();
        page.getByText("Build the job").click();
        touches++;
        page.getByText("later", new Page.GetByTextOptions().setExact(true)).click();
        touches++;
        page.locator("button:enabled[aria-label^='Bench One'][aria-label$=': free']")
                .first()
                .click();
        touches++;
        page.getByRole(AriaRole.BUTTON, new GetByRoleOptions().setName(Pattern.compile("^Promise \\d")))
                .click();
        touches++;
        assertThat(page.locator(".promised")).containsText("Bench One");
        return page.url().substring(page.url().lastIndexOf('/') + 1);
    }

    private Hands bench(String job) {
        Hands hands = new Hands(BROWSER.window("bench", 1024, 768)).open(BROWSER.address(), job);
        hands.keys("97350");
        hands.press("Check in and start");
        hands.until("Label written and protected; old parts shown");
        Locator label = hands.page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Print the label"));
        assertThat(label).isVisible();
        assertThat(hands.page.evaluate(
                        "async a => (await fetch(a)).headers.get('content-type')", label.getAttribute("href")))
                .as("printed before its tick")
                .isEqualTo("application/pdf");
        BROWSER.check(hands.page, "label before its tick");
        hands.until("Every step is done");
        String next = hands.page.locator(".next-due").textContent();
        hands.press("Sign the job");
        assertThat(hands.title()).hasText("Signed");
        assertThat(hands.page.locator(".next-due")).hasText(next);
        return hands;
    }

    private void clocksRestarted() {
        page.keyboard().press("/");
        page.keyboard().type("hm100");
        page.keyboard().press("Enter");
        assertThat(page.locator(".sentence")).containsText("Clear");
    }
}
