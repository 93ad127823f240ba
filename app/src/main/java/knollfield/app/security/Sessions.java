package knollfield.app.security;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Ends sessions that began before their person signed out everywhere, got a new password, or was switched off. Asked at
 * every request, so that a tablet left in a bay is out at its next touch.
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

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        HttpSession session = request.getSession(false);
        if (who != null && who.getPrincipal() instanceof Long id && session != null && ended(id, session)) {
            session.invalidate();
            SecurityContextHolder.clearContext();
        }
        chain.doFilter(request, response);
    }

    private boolean ended(long id, HttpSession session) {
        boolean active = people.find(id).filter(Person::active).isPresent();
        return !active
                || people.findSignedOutAt(id)
                        .filter(out -> session.getAttribute(SINCE) instanceof Instant since && since.isBefore(out))
                        .isPresent();
    }
}
