/** The board: who does which job when; planning, offers and what if over the same rules of core. */
@NullMarked
package knollfield.app.board;

import org.jspecify.annotations.NullMarked;
