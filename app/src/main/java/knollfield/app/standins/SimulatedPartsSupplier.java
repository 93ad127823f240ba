package knollfield.app.standins;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import knollfield.app.parts.CatalogPart;
import knollfield.app.parts.PartsSupplier;
import org.springframework.stereotype.Component;

/** Invents stock from the part's number; its parts come with the ferry, on Tuesdays and Fridays. */
@Component
class SimulatedPartsSupplier implements PartsSupplier {

    private static final Set<DayOfWeek> FERRY = EnumSet.of(DayOfWeek.TUESDAY, DayOfWeek.FRIDAY);
    private static final int MOST_IN_STOCK = 5;

    @Override
    public List<Quote> ask(List<CatalogPart> parts, LocalDate today) {
        return parts.stream().map(p -> quote(p, today)).toList();
    }

    private static Quote quote(CatalogPart part, LocalDate today) {
        // the same part has the same stock for a week, so that a plan made on Monday holds on Wednesday
        long week = today.toEpochDay() / 7;
        Random random = new Random(part.number().hashCode() * 31L + week);
        int stock = random.nextInt(MOST_IN_STOCK + 1);
        int days = stock > 0 ? 0 : part.leadDays();
        return new Quote(part.number(), stock, part.priceMinor(), days, nextFerry(today.plusDays(days)));
    }

    @Override
    public boolean deliversOn(LocalDate day) {
        return FERRY.contains(day.getDayOfWeek());
    }

    /** The first ferry after the day the part is sent. */
    static LocalDate nextFerry(LocalDate sent) {
        LocalDate day = sent.plusDays(1);
        while (!FERRY.contains(day.getDayOfWeek())) {
            day = day.plusDays(1);
        }
        return day;
    }
}
