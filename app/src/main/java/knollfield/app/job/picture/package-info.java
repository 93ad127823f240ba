/** Pictures of a job, made small and kept. */
@NullMarked
package knollfield.app.job.picture;

import org.jspecify.annotations.NullMarked;
