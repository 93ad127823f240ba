package knollfield.core.completion;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import knollfield.core.jobcard.CardEvent;
import knollfield.core.jobcard.CardState;

/**
 * Something to look at again after a job (rules.md section 10).
 *
 * @param due the day it is due
 */
public record Recheck(String what, LocalDate due) {

    /** What a card that was signed on {@code day} leaves to be looked at again, soonest first. */
    public static List<Recheck> after(CardState card, LocalDate day) {
        List<Recheck> all = new ArrayList<>();
        if (card.levelIsDeferred()) {
            all.add(new Recheck("Coolant level, cold", day.plusDays(1)));
        }
        card.coolantShort().ifPresent(words -> all.add(new Recheck("Coolant: " + words, day.plusDays(1))));
        card.noted(CardEvent.RecheckAsked.class).forEach(r -> all.add(new Recheck(r.what(), day.plusDays(r.days()))));
        all.sort(java.util.Comparator.comparing(Recheck::due));
        return List.copyOf(all);
    }
}
