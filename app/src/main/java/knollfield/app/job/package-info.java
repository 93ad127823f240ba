/** Jobs: what they take with them, scope, booking. The card is in {@code card}, its pictures in {@code picture}. */
@NullMarked
package knollfield.app.job;

import org.jspecify.annotations.NullMarked;
