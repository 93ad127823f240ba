/** Devices and services outside the product: interfaces a real one could fill, and a small stand-in for each. */
@NullMarked
package knollfield.app.standins;

import org.jspecify.annotations.NullMarked;
