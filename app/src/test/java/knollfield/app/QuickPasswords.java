package knollfield.app;

import java.util.Map;
import org.springframework.context.annotation.Bean;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;

/**
 * The same hash as the real server's with the fewest rounds it has: a third of a second for each of a thousand sign-ins is
 * most of what the tests would take. Not annotated, so that only who names it has it.
 */
class QuickPasswords {

    private static final int FEWEST = 4;

    @Bean
    PasswordEncoder passwords() {
        return new DelegatingPasswordEncoder("bcrypt", Map.of("bcrypt", new BCryptPasswordEncoder(FEWEST)));
    }
}
