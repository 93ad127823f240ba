package knollfield.app.data;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.Map;
import java.util.Optional;
import knollfield.app.problem.InvalidInput;
import knollfield.app.problem.NotFound;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What {@code ./knollfield backup} asks of a server that runs; only who can read the data's key on this machine may. */
@RestController
@RequestMapping("/api/control")
class ControlController {

    private static final String BEARER = "Bearer ";

    private final Backups backups;
    private final OpenData data;

    ControlController(Backups backups, OpenData data) {
        this.backups = backups;
        this.data = data;
    }

    /** @param file whole path of what is to be written */
    record ControlBackup(String file, @Nullable String passphrase) {}

    /** @param rows by table */
    record ControlDone(Map<String, Long> rows) {}

    @PostMapping("/backup")
    ControlDone backup(
            @RequestHeader(name = HttpHeaders.AUTHORIZATION, defaultValue = "") String authorization,
            @RequestBody ControlBackup body,
            HttpServletRequest request) {
        boolean known = MessageDigest.isEqual(
                authorization.getBytes(StandardCharsets.UTF_8),
                (BEARER + data.password()).getBytes(StandardCharsets.UTF_8));
        boolean here = request.getRemoteAddr().equals(request.getLocalAddr());
        if (!known || !here || data.password().isEmpty()) {
            throw new NotFound("There is nothing here.");
        }
        try {
            return new ControlDone(backups.to(Path.of(body.file()), Optional.ofNullable(body.passphrase())));
        } catch (CannotStart e) {
            throw new InvalidInput("/file", e.sentence());
        }
    }
}
