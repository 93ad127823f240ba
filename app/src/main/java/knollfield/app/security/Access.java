package knollfield.app.security;

import static knollfield.app.security.Role.FLEET_CONTACT;
import static knollfield.app.security.Role.FRONT_DESK;
import static knollfield.app.security.Role.MANAGER;
import static knollfield.app.security.Role.TECHNICIAN;

import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpMethod;
import org.springframework.http.server.PathContainer;
import org.springframework.web.util.pattern.PathPattern;
import org.springframework.web.util.pattern.PathPatternParser;

/**
 * Who may call what: one table, read from the top; the first row that fits decides, and what no row fits is nobody's. It is
 * asked at every request with the person's role as on file at that moment. {@code docs/access.md} is printed from it.
 *
 * <p>What of a vehicle or job somebody may see is decided where it is read: a fleet contact finds only vehicles of the own
 * fleet, everything else is not found.
 */
final class Access {

    /**
     * Who a row is for.
     *
     * @param open whoever comes, signed in or not
     * @param roles of those signed in; empty where {@code open}
     */
    record Who(boolean open, Set<Role> roles) {

        boolean includes(Optional<Role> role) {
            return open || role.filter(roles::contains).isPresent();
        }
    }

    /**
     * @param methods HTTP methods; empty for all
     * @param paths patterns as Spring reads them
     */
    record Row(Set<HttpMethod> methods, List<PathPattern> paths, Who who) {

        boolean fits(HttpMethod method, String path) {
            PathContainer container = PathContainer.parsePath(path);
            return (methods.isEmpty() || methods.contains(method))
                    && paths.stream().anyMatch(p -> p.matches(container));
        }
    }

    private static final Set<HttpMethod> ANY = Set.of();
    private static final Set<HttpMethod> READ = Set.of(HttpMethod.GET);
    private static final Set<HttpMethod> ADD = Set.of(HttpMethod.POST);

    private static final Who ANYBODY = new Who(true, Set.of());
    private static final Who SIGNED_IN = new Who(false, EnumSet.allOf(Role.class));
    private static final Who HOUSE = roles(MANAGER, FRONT_DESK, TECHNICIAN);
    private static final Who OFFICE = roles(MANAGER, FRONT_DESK);
    private static final Who BENCH = roles(MANAGER, TECHNICIAN);
    private static final Who MANAGERS = roles(MANAGER);
    private static final Who CONTACTS = roles(FLEET_CONTACT);

    static final List<Row> TABLE = List.of(
            row(ANY, ANYBODY, "/api/me", "/api/sign-in", "/api/first-run"),
            row(READ, ANYBODY, "/api/openapi", "/api/health"),
            row(ANY, SIGNED_IN, "/api/sign-out", "/api/me/**"),
            // a secret address or key opens one thing each, for programs that cannot sign in
            row(READ, ANYBODY, "/api/feeds/*"),
            row(ADD, ANYBODY, "/api/readings", "/api/control/backup"),
            row(ANY, MANAGERS, "/api/setup/**"),
            row(ANY, OFFICE, "/api/imports/**"),
            // lists that carry customers away
            row(READ, roles(MANAGER, FRONT_DESK, FLEET_CONTACT), "/api/desk/list.csv", "/api/ahead/vehicles.csv"),
            row(READ, OFFICE, "/api/board/list.csv"),
            row(ANY, SIGNED_IN, "/api/desk/views/**"),
            row(READ, SIGNED_IN, "/api/desk/**", "/api/vehicles/**", "/api/find/**", "/api/fleets/**", "/api/ahead/**"),
            row(ANY, MANAGERS, "/api/fleets/**"),
            row(ANY, SIGNED_IN, "/api/calculations/**"),
            row(ADD, SIGNED_IN, "/api/vehicle-readings"),
            row(ANY, CONTACTS, "/api/own/**"),
            row(
                    ADD,
                    HOUSE,
                    "/api/vehicles/*/readings",
                    "/api/vehicles/*/evidence",
                    "/api/vehicles/*/breakdowns",
                    "/api/vehicles/*/fault-codes",
                    "/api/vehicles/*/aftercare/**"),
            // a vehicle's own policy is policy
            row(ANY, MANAGERS, "/api/vehicles/*/own-timing"),
            row(ANY, OFFICE, "/api/vehicles/**"),
            row(READ, HOUSE, "/api/jobs/*/card/photos/**", "/api/jobs/*/record/**", "/api/jobs/*/record.pdf"),
            row(ADD, HOUSE, "/api/jobs/*/card/owner-answer"),
            row(ANY, BENCH, "/api/jobs/*/card/**"),
            row(ANY, HOUSE, "/api/practice/**", "/api/practice-course"),
            row(READ, HOUSE, "/api/engines/**", "/api/parts/**"),
            row(ANY, MANAGERS, "/api/engines/**"),
            row(ANY, OFFICE, "/api/parts/**"),
            row(ANY, OFFICE, "/api/jobs/*/private-page/**"),
            row(READ, HOUSE, "/api/jobs/**"),
            row(ANY, OFFICE, "/api/jobs/**"),
            row(ADD, MANAGERS, "/api/owners/*/erasure"),
            row(
                    ANY,
                    OFFICE,
                    "/api/owners/**",
                    "/api/told/**",
                    "/api/month/**",
                    "/api/letters/**",
                    "/api/outbox/**",
                    "/api/silent-feeds",
                    "/api/notices",
                    "/api/recall/**"),
            row(ANY, MANAGERS, "/api/board/feeds/**"),
            row(READ, HOUSE, "/api/board/**", "/api/stores/**"),
            row(
                    ANY,
                    MANAGERS,
                    "/api/board/plan/**",
                    "/api/board/what-if/**",
                    "/api/board/absences/**",
                    "/api/board/fleets/**"),
            row(ANY, OFFICE, "/api/board/**", "/api/stores/**"));

    private Access() {}

    /** Who may; nobody where the table has no row. */
    static Who of(HttpMethod method, String path) {
        // HEAD is asked like the GET it stands for
        HttpMethod asked = method.equals(HttpMethod.HEAD) ? HttpMethod.GET : method;
        return TABLE.stream()
                .filter(r -> r.fits(asked, path))
                .map(Row::who)
                .findFirst()
                .orElse(new Who(false, Set.of()));
    }

    private static Who roles(Role... roles) {
        return new Who(false, Set.of(roles));
    }

    private static Row row(Set<HttpMethod> methods, Who who, String... paths) {
        return new Row(
                methods,
                List.of(paths).stream()
                        .map(PathPatternParser.defaultInstance::parse)
                        .toList(),
                who);
    }
}
