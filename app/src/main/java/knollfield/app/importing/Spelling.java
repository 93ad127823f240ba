package knollfield.app.importing;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** How a list writes its numbers and dates: read off the whole of it, so that one cell is not guessed by itself. */
final class Spelling {

    /** What stands before decimals; the other of the two parts thousands. */
    public enum NumberStyle {
        POINT('.', ','),
        COMMA(',', '.');

        private final char decimal;
        private final char grouping;

        NumberStyle(char decimal, char grouping) {
            this.decimal = decimal;
            this.grouping = grouping;
        }
    }

    /** What stands first in a date. */
    public enum DateOrder {
        DAY_FIRST,
        MONTH_FIRST,
        YEAR_FIRST
    }

    /**
     * What a cell says.
     *
     * @param unit the unit that stood with it, {@code km} or {@code mi}; empty for none
     */
    record Number(BigDecimal value, Optional<String> unit) {}

    /** A cell that cannot be read, in words that stand beside it. */
    static final class NotRead extends Exception {
        private static final long serialVersionUID = 1L;

        NotRead(String words) {
            super(words, null, false, false);
        }

        String words() {
            return String.valueOf(getMessage());
        }
    }

    private static final Pattern NUMBER =
            Pattern.compile("(?<before>[^\\d+\\-.,]*)(?<sign>[+-]?)(?<digits>[\\d.,]*\\d[\\d.,]*)(?<after>[^\\d.,]*)");
    private static final Set<String> MONEY =
            Set.of("€", "eur", "$", "usd", "£", "gbp", "chf", "kr", "nok", "sek", "dkk");
    private static final Set<String> KM = Set.of("km", "kms", "kilometres", "kilometers");
    private static final Set<String> MILES = Set.of("mi", "mile", "miles", "mls");
    private static final Pattern PARTS = Pattern.compile("(\\d{1,4})[-/. ]+(\\d{1,2})[-/. ]+(\\d{1,4})");
    private static final Pattern NAMED = Pattern.compile(
            "(\\d{1,2})\\.?[ -]?(\\p{L}{3,})\\.?[ ,-]*(\\d{4}|\\d{2})|(\\p{L}{3,})\\.? (\\d{1,2}),? (\\d{4})");
    private static final Pattern CLOCK = Pattern.compile("[T ]\\d{1,2}:\\d{2}(:\\d{2})?(\\.\\d+)?( ?[AaPp][Mm])?Z?$");
    private static final List<String> MONTHS =
            List.of("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec");
    /** Month names of other tongues that do not begin like the English ones. */
    private static final List<Set<String>> OTHER_MONTHS = List.of(
            Set.of("gen", "ene"),
            Set.of("fév", "fev"),
            Set.of("mär", "mrz", "maa"),
            Set.of("avr", "abr"),
            Set.of("mai", "maj", "mag"),
            Set.of("juin", "giu"),
            Set.of("juil", "lug"),
            Set.of("aoû", "aou", "ago"),
            Set.of("set"),
            Set.of("okt", "ott"),
            Set.of(),
            Set.of("dez", "déc", "dic"));

    private Spelling() {}

    private static String bare(String cell) {
        return cell.replaceAll("[\\s\\u00a0\\u2009\\u202f'’_]", "");
    }

    private static Optional<Matcher> number(String cell) {
        Matcher m = NUMBER.matcher(bare(cell).toLowerCase(Locale.ROOT));
        return m.matches() && known(m.group("before")) && known(m.group("after")) ? Optional.of(m) : Optional.empty();
    }

    private static boolean known(String word) {
        return word.isEmpty() || MONEY.contains(word) || KM.contains(word) || MILES.contains(word);
    }

    /**
     * The style that the cells prove; empty where they prove none: no cell has decimals, or none shows which mark they
     * stand behind.
     */
    static Optional<NumberStyle> style(Collection<String> cells) {
        int point = 0;
        int comma = 0;
        for (String cell : cells) {
            String digits = number(cell).map(m -> m.group("digits")).orElse("");
            int lastPoint = digits.lastIndexOf('.');
            int lastComma = digits.lastIndexOf(',');
            boolean both = lastPoint >= 0 && lastComma >= 0;
            if (both) {
                point += lastPoint > lastComma ? 1 : 0;
                comma += lastComma > lastPoint ? 1 : 0;
            } else if (lastPoint >= 0 || lastComma >= 0) {
                boolean isPoint = lastPoint >= 0;
                int at = Math.max(lastPoint, lastComma);
                boolean several = digits.indexOf(isPoint ? '.' : ',') != at;
                boolean three = digits.length() - at == 4;
                if (several) {
                    // it parts thousands, so that the other stands before decimals
                    point += isPoint ? 0 : 1;
                    comma += isPoint ? 1 : 0;
                } else if (!three || digits.startsWith("0") || at == 0 || at > 3) {
                    point += isPoint ? 1 : 0;
                    comma += isPoint ? 0 : 1;
                }
            }
        }
        if (point == comma) {
            return Optional.empty();
        }
        return Optional.of(point > comma ? NumberStyle.POINT : NumberStyle.COMMA);
    }

    /**
     * The number in a cell.
     *
     * @param style how the list writes numbers; empty where nothing proved it: a single mark with three digits behind it
     *     then parts thousands
     * @param decimals digits that such a value may have behind the mark
     */
    static Number number(String cell, Optional<NumberStyle> style, int decimals) throws NotRead {
        Matcher m = number(cell).orElseThrow(() -> new NotRead("\"%s\" is not a number.".formatted(cell.strip())));
        String digits = m.group("digits");
        boolean hasPoint = digits.indexOf('.') >= 0;
        boolean hasComma = digits.indexOf(',') >= 0;
        NumberStyle used = style.orElseGet(() -> ofItself(digits, decimals));
        if (hasPoint && hasComma) {
            used = digits.lastIndexOf('.') > digits.lastIndexOf(',') ? NumberStyle.POINT : NumberStyle.COMMA;
        }
        int at = digits.lastIndexOf(used.decimal);
        String whole = at < 0 ? digits : digits.substring(0, at);
        String fraction = at < 0 ? "" : digits.substring(at + 1);
        boolean grouped = whole.indexOf(used.grouping) >= 0;
        boolean good = (at < 0 || !fraction.isEmpty())
                && fraction.chars().allMatch(Character::isDigit)
                && (grouped
                        ? whole.matches("[1-9]\\d{0,2}(\\%c\\d{3})+".formatted(used.grouping))
                        : whole.chars().allMatch(Character::isDigit));
        if (!good) {
            throw new NotRead("\"%s\" is not a number as this list writes them.".formatted(cell.strip()));
        }
        String trimmed = fraction.replaceFirst("0+$", "");
        if (trimmed.length() > decimals) {
            throw new NotRead(
                    fraction.length() == 3 && !whole.isEmpty()
                            ? "\"%s\" can be read in two ways; say above what stands before decimals."
                                    .formatted(cell.strip())
                            : "\"%s\" has more decimals than such a figure has.".formatted(cell.strip()));
        }
        String plain = whole.replace(String.valueOf(used.grouping), "");
        BigDecimal value = new BigDecimal((plain.isEmpty() ? "0" : plain) + (trimmed.isEmpty() ? "" : "." + trimmed));
        return new Number(
                m.group("sign").equals("-") ? value.negate() : value,
                unit(m.group("after")).or(() -> unit(m.group("before"))));
    }

    /** A cell whose list proves nothing: one mark with three digits behind it parts thousands where decimals are fewer. */
    private static NumberStyle ofItself(String digits, int decimals) {
        int point = digits.lastIndexOf('.');
        int comma = digits.lastIndexOf(',');
        int at = Math.max(point, comma);
        boolean three = at > 0 && digits.length() - at == 4 && at <= 3 && !digits.startsWith("0");
        boolean several = at >= 0 && digits.indexOf(digits.charAt(at)) != at;
        boolean parts = several || (three && decimals < 3);
        boolean isPoint = point >= 0 && point == at;
        return isPoint == parts ? NumberStyle.COMMA : NumberStyle.POINT;
    }

    private static Optional<String> unit(String word) {
        return KM.contains(word) ? Optional.of("km") : MILES.contains(word) ? Optional.of("mi") : Optional.empty();
    }

    /** The order that the cells prove; empty where every one of them can be read either way. */
    static Optional<DateOrder> order(Collection<String> cells) {
        boolean points = false;
        int year = 0;
        int day = 0;
        int month = 0;
        for (String cell : cells) {
            Matcher m = PARTS.matcher(day(cell));
            if (m.matches()) {
                points |= cell.contains(".");
                int first = Integer.parseInt(m.group(1));
                int second = Integer.parseInt(m.group(2));
                year += m.group(1).length() == 4 ? 1 : 0;
                day += m.group(1).length() <= 2 && first > 12 ? 1 : 0;
                month += m.group(1).length() <= 2 && second > 12 ? 1 : 0;
            }
        }
        if (year > day + month) {
            return Optional.of(DateOrder.YEAR_FIRST);
        }
        if (day != month) {
            return Optional.of(day > month ? DateOrder.DAY_FIRST : DateOrder.MONTH_FIRST);
        }
        // where points part it, the day stands first
        return points ? Optional.of(DateOrder.DAY_FIRST) : Optional.empty();
    }

    private static String day(String cell) {
        return CLOCK.matcher(cell.strip()).replaceFirst("").strip();
    }

    /** True for what looks like a date. */
    static boolean looksLikeDate(String cell) {
        return PARTS.matcher(day(cell)).matches()
                || NAMED.matcher(day(cell).toLowerCase(Locale.ROOT)).matches();
    }

    /** True for what looks like a number. */
    static boolean looksLikeNumber(String cell) {
        return number(cell).isPresent();
    }

    /**
     * The day in a cell; a time of day behind it is left aside.
     *
     * @param order what stands first where the cell itself does not say; empty where the list proves nothing: a day that
     *     could be two is then not read
     */
    static LocalDate date(String cell, Optional<DateOrder> order, LocalDate today) throws NotRead {
        String text = day(cell).toLowerCase(Locale.ROOT);
        Matcher m = PARTS.matcher(text);
        if (text.matches("\\d{8}")) {
            m = PARTS.matcher("%s-%s-%s".formatted(text.substring(0, 4), text.substring(4, 6), text.substring(6)));
        }
        Matcher named = NAMED.matcher(text);
        try {
            if (named.matches()) {
                boolean dayFirst = named.group(1) != null;
                return LocalDate.of(
                        year(dayFirst ? named.group(3) : named.group(6), today),
                        month(dayFirst ? named.group(2) : named.group(4), cell),
                        Integer.parseInt(dayFirst ? named.group(1) : named.group(5)));
            }
            if (!m.matches()) {
                throw new NotRead("\"%s\" is not a date.".formatted(cell.strip()));
            }
            if (m.group(1).length() > 2) {
                return LocalDate.of(
                        Integer.parseInt(m.group(1)), Integer.parseInt(m.group(2)), Integer.parseInt(m.group(3)));
            }
            int year = year(m.group(3), today);
            int first = Integer.parseInt(m.group(1));
            int second = Integer.parseInt(m.group(2));
            boolean proven = order.filter(o -> o != DateOrder.YEAR_FIRST).isPresent();
            if (!proven && first <= 12 && second <= 12 && first != second) {
                throw new NotRead("\"%s\" can be read in two ways; say above whether the day or the month stands first."
                        .formatted(cell.strip()));
            }
            boolean monthFirst = order.equals(Optional.of(DateOrder.MONTH_FIRST)) || (!proven && second > 12);
            return monthFirst ? LocalDate.of(year, first, second) : LocalDate.of(year, second, first);
        } catch (DateTimeException e) {
            throw new NotRead("There is no day \"%s\" in the order this list writes dates.".formatted(cell.strip()));
        }
    }

    /** Two digits are of this century up to ten years from now, else of the one before. */
    private static int year(String digits, LocalDate today) {
        int year = Integer.parseInt(digits);
        if (digits.length() > 2) {
            return year;
        }
        int here = today.getYear() - today.getYear() % 100 + year;
        return here > today.getYear() + 10 ? here - 100 : here;
    }

    private static int month(String word, String cell) throws NotRead {
        for (int i = 0; i < MONTHS.size(); i++) {
            Predicate<String> begins = word::startsWith;
            if (begins.test(MONTHS.get(i)) || OTHER_MONTHS.get(i).stream().anyMatch(begins)) {
                return i + 1;
            }
        }
        throw new NotRead("\"%s\" is not a date.".formatted(cell.strip()));
    }
}
