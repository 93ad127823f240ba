package knollfield.app.security;

import static org.assertj.core.api.Assertions.assertThat;

import knollfield.app.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

class FirstRunTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    @Test
    void theFirstAccountNeedsThePrintedCode() {
        assertThat(SERVER.stranger().post("/api/first-run", """
                                {"code": "00000000", "signIn": "thief", "name": "Thief", "password": "long-enough-word-9"}
                                """).errorAt("/code"))
                .contains("printed");
    }

    @Test
    void onceSomebodyIsThereThereIsNoFirstRun() {
        SERVER.stranger()
                .post("/api/first-run", """
                        {"code": "%s", "signIn": "second", "name": "Second", "password": "long-enough-word-9"}
                        """.formatted(Server.FIRST_RUN_CODE))
                .problem(409, "conflict");
        assertThat(SERVER.stranger().get("/api/me").json().get("firstRun").asBoolean())
                .isFalse();
    }
}
