package knollfield.app.own;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import knollfield.app.outbox.Channel;
import knollfield.app.outbox.Outbox;
import knollfield.app.problem.Checks;
import knollfield.app.vehicle.Owner;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Private addresses for the owner of a job, as the front desk makes them and takes them back. */
@RestController
@RequestMapping("/api/jobs/{id}/private-page")
class OwnerLinkController {

    private final OwnerLinks links;
    private final Outbox outbox;

    OwnerLinkController(OwnerLinks links, Outbox outbox) {
        this.outbox = outbox;
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
     * @param ways in which the owner can be written to with it
     * @param links newest first
     */
    record PrivatePageView(boolean offered, @Nullable String address, List<SendBy> ways, List<OwnerLinkView> links) {}

    record SendBy(Channel channel, String words, String place) {}

    record SendPageIn(@Nullable Channel channel) {}

    /** Writes to the owner; the address is made when the message goes. */
    @PostMapping("/message")
    PrivatePageView write(@PathVariable long id, @RequestBody SendPageIn in) {
        new Checks()
                .that(in.channel() != null, "/channel", "By e-mail, by text message or by letter?")
                .orThrow();
        links.write(id, Objects.requireNonNull(in.channel()));
        return view(id, null);
    }

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
                links.owner(id)
                        .filter(Owner::mayWrite)
                        .map(o -> outbox.ways(o).stream()
                                .map(w -> new SendBy(w, w.words(), Outbox.place(o, w)))
                                .toList())
                        .orElse(List.of()),
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
