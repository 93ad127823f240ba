package knollfield.app.security;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.authentication.preauth.PreAuthenticatedAuthenticationToken;
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
     * @throws IllegalStateException where nobody is signed in, and nobody acts by {@link #as}
     */
    public Person get() {
        Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
        if (authentication != null && authentication.getPrincipal() instanceof Person outside) {
            return outside;
        }
        if (authentication == null || !(authentication.getPrincipal() instanceof Long id)) {
            throw new IllegalStateException("nobody is signed in");
        }
        return people.find(id)
                .filter(Person::active)
                .orElseThrow(() ->
                        new org.springframework.security.access.AccessDeniedException("this account is switched off"));
    }

    /**
     * What whoever asks is told of who did something: inside the house the name that was noted; outside only names of the
     * own fleet, as who works here is nobody's business there.
     */
    public UnaryOperator<String> names() {
        Person asks = get();
        if (!asks.isOutside()) {
            return UnaryOperator.identity();
        }
        Set<String> own = people.all().stream()
                .filter(p -> p.fleetId().isPresent() && p.fleetId().equals(asks.fleetId()))
                .map(Person::name)
                .collect(Collectors.toSet());
        return name -> own.contains(name) ? name : "the workshop";
    }

    /** The name that stands in a log; empty where the server itself acts, as at its first start. */
    public String nameOrNone() {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        boolean somebody = who != null && (who.getPrincipal() instanceof Long || who.getPrincipal() instanceof Person);
        return somebody ? get().name() : "";
    }

    /**
     * Does something in the name of somebody without an account, who is allowed nothing but that.
     *
     * @param name stands in the logs
     */
    public <T> T as(String name, Supplier<T> deed) {
        return as(Person.withoutAccount(name, Optional.empty()), deed);
    }

    /** The same for somebody who speaks for one fleet and sees its vehicles alone. */
    public <T> T asFleet(String name, long fleetId, Supplier<T> deed) {
        return as(Person.withoutAccount(name, Optional.of(fleetId)), deed);
    }

    private static <T> T as(Person person, Supplier<T> deed) {
        SecurityContext before = SecurityContextHolder.getContext();
        SecurityContext outside = SecurityContextHolder.createEmptyContext();
        outside.setAuthentication(new PreAuthenticatedAuthenticationToken(person, "", List.of()));
        SecurityContextHolder.setContext(outside);
        try {
            return deed.get();
        } finally {
            SecurityContextHolder.setContext(before);
        }
    }
}
