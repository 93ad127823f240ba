package knollfield.app.job.card;

import java.io.IOException;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import knollfield.app.job.Jobs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** The job card at the bench, its pictures and its label. */
@RestController
@RequestMapping("/api/jobs/{id}/card")
class CardController {

    private final Jobs jobs;
    private final Cards cards;
    private final CardViews views;
    private final JobPictures pictures;
    private final EngineBayLabel label;
    private final PaperCards paper;

    CardController(
            Jobs jobs, Cards cards, CardViews views, JobPictures pictures, EngineBayLabel label, PaperCards paper) {
        this.jobs = jobs;
        this.cards = cards;
        this.views = views;
        this.pictures = pictures;
        this.label = label;
        this.paper = paper;
    }

    /** @param items codes of what is added */
    record LinesIn(Set<String> items) {}

    @GetMapping
    CardViews.CardView get(@PathVariable long id) {
        return views.view(jobs.get(id));
    }

    @PostMapping("/events")
    CardViews.CardView enter(@PathVariable long id, @RequestBody CardEntryIn request) {
        cards.enter(id, request);
        return views.view(jobs.get(id));
    }

    /** Adds items to the job; they wait for the owner. */
    @PostMapping("/lines")
    CardViews.CardView widen(@PathVariable long id, @RequestBody LinesIn body) {
        jobs.widen(id, body.items());
        return views.view(jobs.get(id));
    }

    /**
     * Takes a picture to a step: JPEG or PNG, at most 12 MB; it is kept shrunk. One sent twice with the same
     * key counts once.
     */
    @PostMapping(path = "/photos", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    CardViews.CardView photo(
            @PathVariable long id,
            @RequestParam MultipartFile file,
            @RequestParam String step,
            @RequestParam(defaultValue = "") String caption,
            @RequestParam(required = false) @Nullable String clientKey)
            throws IOException {
        String key =
                Objects.requireNonNullElseGet(clientKey, () -> UUID.randomUUID().toString());
        pictures.take(jobs.get(id).id(), key, file.getBytes(), step, caption);
        return views.view(jobs.get(id));
    }

    @GetMapping(path = "/photos/{photo}.jpg", produces = MediaType.IMAGE_JPEG_VALUE)
    ResponseEntity<byte[]> picture(@PathVariable long id, @PathVariable long photo) {
        return ResponseEntity.ok()
                .cacheControl(
                        CacheControl.maxAge(java.time.Duration.ofMinutes(5)).cachePrivate())
                .body(pictures.jpeg(id, photo));
    }

    /** @param workedBy who did what is typed in */
    record FromPaperIn(String workedBy, List<CardEntryIn> entries) {}

    /** The card as a PDF, for a day without tablets. */
    @GetMapping(path = "/paper.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> paper(@PathVariable long id) {
        return ResponseEntity.ok()
                .header("Content-Disposition", "inline; filename=\"job-card-%d.pdf\"".formatted(id))
                .body(paper.pdf(id));
    }

    /** Types in what was written on a printed card: all of it, or nothing. */
    @PostMapping("/paper")
    CardViews.CardView fromPaper(@PathVariable long id, @RequestBody FromPaperIn body) {
        paper.typeIn(id, body.workedBy(), body.entries());
        return views.view(jobs.get(id));
    }

    /** The engine-bay label as a PDF, to be written before its step is ticked, and again once the card is signed. */
    @GetMapping(path = "/label.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> label(@PathVariable long id) {
        return ResponseEntity.ok()
                .header("Content-Disposition", "inline; filename=\"label-%d.pdf\"".formatted(id))
                .body(label.pdf(id));
    }
}
