package knollfield.app.documents;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import knollfield.app.shared.Words;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.springframework.stereotype.Component;

/** Sets letters on A4, one after the other in one file, the address where a window envelope shows it. */
@Component
public class LetterPrinter {

    /** Where an address begins, from the top; it shows in windows of envelopes by DIN 680 and ISO 269 DL alike. */
    private static final float ADDRESS = 52 * Pages.MM;

    private static final float SUBJECT = 98 * Pages.MM;

    private final Words words;
    private final Copies copies;

    LetterPrinter(Words words, Copies copies) {
        this.words = words;
        this.copies = copies;
    }

    /** The pages; each letter begins a new one and counts its own. */
    public byte[] print(List<LetterSheet> letters) {
        try (PDDocument document = new PDDocument()) {
            document.getDocumentInformation().setTitle(letters.size() == 1 ? "Letter" : letters.size() + " letters");
            PaperType type = new PaperType(document);
            for (LetterSheet letter : letters) {
                try (Pages pages = new Pages(
                        document,
                        type,
                        "%s, letter %d, %s"
                                .formatted(
                                        letter.workshop(),
                                        letter.number(),
                                        copies.next("letter " + letter.number())))) {
                    letter(pages, letter);
                }
            }
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            document.save(bytes);
            return bytes.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void letter(Pages p, LetterSheet s) throws IOException {
        p.right(p.head, 13, Pages.RIGHT, s.workshop());
        p.letterhead(s.letterhead());
        p.to(ADDRESS);
        for (String line : s.to()) {
            p.row(p.plain, Pages.TEXT, List.of(new Pages.Cell(Pages.LEFT, 80 * Pages.MM, line)));
        }
        p.to(SUBJECT);
        p.right(p.plain, Pages.TEXT, Pages.RIGHT, words.day(s.on()));
        p.down(18);
        p.row(p.head, 12, List.of(new Pages.Cell(Pages.LEFT, Pages.RIGHT - Pages.LEFT, s.subject())));
        p.down(8);
        for (String line : s.body().split("\n", -1)) {
            if (line.isBlank()) {
                p.down(7);
            } else {
                p.row(p.plain, Pages.LETTER, List.of(new Pages.Cell(Pages.LEFT, Pages.RIGHT - Pages.LEFT, line)));
            }
        }
    }
}
