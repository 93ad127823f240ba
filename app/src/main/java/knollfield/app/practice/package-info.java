/** The trainer for apprentices, over HTTP: it gives rounds and scores them, and keeps nothing. */
@NullMarked
package knollfield.app.practice;

import org.jspecify.annotations.NullMarked;
