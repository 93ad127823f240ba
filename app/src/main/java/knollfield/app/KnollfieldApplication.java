package knollfield.app;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;

/** Starts the server. */
@SpringBootApplication
public class KnollfieldApplication {

    public static void main(String[] args) {
        SpringApplication.run(KnollfieldApplication.class, args);
    }
}
