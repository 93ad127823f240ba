/** Each computation of the core over HTTP: takes everything it needs in the request and stores nothing. */
@NullMarked
package knollfield.app.calculation;

import org.jspecify.annotations.NullMarked;
