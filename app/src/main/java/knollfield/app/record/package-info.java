/** What was done, told with its proof: the record of a job, and a vehicle's story. */
@NullMarked
package knollfield.app.record;

import org.jspecify.annotations.NullMarked;
