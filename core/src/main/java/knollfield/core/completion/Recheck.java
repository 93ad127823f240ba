package knollfield.core.completion;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import knollfield.core.due.Evidence;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardState;

/**
 * Something to look at again after a job (rules.md section 10).
 *
 * @param due the day it is due
 */
public record Recheck(String what, LocalDate due) {

    /** Days after which a finding whose cause was left is looked at again; common practice, no source. */
    static final int CAUSE_LEFT_DAYS = 30;

    /**
     * What a card that was signed on {@code day} leaves to be looked at again, soonest first.
     *
     * @param stays findings that do not end with the job, see {@link Completion#stays}
     */
    public static List<Recheck> after(CardState card, LocalDate day, List<Evidence> stays) {
        List<Recheck> all = new ArrayList<>();
        if (card.levelIsDeferred()) {
            all.add(new Recheck("Coolant level, cold", day.plusDays(1)));
        }
        card.coolantShort().ifPresent(words -> all.add(new Recheck("Coolant: " + words, day.plusDays(1))));
        card.noted(CardEvent.RecheckAsked.class).forEach(r -> all.add(new Recheck(r.what(), day.plusDays(r.days()))));
        card.inspectionEnd()
                .ifPresent(d -> d.end()
                        .lookAgainMonths()
                        .ifPresent(months -> all.add(new Recheck(Completion.inWords(d), day.plusMonths(months)))));
        stays.forEach(e -> all.add(
                new Recheck(Completion.causeLeft(card.plan().basis().family(), e), day.plusDays(CAUSE_LEFT_DAYS))));
        all.sort(java.util.Comparator.comparing(Recheck::due));
        return List.copyOf(all);
    }
}
