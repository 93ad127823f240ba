/** Which engine family a vehicle has, by what the workshop writes of it. */
@NullMarked
package knollfield.core.matching;

import org.jspecify.annotations.NullMarked;
