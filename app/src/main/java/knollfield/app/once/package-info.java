/** The same request sent twice is done once. */
@NullMarked
package knollfield.app.once;

import org.jspecify.annotations.NullMarked;
