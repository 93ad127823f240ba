package knollfield.app.ahead;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import knollfield.app.ahead.AheadViews.CrossRow;
import knollfield.app.ahead.Crowd.Mark;
import knollfield.app.ahead.Crowd.Scene;
import knollfield.app.shared.Cells;
import knollfield.app.shared.Words;
import knollfield.core.due.ItemForecast.Binding;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;

/** The picture's twin in words, and its list as CSV. */
final class AheadWords {

    private AheadWords() {}

    static List<String> describe(Scene scene, long minutes, long money, String currency, Words writer) {
        List<Mark> crossers = scene.crossers();
        List<Statement> words = new ArrayList<>();
        Fact.Day date = new Fact.Day(scene.date());
        words.add(Statement.of(
                "{0} vehicles stand in the window on {1}; {2} are past a limit today already.",
                new Fact.Count(scene.size()), date, new Fact.Count(scene.past())));
        if (crossers.isEmpty()) {
            words.add(Statement.of("None crosses a limit between today and {0}.", date));
        } else {
            words.add(Statement.of(
                    "{0} cross a limit by {1}: {2} by distance, {3} by age; {4} of work, {5}.",
                    new Fact.Count(crossers.size()),
                    date,
                    new Fact.Count(Crowd.countAt(crossers, Binding.DISTANCE)),
                    new Fact.Count(Crowd.countAt(crossers, Binding.AGE)),
                    new Fact.Minutes((int) Math.min(Integer.MAX_VALUE, minutes)),
                    new Fact.Money(money)));
            Mark first = crossers.get(0);
            words.add(Statement.of(
                    "The first is {0}, on {1}.",
                    new Fact.Words(first.state().vehicle().registration()),
                    new Fact.Day(first.then().crosses().orElse(LocalDate.MAX))));
        }
        if (scene.without() > 0) {
            words.add(Statement.of(
                    "{0} have no limit or no known renewal and stand outside the window.",
                    new Fact.Count(scene.without())));
        }
        return words.stream().map(s -> writer.write(s, currency)).toList();
    }

    static String csv(List<CrossRow> rows, String currency) {
        String money = "_" + currency.toLowerCase(Locale.ROOT);
        int digits = Currency.getInstance(currency).getDefaultFractionDigits();
        return Cells.list(csv -> {
            Cells.print(
                    csv,
                    "registration",
                    "owner",
                    "fleet",
                    "make_model",
                    "status",
                    "limit",
                    "crosses",
                    "act_by",
                    "hours",
                    "price" + money);
            for (CrossRow r : rows) {
                Cells.print(
                        csv,
                        r.registration(),
                        r.ownerName(),
                        r.fleet(),
                        r.makeModel(),
                        r.statusWords(),
                        r.wall().name().toLowerCase(Locale.ROOT),
                        r.crosses(),
                        r.actBy(),
                        BigDecimal.valueOf(Math.round(r.minutes() / 6.0), 1),
                        BigDecimal.valueOf(r.moneyMinor(), digits));
            }
        });
    }
}
