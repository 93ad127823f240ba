package knollfield.app.security;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.SecureRandom;
import knollfield.app.problem.InvalidInput;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * The code that lets the first person in. It is printed where the server was started, so that not simply the first one
 * on the network becomes the manager.
 */
@Component
class FirstRun {

    private static final Logger LOG = LoggerFactory.getLogger(FirstRun.class);

    private final String code;
    private final People people;

    FirstRun(People people, @Value("${knollfield.first-run-code:}") String given) {
        this.people = people;
        this.code = given.isEmpty() ? "%08d".formatted(new SecureRandom().nextInt(100_000_000)) : given;
    }

    @EventListener(ApplicationReadyEvent.class)
    void announce() {
        if (people.nobodyYet()) {
            LOG.info("First start: open the address below and create the manager's account with the code {}", code);
        }
    }

    void check(String entered) {
        boolean same = MessageDigest.isEqual(
                code.getBytes(StandardCharsets.UTF_8), entered.strip().getBytes(StandardCharsets.UTF_8));
        if (!same) {
            throw new InvalidInput("/code", "That is not the code printed where Knollfield was started.");
        }
    }
}
