package knollfield.app.estimate;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The owner's answer to what was found, entered at the bench while they are on the phone. */
@RestController
class BenchConsentController {

    private final Estimates estimates;

    BenchConsentController(Estimates estimates) {
        this.estimates = estimates;
    }

    /**
     * @param lines codes of added items
     * @param warning what was told of the risk; needed where they are left
     * @param signed a decline of a required line was signed
     * @param insist noted although who said it is not named as one who may speak for the owner
     */
    record OwnerAnswerIn(
            List<String> lines,
            boolean agreed,
            String saidBy,
            String warning,
            boolean signed,
            @Nullable Boolean insist) {}

    record OwnerAnswerNoted(boolean noted) {}

    @PostMapping("/api/jobs/{id}/card/owner-answer")
    OwnerAnswerNoted answer(@PathVariable long id, @RequestBody OwnerAnswerIn body) {
        estimates.answeredAtTheBench(
                id,
                body.lines(),
                body.agreed(),
                body.saidBy(),
                body.warning(),
                body.signed(),
                Boolean.TRUE.equals(body.insist()));
        return new OwnerAnswerNoted(true);
    }
}
