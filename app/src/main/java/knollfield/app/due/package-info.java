/** Forecasts of all vehicles, kept in memory and recomputed when something they depend on changes. */
@NullMarked
package knollfield.app.due;

import org.jspecify.annotations.NullMarked;
