/** The job card at the bench: its entries, what they do to the job, its pictures and its label. */
@NullMarked
package knollfield.app.job.card;

import org.jspecify.annotations.NullMarked;
