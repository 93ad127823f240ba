/**
 * Which kind of engine is it like? Twelve kinds of timing drive as builds to begin a book from: a family of one's own starts
 * as a copy of the kind it is like. Figures in them are examples; a workshop writes in its own.
 */
@NullMarked
package knollfield.core.kinds;

import org.jspecify.annotations.NullMarked;
