/** The trainer for apprentices, over HTTP: it gives rounds and scores them, and keeps the scores of those who wish it. */
@NullMarked
package knollfield.app.practice;

import org.jspecify.annotations.NullMarked;
