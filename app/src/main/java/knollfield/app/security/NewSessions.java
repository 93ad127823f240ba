package knollfield.app.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CsrfTokenRepository;
import org.springframework.stereotype.Component;

/** Begins sessions. */
@Component
class NewSessions {

    private final CsrfTokenRepository tokens;
    private final Devices devices;
    private final SecurityContextRepository contexts;

    NewSessions(CsrfTokenRepository tokens, Devices devices, SecurityContextRepository contexts) {
        this.tokens = tokens;
        this.devices = devices;
        this.contexts = contexts;
    }

    /** A session of its own for whoever has just signed in. */
    void begin(Person p, HttpServletRequest request, HttpServletResponse response) {
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
    }
}
