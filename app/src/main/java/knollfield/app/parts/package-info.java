/** The catalogue of parts: what can be fitted as an item, in which grade, at what price, and when it is here. */
@NullMarked
package knollfield.app.parts;

import org.jspecify.annotations.NullMarked;
