/** The board, and a fleet's promises, as calendar files and private feeds (RFC 5545). */
@NullMarked
package knollfield.app.calendar;

import org.jspecify.annotations.NullMarked;
