package knollfield.app.security;

import jakarta.servlet.AsyncContext;
import jakarta.servlet.AsyncEvent;
import jakarta.servlet.AsyncListener;
import jakarta.servlet.DispatcherType;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.net.URLDecoder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Collections;
import java.util.Enumeration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicBoolean;
import knollfield.app.problem.Problem;
import knollfield.app.shared.Bounds;
import org.apache.tomcat.util.http.InvalidParameterException;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.InvalidMediaTypeException;
import org.springframework.http.MediaType;
import org.springframework.util.FastByteArrayOutputStream;
import org.springframework.util.LinkedMultiValueMap;
import org.springframework.util.MultiValueMap;
import org.springframework.util.StringUtils;
import org.springframework.web.filter.OncePerRequestFilter;
import tools.jackson.databind.json.JsonMapper;

/**
 * Takes in what a request carries before anything else looks at it: no more than is allowed, within a time, and without
 * holding a thread while a slow network brings it. So no number of clients that send a byte now and then keeps the workshop
 * from working, and no large body fills the memory. Pictures and whole workshops, too large to wait in memory, are read as
 * they come; only by who is signed in, and only so many at once.
 */
class BodyGate extends OncePerRequestFilter {

    private static final Set<String> WITH_BODY = Set.of("POST", "PUT", "PATCH", "DELETE");
    private static final String EVERYTHING = "/api/setup/everything";
    private static final String KEYED_READINGS = "/api/readings";
    private static final Duration TIME = Duration.ofSeconds(30);
    private static final Duration TIME_OF_LISTS = Duration.ofMinutes(2);

    /** Large bodies read as they come, and bodies that are gathered, at most at once. */
    private final Semaphore streams = new Semaphore(24);

    private final Semaphore gatherings = new Semaphore(600);

    /** Bodies of lists, which stay in memory until they are answered; or that do not say how large they are. */
    private final Semaphore large = new Semaphore(12);

    private final JsonMapper json;

    BodyGate(JsonMapper json) {
        this.json = json;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        boolean carries = WITH_BODY.contains(request.getMethod())
                && (request.getContentLengthLong() > 0 || request.getHeader(HttpHeaders.TRANSFER_ENCODING) != null);
        Optional<MediaType> type = type(request);
        if (type.isEmpty()) {
            refuse(response, HttpStatus.UNSUPPORTED_MEDIA_TYPE, "The Content-Type of this request is none.");
            return;
        }
        if (!carries) {
            chain.doFilter(request, response);
            return;
        }
        if (MediaType.MULTIPART_FORM_DATA.isCompatibleWith(type.get())
                || request.getRequestURI().equals(EVERYTHING)) {
            stream(request, response, chain);
            return;
        }
        long most = most(request, type.get());
        if (request.getContentLengthLong() > most) {
            refuse(response, HttpStatus.CONTENT_TOO_LARGE, tooLarge(most));
            return;
        }
        boolean isLarge = request.getContentLengthLong() > Bounds.JSON_BYTES || request.getContentLengthLong() < 0;
        if (!gatherings.tryAcquire()) {
            busy(response);
            return;
        }
        if (isLarge && !large.tryAcquire()) {
            gatherings.release();
            busy(response);
            return;
        }
        gather(request, response, most, MediaType.APPLICATION_FORM_URLENCODED.isCompatibleWith(type.get()), isLarge);
    }

    private static Optional<MediaType> type(HttpServletRequest request) {
        String type = request.getContentType();
        if (type == null) {
            return Optional.of(MediaType.APPLICATION_OCTET_STREAM);
        }
        try {
            return Optional.of(MediaType.parseMediaType(type)).filter(MediaType::isConcrete);
        } catch (InvalidMediaTypeException e) {
            return Optional.empty();
        }
    }

    /** Bytes a body may have. */
    private static long most(HttpServletRequest request, MediaType type) {
        if (request.getRequestURI().equals(KEYED_READINGS)) {
            return Bounds.JSON_BYTES;
        }
        if (request.getSession(false) == null) {
            return Bounds.STRANGER_BYTES;
        }
        return MediaType.APPLICATION_JSON.isCompatibleWith(type) ? Bounds.JSON_BYTES : Bounds.LIST_BYTES;
    }

    private static String tooLarge(long most) {
        return "This is larger than %d kB, the most that is taken here.".formatted(most / 1000);
    }

    private void stream(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        // before a byte is read: looking for the token of a form would read the whole of it
        if (request.getSession(false) == null || request.getHeader("X-XSRF-TOKEN") == null) {
            refuse(response, HttpStatus.FORBIDDEN, "Files are taken from who is signed in. Sign in to go on.");
            return;
        }
        if (!streams.tryAcquire()) {
            busy(response);
            return;
        }
        try {
            chain.doFilter(request, response);
        } finally {
            streams.release();
        }
    }

    private void gather(
            HttpServletRequest request, HttpServletResponse response, long most, boolean form, boolean isLarge)
            throws IOException {
        Gathered gathered = new Gathered(request);
        AsyncContext waiting = request.startAsync(gathered, response);
        waiting.setTimeout((most > Bounds.JSON_BYTES ? TIME_OF_LISTS : TIME).toMillis());
        AtomicBoolean over = new AtomicBoolean();
        AsyncListener end = new AsyncListener() {
            @Override
            public void onTimeout(AsyncEvent event) throws IOException {
                if (over.compareAndSet(false, true)) {
                    gatherings.release();
                    response.setHeader(HttpHeaders.CONNECTION, "close");
                    refuse(response, HttpStatus.REQUEST_TIMEOUT, "The rest of this did not come in time.");
                    waiting.complete();
                }
            }

            @Override
            public void onError(AsyncEvent event) {
                release();
            }

            @Override
            public void onComplete(AsyncEvent event) {
                release();
                if (isLarge) {
                    large.release();
                }
            }

            @Override
            public void onStartAsync(AsyncEvent event) {
                // what is started later is not this
            }

            private void release() {
                if (over.compareAndSet(false, true)) {
                    gatherings.release();
                }
            }
        };
        waiting.addListener(end);
        ServletInputStream in = request.getInputStream();
        in.setReadListener(new ReadListener() {
            private final byte[] buffer = new byte[16_384];

            @Override
            public void onDataAvailable() throws IOException {
                while (in.isReady() && !in.isFinished()) {
                    int read = in.read(buffer);
                    if (read > 0) {
                        gathered.bytes.write(buffer, 0, read);
                    }
                    if (gathered.bytes.size() > most) {
                        if (over.compareAndSet(false, true)) {
                            gatherings.release();
                            response.setHeader(HttpHeaders.CONNECTION, "close");
                            refuse(response, HttpStatus.CONTENT_TOO_LARGE, tooLarge(most));
                            waiting.complete();
                        }
                        return;
                    }
                    if (read < 0) {
                        return;
                    }
                }
            }

            @Override
            public void onAllDataRead() throws IOException {
                if (over.compareAndSet(false, true)) {
                    gatherings.release();
                    try {
                        if (form) {
                            gathered.readForm();
                        }
                    } catch (IllegalArgumentException | InvalidParameterException e) {
                        // the second: fields of its address that are no text
                        refuse(response, HttpStatus.BAD_REQUEST, "This form is not readable.");
                        waiting.complete();
                        return;
                    }
                    // what comes now takes as long as it takes
                    waiting.setTimeout(0);
                    waiting.dispatch();
                }
            }

            @Override
            public void onError(Throwable failure) {
                if (over.compareAndSet(false, true)) {
                    gatherings.release();
                    waiting.complete();
                }
            }
        });
    }

    private void busy(HttpServletResponse response) throws IOException {
        response.setHeader(HttpHeaders.RETRY_AFTER, "2");
        refuse(response, HttpStatus.SERVICE_UNAVAILABLE, "Too much is being sent at once. Try again in a moment.");
    }

    private void refuse(HttpServletResponse response, HttpStatus status, String words) throws IOException {
        response.setStatus(status.value());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getOutputStream()
                .write(json.writeValueAsBytes(
                        Problem.of("not-taken", status.getReasonPhrase(), status.value(), words)));
    }

    /** The request with its body at hand. */
    private static final class Gathered extends HttpServletRequestWrapper {

        private final FastByteArrayOutputStream bytes = new FastByteArrayOutputStream(1024);
        private Map<String, String[]> parameters = Map.of();

        Gathered(HttpServletRequest request) {
            super(request);
        }

        /** To whoever comes after, this is how the request came: filters that guard it must not take it for a second round. */
        @Override
        public DispatcherType getDispatcherType() {
            return DispatcherType.REQUEST;
        }

        /**
         * Reads the fields of a form, which come after those of the address.
         *
         * @throws IllegalArgumentException where they are not written as a form's are
         * @throws InvalidParameterException where those of the address are not
         */
        void readForm() {
            MultiValueMap<String, String> all = new LinkedMultiValueMap<>();
            super.getParameterMap().forEach((name, values) -> all.addAll(name, List.of(values)));
            for (String pair :
                    StringUtils.tokenizeToStringArray(new String(bytes.toByteArray(), StandardCharsets.UTF_8), "&")) {
                int is = pair.indexOf('=');
                all.add(decoded(is < 0 ? pair : pair.substring(0, is)), is < 0 ? "" : decoded(pair.substring(is + 1)));
            }
            Map<String, String[]> read = new LinkedHashMap<>();
            all.forEach((name, values) -> read.put(name, values.toArray(String[]::new)));
            parameters = read;
        }

        private static String decoded(String text) {
            return URLDecoder.decode(text, StandardCharsets.UTF_8);
        }

        @Override
        public @Nullable String getParameter(String name) {
            String[] values = getParameterMap().get(name);
            return values == null || values.length == 0 ? null : values[0];
        }

        @Override
        public Map<String, String[]> getParameterMap() {
            return parameters.isEmpty() ? super.getParameterMap() : parameters;
        }

        @Override
        public Enumeration<String> getParameterNames() {
            return Collections.enumeration(getParameterMap().keySet());
        }

        @Override
        public String @Nullable [] getParameterValues(String name) {
            return getParameterMap().get(name);
        }

        @Override
        public ServletInputStream getInputStream() {
            ByteArrayInputStream from = new ByteArrayInputStream(bytes.toByteArray());
            return new ServletInputStream() {
                @Override
                public int read() {
                    return from.read();
                }

                @Override
                public int read(byte[] into, int offset, int length) {
                    return from.read(into, offset, length);
                }

                @Override
                public boolean isFinished() {
                    return from.available() == 0;
                }

                @Override
                public boolean isReady() {
                    return true;
                }

                @Override
                public void setReadListener(ReadListener listener) {
                    throw new IllegalStateException("the body is here already");
                }
            };
        }

        @Override
        public BufferedReader getReader() {
            try {
                Charset charset = Optional.ofNullable(getCharacterEncoding())
                        .map(Charset::forName)
                        .orElse(StandardCharsets.UTF_8);
                return new BufferedReader(new InputStreamReader(getInputStream(), charset));
            } catch (IllegalArgumentException e) {
                throw new UncheckedIOException(new IOException("unknown character encoding", e));
            }
        }
    }
}
