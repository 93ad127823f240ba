package knollfield.app.outbox;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import knollfield.app.security.CurrentPerson;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The server that takes the workshop's mail; the manager's alone. */
@RestController
@RequestMapping("/api/setup/mail-server")
class MailServerController {

    private final MailServers servers;
    private final Folder folder;
    private final CurrentPerson current;

    MailServerController(MailServers servers, Folder folder, CurrentPerson current) {
        this.servers = servers;
        this.folder = folder;
        this.current = current;
    }

    record SecurityChoice(MailServer.Security code, String words) {}

    /**
     * @param host empty: there is none, and messages are written as files into {@code folder}
     * @param hasPassword one is on file; it is never read out
     * @param sender empty: the workshop's own e-mail address
     */
    record MailServerView(
            String host,
            int port,
            MailServer.Security security,
            String userName,
            boolean hasPassword,
            String sender,
            String folder,
            List<SecurityChoice> securities,
            int version,
            String changedBy) {}

    /** @param password null: as it is on file */
    record MailServerIn(
            @Nullable String host,
            int port,
            MailServer.@Nullable Security security,
            @Nullable String userName,
            @Nullable String password,
            @Nullable String sender,
            int version) {}

    record TryOutIn(@Nullable String to) {}

    @GetMapping
    MailServerView get() {
        MailServer s = servers.get();
        return new MailServerView(
                s.host(),
                s.port(),
                s.security(),
                s.userName(),
                !s.password().isEmpty(),
                s.sender(),
                folder.path().toString(),
                Arrays.stream(MailServer.Security.values())
                        .map(c -> new SecurityChoice(c, c.words()))
                        .toList(),
                s.version(),
                s.changedBy());
    }

    @PutMapping
    MailServerView change(@RequestBody MailServerIn in) {
        MailServer now = servers.get();
        boolean elsewhere = !now.host().equals(given(in.host()));
        // a password is for the server it was typed for
        String kept = elsewhere ? "" : now.password();
        servers.change(new MailServer(
                given(in.host()),
                in.port(),
                Objects.requireNonNullElse(in.security(), MailServer.Security.STARTTLS),
                given(in.userName()),
                Objects.requireNonNullElse(in.password(), kept),
                given(in.sender()),
                in.version(),
                current.get().name()));
        return get();
    }

    /** Sends a test message at once. */
    @PostMapping("/test")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void tryOut(@RequestBody TryOutIn in) {
        servers.tryOut(given(in.to()));
    }

    private static String given(@Nullable String text) {
        return Objects.requireNonNullElse(text, "").strip();
    }
}
