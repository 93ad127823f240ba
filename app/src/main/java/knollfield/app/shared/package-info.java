/** What every feature uses: the workshop's clock, and words for the figures core computes. */
@NullMarked
package knollfield.app.shared;

import org.jspecify.annotations.NullMarked;
