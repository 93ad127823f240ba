/** What a fleet's contact does for the own vehicles. */
@NullMarked
package knollfield.app.own;

import org.jspecify.annotations.NullMarked;
