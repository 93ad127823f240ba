package knollfield.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.deque.html.axecore.results.Rule;
import com.microsoft.playwright.APIRequestContext;
import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Browser.NewContextOptions;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ReducedMotion;
import com.microsoft.playwright.options.RequestOptions;
import com.microsoft.playwright.options.ServiceWorkerPolicy;
import com.microsoft.playwright.options.ViewportSize;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import knollfield.app.KnollfieldApplication;
import org.junit.jupiter.api.extension.AfterEachCallback;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.ExtensionContext.Namespace;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;

/** The demo on a free port, and Debian's Chromium in front of it; both are started once. */
final class Browser implements BeforeAllCallback, AfterEachCallback {

    static final String PASSWORD = "skerrow-demo";
    static final String CODE = "40718293";

    private final boolean demo;
    private Running running;
    private final List<BrowserContext> open = new java.util.ArrayList<>();
    private final Map<String, Page> round = new HashMap<>();

    /** The island. */
    Browser() {
        this(true);
    }

    private Browser(boolean demo) {
        this.demo = demo;
    }

    /** A workshop of its own in an empty folder; its first account is made with {@link #CODE}. */
    static Browser empty() {
        return new Browser(false);
    }

    private record Running(
            ConfigurableApplicationContext server,
            String address,
            Path folder,
            Playwright playwright,
            com.microsoft.playwright.Browser chromium)
            implements ExtensionContext.Store.CloseableResource {

        @Override
        public void close() throws IOException {
            chromium.close();
            playwright.close();
            server.close();
            try (Stream<Path> files = Files.walk(folder)) {
                files.sorted(Comparator.reverseOrder()).forEach(f -> f.toFile().delete());
            }
        }
    }

    @Override
    public void beforeAll(ExtensionContext context) {
        running = context.getRoot()
                .getStore(Namespace.create(Browser.class))
                .getOrComputeIfAbsent("browser-" + demo, k -> start(demo), Running.class);
    }

    @Override
    public void afterEach(ExtensionContext context) {
        open.forEach(BrowserContext::close);
        open.clear();
    }

    private static Running start(boolean demo) {
        try {
            Path folder = Files.createTempDirectory("knollfield-e2e");
            ConfigurableApplicationContext server = SpringApplication.run(
                    new Class<?>[] {KnollfieldApplication.class, QuickPasswords.class}, new String[] {
                        "--server.port=0",
                        demo ? "--knollfield.demo=true" : "--knollfield.first-run-code=" + CODE,
                        "--knollfield.data=" + folder.resolve("data"),
                        "--spring.main.allow-bean-definition-overriding=true",
                        "--knollfield.planner.seconds=4"
                    });
            int port = ((WebServerApplicationContext) server).getWebServer().getPort();
            System.setProperty("playwright.nodejs.path", node());
            // two busy cores may take their time; a right answer is right however late
            PlaywrightAssertions.setDefaultAssertionTimeout(20_000);
            Playwright playwright = Playwright.create(
                    new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
            com.microsoft.playwright.Browser chromium = playwright
                    .chromium()
                    .launch(new BrowserType.LaunchOptions()
                            .setExecutablePath(Path.of("/usr/bin/chromium"))
                            .setArgs(List.of(
                                    "--no-sandbox",
                                    "--disable-gpu",
                                    "--disable-quic",
                                    "--no-first-run",
                                    "--disable-background-networking",
                                    "--disable-component-update",
                                    "--disable-sync")));
            return new Running(server, "http://localhost:" + port, folder, playwright, chromium);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The machine's own node; nothing downloads another. */
    private static String node() {
        return Stream.of(System.getenv("PATH").split(":"))
                .map(p -> Path.of(p, "node"))
                .filter(Files::isExecutable)
                .findFirst()
                .map(Path::toString)
                .orElseThrow(() -> new IllegalStateException("node is not on the PATH"));
    }

    String address() {
        return running.address();
    }

    /** A new window on the first page of {@code signIn}. */
    Page as(String signIn, int width, int height) {
        return home(window(signIn, width, height, ServiceWorkerPolicy.BLOCK));
    }

    Page as(String signIn) {
        return as(signIn, 1280, 800);
    }

    /** The same on a tablet that keeps the pages themselves, to open them without a network. */
    Page installed(String signIn, int width, int height) {
        Page page = home(window(signIn, width, height, ServiceWorkerPolicy.ALLOW));
        page.evaluate("navigator.serviceWorker.ready.then(() => true)");
        page.reload();
        page.waitForFunction("navigator.serviceWorker.controller !== null");
        return page;
    }

    /** A new window of {@code signIn} that has opened nothing yet. */
    Page window(String signIn, int width, int height) {
        return window(signIn, width, height, ServiceWorkerPolicy.BLOCK);
    }

    /** The one window of {@code signIn} that looks at place after place, at 1280 × 800; it lives as long as the class. */
    Page lookingRound(String signIn) {
        Page page = round.computeIfAbsent(signIn, who -> {
            Page made = window(who, 1280, 800);
            open.remove(made.context());
            return made;
        });
        // a place that did not hold together left the window as it was looked at
        page.setViewportSize(1280, 800);
        return page;
    }

    /** A job of {@link Hands#job} that Hedra Voss is booked for. */
    String job(String family, String scope) {
        return Hands.job(calls("ines"), family, "Hedra Voss", scope);
    }

    /** Her tablet at the card of {@code job}. */
    Hands tablet(String job) {
        return new Hands(window("hedra", 1024, 768)).open(address(), job);
    }

    /** Where {@code signIn} may call what the pages call, without the time that a page takes. */
    Page calls(String signIn) {
        Page page = window(signIn, 320, 240);
        page.navigate(address() + "/mark.svg");
        return page;
    }

    /** Signs in by the call alone; the form itself is gone through where signing in is what is tested. */
    private Page window(String signIn, int width, int height, ServiceWorkerPolicy worker) {
        Page page = page(width, height, worker);
        APIRequestContext calls = page.context().request();
        calls.get(address() + "/api/me");
        APIResponse answer = calls.post(
                address() + "/api/sign-in",
                RequestOptions.create()
                        .setHeader("X-XSRF-TOKEN", token(page.context()))
                        .setData(Map.of("signIn", signIn, "password", PASSWORD)));
        assertThat(answer.ok()).as("%s signs in: %s", signIn, answer.text()).isTrue();
        calls.get(address() + "/api/me");
        return page;
    }

    private static String token(BrowserContext context) {
        String kept = context.cookies().stream()
                .filter(c -> c.name.equals("XSRF-TOKEN"))
                .findFirst()
                .orElseThrow()
                .value;
        return URLDecoder.decode(kept, StandardCharsets.UTF_8);
    }

    private Page home(Page page) {
        page.navigate(address());
        page.locator("header.shell").waitFor();
        return page;
    }

    /** A new window before the sign-in. */
    Page stranger(int width, int height) {
        Page page = page(width, height, ServiceWorkerPolicy.BLOCK);
        page.navigate(address());
        return page;
    }

    /** A window of a browser whose owner has switched scripts off. */
    Page withoutScripts(int width, int height) {
        BrowserContext context = running.chromium()
                .newContext(new NewContextOptions()
                        .setViewportSize(width, height)
                        .setLocale("en-GB")
                        .setJavaScriptEnabled(false));
        context.setDefaultTimeout(30_000);
        open.add(context);
        return context.newPage();
    }

    /** Keeping the pages takes time in each new window, and most tests have the network. */
    private Page page(int width, int height, ServiceWorkerPolicy worker) {
        BrowserContext context = running.chromium()
                .newContext(new NewContextOptions()
                        .setViewportSize(width, height)
                        .setLocale("en-GB")
                        .setServiceWorkers(worker)
                        // what moves under a touch is looked at by people; here it would only swallow touches
                        .setReducedMotion(ReducedMotion.REDUCE));
        context.setDefaultTimeout(30_000);
        open.add(context);
        return context.newPage();
    }

    /**
     * Chooses {@code option} in the list that {@code control} opens. A list may still be laid out anew while a machine
     * already touches it; a person whose touch was lost touches again, and so does this.
     */
    static void choose(Page page, Locator control, String option) {
        control.click();
        Locator list = page.locator(".ant-select-dropdown:visible");
        Locator offered = list.getByText(option, new Locator.GetByTextOptions().setExact(true));
        for (int touches = 0; touches < 3; touches++) {
            offered.click();
            try {
                PlaywrightAssertions.assertThat(list)
                        .hasCount(0, new LocatorAssertions.HasCountOptions().setTimeout(3_000));
                return;
            } catch (AssertionError stillOpen) {
                if (touches == 2) {
                    throw stillOpen;
                }
            }
        }
    }

    /** No serious fault for people who see, hear or move differently, and nothing that runs out of its window. */
    void check(Page page, String screen) {
        // a place is fetched when it is first gone to; before its heading is there, there is nothing to look at
        page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setLevel(1))
                .first()
                .waitFor();
        List<String> faults = new AxeBuilder(page)
                .analyze().getViolations().stream()
                        .filter(v -> !"minor".equals(v.getImpact()))
                        .map(Browser::words)
                        .toList();
        assertThat(faults).as("axe on " + screen).isEmpty();
        assertThat(page.evaluate("document.documentElement.scrollWidth - window.innerWidth"))
                .as("sideways scrolling on " + screen)
                .isEqualTo(0);
        assertThat(page.evaluate(CUT_OFF)).as("text cut off on " + screen).isEqualTo(List.of());
    }

    private static final String SIDEWAYS =
            "document.documentElement.scrollWidth - document.documentElement.clientWidth";

    /**
     * Nothing scrolls sideways on a small tablet, at 200 % of 1280 × 800 and on a phone (Source: WCAG 2.2, 1.4.10 Reflow); leaves the window as
     * it was.
     */
    void checkReflow(Page page, String screen) {
        ViewportSize before = page.viewportSize();
        for (int[] size : new int[][] {{1024, 768}, {640, 400}, {390, 844}}) {
            page.setViewportSize(size[0], size[1]);
            // what still arrives, or is laid out anew, may stand out for a moment; what stays is a fault
            for (int looks = 0; looks < 20 && !page.evaluate(SIDEWAYS).equals(0); looks++) {
                page.waitForTimeout(100);
            }
            assertThat(page.evaluate(SIDEWAYS))
                    .as("sideways scrolling on %s at %d × %d".formatted(screen, size[0], size[1]))
                    .isEqualTo(0);
        }
        page.setViewportSize(before.width, before.height);
    }

    private static String words(Rule v) {
        return v.getId() + ": " + v.getNodes().get(0).getHtml() + " "
                + v.getNodes().get(0).getFailureSummary();
    }

    /** Texts wider than the box that hides what runs over, unless the box shortens them on purpose. */
    private static final String CUT_OFF = """
            [...document.querySelectorAll('body *')].filter(e => {
              const s = getComputedStyle(e);
              const own = [...e.childNodes].some(n => n.nodeType === 3 && n.textContent.trim());
              return own && e.clientWidth > 1 && s.overflowX !== 'visible' && s.textOverflow !== 'ellipsis'
                && e.scrollWidth > e.clientWidth + 1;
            }).map(e => e.className + ': ' + e.textContent.slice(0, 60))
            """;
}
