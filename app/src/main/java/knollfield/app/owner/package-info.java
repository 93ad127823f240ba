/** Owners on their own page: what is on file, their vehicles, and records that were one owner, or two. */
@NullMarked
package knollfield.app.owner;

import org.jspecify.annotations.NullMarked;
