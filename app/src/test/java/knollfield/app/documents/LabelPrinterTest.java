package knollfield.app.documents;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import knollfield.app.Server;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

class LabelPrinterTest {

    @RegisterExtension
    static final Server SERVER = Server.empty();

    private static final LocalDate DAY = LocalDate.of(2026, 11, 25);

    private static String text(Label label) throws IOException {
        try (PDDocument document =
                Loader.loadPDF(SERVER.bean(LabelPrinter.class).print(label))) {
            assertThat(document.getNumberOfPages()).isEqualTo(1);
            // 90 × 50 mm in points of 1/72 inch
            assertThat(document.getPage(0).getMediaBox().getWidth()).isBetween(255f, 256f);
            assertThat(document.getPage(0).getMediaBox().getHeight()).isBetween(141f, 142f);
            return new PDFTextStripper().getText(document);
        }
    }

    @Test
    void saysWhatWhenWhereAndWhatComesFirst() throws IOException {
        String text = text(new Label(
                "Knollfield Garage",
                "SKR 122 F",
                List.of("Timing belt", "Tensioner", "Water pump"),
                DAY,
                138_000,
                Optional.of(DAY.plusYears(6)),
                OptionalInt.of(252_000)));

        assertThat(text)
                .contains(
                        "SKR 122 F",
                        "Renewed 25 Nov 2026",
                        "at 138,000 km",
                        "whichever first",
                        "25 Nov 2032 or 252,000 km",
                        "Knollfield Garage");
    }

    @Test
    void aLongListWrapsAndAChainIsDueByInspection() throws IOException {
        List<String> many = List.of(
                "Timing chain",
                "Chain tensioner",
                "Guides and arm",
                "Engine oil and filter",
                "Cam seals",
                "Crank seal");
        String text = text(new Label("G", "SKR 1 A", many, DAY, 10, Optional.empty(), OptionalInt.empty()));

        assertThat(text).contains("no interval in the book");
        assertThat(text.replace("\n", " ")).contains("Engine oil and filter", "Crank seal");
    }

    @Test
    void lettersOfEveryBundledScriptArePrintedAndWhatIsNotThereIsSaid() throws IOException {
        String text = text(new Label(
                "Гараж Ђурђевак, Συνεργείο",
                "ЖЯ 77 é off fi",
                List.of("Zahnriemen für Łódź, Ærø, İzmir, Ștefan, Đà Nẵng"),
                DAY,
                1,
                Optional.empty(),
                OptionalInt.of(120_000)));

        assertThat(text.replace("\n", " "))
                .contains("ЖЯ 77 é off fi", "Гараж Ђурђевак, Συνεργείο", "Łódź, Ærø, İzmir, Ștefan, Đà Nẵng")
                .doesNotContain("type has not");
        assertThat(text(new Label("G", "車 1", List.of("Belt"), DAY, 1, Optional.empty(), OptionalInt.empty())))
                .contains("type has not", "U+8ECA");
    }

    @Test
    void everyFontIsEmbeddedAndOnlyAsFarAsItIsUsed() throws IOException {
        byte[] pdf = SERVER.bean(LabelPrinter.class)
                .print(new Label("Гараж", "SKR 1", List.of("Belt"), DAY, 1, Optional.empty(), OptionalInt.empty()));
        assertThat(pdf.length).isLessThan(120_000);
        try (PDDocument document = Loader.loadPDF(pdf)) {
            for (COSName name : document.getPage(0).getResources().getFontNames()) {
                assertThat(document.getPage(0).getResources().getFont(name).isEmbedded())
                        .isTrue();
            }
        }
    }
}
