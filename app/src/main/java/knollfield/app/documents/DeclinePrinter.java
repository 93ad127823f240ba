package knollfield.app.documents;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import knollfield.app.shared.Words;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.springframework.stereotype.Component;

/** Sets what an owner signs who leaves advised work, on A4. */
@Component
public class DeclinePrinter {

    private static final float NAME = 52 * Pages.MM;

    private final Words words;
    private final Copies copies;

    DeclinePrinter(Words words, Copies copies) {
        this.words = words;
        this.copies = copies;
    }

    /** The pages. */
    public byte[] print(DeclineSheet s) {
        try (PDDocument document = new PDDocument()) {
            document.getDocumentInformation()
                    .setTitle("Work left, estimate %d-%d, %s".formatted(s.job(), s.number(), s.registration()));
            String foot = "%s. Work left, estimate %d-%d, %s, %s"
                    .formatted(
                            s.workshop(),
                            s.job(),
                            s.number(),
                            s.registration(),
                            copies.next("decline %d-%d".formatted(s.job(), s.number())));
            try (Pages p = new Pages(document, foot)) {
                p.text(p.head, 16, Pages.LEFT, "Work left by the owner");
                p.right(p.head, Pages.TEXT, Pages.RIGHT, s.workshop());
                p.letterhead(s.letterhead());
                p.text(p.head, 13, Pages.LEFT, s.registration());
                p.right(p.plain, Pages.TEXT, Pages.RIGHT, words.day(s.on()));
                p.down(14);
                p.text(p.plain, Pages.TEXT, Pages.LEFT, s.makeModel());
                p.right(p.plain, Pages.TEXT, Pages.RIGHT, "Estimate %d-%d".formatted(s.job(), s.number()));
                p.down(13);
                p.text(p.plain, Pages.TEXT, Pages.LEFT, "For " + s.owner());
                p.down(24);
                p.paragraph("The workshop advises the work below. It is left, and this was told:");
                p.rule();
                p.down(13);
                for (DeclineSheet.Line line : s.lines()) {
                    p.row(
                            p.plain,
                            Pages.TEXT,
                            List.of(
                                    new Pages.Cell(Pages.LEFT, NAME - 3 * Pages.MM, line.name()),
                                    new Pages.Cell(
                                            Pages.LEFT + NAME, Pages.RIGHT - Pages.LEFT - NAME, line.warning())));
                    p.down(4);
                }
                p.down(6);
                p.paragraph(s.waiting());
                p.paragraph("Told by " + s.toldBy() + ".");
                p.room(64);
                p.down(14);
                p.text(
                        p.plain,
                        Pages.TEXT,
                        Pages.LEFT,
                        "I have read and understood this and leave the work named here.");
                p.down(36);
                p.rule();
                p.down(11);
                p.text(p.plain, Pages.SMALL, Pages.LEFT, "Date, name, signature");
            }
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            document.save(bytes);
            return bytes.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
