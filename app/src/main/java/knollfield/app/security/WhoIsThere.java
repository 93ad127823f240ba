package knollfield.app.security;

import java.util.Optional;
import knollfield.app.security.SignInViews.Me;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.Style;
import knollfield.app.shared.WorkshopClock;
import org.springframework.stereotype.Component;

/** Who is signed in, and what the screens need to know before anything else. */
@Component
class WhoIsThere {

    private final People people;
    private final WorkshopClock clock;
    private final WorkshopSettings settings;
    private final Style style;

    WhoIsThere(People people, WorkshopClock clock, WorkshopSettings settings, Style style) {
        this.people = people;
        this.clock = clock;
        this.settings = settings;
        this.style = style;
    }

    Me me(Optional<Person> person) {
        return new Me(
                person.map(Person::id).orElse(null),
                person.map(Person::name).orElse(null),
                person.map(Person::role).orElse(null),
                clock.today(),
                settings.get().name(),
                settings.get().currency(),
                settings.get().currencyDigits(),
                style.get().unit(),
                style.get().numbers(),
                style.get().zone().getId(),
                people.nobodyYet());
    }
}
