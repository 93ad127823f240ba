package knollfield.app.standins;

import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import knollfield.app.parts.CatalogPart;
import knollfield.app.parts.PartsSupplier;
import knollfield.app.shared.WorkshopClock;
import org.springframework.stereotype.Component;

/**
 * Where no supplier is connected: nothing is known of their stock, parts take the catalogue's days and come with the next
 * delivery. Where the stand-in is chosen it invents stock from the part's number.
 */
@Component
class UsualPartsSupplier implements PartsSupplier {

    private static final int MOST_IN_STOCK = 5;

    private final Outside outside;
    private final WorkshopClock clock;

    UsualPartsSupplier(Outside outside, WorkshopClock clock) {
        this.outside = outside;
        this.clock = clock;
    }

    @Override
    public List<Quote> ask(List<CatalogPart> parts, LocalDate today) {
        boolean standIn = outside.get().parts();
        return parts.stream()
                .map(p -> quote(p, today, standIn ? stock(p, today) : 0))
                .toList();
    }

    /** The same part has the same stock for a week, so that a plan made on Monday holds on Wednesday. */
    private static int stock(CatalogPart part, LocalDate today) {
        long week = today.toEpochDay() / 7;
        return new Random(part.number().hashCode() * 31L + week).nextInt(MOST_IN_STOCK + 1);
    }

    /** What is ordered after the day's cut-off is on its way a day later. */
    private Quote quote(CatalogPart part, LocalDate today, int stock) {
        boolean late = outside.get()
                .cutOff()
                .filter(c -> clock.now().toLocalTime().isAfter(c))
                .isPresent();
        int days = (stock > 0 ? 0 : part.leadDays()) + (late ? 1 : 0);
        return new Quote(part.number(), stock, part.priceMinor(), days, outside.deliveryAfter(today.plusDays(days)));
    }

    @Override
    public boolean hasDays() {
        return !outside.get().deliveryDays().isEmpty();
    }

    @Override
    public boolean deliversOn(LocalDate day) {
        return outside.deliversOn(day);
    }
}
