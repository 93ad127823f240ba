/** Who must be told: owners whose promise was changed without them. */
@NullMarked
package knollfield.app.told;

import org.jspecify.annotations.NullMarked;
