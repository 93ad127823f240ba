/** Vehicles without an engine family, and what the workshop's rules say of them. */
@NullMarked
package knollfield.app.matching;

import org.jspecify.annotations.NullMarked;
