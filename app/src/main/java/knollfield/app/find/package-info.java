/** The find box: everything a few letters can mean. */
@NullMarked
package knollfield.app.find;

import org.jspecify.annotations.NullMarked;
