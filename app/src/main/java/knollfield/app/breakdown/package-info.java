/** Belts and chains that failed: noted, told in the vehicle's story, and learned from. */
@NullMarked
package knollfield.app.breakdown;

import org.jspecify.annotations.NullMarked;
