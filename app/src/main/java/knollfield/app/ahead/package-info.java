/** All vehicles in one due window, scaled to their own limits: how the manager sees the winter coming. */
@NullMarked
package knollfield.app.ahead;

import org.jspecify.annotations.NullMarked;
