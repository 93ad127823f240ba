package knollfield.app.shared;

import java.math.BigDecimal;
import java.text.DecimalFormat;
import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.util.Currency;
import java.util.Locale;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;
import knollfield.core.units.DistanceUnit;
import org.springframework.stereotype.Component;

/** Writes core's statements and figures in the words and forms of the screen. */
@Component
public class Words {

    private static final DateTimeFormatter MONTH = DateTimeFormatter.ofPattern("MMM yyyy", Locale.UK);
    /** A day, such as 25 Nov 2026. */
    public static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.UK);

    /** A time of the workshop's day, such as 25 Nov 2026 14:30. */
    public static final DateTimeFormatter AT = DateTimeFormatter.ofPattern("d MMM yyyy HH:mm", Locale.UK);

    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("d MMM HH:mm", Locale.UK);

    private final Style style;

    Words(Style style) {
        this.style = style;
    }

    private DecimalFormat format(String pattern) {
        return new DecimalFormat(pattern, style.get().numbers().symbols());
    }

    /** {@code statement} as one sentence. */
    public String write(Statement statement, String currency) {
        return statement.written(fact -> figure(fact, currency));
    }

    /** Such as 25 Nov 2026. */
    public String day(LocalDate date) {
        return DAY.format(date);
    }

    /** Such as Nov 2026. */
    public String month(YearMonth month) {
        return MONTH.format(month);
    }

    /** Such as 138,000 km, or 85,749 mi where the workshop counts in miles; rounded to a whole one. */
    public String km(double km) {
        DistanceUnit unit = style.get().unit();
        return format("#,##0").format(Math.round(unit.fromKm(km)))
                + (unit == DistanceUnit.KM ? "\u00a0km" : "\u00a0mi");
    }

    /** A time of day in the workshop's zone, such as 25 Nov 14:30. */
    public String moment(Instant at) {
        return MOMENT.withZone(style.get().zone()).format(at);
    }

    /** A figure with its thousands parted, such as 64,785.3; not rounded. */
    public String plain(BigDecimal value) {
        return format("#,##0.############").format(value);
    }

    /** Such as €38.00. */
    public String money(long minor, String currency) {
        Currency unit = Currency.getInstance(currency);
        int digits = unit.getDefaultFractionDigits();
        String pattern = digits == 0 ? "#,##0" : "#,##0." + "0".repeat(digits);
        return unit.getSymbol(Locale.UK) + format(pattern).format(minor / Math.pow(10, digits));
    }

    private String figure(Fact fact, String currency) {
        if (fact instanceof Fact.Km f) {
            return km(f.km());
        } else if (fact instanceof Fact.Day f) {
            return day(f.date());
        } else if (fact instanceof Fact.Months f) {
            return f.months() + (f.months() == 1 ? "\u00a0month" : "\u00a0months");
        } else if (fact instanceof Fact.Minutes f) {
            return format("#,##0.0").format(f.minutes() / 60.0) + "\u00a0h";
        } else if (fact instanceof Fact.Money f) {
            return money(f.minor(), currency);
        } else if (fact instanceof Fact.Count f) {
            return format("#,##0").format(f.count());
        } else if (fact instanceof Fact.Share f) {
            return format("0.#").format(100 * f.share()) + "\u00a0%";
        } else if (fact instanceof Fact.Words f) {
            return f.words();
        }
        throw new IllegalStateException("unhandled figure " + fact);
    }
}
