package knollfield.app.parts;

import java.time.LocalDate;
import java.util.List;

/** Somebody who sells parts; the simulated one ships, a real one can take its place. */
public interface PartsSupplier {

    /**
     * An answer about one part.
     *
     * @param stock pieces the supplier has
     * @param priceMinor today, minor units
     * @param daysToSend days from an order until the part is on its way; zero where it is in stock
     * @param here the day it is in the workshop if ordered today
     */
    record Quote(String number, int stock, long priceMinor, int daysToSend, LocalDate here) {}

    /** An answer for each of {@code parts}, in their order. */
    List<Quote> ask(List<CatalogPart> parts, LocalDate today);

    /** True where parts come on named days only; else on any working day. */
    boolean hasDays();

    /** True where deliveries reach the workshop on {@code day}. */
    boolean deliversOn(LocalDate day);
}
