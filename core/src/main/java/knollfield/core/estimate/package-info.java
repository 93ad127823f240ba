/**
 * What will it cost, what was agreed, and what did it cost in the end? (rules.md section 6).
 */
@NullMarked
package knollfield.core.estimate;

import org.jspecify.annotations.NullMarked;
