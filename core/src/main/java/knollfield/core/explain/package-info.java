/** How core explains itself: sentences whose figures are data, so that a screen can write them in its own unit. */
@NullMarked
package knollfield.core.explain;

import org.jspecify.annotations.NullMarked;
