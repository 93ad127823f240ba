/** The stores: parts in the house and on order, tool sets and where they are, what coming jobs need of both. */
@NullMarked
package knollfield.app.stores;

import org.jspecify.annotations.NullMarked;
