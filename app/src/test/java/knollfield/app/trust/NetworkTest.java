package knollfield.app.trust;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.NetworkInterface;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.util.Base64;
import java.util.List;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManagerFactory;
import knollfield.app.KnollfieldApplication;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;

/** Who reaches the server, and what it tells browsers, by how it was told to run. */
class NetworkTest {

    @TempDir
    Path place;

    private ConfigurableApplicationContext start(String... more) {
        List<String> arguments = new java.util.ArrayList<>(List.of(
                "--server.port=0",
                "--knollfield.data=" + place.resolve("data"),
                "--knollfield.first-run-code=12345678"));
        arguments.addAll(List.of(more));
        return SpringApplication.run(KnollfieldApplication.class, arguments.toArray(String[]::new));
    }

    private static int port(ConfigurableApplicationContext context) {
        return ((WebServerApplicationContext) context).getWebServer().getPort();
    }

    private static String cookies(HttpResponse<?> answer) {
        return String.join("\n", answer.headers().allValues("Set-Cookie"));
    }

    private static HttpResponse<String> firstRun(HttpClient client, String base, String... headers)
            throws IOException, InterruptedException {
        HttpRequest.Builder me = HttpRequest.newBuilder(URI.create(base + "/api/me"));
        if (headers.length > 0) {
            me.headers(headers);
        }
        HttpResponse<String> first = client.send(me.build(), HttpResponse.BodyHandlers.ofString());
        String token = cookies(first).replaceAll("(?s).*XSRF-TOKEN=([^;]*).*", "$1");
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(base + "/api/first-run"))
                .header("Content-Type", "application/json")
                .header("Cookie", "XSRF-TOKEN=" + token)
                .header("X-XSRF-TOKEN", token)
                .POST(HttpRequest.BodyPublishers.ofString("""
                        {"code": "12345678", "signIn": "m", "name": "M", "password": "as-many-words-as-needed"}"""));
        if (headers.length > 0) {
            request.headers(headers);
        }
        return client.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void withoutBeingToldOtherwiseOnlyThisMachineReachesIt() throws Exception {
        try (ConfigurableApplicationContext context = start()) {
            int port = port(context);
            for (InetAddress address : NetworkInterface.networkInterfaces()
                    .flatMap(NetworkInterface::inetAddresses)
                    .filter(a -> !a.isLoopbackAddress() && !a.isLinkLocalAddress())
                    .toList()) {
                assertThat(reaches(address, port)).as(address.toString()).isFalse();
            }
            assertThat(reaches(InetAddress.getByName("127.0.0.1"), port)).isTrue();
            HttpResponse<String> plain = firstRun(HttpClient.newHttpClient(), "http://127.0.0.1:" + port);
            assertThat(plain.statusCode()).isEqualTo(200);
            assertThat(cookies(plain))
                    .contains("JSESSIONID", "HttpOnly", "SameSite=Lax")
                    .doesNotContain("Secure");
            // a new token at sign-in: one planted before is worth nothing after
            assertThat(cookies(plain)).contains("XSRF-TOKEN=");
            assertThat(plain.headers().firstValue("Strict-Transport-Security")).isEmpty();
        }
    }

    private static boolean reaches(InetAddress address, int port) {
        try (Socket socket = new Socket(address, port)) {
            return socket.isConnected();
        } catch (IOException e) {
            return false;
        }
    }

    @Test
    void withACertificateEverythingIsEncryptedAndCookiesStayThere() throws Exception {
        Path store = place.resolve("key.p12");
        Process keytool = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "keytool")
                                .toString(),
                        "-genkeypair",
                        "-alias",
                        "k",
                        "-keyalg",
                        "EC",
                        "-dname",
                        "CN=localhost",
                        "-ext",
                        "san=dns:localhost",
                        "-keystore",
                        store.toString(),
                        "-storepass",
                        "changeit",
                        "-storetype",
                        "PKCS12")
                .redirectErrorStream(true)
                .start();
        keytool.getInputStream().readAllBytes();
        assertThat(keytool.waitFor()).isZero();
        KeyStore keys = KeyStore.getInstance(store.toFile(), "changeit".toCharArray());
        Path certificate = pem("CERTIFICATE", keys.getCertificate("k").getEncoded());
        Path key = pem("PRIVATE KEY", keys.getKey("k", "changeit".toCharArray()).getEncoded());
        KeyStore trusted = KeyStore.getInstance(KeyStore.getDefaultType());
        trusted.load(null, null);
        trusted.setCertificateEntry("k", keys.getCertificate("k"));
        TrustManagerFactory trust = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        trust.init(trusted);
        SSLContext tls = SSLContext.getInstance("TLS");
        tls.init(null, trust.getTrustManagers(), null);
        try (ConfigurableApplicationContext context = start(
                "--server.ssl.certificate=file:" + certificate, "--server.ssl.certificate-private-key=file:" + key)) {
            HttpResponse<String> answer =
                    firstRun(HttpClient.newBuilder().sslContext(tls).build(), "https://localhost:" + port(context));
            assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
            assertThat(answer.headers().allValues("Set-Cookie"))
                    .isNotEmpty()
                    .allSatisfy(c -> assertThat(c).contains("Secure"));
            assertThat(answer.headers().firstValue("Strict-Transport-Security"))
                    .hasValueSatisfying(v -> assertThat(v).contains("max-age="));
        }
    }

    private Path pem(String what, byte[] der) throws IOException {
        return Files.writeString(
                place.resolve(what.replace(" ", "") + ".pem"),
                "-----BEGIN %s-----\n%s\n-----END %s-----\n"
                        .formatted(
                                what,
                                Base64.getMimeEncoder(64, new byte[] {'\n'}).encodeToString(der),
                                what));
    }

    @Test
    void behindAProxyWhatItSaysOfTheClientCountsAndFromElsewhereItDoesNot() throws Exception {
        String[] said = {"X-Forwarded-Proto", "https", "X-Forwarded-For", "203.0.113.7"};
        try (ConfigurableApplicationContext context = start(
                "--server.forward-headers-strategy=native",
                "--server.tomcat.remoteip.internal-proxies=127\\.0\\.0\\.1")) {
            HttpResponse<String> answer =
                    firstRun(HttpClient.newHttpClient(), "http://127.0.0.1:" + port(context), said);
            assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
            assertThat(cookies(answer)).contains("Secure");
            assertThat(context.getBean(knollfield.app.security.Devices.class)
                            .of(1)
                            .get(0)
                            .place())
                    .isEqualTo("203.0.113.7");
        }
        try (ConfigurableApplicationContext context = start(
                "--server.forward-headers-strategy=native",
                "--server.tomcat.remoteip.internal-proxies=10\\.9\\.9\\.9")) {
            HttpResponse<String> answer = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create("http://127.0.0.1:%d/api/me".formatted(port(context))))
                                    .headers(said)
                                    .build(),
                            HttpResponse.BodyHandlers.ofString());
            assertThat(cookies(answer)).doesNotContain("Secure");
        }
    }
}
