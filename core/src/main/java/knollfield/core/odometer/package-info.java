/**
 * How far has it gone, how fast does it go, and when will it pass a distance? Readings, usage rate and
 * projection (rules.md section 1).
 */
@NullMarked
package knollfield.core.odometer;

import org.jspecify.annotations.NullMarked;
