package knollfield.app.recall;

import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import knollfield.app.problem.InvalidInput;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Who has it, and the follow-ups made of it. */
@RestController
@RequestMapping("/api/recall")
class RecallController {

    private final Recall recall;

    RecallController(Recall recall) {
        this.recall = recall;
    }

    /** What somebody has. */
    enum By {
        PART,
        BATCH,
        JOINT,
        BOOK
    }

    /**
     * @param km odometer on the day of the work
     * @param state null for a vehicle in use
     * @param jobId null where the work was not ours
     */
    record RecallRow(
            long vehicleId,
            String registration,
            String makeModel,
            String ownerName,
            String ownerPhone,
            @Nullable String state,
            LocalDate on,
            int km,
            @Nullable Long jobId,
            String what) {}

    record RecallTarget(long vehicleId, @Nullable Long jobId) {}

    record FollowUpsIn(List<RecallTarget> targets, String words, boolean urgent) {}

    /** @param made new ones; the others had the same one open already */
    record FollowUpsMade(int made, int open) {}

    /**
     * @param q part number or batch, or a part of one
     * @param joint code of a joint of the family
     * @param newtonMetres only where the book asked for this much
     */
    @GetMapping
    List<RecallRow> find(
            @RequestParam By by,
            @RequestParam(required = false, defaultValue = "") String q,
            @RequestParam(required = false, defaultValue = "") String family,
            @RequestParam(required = false, defaultValue = "") String joint,
            @RequestParam(required = false) @Nullable Double newtonMetres,
            @RequestParam(required = false) @Nullable Integer version) {
        List<Recall.Found> found = switch (by) {
            case PART -> recall.byPart(q);
            case BATCH -> recall.byBatch(q);
            case JOINT ->
                recall.byJoint(
                        family, joint, newtonMetres == null ? OptionalDouble.empty() : OptionalDouble.of(newtonMetres));
            case BOOK -> {
                if (version == null) {
                    throw new InvalidInput("/version", "Say which version of the book.");
                }
                yield recall.byBook(family, Objects.requireNonNull(version));
            }
        };
        return found.stream().map(RecallController::row).toList();
    }

    private static RecallRow row(Recall.Found f) {
        return new RecallRow(
                f.vehicle().id(),
                f.vehicle().registration(),
                f.vehicle().makeModel(),
                f.vehicle().ownerName(),
                f.vehicle().ownerPhone(),
                f.vehicle().state().since().isEmpty()
                        ? null
                        : f.vehicle().state().kind().words(),
                f.on(),
                f.km(),
                f.jobId().orElse(null),
                f.what());
    }

    record RecallJoint(String code, String name) {}

    /** @param versions of the family's book, newest first */
    record RecallChoices(List<RecallJoint> joints, List<Integer> versions) {}

    /** What a family's jobs can be asked for. */
    @GetMapping("/choices")
    RecallChoices choices(@RequestParam String family) {
        return new RecallChoices(
                recall.joints(family).entrySet().stream()
                        .map(j -> new RecallJoint(j.getKey(), j.getValue()))
                        .toList(),
                recall.versions(family));
    }

    @PostMapping("/follow-ups")
    FollowUpsMade followUps(@RequestBody FollowUpsIn body) {
        List<Recall.Target> targets = body.targets().stream()
                .map(t -> new Recall.Target(t.vehicleId(), Optional.ofNullable(t.jobId())))
                .toList();
        int made = recall.followUps(targets, body.words(), body.urgent());
        return new FollowUpsMade(made, targets.size() - made);
    }
}
