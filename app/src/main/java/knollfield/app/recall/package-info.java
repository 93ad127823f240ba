/** Who has a part, a batch, a joint value or a version of the book. */
@NullMarked
package knollfield.app.recall;

import org.jspecify.annotations.NullMarked;
