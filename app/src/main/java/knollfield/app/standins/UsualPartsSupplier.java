package knollfield.app.standins;

import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import knollfield.app.parts.CatalogPart;
import knollfield.app.parts.PartsSupplier;
import org.springframework.stereotype.Component;

/**
 * Where no supplier is connected: nothing is known of their stock, parts take the catalogue's days and come with the next
 * delivery. Where the stand-in is chosen it invents stock from the part's number.
 */
@Component
class UsualPartsSupplier implements PartsSupplier {

    private static final int MOST_IN_STOCK = 5;

    private final Outside outside;

    UsualPartsSupplier(Outside outside) {
        this.outside = outside;
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

    private Quote quote(CatalogPart part, LocalDate today, int stock) {
        int days = stock > 0 ? 0 : part.leadDays();
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
