package knollfield.app.security;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Reads whoever is signed in anew at each request: with the role on file now, and not at all where the session began before
 * its person signed out everywhere, got a new password, or was switched off. So a tablet left in a bay is out at its next
 * touch, and a manager who no longer is one does nothing more as one.
 */
class Sessions extends OncePerRequestFilter {

    private static final String SINCE = "since";

    private final PersonRepository people;

    Sessions(PersonRepository people) {
        this.people = people;
    }

    /** Now, as finely as the database keeps it. */
    static Instant now() {
        // ChronoUnit.MICROS is what H2 keeps of a timestamp; finer, a session would begin before itself
        return Instant.now().truncatedTo(ChronoUnit.MICROS);
    }

    /** Notes that {@code session} begins, or goes on after its person's other sessions have ended. */
    static void begin(HttpSession session) {
        session.setAttribute(SINCE, now());
    }

    /** Whoever is signed in, with the role as it is now. */
    static Authentication as(Person person) {
        return UsernamePasswordAuthenticationToken.authenticated(
                person.id(),
                null,
                List.of(new SimpleGrantedAuthority(person.role().name())));
    }

    /** The role of whoever is signed in. */
    static Optional<Role> role(@Nullable Authentication who) {
        return Optional.ofNullable(who)
                .filter(w -> w.getPrincipal() instanceof Long)
                .flatMap(w -> w.getAuthorities().stream().findFirst())
                .map(a -> Role.valueOf(String.valueOf(a.getAuthority())));
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        HttpSession session = request.getSession(false);
        if (who != null && who.getPrincipal() instanceof Long id && session != null) {
            SecurityContext now = SecurityContextHolder.createEmptyContext();
            people.find(id)
                    .filter(p -> p.active() && !ended(p, session))
                    .ifPresentOrElse(p -> now.setAuthentication(as(p)), session::invalidate);
            SecurityContextHolder.setContext(now);
        }
        chain.doFilter(request, response);
    }

    private boolean ended(Person person, HttpSession session) {
        return people.findSignedOutAt(person.id())
                .filter(out -> session.getAttribute(SINCE) instanceof Instant since && since.isBefore(out))
                .isPresent();
    }
}
