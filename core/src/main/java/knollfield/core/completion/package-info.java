/**
 * What follows from a finished job? Clocks that restart and the words of the label (rules.md section 10).
 */
@NullMarked
package knollfield.core.completion;

import org.jspecify.annotations.NullMarked;
