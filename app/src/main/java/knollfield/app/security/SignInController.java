package knollfield.app.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.Locale;
import java.util.Optional;
import knollfield.app.problem.InvalidInput;
import knollfield.app.security.SignInViews.FirstManager;
import knollfield.app.security.SignInViews.Me;
import knollfield.app.security.SignInViews.OwnPassword;
import knollfield.app.security.SignInViews.SignIn;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.csrf.CsrfToken;
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
    private final Tries tries;
    private final NewSessions sessions;
    private final WhoIsThere who;
    private final FirstRun firstRun;

    SignInController(
            PersonRepository repository,
            People people,
            CurrentPerson current,
            Tries tries,
            NewSessions sessions,
            WhoIsThere who,
            FirstRun firstRun) {
        this.repository = repository;
        this.people = people;
        this.current = current;
        this.tries = tries;
        this.sessions = sessions;
        this.who = who;
        this.firstRun = firstRun;
    }

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
        return who.me(person);
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
        sessions.begin(p, request, response);
        return who.me(person);
    }

    @PostMapping("/sign-out")
    Me signOut(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        if (session != null) {
            session.invalidate();
        }
        SecurityContextHolder.clearContext();
        return who.me(Optional.empty());
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
        return who.me(Optional.of(person));
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
}
