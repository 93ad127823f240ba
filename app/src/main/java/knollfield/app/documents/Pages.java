package knollfield.app.documents;

import java.io.IOException;
import java.util.List;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.graphics.image.JPEGFactory;
import org.apache.pdfbox.pdmodel.graphics.image.PDImageXObject;

/** A4 pages filled from the top; a new one begins where there is no room. */
final class Pages implements AutoCloseable {

    static final float MM = 72 / 25.4f;
    static final float LEFT = 20 * MM;
    static final float RIGHT = PDRectangle.A4.getWidth() - 20 * MM;
    static final float SMALL = 8.5f;
    static final float TEXT = 10;
    static final float LETTER = 11;
    private static final float TOP = PDRectangle.A4.getHeight() - 22 * MM;
    private static final float BOTTOM = 22 * MM;

    final PaperType.Face head;
    final PaperType.Face bold;
    final PaperType.Face plain;
    private final PaperType type;
    private final PDDocument document;
    private final String foot;
    private final int first;
    private float y;
    private PDPageContentStream out;

    Pages(PDDocument document, String foot) throws IOException {
        this(document, new PaperType(document), foot);
    }

    /** Several papers in one document share their type. */
    Pages(PDDocument document, PaperType type, String foot) throws IOException {
        this.document = document;
        this.foot = foot;
        this.first = document.getNumberOfPages();
        this.type = type;
        this.head = type.head;
        this.bold = type.bold;
        this.plain = type.plain;
        this.out = page();
    }

    private PDPageContentStream page() throws IOException {
        PDPage page = new PDPage(PDRectangle.A4);
        document.addPage(page);
        y = TOP;
        return new PDPageContentStream(document, page);
    }

    /** Begins another page where less than {@code height} is left. */
    void room(float height) throws IOException {
        if (y - height < BOTTOM) {
            out.close();
            out = page();
        }
    }

    void down(float points) {
        y -= points;
    }

    /** Goes on so far below the top of the page, unless it is there already. */
    void to(float fromTop) {
        y = Math.min(y, PDRectangle.A4.getHeight() - fromTop);
    }

    void text(PaperType.Face font, float size, float x, String text) throws IOException {
        PdfText.line(out, font, size, x, y, text);
    }

    void right(PaperType.Face font, float size, float x, String text) throws IOException {
        PdfText.right(out, font, size, x, y, text);
    }

    /** What stands under the workshop's name, small and to the right, and the room after it. */
    void letterhead(List<String> lines) throws IOException {
        for (String line : lines) {
            down(10);
            right(plain, SMALL, RIGHT, line);
        }
        down(20);
    }

    void rule() throws IOException {
        out.setLineWidth(0.5f);
        out.moveTo(LEFT, y);
        out.lineTo(RIGHT, y);
        out.stroke();
    }

    void paragraph(String text) throws IOException {
        for (String line : PdfText.wrap(plain, TEXT, text, RIGHT - LEFT)) {
            room(13);
            text(plain, TEXT, LEFT, line);
            down(13);
        }
        down(5);
    }

    /** Sets cells side by side, each wrapped within its column, as high as the highest. */
    void row(PaperType.Face font, float size, List<Cell> cells) throws IOException {
        float line = size + 2.5f;
        int lines = 1;
        for (Cell cell : cells) {
            lines = Math.max(
                    lines, PdfText.wrap(font, size, cell.text(), cell.width()).size());
        }
        room(lines * line);
        for (Cell cell : cells) {
            float at = y;
            for (String text : PdfText.wrap(font, size, cell.text(), cell.width())) {
                PdfText.line(out, font, size, cell.x(), at, text);
                at -= line;
            }
        }
        y -= lines * line;
    }

    /** Text in a column. */
    record Cell(float x, float width, String text) {}

    /** A picture, at most as wide as the page and a third as high, with its words under it. */
    void picture(byte[] jpeg, String words) throws IOException {
        PDImageXObject image = JPEGFactory.createFromByteArray(document, jpeg);
        float scale = Math.min((RIGHT - LEFT) / 2 / image.getWidth(), 70 * MM / image.getHeight());
        room(image.getHeight() * scale + 18);
        y -= image.getHeight() * scale;
        out.drawImage(image, LEFT, y, image.getWidth() * scale, image.getHeight() * scale);
        y -= 11;
        PdfText.line(out, plain, SMALL, LEFT, y, words);
        y -= 14;
    }

    /** Ends the paper: what could not be set is said, and every page says which of how many it is. */
    @Override
    public void close() throws IOException {
        String missing = type.takeMissingWords();
        if (!missing.isEmpty()) {
            room(13);
            text(plain, SMALL, LEFT, missing);
        }
        out.close();
        int pages = document.getNumberOfPages() - first;
        for (int i = 0; i < pages; i++) {
            try (PDPageContentStream over = new PDPageContentStream(
                    document, document.getPage(first + i), PDPageContentStream.AppendMode.APPEND, true, true)) {
                String of = "Page %d of %d".formatted(i + 1, pages);
                float width = RIGHT - LEFT - plain.width(SMALL, of) - 4 * MM;
                float y = BOTTOM - 8 * MM;
                for (String line : PdfText.wrap(plain, SMALL, foot, width)) {
                    PdfText.line(over, plain, SMALL, LEFT, y, line);
                    y -= SMALL + 2;
                }
                PdfText.right(over, plain, SMALL, RIGHT, BOTTOM - 8 * MM, of);
            }
        }
    }
}
