/** Estimates of jobs, what their owners agree to, and what the jobs cost in the end. */
@NullMarked
package knollfield.app.estimate;

import org.jspecify.annotations.NullMarked;
