package knollfield.app.job.card;

import java.util.List;
import knollfield.app.documents.RecordSheet;
import knollfield.app.job.Job;
import knollfield.app.job.picture.PhotoRepository;
import knollfield.app.job.picture.ShrunkPicture;
import knollfield.app.problem.NotFound;
import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.WorkshopClock;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardState;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The pictures of a job with their words. */
@Service
public class JobPictures {

    private final PhotoRepository photos;
    private final Cards cards;
    private final CurrentPerson current;
    private final WorkshopClock clock;

    JobPictures(PhotoRepository photos, Cards cards, CurrentPerson current, WorkshopClock clock) {
        this.photos = photos;
        this.cards = cards;
        this.current = current;
        this.clock = clock;
    }

    /**
     * Takes a picture to a step.
     *
     * @param clientKey chosen by the sender; a picture sent twice with it counts once
     * @throws knollfield.app.problem.InvalidInput for what is no picture
     * @throws knollfield.core.jobcard.CardRefused where the card has no such step, or is signed
     */
    @Transactional
    void take(long jobId, String clientKey, byte[] file, String step, String caption) {
        if (cards.sentBefore(jobId, clientKey)) {
            return;
        }
        ShrunkPicture picture = ShrunkPicture.of(file);
        long photo = photos.add(jobId, picture, current.get().name(), clock.instant());
        cards.enter(jobId, clientKey, new CardEvent.PhotoTaken(step, photo, caption.strip()));
    }

    /** A stored picture as JPEG. */
    byte[] jpeg(long jobId, long photo) {
        return photos.bytes(jobId, photo)
                .orElseThrow(() -> new NotFound("Job %d has no picture %d.".formatted(jobId, photo)));
    }

    /** Those the card tells of, in the order they were taken. */
    public List<RecordSheet.Picture> of(Job job, CardState card) {
        return card.noted(CardEvent.PhotoTaken.class).stream()
                .flatMap(p -> photos.bytes(job.id(), p.photoId()).stream()
                        .map(bytes -> new RecordSheet.Picture(
                                bytes,
                                card.plan().step(p.step()).map(s -> s.title()).orElse("")
                                        + (p.caption().isBlank() ? "" : ": " + p.caption()))))
                .toList();
    }
}
