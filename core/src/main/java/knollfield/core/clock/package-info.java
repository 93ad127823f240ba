/** What has been used of a limit since a renewal, and when it is reached: one formula each, for all that ask. */
@NullMarked
package knollfield.core.clock;

import org.jspecify.annotations.NullMarked;
