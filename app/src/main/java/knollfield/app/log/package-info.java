/** Every vehicle's log: who changed what, when, before and after. */
@NullMarked
package knollfield.app.log;

import org.jspecify.annotations.NullMarked;
