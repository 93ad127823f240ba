package knollfield.app.data;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import knollfield.app.problem.InvalidInput;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Backups, in Setup. */
@RestController
@RequestMapping("/api/setup/backups")
class BackupController {

    private final Backups backups;
    private final Disk disk;

    BackupController(Backups backups, Disk disk) {
        this.backups = backups;
        this.disk = disk;
    }

    record BackupFile(String name, Instant at, long bytes) {}

    /**
     * @param hour of the day, 0 to 23
     * @param folder as it was named; empty: beside the data
     * @param into where they go
     * @param failure why the last one by the plan went wrong
     * @param diskLeft bytes there is room for where the data lie
     */
    record BackupsView(
            boolean enabled,
            int hour,
            int keep,
            String folder,
            String into,
            boolean encrypted,
            @Nullable String failure,
            List<BackupFile> made,
            long diskLeft,
            boolean diskLow,
            int version) {}

    /** @param passphrase null: as it was; empty: none */
    record BackupPlanChange(
            boolean enabled,
            int hour,
            int keep,
            String folder,
            @Nullable String passphrase,
            int version) {}

    @GetMapping
    BackupsView get() {
        BackupPlan plan = backups.plan();
        return new BackupsView(
                plan.enabled(),
                plan.hour(),
                plan.keep(),
                plan.folder(),
                backups.folder().toString(),
                plan.passphrase().isPresent(),
                plan.failure().orElse(null),
                backups.made().stream()
                        .map(m -> new BackupFile(m.name(), m.at(), m.bytes()))
                        .toList(),
                disk.left(),
                disk.low(),
                plan.version());
    }

    @PutMapping
    BackupsView change(@RequestBody BackupPlanChange body) {
        BackupPlan before = backups.plan();
        backups.change(new BackupPlan(
                body.enabled(),
                body.hour(),
                body.keep(),
                body.folder().strip(),
                body.passphrase() == null
                        ? before.passphrase()
                        : Optional.of(body.passphrase()).filter(p -> !p.isEmpty()),
                before.tried(),
                before.failure(),
                body.version()));
        return get();
    }

    /** Makes one now. */
    @PostMapping
    BackupsView now() {
        try {
            backups.now();
        } catch (CannotStart e) {
            throw new InvalidInput("/folder", e.sentence());
        }
        return get();
    }

    /** One of them, to be taken elsewhere. */
    @GetMapping(value = "/{name}", produces = "application/zip")
    ResponseEntity<Resource> file(@PathVariable String name) {
        Path file = backups.file(name);
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("application/zip"))
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"%s\"".formatted(name))
                .body(new FileSystemResource(file));
    }
}
