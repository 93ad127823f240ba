/** Odometer readings that come by themselves: pushed with a key, or as files dropped in a folder. */
@NullMarked
package knollfield.app.feed;

import org.jspecify.annotations.NullMarked;
