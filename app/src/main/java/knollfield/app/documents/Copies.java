package knollfield.app.documents;

import knollfield.app.security.CurrentPerson;
import knollfield.app.shared.Words;
import knollfield.app.shared.WorkshopClock;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Numbers the copies of a paper, so that of two that lie side by side it can be told which came later. */
@Component
public class Copies {

    private final CopyRepository repository;
    private final CurrentPerson current;
    private final WorkshopClock clock;
    private final Words words;

    Copies(CopyRepository repository, CurrentPerson current, WorkshopClock clock, Words words) {
        this.repository = repository;
        this.current = current;
        this.clock = clock;
        this.words = words;
    }

    /**
     * What stands at the foot of the next copy, such as {@code copy 2, 29 Nov 14:30}.
     *
     * @param paper which it is, at most 60 characters
     */
    @Transactional
    public String next(String paper) {
        int copy = repository.next(paper, clock.instant(), current.get().name());
        return "copy %d, %s".formatted(copy, words.moment(clock.instant()));
    }
}
