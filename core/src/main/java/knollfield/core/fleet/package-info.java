/** What comes due in a fleet, month by month. */
@NullMarked
package knollfield.core.fleet;

import org.jspecify.annotations.NullMarked;
