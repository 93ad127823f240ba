package knollfield.app.shared;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.GZIPInputStream;
import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

/** The interface's files over HTTP: packed as the browser can unpack them, and kept by it. */
class PackedFilesTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static HttpResponse<byte[]> get(String path, String encoding) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create(SERVER.address() + path))
                .header("Accept-Encoding", encoding)
                .build();
        return HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofByteArray());
    }

    private static String script() throws Exception {
        Matcher name = Pattern.compile("/assets/index-[\\w-]+\\.js")
                .matcher(new String(get("/", "identity").body(), java.nio.charset.StandardCharsets.UTF_8));
        assertThat(name.find()).isTrue();
        return name.group();
    }

    @Test
    void aScriptComesPackedWhereTheBrowserUnpacksAndIsKept() throws Exception {
        HttpResponse<byte[]> plain = get(script(), "identity");
        HttpResponse<byte[]> packed = get(script(), "gzip, deflate, br");

        assertThat(packed.headers().firstValue("content-encoding")).contains("gzip");
        assertThat(packed.headers().firstValue("content-type")).contains("text/javascript");
        assertThat(packed.headers().firstValue("cache-control").orElseThrow()).contains("immutable");
        assertThat(packed.headers().allValues("vary"))
                .anySatisfy(v -> assertThat(v).containsIgnoringCase("encoding"));
        // packed at each request its length would not be known before
        assertThat(packed.headers().firstValue("content-length")).isPresent();
        assertThat(packed.body().length).isLessThan(plain.body().length / 2);
    }

    @Test
    void unpackedItIsTheSame() throws Exception {
        byte[] packed = get(script(), "gzip").body();

        assertThat(new GZIPInputStream(new ByteArrayInputStream(packed)).readAllBytes())
                .isEqualTo(get(script(), "identity").body());
    }
}
