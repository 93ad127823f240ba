package knollfield.app.documents;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.pdmodel.PDPageContentStream;

/** Setting lines of text on a page. */
final class PdfText {

    private PdfText() {}

    static void line(PDPageContentStream out, PaperType.Face face, float size, float x, float y, String text)
            throws IOException {
        out.beginText();
        out.newLineAtOffset(x, y);
        for (PaperType.Run run : face.runs(text)) {
            out.setFont(run.font(), size);
            out.showText(run.text());
        }
        out.endText();
    }

    /** Ends at {@code x}. */
    static void right(PDPageContentStream out, PaperType.Face face, float size, float x, float y, String text)
            throws IOException {
        line(out, face, size, x - face.width(size, text), y, text);
    }

    /** Lines no wider than {@code width}; a word that alone is wider is broken. */
    static List<String> wrap(PaperType.Face face, float size, String text, float width) throws IOException {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String word : text.split("\\s+")) {
            String longer = line.isEmpty() ? word : line + " " + word;
            if (!line.isEmpty() && face.width(size, longer) > width) {
                lines.add(line.toString());
                line = new StringBuilder(word);
            } else {
                line = new StringBuilder(longer);
            }
            while (face.width(size, line.toString()) > width && line.length() > 1) {
                int fits = fitting(face, size, line, width);
                lines.add(line.substring(0, fits));
                line.delete(0, fits);
            }
        }
        lines.add(line.toString());
        return lines;
    }

    /** How many characters of a word go on a line; at least one. */
    private static int fitting(PaperType.Face face, float size, CharSequence word, float width) throws IOException {
        int fits = 1;
        while (fits < word.length()
                && face.width(size, word.subSequence(0, fits + 1).toString()) <= width) {
            fits++;
        }
        return Character.isHighSurrogate(word.charAt(fits - 1)) && fits > 1 ? fits - 1 : fits;
    }
}
