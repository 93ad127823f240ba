package knollfield.app.once;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.util.HexFormat;
import java.util.Objects;
import java.util.Optional;
import knollfield.app.problem.Problem;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.ContentCachingResponseWrapper;
import tools.jackson.databind.json.JsonMapper;

/**
 * Does a request once that comes twice: a double click, or a second try after the network broke off before the answer came.
 * Our own screens send a key with everything that adds something ({@value #HEADER}, as draft-ietf-httpapi-idempotency-key-header has it); the
 * key is the person's who sends it. What was refused may be sent again with the same key.
 */
public final class OnceFilter extends OncePerRequestFilter {

    static final String HEADER = "Idempotency-Key";

    private static final int LONGEST_KEY = 80;
    private static final int LARGEST_ANSWER = 2_000_000;
    private static final Duration PATIENCE = Duration.ofSeconds(20);
    private static final Duration PAUSE = Duration.ofMillis(50);

    private final DoneRequestRepository requests;
    private final JsonMapper json;

    public OnceFilter(DoneRequestRepository requests, JsonMapper json) {
        this.requests = requests;
        this.json = json;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String key = request.getHeader(HEADER);
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        if (key == null
                || !request.getMethod().equals("POST")
                || who == null
                || !(who.getPrincipal() instanceof Long person)) {
            chain.doFilter(request, response);
            return;
        }
        if (key.isBlank() || key.length() > LONGEST_KEY) {
            refuse(response, HttpStatus.BAD_REQUEST, "A key has 1 to %d characters.".formatted(LONGEST_KEY));
            return;
        }
        String fingerprint = fingerprint(request);
        if (!requests.begin(person, key, fingerprint)) {
            again(person, key, fingerprint, response);
            return;
        }
        ContentCachingResponseWrapper answer = new ContentCachingResponseWrapper(response);
        boolean good = false;
        try {
            chain.doFilter(request, answer);
            good = answer.getStatus() < 300;
        } finally {
            if (good) {
                byte[] body = answer.getContentAsByteArray();
                requests.done(
                        person,
                        key,
                        answer.getStatus(),
                        Objects.requireNonNullElse(answer.getContentType(), ""),
                        body.length > LARGEST_ANSWER ? new byte[0] : body);
            } else {
                requests.release(person, key);
            }
            answer.copyBodyToResponse();
        }
    }

    private void again(long person, String key, String fingerprint, HttpServletResponse response) throws IOException {
        long until = System.nanoTime() + PATIENCE.toNanos();
        Optional<DoneRequestRepository.Done> done = requests.find(person, key);
        while (done.filter(d -> d.status() == 0).isPresent() && System.nanoTime() < until) {
            try {
                Thread.sleep(PAUSE.toMillis());
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                break;
            }
            done = requests.find(person, key);
        }
        if (done.isEmpty()) {
            refuse(response, HttpStatus.CONFLICT, "The same was just refused. Send it again.");
        } else if (!done.get().fingerprint().equals(fingerprint)) {
            refuse(response, HttpStatus.UNPROCESSABLE_CONTENT, "This key belongs to another request.");
        } else if (done.get().status() == 0) {
            refuse(
                    response,
                    HttpStatus.CONFLICT,
                    "The same is being done, or was when the server stopped. Load again and look whether it is there.");
        } else {
            response.setStatus(done.get().status());
            response.setHeader("Idempotency-Replayed", "true");
            if (!done.get().contentType().isEmpty()) {
                response.setContentType(done.get().contentType());
            }
            response.getOutputStream().write(done.get().body());
        }
    }

    /** Of what a request asks for; of a file only how large it is, which is read as it comes. */
    private static String fingerprint(HttpServletRequest request) throws IOException {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            String type = Objects.requireNonNullElse(request.getContentType(), "");
            digest.update("%s %s %s %d"
                    .formatted(
                            request.getRequestURI(),
                            request.getQueryString(),
                            type.split(";", 2)[0],
                            request.getContentLengthLong())
                    .getBytes(StandardCharsets.UTF_8));
            if (!type.startsWith(MediaType.MULTIPART_FORM_DATA_VALUE) && !type.equals("application/zip")) {
                digest.update(request.getInputStream().readAllBytes());
            }
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every JDK has SHA-256", e);
        }
    }

    private void refuse(HttpServletResponse response, HttpStatus status, String words) throws IOException {
        response.setStatus(status.value());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getOutputStream()
                .write(json.writeValueAsBytes(Problem.of("twice", "Sent twice", status.value(), words)));
    }
}
