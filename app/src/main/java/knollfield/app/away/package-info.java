/** What is not there when it usually is: holidays, technicians, bays, tool sets, ferries. */
@NullMarked
package knollfield.app.away;

import org.jspecify.annotations.NullMarked;
