/** What a signed job leaves to be looked at again, and what was found beside it. */
@NullMarked
package knollfield.app.aftercare;

import org.jspecify.annotations.NullMarked;
