/** What the workshop writes to owners: in which words, by what rule, to whom. */
@NullMarked
package knollfield.app.letters;

import org.jspecify.annotations.NullMarked;
