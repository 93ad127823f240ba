/** Which vehicle is this? Identification numbers and their check. */
@NullMarked
package knollfield.core.identity;

import org.jspecify.annotations.NullMarked;
