package knollfield.app.month;

import java.time.YearMonth;
import java.util.ArrayList;
import java.util.List;
import knollfield.app.aftercare.StoredRecheck;
import knollfield.app.breakdown.Breakdown;
import knollfield.app.shared.Words;
import knollfield.core.completion.Became;
import knollfield.core.completion.Timeliness;
import knollfield.core.completion.WorkDone;
import knollfield.core.explain.Fact;
import knollfield.core.explain.Statement;
import org.springframework.stereotype.Component;

/** What a month came to, in words. */
@Component
class MonthWords {

    private final Words words;

    MonthWords(Words words) {
        this.words = words;
    }

    List<String> of(
            YearMonth month,
            List<MonthBooks.Signed> jobs,
            List<MonthBooks.No> noes,
            List<StoredRecheck> rechecks,
            List<Breakdown> broken,
            String currency) {
        List<Statement> said = new ArrayList<>();
        Fact name = new Fact.Words(words.month(month));
        if (jobs.isEmpty()) {
            said.add(Statement.of("No job was signed in {0}.", name));
        } else {
            said.add(Statement.of("Jobs signed in {0}: {1}.", name, new Fact.Count(jobs.size())));
            WorkDone.Sums sums = MonthBooks.sums(jobs);
            if (sums.renewals() > 0) {
                said.add(Statement.of(
                        "Renewals with a day to keep: {0}; done by it: {1}; only past a limit: {2}.",
                        new Fact.Count(sums.renewals()),
                        new Fact.Count(sums.of(Timeliness.BEFORE_ACT_BY)),
                        new Fact.Count(sums.of(Timeliness.AFTER_LIMIT))));
            }
            if (sums.counted() > 0) {
                said.add(Statement.of(
                        "They took {0}, by the book {1}.",
                        new Fact.Minutes(sums.takenMinutes()), new Fact.Minutes(sums.bookMinutes())));
            }
            if (sums.compared() > 0) {
                said.add(Statement.of(
                        "Estimated {0} before tax, came to {1}.",
                        new Fact.Money(sums.estimatedMinor()), new Fact.Money(sums.comparedMinor())));
            }
        }
        long again = jobs.stream().filter(s -> s.again().isPresent()).count();
        if (again > 0) {
            said.add(Statement.of("Jobs that came back: {0}.", new Fact.Count((int) again)));
        }
        if (!noes.isEmpty()) {
            said.add(Statement.of(
                    "Refusals by owners: {0}; still standing: {1}.",
                    new Fact.Count(noes.size()), new Fact.Count((int) noes.stream()
                            .filter(n -> n.became() == Became.STANDS)
                            .count())));
        }
        if (!rechecks.isEmpty()) {
            said.add(Statement.of(
                    "Rechecks due: {0}; looked at: {1}.",
                    new Fact.Count(rechecks.size()), new Fact.Count((int)
                            rechecks.stream().filter(r -> r.done().isPresent()).count())));
        }
        said.add(
                broken.isEmpty()
                        ? Statement.of("No drive broke down.")
                        : Statement.of("Drives that broke down: {0}.", new Fact.Count(broken.size())));
        return said.stream().map(s -> words.write(s, currency)).toList();
    }
}
