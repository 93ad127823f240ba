package knollfield.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static knollfield.e2e.Hands.PLAIN;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.List;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

/** Job cards worked as people work them: by the book, and when things do not go by it. */
class CardWorkTest {

    @RegisterExtension
    static final Browser BROWSER = new Browser();

    @Test
    void aPlainBeltJobTakesAtMostFortyTouchesFromStartToSigned() {
        Hands hands = BROWSER.tablet(BROWSER.job("HOL-12", PLAIN));
        hands.checkIn().until("Every step is done").press("Sign the job");

        assertThat(hands.title()).hasText("Signed");
        assertThat(hands.touches())
                .as("touches, the odometer's six figures among them")
                .isBetween(20, 40);
    }

    @Test
    void aPinLeftInHoldsTheTurnsAndOnlyCountingItOutOpensThem() {
        Hands hands = BROWSER.tablet(BROWSER.job("CAL-16", PLAIN)).checkIn();
        hands.until("Crank pin, inlet pin, exhaust pin out, as many as went in");
        hands.press("inlet pin: out");
        hands.press("Record it");
        assertThat(hands.page.locator(".answer.bad")).containsText("still in: inlet pin");
        assertThat(hands.title()).hasText("Crank pin, inlet pin, exhaust pin out, as many as went in");
        hands.page.locator(".seam-phase.now").click();
        // the manager is not offered a way round it either
        Page ines = BROWSER.window("ines", 1280, 800);
        ines.navigate(hands.page.url());
        Locator gate = ines.locator(".gate", new Page.LocatorOptions().setHasText("Timing pins out"));
        gate.waitFor();
        assertThat(gate.getByText("Open with words")).hasCount(0);

        hands.until("Crank turn 2 by hand, running way");
        assertThat(hands.page.locator(".big-count")).containsText("1 of 2");
        hands.press("Hard stop");
        assertThat(hands.page.getByText("the timing must be proven again")).isVisible();
        assertThat(hands.title()).hasText("Mark timing belt: running way and teeth");
        hands.until("Every step is done").press("Sign the job");
        assertThat(hands.page.getByText("hard stop").first()).isVisible();
    }

    @Test
    void anOldOneTimeBoltIsRefusedAndTheManagerLetsItPassInWords() {
        String job = BROWSER.job("CAL-16", PLAIN);
        Hands hands = BROWSER.tablet(job).checkIn();
        hands.until("One-time fasteners: new ones lie ready");
        hands.press("crank bolt: new");
        hands.press("Record it");
        assertThat(hands.page.locator(".answer.bad")).containsText("old one goes back: crank bolt");
        hands.page
                .locator(".seam-phase", new Page.LocatorOptions().setHasText("Make safe"))
                .click();
        hands.press("Yes, it is so");
        assertThat(hands.page.getByRole(com.microsoft.playwright.options.AriaRole.ALERT))
                .containsText("One-time fasteners new: old one goes back: crank bolt");

        Page ines = BROWSER.window("ines", 1280, 800);
        ines.navigate(hands.page.url());
        Locator gate = ines.locator(".gate", new Page.LocatorOptions().setHasText("One-time fasteners new"));
        gate.getByText("Open with words").click();
        ines.getByLabel("Why; this is printed on the record").fill("new one comes on Friday");
        ines.getByText("Open it with these words").click();
        assertThat(ines.locator(".gate.open")).containsText("One-time fasteners new");

        hands.page.reload();
        hands.until("Every step is done");
        assertThat(hands.page.locator(".sign")).containsText("opened by Ines Carrow: new one comes on Friday");
        hands.press("Sign the job");
        assertThat(hands.page.locator("table.record", new Page.LocatorOptions().setHasText("Deviations")))
                .containsText("new one comes on Friday");
    }

    @Test
    void aPointerThatDriftsTakesThreeRounds() {
        Hands hands = BROWSER.tablet(BROWSER.job("OST-20", PLAIN)).checkIn();
        hands.until("Pointer in its window");
        BROWSER.check(hands.page, "pointer");
        hands.keys("7");
        hands.press("Enter 7 mm past centre");
        assertThat(hands.page.getByText("Attempt 2 at the timing. Attempt 1: pointer in its window: 7 mm"))
                .isVisible();
        hands.until("Pointer in its window");
        hands.keys("1");
        hands.press("below 0");
        hands.press("Enter -1 mm past centre");
        assertThat(hands.page.getByText(Pattern.compile("Attempt 3 at the timing. Attempt 2: .*under by 1")))
                .isVisible();
        hands.until("Pointer in its window");
        hands.keys("2.5");
        hands.press("Enter 2.5 mm past centre");

        hands.until("Every step is done").press("Sign the job");
        Locator timing = hands.page.locator("table.record", new Page.LocatorOptions().setHasText("Attempts"));
        assertThat(timing).containsText("over by 2");
        assertThat(timing).containsText("Attempts3");
    }

    @Test
    void aBeltFoundOutOfTimeIsTimedFromScratch() {
        Hands hands = BROWSER.tablet(BROWSER.job("HOL-16", PLAIN)).checkIn();
        hands.until("All true at once: crank mark, inlet cam mark, exhaust cam mark");
        hands.press("inlet cam mark: true");
        hands.press("Record it");
        assertThat(hands.page.locator(".answer.bad")).containsText("One true and one not: found out of time");
        hands.press("Found out of time: set it from scratch");

        hands.until("Crank to its safe position before any cam turns");
        assertThat(hands.page.locator(".notes")).containsText("quarter turn before the top");
        assertThat(hands.page.locator(".seam")).containsText("Timing from scratch");
        BROWSER.check(hands.page, "timing from scratch");
        hands.until("Frequency of the free run, engine cold");
        hands.press("Read the meter");
        assertThat(hands.page.getByText("a string like that pulls")).isVisible();
        assertThat(hands.page.locator(".readout")).containsText(Pattern.compile("\\d+"));
    }

    @Test
    void aTensionerOnlyCardHoldsTheBeltOnItsWheels() {
        Hands hands =
                BROWSER.tablet(BROWSER.job("HOL-12", "\"purpose\": [\"tensioner\"], \"school\": \"BOOK_MINIMUM\""));
        hands.checkIn();
        assertThat(hands.page.locator(".seam")).containsText("Gate: Tensioner set");
        assertThat(hands.page.locator(".seam")).containsText("Gate: Two turns by hand");
        assertThat(hands.page.locator(".seam")).containsText("Gate: Cams held");
        assertThat(hands.page.locator(".seam")).not().containsText("Slack at the tensioner");
        hands.until("Every step is done").press("Sign the job");
        assertThat(hands.title()).hasText("Signed");
    }

    @Test
    void aDemoJobFromCheckInToItsRecordWithAFindingAPictureAWaitAndAHandOver() throws IOException {
        String job = BROWSER.job("CAL-16", "\"school\": \"WHAT_PAYS\"");
        Hands hands = BROWSER.tablet(job);
        Page page = hands.page;
        page.getByLabel("Keys").fill("hook 3");
        hands.press("Read them");
        assertThat(page.getByLabel("Codes read")).not().hasValue("");
        BROWSER.check(page, "check-in");
        hands.checkIn();
        hands.until("Belt, oil, coolant tracks, dust, tensioner");
        BROWSER.check(page, "first look");
        hands.press("Picture");
        page.locator("#picture").setInputFiles(new FilePayload("belt.png", "image/png", picture()));
        page.getByLabel("What it shows").fill("oil at the upper cover");
        BROWSER.check(page, "picture");
        hands.press("Keep it");
        assertThat(page.locator(".pictures")).containsText("oil at the upper cover");
        hands.press("oil from the top");
        hands.press("Enter what was found");

        // what was found is evidence, asks for a line, and only that line waits for the owner
        assertThat(page.locator(".findings")).containsText("Cam seals");
        page.locator(".offer", new Page.LocatorOptions().setHasText("Cam seals"))
                .getByText("Add to the job")
                .click();
        assertThat(page.locator(".findings")).containsText("The owner has not answered: Cam seals");
        BROWSER.check(page, "owner asked");
        hands.until("Cam sprocket bolts slackened; Cam wheels, cam seals off");
        assertThat(page.locator(".bench-entry")).containsText("Waits for the owner’s answer");
        hands.press("Their answer");
        hands.press("They agree");
        // who put it on the card does not agree for the owner as well
        assertThat(page.locator(".findings")).containsText("somebody else notes");
        Hands.agreed(BROWSER.calls("morwen"), job, "camseal");
        page.reload();
        assertThat(page.locator(".findings")).hasCount(0);

        hands.press("More");
        BROWSER.check(page, "beside the steps");
        page.getByText("The job waits", new Page.GetByTextOptions().setExact(true))
                .click();
        hands.press("the delivery");
        page.getByLabel("In a few words").fill("label stock");
        BROWSER.check(page, "what it waits for");
        hands.press("It waits");
        assertThat(hands.title()).hasText("The job waits for the delivery");
        hands.press("Go on with it");
        hands.press("More");
        page.getByText("Hand over", new Page.GetByTextOptions().setExact(true)).click();
        hands.press("Perran Loy");
        hands.press("Hand over to Perran Loy");
        hands.press("More");
        page.getByText("Recheck later", new Page.GetByTextOptions().setExact(true))
                .click();
        page.getByLabel("What to look at again").fill("wheel fasteners");
        hands.press("Ask for it");
        // an answer goes with the others in its phase
        hands.until("Every step is done");
        BROWSER.check(page, "sign");
        hands.press("returned to the owner");
        hands.press("Sign the job");

        Locator record = page.locator(".sign");
        assertThat(hands.title()).hasText("Signed");
        for (String words : List.of(
                "Cam seals",
                "measured; book 130 N·m",
                "Waited for the delivery",
                "Hedra Voss to Perran Loy",
                "returned to the owner",
                "keys: hook 3",
                "wheel fasteners",
                "agreed")) {
            assertThat(record).containsText(words);
        }
        BROWSER.check(page, "record");
        seeTheStory(page, job);
    }

    private static void seeTheStory(Page bench, String job) {
        Page ines = BROWSER.window("ines", 1280, 800);
        ines.navigate(BROWSER.address() + "/jobs/" + job);
        assertThat(ines.getByText("It comes back: open it again")).isVisible();
        ines.locator("h1 .registration").click();
        assertThat(ines.locator(".story").first()).containsText("Turned over twice, references true at attempt 1.");
        assertThat(ines.getByText("wheel fasteners").first()).isVisible();
        BROWSER.check(ines, "story");
        bench.locator(".pictures img").first().waitFor();
    }

    private static byte[] picture() throws IOException {
        BufferedImage image = new BufferedImage(1200, 800, BufferedImage.TYPE_INT_RGB);
        for (int x = 0; x < 1200; x++) {
            for (int y = 0; y < 800; y++) {
                image.setRGB(x, y, (x / 40 + y / 40) % 2 == 0 ? 0x5F6A64 : 0xF2F0E8);
            }
        }
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ImageIO.write(image, "png", bytes);
        return bytes.toByteArray();
    }

    @Test
    void theCardIsWorkedWithOneHandOnAPhone() {
        String job = BROWSER.job("CAL-16", PLAIN);
        Hands hands = new Hands(BROWSER.window("hedra", 390, 844)).open(BROWSER.address(), job);
        BROWSER.check(hands.page, "check-in on a phone");
        hands.checkIn().until("Tensioner plate to torque");
        BROWSER.check(hands.page, "torque on a phone");
        assertThat(hands.page.locator(".bench-entry")).isInViewport();
        hands.press("Phases");
        assertThat(hands.page.locator(".seam")).isVisible();
        hands.press("Phases");
        hands.until("Crank turn 1 by hand, running way");
        BROWSER.check(hands.page, "turn on a phone");
    }

    @Test
    void anInspectionIsBegunFromTheVehicleAndEndsWithADayToLookAgain() {
        String registration = Hands.vehicle(BROWSER.calls("ines"), "HOL-12");
        Page ines = BROWSER.as("ines");
        ines.getByLabel("Find by registration, owner, phone, part of a VIN, engine or job")
                .fill(registration);
        ines.keyboard().press("Enter");
        ines.getByText("Inspect first").click();
        assertThat(ines.locator("h2").first()).hasText("Inspection, nothing opened");
        assertThat(ines.locator(".inspection-list")).containsText("Belt through its window");
        BROWSER.check(ines, "inspection");
        String job = ines.url().replaceAll(".*/jobs/", "");
        Hands.promise(ines, job, "Hedra Voss");

        Hands hands = BROWSER.tablet(job).checkIn().until("What follows from it");
        hands.press("look again in 3 months");
        hands.page.getByLabel("Why; this is printed on the record").fill("a little oil, dry belt");
        hands.press("Take this way");
        assertThat(hands.title()).hasText("Every step is done");
        assertThat(hands.page.locator(".sign")).containsText("Nothing renewed");
        hands.press("Sign the job");
        assertThat(hands.page.locator(".sign")).containsText("What was found, and what follows");
        assertThat(hands.page.locator("table.record").first())
                .containsText("look again in 3 months: a little oil, dry belt");
    }

    @Test
    void calculatorsAndPracticeStandOnTheirOwn() {
        Page page = BROWSER.window("hedra", 1280, 800);
        page.navigate(BROWSER.address() + "/calculators");
        Locator torque = page.getByLabel("Torque, units and angle", new Page.GetByLabelOptions().setExact(true));
        assertThat(torque).containsText("5.99 N·m");
        page.getByLabel("Book value, to compare").fill("6");
        torque.getByLabel("Unit", new Locator.GetByLabelOptions().setExact(true))
                .getByText("lb·ft")
                .click();
        assertThat(torque).containsText("Was lb·in meant?");
        page.getByLabel("Mass of the belt").fill("0");
        assertThat(page.getByText("A mass is 0.001 to 5 kg/m.")).isVisible();
        BROWSER.check(page, "calculators");

        page.navigate(BROWSER.address() + "/practice");
        Page.GetByTextOptions exact = new Page.GetByTextOptions().setExact(true);
        Browser.choose(page, page.locator("#practice-family"), "Calder 1.6");
        assertThat(page.locator(".turning-path .off").first()).isVisible();
        BROWSER.check(page, "practice");
        for (int i = 0; i < 48 && page.locator(".turning-path .off").count() > 0; i++) {
            page.getByText("+ 1 tooth", exact).click();
        }
        assertThat(page.locator(".turning-path .off")).hasCount(0);
        page.getByText("They are in", exact).click();
        // the crank, then over the tight runs against the running way, the tensioner last
        for (String wheel : List.of("crank", "water pump", "idler", "exhaust cam", "inlet cam", "tensioner")) {
            page.locator(".turn-keys")
                    .getByText(wheel, new Locator.GetByTextOptions().setExact(true))
                    .click();
        }
        page.getByText("It is on", exact).click();
        String out = page.locator(".turning-path .off text").first().textContent();
        page.getByLabel("Wheel", new Page.GetByLabelOptions().setExact(true))
                .getByText(out.startsWith("inlet") ? "inlet cam" : "exhaust cam")
                .click();
        page.getByText("a tooth ahead", exact).click();
        page.getByText("That one", exact).click();
        page.locator(".decisions button").first().click();
        Locator result = page.locator(".marks");
        assertThat(result).containsText("Bring the marks in: 25 of 25");
        assertThat(result).containsText("Lay the belt on: 25 of 25");
        assertThat(result).containsText(Pattern.compile("Find the tooth that is out: (25|15) of 25"));
        BROWSER.check(page, "practice marks");
    }
}
