package knollfield.app.documents;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.EncodeHintType;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import com.google.zxing.qrcode.decoder.ErrorCorrectionLevel;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import knollfield.app.shared.Words;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.springframework.stereotype.Component;

/** Sets a label as a PDF of 90 × 50 mm with a QR code that holds the same words. */
@Component
public class LabelPrinter {

    private static final float MM = 72 / 25.4f;
    private static final float WIDTH = 90 * MM;
    private static final float HEIGHT = 50 * MM;
    private static final float MARGIN = 4 * MM;
    private static final float QR_SIZE = 27 * MM;

    private final Words words;

    LabelPrinter(Words words) {
        this.words = words;
    }

    /** The label's page. */
    public byte[] print(Label label) {
        try (PDDocument document = new PDDocument()) {
            PaperType type = new PaperType(document);
            PaperType.Face bold = type.bold;
            PaperType.Face plain = type.plain;
            PDPage page = new PDPage(new PDRectangle(WIDTH, HEIGHT));
            document.addPage(page);
            document.getDocumentInformation().setTitle("Label " + label.registration());
            try (PDPageContentStream out = new PDPageContentStream(document, page)) {
                float textWidth = WIDTH - 3 * MARGIN - QR_SIZE;
                float y = HEIGHT - MARGIN - 13;
                PdfText.line(out, type.head, 15, MARGIN, y, label.registration());
                y -= 14;
                for (String text : PdfText.wrap(plain, 8.5f, String.join(", ", label.renewed()), textWidth)) {
                    PdfText.line(out, plain, 8.5f, MARGIN, y, text);
                    y -= 10;
                }
                y -= 2;
                PdfText.line(out, bold, 10, MARGIN, y, "Renewed " + words.day(label.date()));
                y -= 12;
                PdfText.line(out, bold, 10, MARGIN, y, "at " + words.km(label.km()));
                y -= 16;
                PdfText.line(out, plain, 8.5f, MARGIN, y, "Next due, whichever first:");
                y -= 12;
                PdfText.line(out, bold, 10, MARGIN, y, nextDue(label));
                PdfText.line(
                        out,
                        plain,
                        7,
                        MARGIN,
                        MARGIN,
                        PdfText.wrap(plain, 7, label.workshop(), textWidth).get(0));
                PdfText.line(out, plain, 4, MARGIN, MARGIN - 6, type.takeMissingWords());
                qr(out, text(label), WIDTH - MARGIN - QR_SIZE, MARGIN + 8);
            }
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            document.save(bytes);
            return bytes.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The words of the QR code: the label, line by line. */
    String text(Label label) {
        return String.join(
                "\n",
                label.registration(),
                String.join(", ", label.renewed()),
                "Renewed %s at %s".formatted(words.day(label.date()), words.km(label.km())),
                "Next due " + nextDue(label));
    }

    private String nextDue(Label label) {
        List<String> limits = new ArrayList<>();
        label.nextOn().ifPresent(d -> limits.add(words.day(d)));
        label.nextKm().ifPresent(km -> limits.add(words.km(km)));
        return limits.isEmpty() ? "no interval in the book" : String.join(" or ", limits);
    }

    private static void qr(PDPageContentStream out, String text, float x, float y) throws IOException {
        BitMatrix matrix;
        try {
            matrix = new QRCodeWriter()
                    .encode(
                            text,
                            BarcodeFormat.QR_CODE,
                            0,
                            0,
                            Map.of(
                                    EncodeHintType.CHARACTER_SET,
                                    "UTF-8",
                                    EncodeHintType.MARGIN,
                                    2,
                                    EncodeHintType.ERROR_CORRECTION,
                                    ErrorCorrectionLevel.M));
        } catch (WriterException e) {
            throw new IOException("the label's words do not fit a QR code", e);
        }
        float module = QR_SIZE / matrix.getWidth();
        for (int row = 0; row < matrix.getHeight(); row++) {
            for (int column = 0; column < matrix.getWidth(); column++) {
                if (matrix.get(column, row)) {
                    out.addRect(x + column * module, y + (matrix.getHeight() - 1 - row) * module, module, module);
                }
            }
        }
        out.fill();
    }
}
