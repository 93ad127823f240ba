package knollfield.app.documents;

import java.io.IOException;
import java.io.InputStream;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.apache.fontbox.ttf.CmapLookup;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.ClassPathResource;

/**
 * The app's own type on paper, embedded as far as it is used: Latin, and by a second family Greek, Cyrillic and every accent.
 * Letters that neither has stand as a box, and the paper says so.
 */
final class PaperType {

    private static final int BOX = 0x25a1;
    private static final int QUESTION = '?';
    private static final int SAID = 12;

    final Face plain = new Face("SplineSans-Regular", "NotoSans-Regular");
    final Face bold = new Face("SplineSans-SemiBold", "NotoSans-SemiBold");
    final Face head = new Face("Archivo-SemiBold", "NotoSans-SemiBold");

    private final PDDocument document;
    private final Set<Integer> missing = new TreeSet<>();

    PaperType(PDDocument document) {
        this.document = document;
    }

    /** Letters within one font. */
    record Run(PDFont font, String text) {}

    private record Loaded(PDFont font, CmapLookup letters) {
        boolean has(int codePoint) {
            return letters.getGlyphId(codePoint) > 0;
        }
    }

    /** One weight; a letter is taken from the first of its fonts that has it. */
    final class Face {

        private final List<String> files;
        private final List<Loaded> loaded = new ArrayList<>();

        Face(String... files) {
            this.files = List.of(files);
        }

        /** Text as it is set, font by font. */
        List<Run> runs(String text) throws IOException {
            List<Run> runs = new ArrayList<>();
            StringBuilder run = new StringBuilder();
            PDFont font = font(0).font();
            for (int codePoint : composed(text).codePoints().toArray()) {
                int set = codePoint;
                Loaded of = with(codePoint);
                if (of == null) {
                    missing.add(codePoint);
                    of = with(BOX);
                    set = of == null ? QUESTION : BOX;
                    of = of == null ? font(0) : of;
                }
                if (!of.font().equals(font) && !run.isEmpty()) {
                    runs.add(new Run(font, run.toString()));
                    run.setLength(0);
                }
                font = of.font();
                run.appendCodePoint(set);
            }
            runs.add(new Run(font, run.toString()));
            return runs;
        }

        /** Points across at {@code size} points. */
        float width(float size, String text) throws IOException {
            float width = 0;
            for (Run run : runs(text)) {
                width += run.font().getStringWidth(run.text()) / 1000 * size;
            }
            return width;
        }

        private @Nullable Loaded with(int codePoint) throws IOException {
            for (int i = 0; i < files.size(); i++) {
                if (font(i).has(codePoint)) {
                    return font(i);
                }
            }
            return null;
        }

        /** Loaded only when a letter asks for it: the second family is ten times the first. */
        private Loaded font(int at) throws IOException {
            while (loaded.size() <= at) {
                loaded.add(load(files.get(loaded.size())));
            }
            return loaded.get(at);
        }
    }

    private Loaded load(String file) throws IOException {
        try (InputStream in = new ClassPathResource("fonts/" + file + ".ttf").getInputStream()) {
            // the document closes it when it is saved
            TrueTypeFont font = new TTFParser().parse(new RandomAccessReadBuffer(in));
            // ligatures are not found again by whoever searches the paper for a word
            font.setEnableGsub(false);
            return new Loaded(PDType0Font.load(document, font, true), font.getUnicodeCmapLookup());
        }
    }

    /** Accents with their letter, every kind of blank as a blank, and no control characters. */
    private static String composed(String text) {
        StringBuilder out = new StringBuilder();
        Normalizer.normalize(text, Normalizer.Form.NFC).codePoints().forEach(c -> {
            if (Character.isSpaceChar(c) || Character.isWhitespace(c)) {
                out.append(' ');
            } else if (!Character.isISOControl(c) && Character.getType(c) != Character.FORMAT) {
                out.appendCodePoint(c);
            }
        });
        return out.toString();
    }

    /** What is said of letters that stand as a box since this was last asked; empty where all could be set. */
    String takeMissingWords() {
        if (missing.isEmpty()) {
            return "";
        }
        String words = "Letters that this type has not, set as a box: "
                + missing.stream().limit(SAID).map(c -> "U+%04X".formatted(c)).collect(Collectors.joining(", "))
                + (missing.size() > SAID ? " and more." : ".");
        missing.clear();
        return words;
    }
}
