package knollfield.app.security;

import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;

/** Who is asking. */
@Component
public class CurrentPerson {

    private final PersonRepository people;

    CurrentPerson(PersonRepository people) {
        this.people = people;
    }

    /**
     * The signed-in person as on file now, so that a role taken away is away at once.
     *
     * @throws IllegalStateException where nobody is signed in
     */
    public Person get() {
        Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
        if (authentication == null || !(authentication.getPrincipal() instanceof Long id)) {
            throw new IllegalStateException("nobody is signed in");
        }
        return people.find(id)
                .filter(Person::active)
                .orElseThrow(() ->
                        new org.springframework.security.access.AccessDeniedException("this account is switched off"));
    }
}
