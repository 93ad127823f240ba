/** Knollfield's server: features over HTTP, data in H2, documents. */
@NullMarked
package knollfield.app;

import org.jspecify.annotations.NullMarked;
