package knollfield.app.transfer;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Map;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/** Everything as files, out and in; the manager's alone. */
@RestController
@RequestMapping("/api/setup/everything")
class TransferController {

    private final Transfers transfers;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    TransferController(Transfers transfers, CurrentPerson current, WorkshopClock clock) {
        this.transfers = transfers;
        this.current = current;
        this.clock = clock;
    }

    /** @param rows by table */
    record TakenIn(Map<String, Integer> rows) {}

    @GetMapping(produces = "application/zip")
    ResponseEntity<StreamingResponseBody> write() throws IOException {
        // whole before the first byte is sent, so that a fault is an answer and not half a file
        Path file = Files.createTempFile("knollfield-everything", ".zip");
        try {
            transfers.write(file);
        } catch (IOException | RuntimeException e) {
            Files.delete(file);
            throw e;
        }
        StreamingResponseBody body = (OutputStream out) -> {
            try {
                Files.copy(file, out);
            } finally {
                Files.delete(file);
            }
        };
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("application/zip"))
                .contentLength(Files.size(file))
                .header("Content-Disposition", "attachment; filename=\"workshop-%s.zip\"".formatted(clock.today()))
                .body(body);
    }

    /** The body is the file. */
    @PostMapping
    TakenIn read(HttpServletRequest request) throws IOException {
        Path file = Files.createTempFile("knollfield-taken-in", ".zip");
        try (InputStream in = request.getInputStream()) {
            Files.copy(in, file, StandardCopyOption.REPLACE_EXISTING);
            return new TakenIn(transfers.read(file, current.get().signIn()));
        } finally {
            Files.delete(file);
        }
    }
}
