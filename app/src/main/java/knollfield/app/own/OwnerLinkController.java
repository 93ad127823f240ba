package knollfield.app.own;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Private addresses for the owner of a job, as the front desk makes them and takes them back. */
@RestController
@RequestMapping("/api/jobs/{id}/private-page")
class OwnerLinkController {

    private final OwnerLinks links;

    OwnerLinkController(OwnerLinks links) {
        this.links = links;
    }

    /** @param ended in words why it opens nothing any more; null while it does */
    record OwnerLinkView(
            int estimateNumber,
            Instant madeAt,
            String madeBy,
            LocalDate validUntil,
            @Nullable Instant answeredAt,
            @Nullable String ended) {}

    /**
     * @param offered Setup says where people outside reach this server
     * @param address the one just made, which is shown this once; else null
     * @param links newest first
     */
    record PrivatePageView(boolean offered, @Nullable String address, List<OwnerLinkView> links) {}

    @GetMapping
    PrivatePageView get(@PathVariable long id) {
        return view(id, null);
    }

    @PostMapping
    PrivatePageView make(@PathVariable long id) {
        return view(id, links.make(id));
    }

    @DeleteMapping
    PrivatePageView revoke(@PathVariable long id) {
        links.revoke(id);
        return view(id, null);
    }

    private PrivatePageView view(long id, @Nullable String address) {
        return new PrivatePageView(
                links.isOffered(),
                address,
                links.ofJob(id).stream()
                        .map(l -> new OwnerLinkView(
                                l.estimateNumber(),
                                l.madeAt(),
                                l.madeBy(),
                                l.validUntil(),
                                l.usedAt().orElse(null),
                                links.ended(l).map(OwnerLink.Ended::words).orElse(null)))
                        .toList());
    }
}
