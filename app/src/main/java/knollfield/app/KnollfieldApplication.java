package knollfield.app;

import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import knollfield.app.data.CannotStart;
import knollfield.app.data.Commands;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.security.autoconfigure.UserDetailsServiceAutoConfiguration;
import org.springframework.boot.web.server.PortInUseException;
import org.springframework.scheduling.annotation.EnableScheduling;

/** Starts the server. Signing in goes by our own accounts; Spring's default user would only be a second door. */
@EnableScheduling
@SpringBootApplication(exclude = UserDetailsServiceAutoConfiguration.class)
public class KnollfieldApplication {

    /** What a person can do something about is said in a sentence; everything else with all there is to know. */
    public static void main(String[] args) {
        // words and figures are the workshop's, never the machine's: some locales have digits of their own, and the
        // database's
        // LOWER and UPPER go by it too
        Locale.setDefault(Locale.UK);
        try {
            if (Commands.asked(args)) {
                Commands.run(System.out, args);
            } else {
                SpringApplication.run(KnollfieldApplication.class, args);
            }
        } catch (RuntimeException e) {
            Optional<String> sentence = sentence(e);
            if (sentence.isEmpty()) {
                throw e;
            }
            System.err.println("knollfield: " + sentence.get());
            System.exit(1);
        }
    }

    private static Optional<String> sentence(Throwable failure) {
        return Stream.<Throwable>iterate(failure, t -> t != null, Throwable::getCause)
                .flatMap(t -> {
                    if (t instanceof CannotStart known) {
                        return Stream.of(known.sentence());
                    }
                    return t instanceof PortInUseException port
                            ? Stream.of(
                                    "port %d is taken. Stop what runs there, or choose another: KNOLLFIELD_PORT=8090"
                                            .formatted(port.getPort()))
                            : Stream.empty();
                })
                .findFirst();
    }
}
