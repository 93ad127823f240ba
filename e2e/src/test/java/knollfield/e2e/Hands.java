package knollfield.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Page.GetByRoleOptions;
import com.microsoft.playwright.options.AriaRole;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Pattern;

/** Somebody's hands at a job card: they touch what it offers, and every touch is counted. */
final class Hands {

    /** Scope of a job: the belt with its tensioner and idler and nothing else. */
    static final String PLAIN = """
            "school": "BOOK_MINIMUM", "decisions": {
              "pump": {"in": false, "reason": "two years old", "inspection": "dry, no play"},
              "coolant": {"in": false, "reason": "not opened"}}""";

    private static final AtomicInteger JOBS = new AtomicInteger();

    /** A day of its own for every job, where the demo has promised nothing. */
    private static LocalDate nextDay = LocalDate.now().plusDays(35);

    final Page page;
    private int touches;

    Hands(Page page) {
        this.page = page;
    }

    int touches() {
        return touches;
    }

    /** Helpers of the scripts below: calls as the pages make them. */
    private static final String CALLS = """
            const token = () => decodeURIComponent(/XSRF-TOKEN=([^;]*)/.exec(document.cookie)[1]);
            const call = async (method, path, type, body) => {
              const r = await fetch(path, { method, headers: { 'Content-Type': type, 'X-XSRF-TOKEN': token() }, body });
              if (!r.ok) throw new Error(path + ' ' + r.status + ' ' + await r.text());
              return r.json();
            };
            const json = (method, path, body) => call(method, path, 'application/json', body && JSON.stringify(body));
            """;

    /** The front desk notes that the owner agreed to {@code item} on the phone. */
    static void agreed(Page desk, String job, String item) {
        desk.evaluate("async ([job, item]) => {" + CALLS + """
                  await json('POST', `/api/jobs/${job}/card/owner-answer`, {
                    lines: [item], agreed: true, saidBy: 'Ruan Keast', warning: '', signed: false });
                }""", List.of(job, item));
    }

    /** Makes a vehicle of {@code family}, nine years old; its registration. */
    static String vehicle(Page manager, String family) {
        String registration = "BEN %d".formatted(JOBS.incrementAndGet());
        manager.evaluate(
                "async ([registration, family, born, read]) => {" + CALLS + """
                  await call('POST', '/api/imports', 'text/csv',
                    'registration,make_model,engine_family,owner,phone,usage,first_registered,odometer,odometer_unit,odometer_date\\n' +
                    `${registration},Test vehicle,${family},Ruan Keast,0555 9,private,${born},138000,km,${read}\\n`);
                }
                """,
                List.of(
                        registration,
                        family,
                        LocalDate.now().minusYears(9).toString(),
                        LocalDate.now().minusDays(3).toString()));
        return registration;
    }

    /** Promises a job on a day of its own. */
    static void promise(Page manager, String job, String technician) {
        manager.evaluate(
                "async ([job, technician, day]) => {" + CALLS + """
                  const week = await (await fetch('/api/jobs/week?from=' + day)).json();
                  const { version } = await (await fetch(`/api/jobs/${job}`)).json();
                  await json('PUT', `/api/jobs/${job}/booking`, {
                    technicianId: week.technicians.find(t => t.name === technician).id,
                    bayId: week.bays.find(b => b.liftClass >= 2)?.id ?? week.bays[0].id,
                    day, time: '08:00', version });
                }
                """, List.of(job, technician, ownDay().toString()));
    }

    /** Makes a vehicle of {@code family}, its job and its promise; {@code scope} are fields of the job's scope. */
    static String job(Page manager, String family, String technician, String scope) {
        String registration = vehicle(manager, family);
        String job = (String) manager.evaluate(
                "async ([registration, scope]) => {" + CALLS + """
                  const found = await (await fetch('/api/find?q=' + encodeURIComponent(registration))).json();
                  const vehicleId = found.vehicles.find(f => f.registration === registration).vehicleId;
                  const { id } = await json('POST', '/api/jobs', { vehicleId });
                  await json('PUT', `/api/jobs/${id}/scope`, { purpose: [], decisions: {}, parts: {}, ownerSupplied: [],
                    variants: {}, toolHireMinor: 0, version: 1, ...JSON.parse(scope) });
                  return String(id);
                }
                """, List.of(registration, "{" + scope + "}"));
        promise(manager, job, technician);
        return job;
    }

    private static synchronized LocalDate ownDay() {
        do {
            nextDay = nextDay.plusDays(1);
        } while (nextDay.getDayOfWeek().getValue() > DayOfWeek.THURSDAY.getValue());
        return nextDay;
    }

    Hands open(String address, String job) {
        page.navigate(address + "/jobs/" + job + "/card");
        page.locator(".bench-step h1").waitFor();
        return this;
    }

    Hands checkIn() {
        keys("138500");
        press("Check in and start");
        assertThat(title()).not().hasText("Read the odometer at the vehicle");
        return this;
    }

    Locator title() {
        return page.locator(".bench-step h1");
    }

    /** Answers each step well until the heading is the one asked for. */
    Hands until(String heading) {
        for (int i = 0; i < 90; i++) {
            settle();
            if (title().textContent().equals(heading)) {
                return this;
            }
            String shown = shown();
            answerWell();
            page.waitForCondition(() -> !shown().equals(shown));
        }
        throw new AssertionError("never came to " + heading + ", is at " + title().textContent());
    }

    /** Heading and entry as they stand at one moment. */
    private String shown() {
        return (String) page.evaluate("""
                () => document.querySelector('.bench-step h1')?.textContent + ' | ' +
                      document.querySelector('.bench-entry')?.textContent
                """);
    }

    /** Until what was touched has been answered. */
    private void settle() {
        page.locator(".bench-page[aria-busy='false']").waitFor();
    }

    /** One step answered by touching what it offers; all plain ones of a phase at once. */
    void answerWell() {
        Locator entry = page.locator(".bench-entry");
        Locator plain = entry.getByText(Pattern.compile("^All \\d+ plain steps of this phase$"));
        if (plain.count() > 0) {
            touch(plain);
            return;
        }
        Locator action = entry.locator(".bench-button.action");
        if (entry.locator(".keypad").count() == 0 || action.first().isEnabled()) {
            touch(
                    action.count() > 0
                            ? action.first()
                            : entry.locator(".bench-button").first());
            return;
        }
        String words = entry.textContent();
        var book = Pattern.compile("Book ([0-9.]+) N·m").matcher(words);
        var window = Pattern.compile("Good from ([0-9.]+) to ([0-9.]+)").matcher(words);
        if (book.find()) {
            keys(book.group(1));
        } else {
            assertThat(window.find()).as("a figure to go by in: %s", words).isTrue();
            double middle = (Double.parseDouble(window.group(1)) + Double.parseDouble(window.group(2))) / 2;
            keys(middle == Math.rint(middle) ? String.valueOf((int) middle) : "%.3f".formatted(middle));
        }
        touch(entry.getByText(Pattern.compile("^Enter ")).first());
    }

    void keys(String figures) {
        for (char c : figures.toCharArray()) {
            String name = c == '.' ? "decimal point" : String.valueOf(c);
            touch(page.locator(".pad").getByLabel(name, new Locator.GetByLabelOptions().setExact(true)));
        }
    }

    Locator button(String name) {
        return page.getByRole(
                AriaRole.BUTTON, new GetByRoleOptions().setName(name).setExact(true));
    }

    Hands press(String name) {
        touch(button(name));
        return this;
    }

    void touch(Locator what) {
        what.click();
        touches++;
        settle();
    }

    /** What the server has of a card. */
    @SuppressWarnings("unchecked")
    Map<String, Object> card(String job) {
        return (Map<String, Object>) page.evaluate("async job => (await fetch(`/api/jobs/${job}/card`)).json()", job);
    }
}
