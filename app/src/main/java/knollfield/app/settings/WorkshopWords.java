package knollfield.app.settings;

import java.math.BigDecimal;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import knollfield.core.due.Policy;

/** The workshop's figures in the words of Setup's log. */
final class WorkshopWords {

    private WorkshopWords() {}

    static Map<String, String> figures(Workshop w) {
        Policy p = w.policy();
        Map<String, String> figures = new LinkedHashMap<>();
        figures.put("Name", w.name());
        figures.put("Currency", w.currency());
        figures.put("Timing", timing(p.timing()));
        figures.put("Risk on an interference engine", percent(p.riskInterference()));
        figures.put("Risk on other engines", percent(p.riskOther()));
        figures.put("Horizon", p.horizonDays() + " days");
        figures.put(
                "Unknown history",
                p.unknownRule().name().toLowerCase(Locale.ROOT).replace('_', ' '));
        figures.put("A stated renewal counts", p.statedCounts() ? "yes" : "no");
        figures.put("Labour rate", money(w, w.labourRateMinor()));
        figures.put("Recovery", money(w, w.costs().recoveryMinor()));
        figures.put("A day off the road", money(w, w.costs().dayOffRoadMinor()));
        figures.put("Days off the road", Integer.toString(w.costs().daysOffRoad()));
        figures.put("Failed at the limits", percent(w.wear().shareFailedAtLimits()));
        figures.put("What goes in", w.school().words());
        figures.put("Seals", w.seals().words());
        figures.put("Shape of wear", number(w.wear().shape()));
        return figures;
    }

    static String number(double value) {
        return new DecimalFormat("#,##0.####", DecimalFormatSymbols.getInstance(Locale.UK)).format(value);
    }

    private static String percent(double share) {
        return number(100 * share) + " %";
    }

    private static String money(Workshop w, long minor) {
        return "%s %s"
                .formatted(
                        w.currency(),
                        BigDecimal.valueOf(minor, w.currencyDigits()).toPlainString());
    }

    private static String timing(Policy.Timing timing) {
        if (timing instanceof Policy.Timing.Early early) {
            return "early, " + percent(early.share());
        }
        if (timing instanceof Policy.Timing.Fixed) {
            Integer km = Timings.km(timing);
            Integer months = Timings.months(timing);
            return "fixed, " + (km == null ? "" : number(km) + " km ") + (months == null ? "" : months + " months");
        }
        return timing instanceof Policy.Timing.Careful ? "careful" : "book";
    }
}
