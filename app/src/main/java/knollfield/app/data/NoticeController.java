package knollfield.app.data;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** What somebody who looks after the house should know before it hurts. */
@RestController
class NoticeController {

    private static final long MEGABYTE = 1_000_000;

    private final Disk disk;
    private final Backups backups;

    NoticeController(Disk disk, Backups backups) {
        this.disk = disk;
        this.backups = backups;
    }

    /** @param words a sentence or two */
    record Notice(String words) {}

    @GetMapping("/api/notices")
    List<Notice> notices() {
        List<Notice> notices = new ArrayList<>();
        if (disk.low()) {
            notices.add(new Notice(String.format(
                    Locale.ROOT,
                    "The disk is nearly full: %,d MB are left. Make room before nothing can be saved.",
                    disk.left() / MEGABYTE)));
        }
        backups.failure()
                .ifPresent(why -> notices.add(new Notice("The last backup by the timetable was not made. " + why)));
        return notices;
    }
}
