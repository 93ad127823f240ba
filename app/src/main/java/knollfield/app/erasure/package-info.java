/** What an owner may ask for of the data kept of them: a copy, and that they go. */
@NullMarked
package knollfield.app.erasure;

import org.jspecify.annotations.NullMarked;
