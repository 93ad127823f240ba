/** When the workshop and its people work. */
@NullMarked
package knollfield.app.hours;

import org.jspecify.annotations.NullMarked;
