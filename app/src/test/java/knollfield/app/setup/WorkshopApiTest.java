package knollfield.app.setup;

import static org.assertj.core.api.Assertions.assertThat;

import knollfield.app.Client;
import knollfield.app.Server;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.node.ObjectNode;

/** What a workshop says of itself, over HTTP. */
class WorkshopApiTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private Client ines;

    @BeforeEach
    void theManager() {
        ines = SERVER.as("ines");
    }

    @AfterEach
    void euro() {
        change("EUR").ok();
    }

    private Client.Answer change(String currency) {
        ObjectNode w = (ObjectNode) ines.get("/api/setup/workshop").ok().json();
        return ines.put("/api/setup/workshop", w.put("currency", currency).toString());
    }

    @Test
    void theWorkshopsOwnCurrencyStandsWithEveryAmount() {
        // Source: ISO 4217 lists NOK with two decimals
        change("NOK").ok();

        assertThat(ines.get("/api/me").json().get("currency").asString()).isEqualTo("NOK");
        assertThat(ines.get("/api/setup/workshop").json().get("labourRateMinor").asInt())
                .as("its figures stay")
                .isPositive();
    }

    @ParameterizedTest
    @ValueSource(strings = {"EURO", "XXA", "JPY"})
    void whatIsNoCurrencyOfTwoDecimalsIsRefusedAtItsField(String code) {
        assertThat(change(code).errorAt("/currency")).contains("two decimals");
        assertThat(ines.get("/api/me").json().get("currency").asString()).isEqualTo("EUR");
    }
}
