package knollfield.app.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import jakarta.servlet.http.HttpSessionEvent;
import jakarta.servlet.http.HttpSessionListener;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import knollfield.app.problem.NotFound;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;

/** Where people are signed in: the sessions that live, each of which can be ended by itself. */
@Component
public class Devices implements HttpSessionListener {

    private static final String DEVICE = "device";

    private final Map<UUID, Living> living = new ConcurrentHashMap<>();

    private record Living(Device device, HttpSession session) {}

    /**
     * A session.
     *
     * @param place network address it was begun from
     * @param kind what it was begun with, such as {@code Chrome on Android}
     */
    public record Device(UUID key, long personId, Instant since, String place, String kind) {}

    /** Notes that somebody has signed in. */
    void begin(HttpSession session, long personId, HttpServletRequest request) {
        Device device = new Device(
                UUID.randomUUID(),
                personId,
                Instant.now(),
                request.getRemoteAddr(),
                kind(request.getHeader(HttpHeaders.USER_AGENT)));
        living.put(device.key(), new Living(device, session));
        session.setAttribute(DEVICE, device.key());
    }

    @Override
    public void sessionDestroyed(HttpSessionEvent event) {
        if (event.getSession().getAttribute(DEVICE) instanceof UUID key) {
            living.remove(key);
        }
    }

    /** Sessions of one person, the newest first. */
    public List<Device> of(long personId) {
        return living.values().stream()
                .map(Living::device)
                .filter(d -> d.personId() == personId)
                .sorted(Comparator.comparing(Device::since).reversed())
                .toList();
    }

    /** Which of them this session is. */
    boolean is(Device device, @Nullable HttpSession session) {
        return session != null && device.key().equals(session.getAttribute(DEVICE));
    }

    /**
     * Ends a session of one person.
     *
     * @throws NotFound where that person has no such session
     */
    public void end(long personId, UUID key) {
        Living known = living.get(key);
        if (known == null || known.device().personId() != personId) {
            throw new NotFound("This session has ended already.");
        }
        living.remove(key);
        try {
            known.session().invalidate();
        } catch (IllegalStateException e) {
            // it ended by itself just now, which is what was asked for
            return;
        }
    }

    private static String kind(@Nullable String agent) {
        String text = Objects.requireNonNullElse(agent, "").toLowerCase(Locale.ROOT);
        String system = first(
                text,
                "another system",
                "android=Android",
                "iphone=a phone",
                "ipad=a tablet",
                "windows=Windows",
                "mac os=macOS",
                "cros=ChromeOS",
                "linux=Linux");
        return first(text, "a program", "edg/=Edge", "firefox=Firefox", "chrome=Chrome", "safari=Safari") + " on "
                + system;
    }

    private static String first(String text, String otherwise, String... signs) {
        return Stream.of(signs)
                .map(s -> s.split("="))
                .filter(s -> text.contains(s[0]))
                .map(s -> s[1])
                .findFirst()
                .orElse(otherwise);
    }
}
