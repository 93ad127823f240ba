package knollfield.app.documents;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.font.PDFont;

/** Setting lines of text on a page. */
final class PdfText {

    private PdfText() {}

    static void line(PDPageContentStream out, PDFont font, float size, float x, float y, String text)
            throws IOException {
        out.beginText();
        out.setFont(font, size);
        out.newLineAtOffset(x, y);
        out.showText(printable(text));
        out.endText();
    }

    /** Ends at {@code x}. */
    static void right(PDPageContentStream out, PDFont font, float size, float x, float y, String text)
            throws IOException {
        line(out, font, size, x - width(font, size, text), y, text);
    }

    static float width(PDFont font, float size, String text) throws IOException {
        return font.getStringWidth(printable(text)) / 1000 * size;
    }

    static List<String> wrap(PDFont font, float size, String text, float width) throws IOException {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String word : printable(text).split(" ")) {
            String longer = line.isEmpty() ? word : line + " " + word;
            if (!line.isEmpty() && width(font, size, longer) > width) {
                lines.add(line.toString());
                line = new StringBuilder(word);
            } else {
                line = new StringBuilder(longer);
            }
        }
        lines.add(line.toString());
        return lines;
    }

    /** The standard fonts know Latin letters and the euro; what they do not know is printed as a question mark. */
    private static String printable(String text) {
        StringBuilder out = new StringBuilder();
        for (char c : text.toCharArray()) {
            if (c == '\u00a0' || c == '\u202f') {
                out.append(' ');
            } else {
                out.append(c >= ' ' && c <= '~' || c >= '\u00a1' && c <= '\u00ff' || c == '\u20ac' ? c : '?');
            }
        }
        return out.toString();
    }
}
