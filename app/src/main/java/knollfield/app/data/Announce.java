package knollfield.app.data;

import java.io.IOException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.web.server.context.WebServerInitializedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;

/** Notes beside the data which process has them open, and where it answers. */
@Component
class Announce {

    private static final Logger LOG = LoggerFactory.getLogger(Announce.class);

    private final DataFolder folder;
    private final OpenData data;
    private final Environment environment;

    Announce(DataFolder folder, OpenData data, Environment environment) {
        this.folder = folder;
        this.data = data;
        this.environment = environment;
    }

    @EventListener
    void started(WebServerInitializedEvent event) {
        if (!data.kept()) {
            return;
        }
        int port = event.getWebServer().getPort();
        boolean tls = environment.containsProperty("server.ssl.certificate")
                || environment.containsProperty("server.ssl.key-store");
        String host = environment.getProperty("server.address", "127.0.0.1");
        try {
            new Running(
                            ProcessHandle.current().pid(),
                            port,
                            "%s://%s:%d"
                                    .formatted(
                                            tls ? "https" : "http", host.equals("0.0.0.0") ? "127.0.0.1" : host, port))
                    .write(folder);
        } catch (IOException e) {
            LOG.warn("which process has the data open could not be noted", e);
        }
    }
}
