package knollfield.app.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import knollfield.app.Client;
import knollfield.app.Server;
import knollfield.app.problem.Checks;
import knollfield.app.problem.TooMany;
import knollfield.app.shared.WorkshopClock;
import org.apache.commons.codec.binary.Base32;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.security.crypto.password.PasswordEncoder;

/** Getting in: by guessing it takes too long, by knowing it does not. */
class SignInTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    private static final String PERSON = """
            {"signIn": "%s", "name": "%s", "role": "MANAGER", "skills": [], "workingDays": [],
             "password": "as-many-words-as-needed"}
            """;

    // Source: RFC 6238, appendix B (SHA1), the last six of its eight digits
    @ParameterizedTest
    @CsvSource({
        "59, 287082",
        "1111111109, 081804",
        "1111111111, 050471",
        "1234567890, 005924",
        "2000000000, 279037",
        "20000000000, 353130"
    })
    void codesAreThoseOfTheStandard(long seconds, String code) {
        String secret = new Base32()
                .encodeToString("12345678901234567890".getBytes(java.nio.charset.StandardCharsets.US_ASCII));
        assertThat(SecondFactor.code(secret, Instant.ofEpochSecond(seconds))).isEqualTo(code);
        assertThat(SecondFactor.step(secret, code, Instant.ofEpochSecond(seconds)))
                .contains(seconds / 30);
        assertThat(SecondFactor.step(secret, code, Instant.ofEpochSecond(seconds + 90)))
                .isEmpty();
    }

    @Test
    void withASecondDeviceThePasswordAloneDoesNotLetInAndACodeGoesOnce() {
        Client ines = SERVER.as("ines");
        ines.post("/api/setup/people", PERSON.formatted("two", "Two Devices")).ok();
        Client two = SERVER.stranger().signIn("two", "as-many-words-as-needed");
        String secret =
                two.post("/api/me/second-factor", "").ok().json().get("secret").asString();
        assertThat(two.post("/api/me/second-factor/confirmation", "{\"code\": \"000000\"}")
                        .errorAt("/code"))
                .contains("digits");
        // what is offered and not confirmed is not asked for
        SERVER.stranger().signIn("two", "as-many-words-as-needed");
        String now = SecondFactor.code(secret, Instant.now());
        two.post("/api/me/second-factor/confirmation", "{\"code\": \"%s\"}".formatted(now))
                .ok();

        Client again = SERVER.stranger();
        String body = "{\"signIn\": \"two\", \"password\": \"as-many-words-as-needed\", \"code\": \"%s\"}";
        assertThat(again.post("/api/sign-in", body.replace(", \"code\": \"%s\"", ""))
                        .errorAt("/code"))
                .contains("six digits");
        again.get("/api/desk").problem(401, "signed-out");
        String code = SecondFactor.code(secret, Instant.now());
        again.post("/api/sign-in", body.formatted(code)).ok();
        assertThat(SERVER.stranger().post("/api/sign-in", body.formatted(code)).errorAt("/code"))
                .contains("wait for the next");

        long id = ines.get("/api/setup/people")
                .ok()
                .json()
                .valueStream()
                .filter(p -> p.get("signIn").asString().equals("two"))
                .findFirst()
                .orElseThrow()
                .get("id")
                .asLong();
        ines.delete("/api/setup/people/%d/second-factor".formatted(id)).ok();
        assertThat(again.get("/api/desk").status()).isEqualTo(401);
        SERVER.stranger()
                .signIn("two", "as-many-words-as-needed")
                .get("/api/desk")
                .ok();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "12345678",
                "passwordpassword",
                "qwertyuiopasdf",
                "aaaaaaaaaaaaaaa",
                "penhale-carrow",
                "123456789012"
            })
    void whatGuessingTriesFirstIsNoPassword(String password) {
        Checks checks = Passwords.check(new Checks(), password, List.of("penhale", "Carrow Penhale"));
        assertThat(checks.problems()).isNotEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"four words in a row", "Gezeiten-Uhr im Regen", "лодка у моста стоит", "x7#kQ!pP02vv"})
    void aPassphraseIsOneInAnyLanguage(String password) {
        assertThat(Passwords.check(new Checks(), password, List.of("ines", "Ines Carrow"))
                        .problems())
                .isEmpty();
    }

    @Test
    void eachWrongTryDoublesTheWaitAndTheOwnerOfTheNameStillGetsInFromElsewhere() {
        AtomicReference<Instant> now = new AtomicReference<>(Instant.EPOCH);
        Tries tries = new Tries(now::get);
        int waits = 0;
        Duration longest = Duration.ZERO;
        for (int i = 0; i < 16; i++) {
            try {
                tries.ask("ines", "10.0.0.9");
            } catch (TooMany e) {
                waits++;
                Duration wait = Duration.ofSeconds(e.seconds());
                assertThat(wait).isGreaterThanOrEqualTo(longest);
                longest = wait;
                now.set(now.get().plus(wait));
            }
            tries.ask("ines", "10.0.0.9");
            tries.wrong("ines", "10.0.0.9");
        }
        assertThat(waits).isBetween(10, 13);
        assertThat(longest).isBetween(Duration.ofMinutes(10), Duration.ofMinutes(16));
        tries.ask("ines", "10.0.0.2");
        assertThatThrownBy(() -> tries.ask("ines", "10.0.0.9")).hasMessageContaining("minutes");
    }

    @Test
    void guessingFromOnePlaceIsStoppedWhateverTheNames() {
        AtomicReference<Instant> now = new AtomicReference<>(Instant.EPOCH);
        Tries tries = new Tries(now::get);
        int tried = 0;
        while (tried < 1000) {
            try {
                tries.ask("name " + tried, "10.0.0.9");
            } catch (TooMany e) {
                break;
            }
            tries.wrong("name " + tried, "10.0.0.9");
            tried++;
        }
        assertThat(tried).isLessThan(30);
    }

    @Test
    void theServerSaysHowLongToWaitForSignInsAndForTheFirstStartsCode() {
        Client guessing = SERVER.stranger();
        Client.Answer answer = guessing.post("/api/sign-in", "{\"signIn\": \"nobody-here\", \"password\": \"guess\"}");
        for (int i = 0; i < 12 && answer.status() == 422; i++) {
            answer = guessing.post("/api/sign-in", "{\"signIn\": \"nobody-here\", \"password\": \"guess\"}");
        }
        answer.problem(429, "too-many");
        answer = guessing.post(
                "/api/first-run", "{\"code\": \"1\", \"signIn\": \"x\", \"name\": \"x\", \"password\": \"x\"}");
        for (int i = 0; i < 12 && answer.status() == 422; i++) {
            answer = guessing.post(
                    "/api/first-run", "{\"code\": \"1\", \"signIn\": \"x\", \"name\": \"x\", \"password\": \"x\"}");
        }
        answer.problem(429, "too-many");
    }

    @Test
    void aNameThatIsNotOnFileIsHashedForAsOneThatIs() {
        PasswordEncoder real = SERVER.bean(PasswordEncoder.class);
        List<String> hashed = new ArrayList<>();
        PasswordEncoder counting = new PasswordEncoder() {
            @Override
            public String encode(CharSequence password) {
                return real.encode(password);
            }

            @Override
            public boolean matches(CharSequence password, String hash) {
                hashed.add(hash);
                return real.matches(password, hash);
            }
        };
        People people = new People(
                SERVER.bean(PersonRepository.class),
                counting,
                SERVER.bean(CurrentPerson.class),
                SERVER.bean(WorkshopClock.class));
        assertThat(people.withPassword("ines", "wrong")).isEmpty();
        assertThat(people.withPassword("nobody", "wrong")).isEmpty();
        assertThat(people.withPassword("ines", Server.DEMO_PASSWORD)).isPresent();
        // what takes the time is done once for each, with hashes of one strength; that of these tests is less than the
        // server's
        String ours = real.encode("x").substring(0, "{bcrypt}$2a$10$".length());
        assertThat(hashed).hasSize(3).allSatisfy(h -> assertThat(h).startsWith(ours));
        assertThat(SecurityConfig.passwords().encode("x")).startsWith("{bcrypt}$2a$10$");
    }

    @Test
    void twoManagersWhoTakeTheRoleFromEachOtherLeaveOne() throws Exception {
        Client ines = SERVER.as("ines");
        ines.post("/api/setup/people", PERSON.formatted("other", "Other Manager"))
                .ok();
        Client other = SERVER.stranger().signIn("other", "as-many-words-as-needed");
        // only these two can sign in as managers
        ines.get("/api/setup/people")
                .ok()
                .json()
                .valueStream()
                .filter(p -> p.get("signIn").asString().equals("two")
                        && p.get("active").asBoolean())
                .forEach(p -> ines.put("/api/setup/people/" + p.get("id").asLong(), demoted(p))
                        .ok());
        var all = ines.get("/api/setup/people").ok().json();
        var mine = all.valueStream()
                .filter(p -> p.get("signIn").asString().equals("ines"))
                .findFirst()
                .orElseThrow();
        var theirs = all.valueStream()
                .filter(p -> p.get("signIn").asString().equals("other"))
                .findFirst()
                .orElseThrow();
        Thread first = new Thread(
                () -> ines.put("/api/setup/people/" + theirs.get("id").asLong(), demoted(theirs)));
        Thread second =
                new Thread(() -> other.put("/api/setup/people/" + mine.get("id").asLong(), demoted(mine)));
        first.start();
        second.start();
        first.join();
        second.join();
        long managers = SERVER.jdbc()
                .sql(
                        "SELECT COUNT(*) FROM person WHERE role = 'MANAGER' AND active AND password_hash <> '{bcrypt}none'")
                .query(Long.class)
                .single();
        assertThat(managers).isEqualTo(1);
    }

    private static String demoted(tools.jackson.databind.JsonNode p) {
        return """
               {"name": "%s", "role": "FRONT_DESK", "skills": [], "workingDays": [], "active": true, "version": %d}
               """.formatted(p.get("name").asString(), p.get("version").asInt());
    }
}
