package knollfield.app.aftercare;

import java.time.LocalDate;

/** When something was settled, by whom, and how. */
public record Closed(LocalDate on, String by, String result) {}
