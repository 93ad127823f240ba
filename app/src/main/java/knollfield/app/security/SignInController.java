package knollfield.app.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.time.LocalDate;
import java.util.Locale;
import java.util.Optional;
import knollfield.app.problem.InvalidInput;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Style;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.units.DistanceUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.security.web.csrf.CsrfTokenRepository;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Signing in and out, and the first account. */
@RestController
@RequestMapping("/api")
class SignInController {

    /** Stands for a name where guesses of the first start's code are counted. */
    private static final String FIRST_RUN = "first run";

    private final PersonRepository repository;
    private final People people;
    private final CurrentPerson current;
    private final CsrfTokenRepository tokens;
    private final Tries tries;
    private final Devices devices;
    private final SecurityContextRepository contexts;
    private final WorkshopClock clock;
    private final FirstRun firstRun;
    private final WorkshopSettings settings;
    private final Style style;

    SignInController(
            PersonRepository repository,
            People people,
            CurrentPerson current,
            CsrfTokenRepository tokens,
            Tries tries,
            Devices devices,
            SecurityContextRepository contexts,
            WorkshopClock clock,
            FirstRun firstRun,
            WorkshopSettings settings,
            Style style) {
        this.repository = repository;
        this.people = people;
        this.current = current;
        this.tokens = tokens;
        this.tries = tries;
        this.devices = devices;
        this.contexts = contexts;
        this.clock = clock;
        this.firstRun = firstRun;
        this.settings = settings;
        this.style = style;
    }

    /**
     * @param unit in which distances are written
     * @param zone of every time of day, a region of the time zone database
     */
    record Me(
            @Nullable Long id,
            @Nullable String name,
            @Nullable Role role,
            LocalDate today,
            String workshop,
            String currency,
            int currencyDigits,
            DistanceUnit unit,
            Style.NumberStyle numbers,
            String zone,
            boolean firstRun) {}

    /** @param code of the second device, six digits; only where the account asks for one */
    record SignIn(String signIn, String password, @Nullable String code) {}

    record OwnPassword(String current, String password) {}

    record FirstManager(String code, String signIn, String name, String password) {}

    /** Who is signed in; also hands out the token that changes need. */
    @GetMapping("/me")
    Me me(HttpServletRequest request, @Nullable Authentication authentication) {
        if (request.getAttribute(CsrfToken.class.getName()) instanceof CsrfToken token) {
            token.getToken();
        }
        Optional<Person> person = Optional.ofNullable(authentication)
                .map(Authentication::getPrincipal)
                .filter(Long.class::isInstance)
                .flatMap(id -> repository.find((Long) id))
                .filter(Person::active);
        return me(person);
    }

    @PostMapping("/sign-in")
    Me signIn(@RequestBody SignIn body, HttpServletRequest request, HttpServletResponse response) {
        String name = body.signIn().strip().toLowerCase(Locale.ROOT);
        String place = request.getRemoteAddr();
        tries.ask(name, place);
        Optional<Person> person = people.withPassword(body.signIn(), body.password());
        if (person.isEmpty()) {
            tries.wrong(name, place);
            throw new InvalidInput("/password", "Sign-in name and password do not belong together.");
        }
        Person p = person.get();
        try {
            people.checkSecondFactor(p.id(), Optional.ofNullable(body.code()).filter(c -> !c.isBlank()));
        } catch (InvalidInput e) {
            if (body.code() != null) {
                tries.wrong(name, place);
            }
            throw e;
        }
        tries.right(name, place);
        HttpSession session = request.getSession(true);
        if (!session.isNew()) {
            request.changeSessionId();
        }
        Sessions.begin(session);
        devices.begin(session, p.id(), request);
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(Sessions.as(p));
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        // a token somebody planted before the sign-in is worth nothing after it
        tokens.saveToken(tokens.generateToken(request), request, response);
        return me(person);
    }

    @PostMapping("/sign-out")
    Me signOut(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        if (session != null) {
            session.invalidate();
        }
        SecurityContextHolder.clearContext();
        return me(Optional.empty());
    }

    /** Ends every session of whoever is signed in, this one too. */
    @PostMapping("/me/sign-out-everywhere")
    Me signOutEverywhere(HttpServletRequest request) {
        people.signOutEverywhere(current.get().id());
        return signOut(request);
    }

    /** Changes the password of whoever is signed in; this session goes on, all others of the person end. */
    @PutMapping("/me/password")
    Me ownPassword(@RequestBody OwnPassword body, HttpServletRequest request) {
        Person person = current.get();
        String place = request.getRemoteAddr();
        tries.ask(person.signIn(), place);
        try {
            people.ownPassword(person.id(), body.current(), body.password());
        } catch (InvalidInput e) {
            tries.wrong(person.signIn(), place);
            throw e;
        }
        Sessions.begin(request.getSession(true));
        return me(Optional.of(person));
    }

    /** Creates the manager's account; needs the code that the server printed when it started. */
    @PostMapping("/first-run")
    Me firstRun(@RequestBody FirstManager body, HttpServletRequest request, HttpServletResponse response) {
        String place = request.getRemoteAddr();
        tries.ask(FIRST_RUN, place);
        try {
            firstRun.check(body.code());
        } catch (InvalidInput e) {
            tries.wrong(FIRST_RUN, place);
            throw e;
        }
        people.addFirstManager(body.signIn(), body.name(), body.password());
        return signIn(new SignIn(body.signIn(), body.password(), null), request, response);
    }

    private Me me(Optional<Person> person) {
        return new Me(
                person.map(Person::id).orElse(null),
                person.map(Person::name).orElse(null),
                person.map(Person::role).orElse(null),
                clock.today(),
                settings.get().name(),
                settings.get().currency(),
                settings.get().currencyDigits(),
                style.get().unit(),
                style.get().numbers(),
                style.get().zone().getId(),
                people.nobodyYet());
    }
}
