package knollfield.bench.proving;

import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Draws frontiers, one panel a law, as SVG. */
final class Picture {

    private static final int WIDTH = 420;
    private static final int HEIGHT = 300;
    private static final String[] INKS = {
        "#7E867F", "#47524D", "#2D6790", "#2D6790", "#8F5C00", "#AD3E3A", "#5F6A64", "#0E5347", "#053B33"
    };
    private static final String[] DASHES = {"2 3", "6 3", "1 2", "10 3", "", "8 2 2 2", "4 4", "3 1", ""};

    private final StringBuilder svg = new StringBuilder();
    private int panels;

    /** A point of a line. */
    record Point(double cost, double breakdowns) {}

    /** @param lines by name, in the same order for every panel */
    void panel(String title, Map<String, List<Point>> lines) {
        List<Point> all = lines.values().stream().flatMap(List::stream).toList();
        double left = all.stream().mapToDouble(Point::cost).min().orElseThrow();
        double right = all.stream().mapToDouble(Point::cost).max().orElseThrow();
        double top = all.stream().mapToDouble(Point::breakdowns).max().orElseThrow();
        int x0 = 60 + panels * (WIDTH + 90);
        add("<g transform='translate(%d,60)'>", x0);
        add("<text y='-24' font-weight='600'>%s</text>", title);
        add("<path d='M0,0V%d H%d' fill='none' stroke='#18211E'/>", HEIGHT, WIDTH);
        for (int i = 0; i <= 4; i++) {
            double cost = left + (right - left) * i / 4;
            double broken = top * i / 4;
            add(
                    "<text x='%.1f' y='%d' text-anchor='middle'>%.0f</text>",
                    (double) WIDTH * i / 4, HEIGHT + 18, cost / 1_000);
            add("<text x='-8' y='%.1f' text-anchor='end'>%.0f</text>", HEIGHT - HEIGHT * broken / top + 4, broken);
        }
        add("<text x='%d' y='%d' text-anchor='end'>money, thousands in ten years</text>", WIDTH, HEIGHT + 36);
        add("<text x='-50' y='-8'>breakdowns</text>");
        int i = 0;
        for (List<Point> line : lines.values()) {
            StringBuilder path = new StringBuilder();
            for (Point p : line) {
                double x = (p.cost() - left) / (right - left) * WIDTH;
                double y = HEIGHT - HEIGHT * p.breakdowns() / top;
                path.append(String.format(Locale.ROOT, "%s%.1f,%.1f", path.length() == 0 ? "M" : "L", x, y));
                add("<circle cx='%.1f' cy='%.1f' r='2.5' fill='%s'/>", x, y, INKS[i]);
            }
            add(
                    "<path d='%s' fill='none' stroke='%s' stroke-width='1.5' stroke-dasharray='%s'/>",
                    path, INKS[i], DASHES[i]);
            i++;
        }
        add("</g>");
        panels++;
    }

    String svg(Iterable<String> names) {
        StringBuilder key = new StringBuilder();
        int i = 0;
        for (String name : names) {
            int x = 60 + i % 4 * 370;
            int y = 60 + HEIGHT + 62 + i / 4 * 22;
            key.append(String.format(
                    Locale.ROOT,
                    "<path d='M%d,%dh30' stroke='%s' stroke-width='1.5' stroke-dasharray='%s'/>"
                            + "<text x='%d' y='%d'>%s</text>%n",
                    x,
                    y - 4,
                    INKS[i],
                    DASHES[i],
                    x + 38,
                    y,
                    name));
            i++;
        }
        int width = 60 + panels * (WIDTH + 90);
        int height = 60 + HEIGHT + 120;
        return String.format(
                        Locale.ROOT,
                        "<svg xmlns='http://www.w3.org/2000/svg' width='%d' height='%d' viewBox='0 0 %d %d'"
                                + " font-family='sans-serif' font-size='12' fill='#18211E'>%n"
                                + "<rect width='100%%' height='100%%' fill='#FBFAF5'/>%n",
                        width,
                        height,
                        width,
                        height)
                + svg
                + key
                + "</svg>\n";
    }

    private void add(String format, Object... values) {
        svg.append(String.format(Locale.ROOT, format, values)).append('\n');
    }
}
