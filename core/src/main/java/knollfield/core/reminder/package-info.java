/** Which owners are written to about work that comes due, and which are not, and why. */
@NullMarked
package knollfield.core.reminder;

import org.jspecify.annotations.NullMarked;
