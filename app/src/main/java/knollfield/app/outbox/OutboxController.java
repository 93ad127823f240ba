package knollfield.app.outbox;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What is on its way out, what went, and what somebody has to look at. */
@RestController
@RequestMapping("/api/outbox")
class OutboxController {

    private final Outbox outbox;
    private final LetterRuns runs;
    private final MailServers servers;
    private final Folder folder;

    OutboxController(Outbox outbox, LetterRuns runs, MailServers servers, Folder folder) {
        this.outbox = outbox;
        this.runs = runs;
        this.servers = servers;
        this.folder = folder;
    }

    /**
     * @param toPlace an e-mail address, a number, or a postal address
     * @param body without a private address, which is made when it goes
     * @param failure what went wrong last; may be empty
     */
    record MessageView(
            long id,
            String kindWords,
            Channel channel,
            String channelWords,
            String toName,
            String toPlace,
            String subject,
            String body,
            Message.State state,
            String stateWords,
            String failure,
            Instant madeAt,
            String madeBy,
            Instant changedAt,
            List<Long> vehicles) {}

    /**
     * @param mailServer false: mail is written as files
     * @param folder where files are written
     * @param open not at their end, oldest first
     * @param ended newest first
     */
    record OutboxView(boolean mailServer, String folder, List<MessageView> open, List<MessageView> ended) {}

    /** How many messages call for somebody. */
    record OutboxCounts(int toPrint, int failed, int unsure, int waiting) {}

    record PrintIn(@Nullable List<Long> letters) {}

    @GetMapping
    OutboxView get() {
        return new OutboxView(
                servers.get().isThere(),
                folder.path().toString(),
                outbox.open().stream().map(OutboxController::view).toList(),
                outbox.ended().stream().map(OutboxController::view).toList());
    }

    @GetMapping("/counts")
    OutboxCounts counts() {
        Map<String, Integer> c = outbox.counts();
        return new OutboxCounts(
                c.getOrDefault("PRINT", 0),
                c.getOrDefault(Message.State.FAILED.name(), 0),
                c.getOrDefault(Message.State.UNSURE.name(), 0),
                c.getOrDefault(Message.State.WAITING.name(), 0) + c.getOrDefault(Message.State.SENDING.name(), 0));
    }

    @PostMapping("/{id}/take-back")
    OutboxView takeBack(@PathVariable long id) {
        outbox.takeBack(id);
        return get();
    }

    /** Somebody has looked: it has gone. */
    @PostMapping("/{id}/gone")
    OutboxView gone(@PathVariable long id) {
        outbox.hasGone(id);
        return get();
    }

    @PostMapping("/{id}/again")
    OutboxView again(@PathVariable long id) {
        outbox.again(id);
        return get();
    }

    /** Letters in one file for the printer; they are noted as printed. */
    @PostMapping(path = "/print", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> print(@RequestBody PrintIn in) {
        return ResponseEntity.ok()
                .header("Content-Disposition", "inline; filename=\"letters.pdf\"")
                .body(runs.print(Objects.requireNonNullElse(in.letters(), List.of())));
    }

    private static MessageView view(Message m) {
        boolean letter = m.channel() == Channel.LETTER;
        String words = switch (m.state()) {
            case WAITING -> letter ? "to print" : m.state().words();
            case SENT -> letter ? "printed" : m.via().equals(Sender.FILE) ? "written as a file" : "gone";
            default -> m.state().words();
        };
        return new MessageView(
                m.id(),
                m.kind().words(),
                m.channel(),
                m.channel().words(),
                m.toName(),
                m.toPlace(),
                m.subject(),
                m.body(),
                m.state(),
                words,
                m.failure(),
                m.madeAt(),
                m.madeBy(),
                m.changedAt(),
                m.vehicles());
    }
}
