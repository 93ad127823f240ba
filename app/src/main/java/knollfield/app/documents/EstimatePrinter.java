package knollfield.app.documents;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.util.Locale;
import knollfield.app.shared.Words;
import knollfield.core.estimate.Estimate;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.springframework.stereotype.Component;

/** Sets an estimate on A4, as many pages as it takes. */
@Component
public class EstimatePrinter {

    private static final float HOURS = Pages.RIGHT - 62 * Pages.MM;
    private static final float PARTS = Pages.RIGHT - 32 * Pages.MM;

    private final Words words;
    private final Copies copies;

    EstimatePrinter(Words words, Copies copies) {
        this.words = words;
        this.copies = copies;
    }

    /** The pages. */
    public byte[] print(EstimateSheet sheet) {
        try (PDDocument document = new PDDocument()) {
            document.getDocumentInformation()
                    .setTitle("Estimate %d-%d, %s".formatted(sheet.job(), sheet.number(), sheet.registration()));
            try (Pages pages = new Pages(
                    document,
                    "%s. Estimate %d-%d, %s, %s"
                            .formatted(
                                    sheet.workshop(),
                                    sheet.job(),
                                    sheet.number(),
                                    sheet.registration(),
                                    copies.next("estimate %d-%d".formatted(sheet.job(), sheet.number()))))) {
                head(pages, sheet);
                table(pages, sheet);
                sums(pages, sheet);
                plain(pages, sheet);
                consent(pages);
            }
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            document.save(bytes);
            return bytes.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void head(Pages p, EstimateSheet s) throws IOException {
        p.text(p.head, 16, Pages.LEFT, "Estimate %d-%d".formatted(s.job(), s.number()));
        p.right(p.bold, Pages.TEXT, Pages.RIGHT, s.workshop());
        p.letterhead(s.letterhead());
        p.text(p.head, 13, Pages.LEFT, s.registration());
        p.right(p.plain, Pages.TEXT, Pages.RIGHT, words.day(s.madeOn()));
        p.down(14);
        p.text(p.plain, Pages.TEXT, Pages.LEFT, s.makeModel());
        p.right(p.bold, Pages.TEXT, Pages.RIGHT, "Valid until " + words.day(s.validUntil()));
        p.down(13);
        p.text(p.plain, Pages.TEXT, Pages.LEFT, "For " + s.owner());
        p.down(24);
    }

    private void table(Pages p, EstimateSheet s) throws IOException {
        p.text(p.bold, Pages.SMALL, Pages.LEFT, "Work and parts");
        p.right(p.bold, Pages.SMALL, HOURS, "Hours");
        p.right(p.bold, Pages.SMALL, PARTS, "Parts");
        p.right(p.bold, Pages.SMALL, Pages.RIGHT, "Likely, before tax");
        p.down(4);
        p.rule();
        p.down(13);
        for (Estimate.Line line : s.estimate().lines()) {
            p.room(13);
            String name = line.ownerSupplied() ? line.name() + " (your own part)" : line.name();
            p.text(p.plain, Pages.TEXT, Pages.LEFT, name);
            if (line.minutes() > 0) {
                p.right(p.plain, Pages.TEXT, HOURS, String.format(Locale.ROOT, "%.1f", line.minutes() / 60.0));
            }
            if (line.partsMinor() > 0) {
                p.right(p.plain, Pages.TEXT, PARTS, words.money(line.partsMinor(), s.currency()));
            }
            p.right(p.plain, Pages.TEXT, Pages.RIGHT, words.money(line.likelyMinor(), s.currency()));
            p.down(13);
        }
        p.down(-9);
        p.rule();
        p.down(15);
    }

    private void sums(Pages p, EstimateSheet s) throws IOException {
        Estimate e = s.estimate();
        p.room(60);
        sum(p, p.plain, "Before tax", words.money(e.netMinor(), s.currency()));
        String share =
                new DecimalFormat("0.##", DecimalFormatSymbols.getInstance(Locale.UK)).format(100 * e.taxShare());
        sum(p, p.plain, "Tax, %s %%".formatted(share), words.money(e.taxMinor(), s.currency()));
        sum(p, p.bold, "Total, likely", words.money(e.totalMinor(), s.currency()));
        p.right(
                p.plain,
                Pages.TEXT,
                Pages.RIGHT,
                "Between %s and %s"
                        .formatted(
                                words.money(e.lowTotalMinor(), s.currency()),
                                words.money(e.highTotalMinor(), s.currency())));
        p.down(14);
        p.down(12);
    }

    private static void sum(Pages p, PaperType.Face font, String label, String value) throws IOException {
        p.right(font, Pages.TEXT, PARTS, label);
        p.right(font, Pages.TEXT, Pages.RIGHT, value);
        p.down(14);
    }

    private void plain(Pages p, EstimateSheet s) throws IOException {
        for (String sentence : s.plain()) {
            p.paragraph(sentence);
        }
        if (s.estimate().lines().stream().anyMatch(Estimate.Line::ownerSupplied)) {
            p.paragraph("Parts you bring are fitted at your own risk: our warranty covers the work, not the part.");
        }
        p.paragraph(
                "The maker's instructions come first. What we find once it is open may add lines; we ask you before.");
        p.paragraph("Made by " + s.madeBy() + ".");
    }

    private void consent(Pages p) throws IOException {
        p.room(52);
        p.down(22);
        p.text(p.plain, Pages.TEXT, Pages.LEFT, "Agreed to all lines but these:");
        p.down(24);
        p.rule();
        p.down(11);
        p.text(p.plain, Pages.SMALL, Pages.LEFT, "Date, name, signature");
    }
}
