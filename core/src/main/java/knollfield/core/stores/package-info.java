/**
 * Are the parts here? What coming jobs need of the stores, what is short and by when to order it (rules.md section 11: no
 * start before parts are there).
 */
@NullMarked
package knollfield.core.stores;

import org.jspecify.annotations.NullMarked;
