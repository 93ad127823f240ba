package knollfield.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

class OpenApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static final Path COMMITTED = Path.of("..", "web", "openapi.json");

    /** To rewrite the committed document: mvn test -pl app -am -Dtest=OpenApiTest -Dknollfield.openapi=write */
    @Test
    void theScreensAreBuiltOnTheDocumentTheServerGives() throws IOException {
        JsonMapper json =
                JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();
        JsonNode served = SERVER.stranger().get("/api/openapi").ok().json();
        if ("write".equals(System.getProperty("knollfield.openapi"))) {
            Files.writeString(COMMITTED, json.writeValueAsString(served) + "\n");
        }
        assertThat(json.readTree(Files.readString(COMMITTED)))
                .as("web/openapi.json; rewrite it with -Dknollfield.openapi=write")
                .isEqualTo(served);
    }

    @Test
    void everyCallSaysThatItMayAnswerWithAProblem() {
        JsonNode paths = SERVER.stranger().get("/api/openapi").json().get("paths");
        paths.valueStream()
                .flatMap(p -> p.valueStream())
                .forEach(operation -> assertThat(operation
                                .at("/responses/default/content/application~1problem+json/schema/$ref")
                                .asString())
                        .isEqualTo("#/components/schemas/Problem"));
    }

    @Test
    void everyAddressOfAPlaceGivesTheOnePageAndNoOther() {
        assertThat(SERVER.stranger().get("/vehicles/7").ok().text()).contains("<div id=\"root\">");
        assertThat(SERVER.stranger().get("/nothing.js").status()).isEqualTo(404);
    }
}
