package knollfield.app.documents;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.springframework.stereotype.Component;

/** Sets a job card on A4, with room for figures and a bar at each gate. */
@Component
public class PaperCardPrinter {

    private static final float SIZE = 9;
    private static final float ANSWER = 72 * Pages.MM;
    private static final float INDENT = 4 * Pages.MM;

    /** The pages. */
    public byte[] print(PaperCard card) {
        try (PDDocument document = new PDDocument()) {
            document.getDocumentInformation()
                    .setTitle("Job card %d, %s, on paper".formatted(card.job(), card.registration()));
            try (Pages pages = new Pages(
                    document,
                    "%s. Job %d, %s: typed in afterwards by \"From paper\""
                            .formatted(card.workshop(), card.job(), card.registration()))) {
                head(pages, card);
                for (PaperCard.Phase phase : card.phases()) {
                    phase(pages, phase);
                }
                pages.room(60);
                pages.down(10);
                pages.text(pages.plain, Pages.TEXT, Pages.LEFT, "Worked by ______________________   Minutes ________");
                pages.right(pages.plain, Pages.TEXT, Pages.RIGHT, "Signed ______________________");
                pages.down(16);
            }
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            document.save(bytes);
            return bytes.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void head(Pages p, PaperCard card) throws IOException {
        p.text(p.head, 16, Pages.LEFT, "Job card " + card.job());
        p.right(p.bold, Pages.TEXT, Pages.RIGHT, card.workshop());
        p.down(18);
        p.text(p.head, 13, Pages.LEFT, card.registration());
        p.right(p.plain, Pages.TEXT, Pages.RIGHT, card.makeModel());
        p.down(14);
        for (String fact : card.facts()) {
            p.paragraph(fact);
        }
        p.down(4);
    }

    private static void phase(Pages p, PaperCard.Phase phase) throws IOException {
        p.room(46);
        p.text(p.head, 11, Pages.LEFT, phase.title());
        p.down(4);
        p.rule();
        p.down(12);
        for (PaperCard.Step step : phase.steps()) {
            step(p, step);
        }
        p.down(7);
    }

    private static void step(Pages p, PaperCard.Step step) throws IOException {
        float right = Pages.RIGHT - ANSWER;
        p.room(30);
        p.row(
                step.done() ? p.plain : p.bold,
                SIZE,
                List.of(
                        new Pages.Cell(Pages.LEFT, right - Pages.LEFT - INDENT, step.title()),
                        new Pages.Cell(
                                right,
                                ANSWER,
                                step.answer().isEmpty() ? "" : step.answer().get(0))));
        int lines = Math.max(step.notes().size(), step.answer().size() - 1);
        for (int i = 0; i < lines; i++) {
            p.row(
                    p.plain,
                    SIZE - 1,
                    List.of(
                            new Pages.Cell(
                                    Pages.LEFT + INDENT,
                                    right - Pages.LEFT - 2 * INDENT,
                                    i < step.notes().size() ? step.notes().get(i) : ""),
                            new Pages.Cell(
                                    right,
                                    ANSWER,
                                    i + 1 < step.answer().size() ? step.answer().get(i + 1) : "")));
        }
        if (!step.gate().isEmpty()) {
            p.room(16);
            p.down(1);
            p.row(
                    p.bold,
                    SIZE - 1,
                    List.of(
                            new Pages.Cell(
                                    Pages.LEFT,
                                    right - Pages.LEFT - INDENT,
                                    "GATE, not past it before: " + step.gate()),
                            new Pages.Cell(right, ANSWER, "[   ] initials ________")));
            p.rule();
            p.down(9);
        }
        p.down(3);
    }
}
