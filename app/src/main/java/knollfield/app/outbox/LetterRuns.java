package knollfield.app.outbox;

import java.util.ArrayList;
import java.util.List;
import knollfield.app.documents.LetterPrinter;
import knollfield.app.documents.LetterSheet;
import knollfield.app.problem.Checks;
import knollfield.app.settings.Houses;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Letters in one file for the printer. */
@Service
class LetterRuns {

    private static final int MOST_LETTERS = 1_000;

    private final Outbox outbox;
    private final Sender sender;
    private final LetterPrinter printer;
    private final WorkshopSettings settings;
    private final Houses houses;
    private final WorkshopClock clock;

    LetterRuns(
            Outbox outbox,
            Sender sender,
            LetterPrinter printer,
            WorkshopSettings settings,
            Houses houses,
            WorkshopClock clock) {
        this.outbox = outbox;
        this.sender = sender;
        this.printer = printer;
        this.settings = settings;
        this.houses = houses;
        this.clock = clock;
    }

    /** The pages; every letter is noted as printed, and its private page is made now. */
    @Transactional
    public byte[] print(List<Long> ids) {
        new Checks()
                .that(!ids.isEmpty(), "/letters", "Choose at least one letter.")
                .that(ids.size() <= MOST_LETTERS, "/letters", "At most %d at a time.".formatted(MOST_LETTERS))
                .orThrow();
        List<LetterSheet> sheets = new ArrayList<>();
        for (Message m : outbox.letters(ids)) {
            outbox.printed(m);
            List<String> to = new ArrayList<>(List.of(m.toName()));
            m.toPlace().lines().map(String::strip).filter(l -> !l.isEmpty()).forEach(to::add);
            sheets.add(new LetterSheet(
                    m.id(),
                    settings.get().name(),
                    houses.get().letterhead(),
                    clock.today(),
                    to,
                    m.subject(),
                    sender.written(m)));
        }
        return printer.print(sheets);
    }
}
