package knollfield.app;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.security.autoconfigure.UserDetailsServiceAutoConfiguration;
import org.springframework.scheduling.annotation.EnableScheduling;

/** Starts the server. Signing in goes by our own accounts; Spring's default user would only be a second door. */
@EnableScheduling
@SpringBootApplication(exclude = UserDetailsServiceAutoConfiguration.class)
public class KnollfieldApplication {

    public static void main(String[] args) {
        SpringApplication.run(KnollfieldApplication.class, args);
    }
}
