package knollfield.app.importing;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;

/**
 * A list as rows of cells.
 *
 * @param layout how the file was read
 * @param rows without those that hold nothing
 */
record Sheet(Layout layout, List<Row> rows) {

    /**
     * How a file is read.
     *
     * @param spreadsheet an .xlsx file: encoding and separator have no meaning
     * @param encoding name of the character set
     * @param separator between the cells of a line
     */
    record Layout(boolean spreadsheet, String encoding, char separator) {}

    /**
     * @param line of the file's own count, from 1: where the row begins
     * @param cells from the first column on
     */
    record Row(long line, List<Cell> cells) {
        Cell cell(int column) {
            return column < cells.size() ? cells.get(column) : Cell.EMPTY;
        }
    }

    /**
     * @param text as it stands there
     * @param number where the file itself says that it is a number
     * @param day where the file itself says that it is a day
     */
    record Cell(String text, Optional<BigDecimal> number, Optional<LocalDate> day) {
        static final Cell EMPTY = of("");

        static Cell of(String text) {
            return new Cell(text.strip(), Optional.empty(), Optional.empty());
        }

        boolean isEmpty() {
            return text.isEmpty();
        }
    }

    Sheet {
        rows = List.copyOf(rows);
    }
}
