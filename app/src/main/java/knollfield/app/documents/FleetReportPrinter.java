package knollfield.app.documents;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import knollfield.app.shared.Words;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.springframework.stereotype.Component;

/** Sets a fleet's report on A4, as many pages as it takes. */
@Component
public class FleetReportPrinter {

    private static final float SIZE = 9;
    private static final float[] MONTH = {0, 32, 52, 80, 100, 146};
    private static final float[] VEHICLE = {0, 30, 72, 102, 126, 150};
    private static final float WIDE = 170;

    private final Words words;
    private final Copies copies;

    FleetReportPrinter(Words words, Copies copies) {
        this.words = words;
        this.copies = copies;
    }

    /** The pages. */
    public byte[] print(FleetReport r) {
        try (PDDocument document = new PDDocument()) {
            document.getDocumentInformation().setTitle("What comes for " + r.fleet());
            try (Pages p = new Pages(
                    document,
                    "%s. What comes for %s, %s".formatted(r.workshop(), r.fleet(), copies.next("report " + r.id())))) {
                p.text(p.head, 16, Pages.LEFT, r.fleet());
                p.right(p.head, Pages.TEXT, Pages.RIGHT, r.workshop());
                p.letterhead(r.letterhead());
                p.text(p.plain, Pages.TEXT, Pages.LEFT, r.contact().isEmpty() ? "" : "For " + r.contact());
                p.right(p.plain, Pages.TEXT, Pages.RIGHT, words.day(r.on()));
                p.down(22);
                for (String sentence : r.words()) {
                    p.paragraph(sentence);
                }
                p.down(6);
                head(
                        p,
                        MONTH,
                        "Month",
                        "Vehicles",
                        "With a place",
                        "Hours",
                        "Likely, before tax",
                        "Days off, of spare");
                for (FleetReport.Month m : r.months()) {
                    row(
                            p,
                            MONTH,
                            m.month(),
                            Integer.toString(m.vehicles()),
                            Integer.toString(m.planned()),
                            m.hours(),
                            m.money(),
                            m.days());
                }
                p.down(14);
                head(p, VEHICLE, "Vehicle", "", "How it stands", "Act by", "Comes in", "Likely, before tax");
                for (FleetReport.Line v : r.vehicles()) {
                    row(p, VEHICLE, v.registration(), v.makeModel(), v.status(), v.actBy(), v.planned(), v.money());
                }
                p.down(6);
                p.paragraph("Act by is the day before which we would do it; the maker's limit comes later.");
            }
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            document.save(bytes);
            return bytes.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void head(Pages p, float[] columns, String... cells) throws IOException {
        p.room(40);
        p.row(p.bold, Pages.SMALL, cells(columns, cells));
        p.down(-6);
        p.rule();
        p.down(12);
    }

    private static void row(Pages p, float[] columns, String... cells) throws IOException {
        p.row(p.plain, SIZE, cells(columns, cells));
        p.down(1);
    }

    private static List<Pages.Cell> cells(float[] columns, String... cells) {
        Pages.Cell[] set = new Pages.Cell[cells.length];
        for (int i = 0; i < cells.length; i++) {
            float end = i + 1 < columns.length ? columns[i + 1] : WIDE;
            set[i] = new Pages.Cell(Pages.LEFT + columns[i] * Pages.MM, (end - columns[i] - 2) * Pages.MM, cells[i]);
        }
        return List.of(set);
    }
}
