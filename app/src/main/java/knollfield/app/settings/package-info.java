/** The workshop's policy, rates and planning assumptions. */
@NullMarked
package knollfield.app.settings;

import org.jspecify.annotations.NullMarked;
