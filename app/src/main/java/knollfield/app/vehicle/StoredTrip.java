package knollfield.app.vehicle;

import java.time.LocalDate;
import java.util.Optional;
import knollfield.core.odometer.Projection.KnownTrip;

/** A journey to come, and the day it was cancelled if it was. */
public record StoredTrip(long id, KnownTrip trip, Optional<LocalDate> cancelledOn) {}
