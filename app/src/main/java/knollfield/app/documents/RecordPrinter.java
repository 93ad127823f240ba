package knollfield.app.documents;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import knollfield.app.shared.Words;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.springframework.stereotype.Component;

/** Sets the record of a job on A4, as many pages as it takes. */
@Component
public class RecordPrinter {

    private static final float WHAT = 62 * Pages.MM;
    private static final float BY = 40 * Pages.MM;
    private static final float GAP = 3 * Pages.MM;
    private static final float SIZE = 9;

    private final Words words;
    private final Copies copies;

    RecordPrinter(Words words, Copies copies) {
        this.words = words;
        this.copies = copies;
    }

    /** The pages. */
    public byte[] print(RecordSheet sheet) {
        try (PDDocument document = new PDDocument()) {
            document.getDocumentInformation()
                    .setTitle("Job record %d, %s".formatted(sheet.job(), sheet.registration()));
            try (Pages pages = new Pages(
                    document,
                    "%s. Job %d, %s, %s"
                            .formatted(
                                    sheet.workshop(),
                                    sheet.job(),
                                    sheet.registration(),
                                    copies.next("record " + sheet.job())))) {
                head(pages, sheet);
                for (RecordSheet.Section section : sheet.sections()) {
                    section(pages, section);
                }
                for (RecordSheet.Picture picture : sheet.pictures()) {
                    pages.picture(picture.jpeg(), picture.words());
                }
                pages.paragraph("Figures are the workshop's own book; the manufacturer's instructions come first.");
            }
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            document.save(bytes);
            return bytes.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void head(Pages p, RecordSheet s) throws IOException {
        p.text(p.head, 16, Pages.LEFT, "Job record " + s.job());
        p.right(p.bold, Pages.TEXT, Pages.RIGHT, s.workshop());
        p.letterhead(s.letterhead());
        p.text(p.head, 13, Pages.LEFT, s.registration());
        p.right(p.plain, Pages.TEXT, Pages.RIGHT, "Signed " + words.day(s.day()));
        p.down(14);
        p.text(p.plain, Pages.TEXT, Pages.LEFT, s.makeModel());
        p.right(p.plain, Pages.TEXT, Pages.RIGHT, "Odometer " + s.odometer());
        p.down(13);
        p.text(p.plain, Pages.TEXT, Pages.LEFT, "For " + s.owner());
        p.right(p.bold, Pages.TEXT, Pages.RIGHT, "Next due " + s.nextDue());
        p.down(20);
    }

    private static void section(Pages p, RecordSheet.Section section) throws IOException {
        p.room(40);
        p.text(p.head, 11, Pages.LEFT, section.title());
        p.down(4);
        p.rule();
        p.down(12);
        float middle = Pages.LEFT + WHAT + GAP;
        float right = Pages.RIGHT - BY;
        for (RecordSheet.Line line : section.lines()) {
            p.row(
                    line.marked() ? p.bold : p.plain,
                    SIZE,
                    List.of(
                            new Pages.Cell(Pages.LEFT, WHAT, line.what()),
                            new Pages.Cell(middle, right - GAP - middle, line.words()),
                            new Pages.Cell(right, BY, line.by())));
            p.down(1);
        }
        p.down(9);
    }
}
