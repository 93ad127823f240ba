package knollfield.app.settings;

import java.net.URI;
import java.net.URISyntaxException;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Currency;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import knollfield.app.problem.Checks;
import knollfield.app.problem.Conflict;
import knollfield.app.shared.Style;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.event.ApplicationStartedEvent;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;

/** The workshop's name, address and ways of writing; what changes is in force at once, on screens and on paper. */
@Service
public class Houses {

    private static final int MOST_ADDRESS = 200;

    private final HouseRepository repository;
    private final WorkshopSettings settings;
    private final Style style;
    private final ApplicationEventPublisher events;
    private final AtomicReference<@Nullable House> known = new AtomicReference<>();

    Houses(HouseRepository repository, WorkshopSettings settings, Style style, ApplicationEventPublisher events) {
        this.repository = repository;
        this.settings = settings;
        this.style = style;
        this.events = events;
    }

    /** The details have changed. */
    public record HouseChanged() {}

    public House get() {
        House house = known.get();
        if (house == null) {
            house = repository.read();
            known.set(house);
        }
        return house;
    }

    @EventListener(ApplicationStartedEvent.class)
    void begin() {
        apply(new HouseChanged());
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    @Order(0)
    void apply(HouseChanged event) {
        known.set(null);
        House house = get();
        style.set(new Style.State(house.unit(), house.numbers(), house.zoneId()));
    }

    /**
     * Changes who the workshop is.
     *
     * @throws Conflict where somebody else changed it first
     */
    @Transactional
    public void change(String name, String currency, House next, Instant at) {
        new Checks()
                .text(name, 80, "/name", "The workshop's name")
                .that(currency(currency).isPresent(), "/currency", "Choose a currency by ISO 4217, such as EUR.")
                .that(
                        currency(currency)
                                .filter(c -> digits(c)
                                                != digits(Currency.getInstance(
                                                        settings.get().currency()))
                                        && repository.hasAmounts())
                                .isEmpty(),
                        "/currency",
                        "Its amounts have other decimals than those kept here; it can be chosen as long as there is no engine, part or vehicle.")
                .that(next.address().length() <= 300, "/address", "At most 300 characters.")
                .that(next.phone().length() <= 40, "/phone", "At most 40 characters.")
                .that(
                        next.email().isEmpty() || next.email().matches("[^@\\s]+@[^@\\s]+"),
                        "/email",
                        "An address for letters has an @, such as desk@workshop.example.")
                .that(next.email().length() <= 120, "/email", "At most 120 characters.")
                .that(next.taxNumber().length() <= 40, "/taxNumber", "At most 40 characters.")
                .that(
                        next.outsideAddress().isEmpty() || isReachable(next.outsideAddress()),
                        "/outsideAddress",
                        "An address with its scheme and nothing behind the name, such as https://garage.example.")
                .that(
                        next.zone().isEmpty() || isZone(next.zone()),
                        "/zone",
                        "\"%s\" is no time zone; choose one of the list.".formatted(next.zone()))
                .orThrow();
        if (!repository.update(next)) {
            throw new Conflict("%s changed the workshop's details first. Yours were not saved."
                    .formatted(repository.read().changedBy()));
        }
        settings.named(name.strip(), currency, next.changedBy(), at);
        events.publishEvent(new HouseChanged());
    }

    private static int digits(Currency currency) {
        return currency.getDefaultFractionDigits();
    }

    /** A currency that amounts can be kept in: gold, test codes and the like have no minor unit. */
    private static Optional<Currency> currency(String code) {
        return Currency.getAvailableCurrencies().stream()
                .filter(c -> c.getCurrencyCode().equals(code) && digits(c) >= 0)
                .findFirst();
    }

    /** A web address of a host, without anything behind it that an owner's page would be appended to. */
    private static boolean isReachable(String address) {
        try {
            URI uri = new URI(address);
            return address.length() <= MOST_ADDRESS
                    && ("https".equals(uri.getScheme()) || "http".equals(uri.getScheme()))
                    && uri.getHost() != null
                    && uri.getRawPath().isEmpty()
                    && uri.getRawQuery() == null
                    && uri.getRawFragment() == null
                    && uri.getUserInfo() == null;
        } catch (URISyntaxException e) {
            return false;
        }
    }

    private static boolean isZone(String zone) {
        try {
            ZoneId.of(zone);
            return true;
        } catch (DateTimeException e) {
            return false;
        }
    }
}
