package knollfield.e2e;

import java.util.Map;
import org.springframework.context.annotation.Bean;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;

/** The same hash as the real server's with the fewest rounds it has; the demo's people alone take seconds otherwise. */
class QuickPasswords {

    private static final int FEWEST = 4;

    @Bean
    PasswordEncoder passwords() {
        return new DelegatingPasswordEncoder("bcrypt", Map.of("bcrypt", new BCryptPasswordEncoder(FEWEST)));
    }
}
