/** Lists of vehicles and readings as CSV (RFC 4180). */
@NullMarked
package knollfield.app.importing;

import org.jspecify.annotations.NullMarked;
