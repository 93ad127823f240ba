package knollfield.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.List;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Speaks to the server as a browser does: cookies, and the token that changes need. */
public final class Client {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final String address;
    private final CookieManager cookies = new CookieManager();
    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(cookies).build();

    public Client(String address) {
        this.address = address;
    }

    /** An answer of the server. */
    public record Answer(int status, String contentType, byte[] bytes) {

        public JsonNode json() {
            return JSON.readTree(new String(bytes, StandardCharsets.UTF_8));
        }

        /** This answer, which must have been a good one. */
        public Answer ok() {
            assertThat(status).as("status; the body is %s", text()).isBetween(200, 204);
            return this;
        }

        /** The JSON of this answer, which must be a problem of this kind (RFC 9457). */
        public JsonNode problem(int expected, String type) {
            assertThat(status).as("status; the body is %s", text()).isEqualTo(expected);
            assertThat(contentType).startsWith("application/problem+json");
            JsonNode problem = json();
            assertThat(problem.get("type").asString()).isEqualTo("/problems/" + type);
            assertThat(problem.get("title").asString()).isNotBlank();
            assertThat(problem.get("detail").asString()).isNotBlank();
            return problem;
        }

        /** The details of a problem with the input, by the pointers of their fields. */
        public String errorAt(String pointer) {
            return problem(422, "invalid-input")
                    .get("errors")
                    .valueStream()
                    .filter(e -> e.get("pointer").asString().equals(pointer))
                    .map(e -> e.get("detail").asString())
                    .findFirst()
                    .orElseThrow(() -> new AssertionError("no error at " + pointer + " in " + text()));
        }

        public String text() {
            return new String(bytes, StandardCharsets.UTF_8);
        }
    }

    public Client signIn(String signIn, String password) {
        get("/api/me");
        post("/api/sign-in", "{\"signIn\": \"%s\", \"password\": \"%s\"}".formatted(signIn, password))
                .ok();
        get("/api/me").ok();
        return this;
    }

    public Answer get(String path) {
        return send(HttpRequest.newBuilder(URI.create(address + path)).GET());
    }

    public Answer post(String path, String json) {
        return change("POST", path, "application/json", BodyPublishers.ofString(json));
    }

    /** The same with the key by which it is done once. */
    public Answer once(String key, String path, String json) {
        if (token().isEmpty()) {
            get("/api/me");
        }
        return send(HttpRequest.newBuilder(URI.create(address + path))
                .header("Content-Type", "application/json")
                .header("Idempotency-Key", key)
                .header("X-XSRF-TOKEN", token())
                .POST(BodyPublishers.ofString(json)));
    }

    public Answer put(String path, String json) {
        return change("PUT", path, "application/json", BodyPublishers.ofString(json));
    }

    public Answer delete(String path) {
        return change("DELETE", path, "application/json", BodyPublishers.noBody());
    }

    public Answer csv(String path, byte[] bytes) {
        return change("POST", path, "text/csv", BodyPublishers.ofByteArray(bytes));
    }

    public Answer csv(String path, String text) {
        return csv(path, text.getBytes(StandardCharsets.UTF_8));
    }

    /** Sends a form with a file and text fields (RFC 7578). */
    public Answer file(String path, String name, String type, byte[] bytes, java.util.Map<String, String> fields) {
        String boundary = "test-boundary";
        java.io.ByteArrayOutputStream body = new java.io.ByteArrayOutputStream();
        fields.forEach(
                (field, value) -> body.writeBytes("--%s\r\nContent-Disposition: form-data; name=\"%s\"\r\n\r\n%s\r\n"
                        .formatted(boundary, field, value)
                        .getBytes(StandardCharsets.UTF_8)));
        body.writeBytes(
                "--%s\r\nContent-Disposition: form-data; name=\"file\"; filename=\"%s\"\r\nContent-Type: %s\r\n\r\n"
                        .formatted(boundary, name, type)
                        .getBytes(StandardCharsets.UTF_8));
        body.writeBytes(bytes);
        body.writeBytes("\r\n--%s--\r\n".formatted(boundary).getBytes(StandardCharsets.UTF_8));
        return change(
                "POST",
                path,
                "multipart/form-data; boundary=" + boundary,
                BodyPublishers.ofByteArray(body.toByteArray()));
    }

    public Answer text(String path, String text) {
        return change("POST", path, "text/plain;charset=UTF-8", BodyPublishers.ofString(text));
    }

    /** Any request at all, with the token. */
    public Answer raw(String method, String path, String accept, String type, byte[] body) {
        if (token().isEmpty()) {
            get("/api/me");
        }
        return send(HttpRequest.newBuilder(URI.create(address + path))
                .header("Accept", accept)
                .header("Content-Type", type)
                .header("X-XSRF-TOKEN", token())
                .method(method, body.length == 0 ? BodyPublishers.noBody() : BodyPublishers.ofByteArray(body)));
    }

    /** A change without the token, as a foreign page would send it. */
    public Answer postWithoutToken(String path, String json) {
        return send(HttpRequest.newBuilder(URI.create(address + path))
                .header("Content-Type", "application/json")
                .POST(BodyPublishers.ofString(json)));
    }

    private Answer change(String method, String path, String type, BodyPublisher body) {
        if (token().isEmpty()) {
            get("/api/me");
        }
        return send(HttpRequest.newBuilder(URI.create(address + path))
                .header("Content-Type", type)
                .header("X-XSRF-TOKEN", token())
                .method(method, body));
    }

    private String token() {
        List<HttpCookie> all = cookies.getCookieStore().getCookies();
        return all.stream()
                .filter(c -> c.getName().equals("XSRF-TOKEN"))
                .map(HttpCookie::getValue)
                .findFirst()
                .orElse("");
    }

    private Answer send(HttpRequest.Builder request) {
        try {
            HttpResponse<byte[]> r = http.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
            return new Answer(
                    r.statusCode(), r.headers().firstValue("Content-Type").orElse(""), r.body());
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }
}
