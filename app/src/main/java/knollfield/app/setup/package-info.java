/** Where the manager changes policy, rates and people. */
@NullMarked
package knollfield.app.setup;

import org.jspecify.annotations.NullMarked;
