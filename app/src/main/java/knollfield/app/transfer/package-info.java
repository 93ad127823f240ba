/** Everything the workshop has, out as files and into an empty workshop again. */
@NullMarked
package knollfield.app.transfer;

import org.jspecify.annotations.NullMarked;
