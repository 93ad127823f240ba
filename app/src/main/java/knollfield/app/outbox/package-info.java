/** Letters and messages on their way out: each goes once, what fails is tried again and then shown. */
@NullMarked
package knollfield.app.outbox;

import org.jspecify.annotations.NullMarked;
