/** Fleets: what comes due month by month, in hours, money and days off the road. */
@NullMarked
package knollfield.app.fleet;

import org.jspecify.annotations.NullMarked;
