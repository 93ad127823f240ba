/** Jobs: bundle, booking, job card, completion. */
@NullMarked
package knollfield.app.job;

import org.jspecify.annotations.NullMarked;
