package knollfield.app.record;

import java.time.LocalDate;
import java.util.List;
import knollfield.app.documents.RecordPrinter;
import knollfield.app.documents.RecordSheet;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.vehicle.VehicleService;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** Job records and vehicles' stories. */
@RestController
class RecordController {

    private final JobRecords records;
    private final RecordPrinter printer;
    private final Story story;
    private final VehicleService vehicles;
    private final CurrentPerson current;

    RecordController(
            JobRecords records, RecordPrinter printer, Story story, VehicleService vehicles, CurrentPerson current) {
        this.records = records;
        this.printer = printer;
        this.story = story;
        this.vehicles = vehicles;
        this.current = current;
    }

    record RecordLine(String what, String words, String by, boolean marked) {}

    record RecordSection(String title, List<RecordLine> lines) {}

    record RecordView(
            long job,
            String registration,
            LocalDate day,
            String odometer,
            String nextDue,
            List<RecordSection> sections) {}

    /** @param jobId the job whose record proves it; null where none does */
    record ChapterView(
            LocalDate on,
            String sentence,
            String proof,
            String by,
            @Nullable Long jobId) {}

    @GetMapping("/api/jobs/{id}/record")
    RecordView record(@PathVariable long id) {
        RecordSheet sheet = records.of(id, false);
        return new RecordView(
                sheet.job(),
                sheet.registration(),
                sheet.day(),
                sheet.odometer(),
                sheet.nextDue(),
                sheet.sections().stream()
                        .map(s -> new RecordSection(
                                s.title(),
                                s.lines().stream()
                                        .map(l -> new RecordLine(l.what(), l.words(), l.by(), l.marked()))
                                        .toList()))
                        .toList());
    }

    @GetMapping(path = "/api/jobs/{id}/record.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> pdf(@PathVariable long id) {
        return ResponseEntity.ok()
                .header("Content-Disposition", "inline; filename=\"job-record-%d.pdf\"".formatted(id))
                .body(printer.print(records.of(id, true)));
    }

    /** What has happened to the vehicle, newest first, with what proves it. */
    @GetMapping("/api/vehicles/{id}/story")
    List<ChapterView> story(@PathVariable long id) {
        if (!vehicles.maySee(current.get(), vehicles.get(id))) {
            throw new NotFound("There is no vehicle " + id + ".");
        }
        return story.of(id).stream()
                .map(c -> new ChapterView(
                        c.on(), c.sentence(), c.proof().words(), c.by(), c.job().orElse(null)))
                .toList();
    }
}
