/** Vehicles, their readings, renewals, evidence and conditions. */
@NullMarked
package knollfield.app.vehicle;

import org.jspecify.annotations.NullMarked;
