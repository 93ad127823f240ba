/**
 * What the workshop's own breakdowns teach about wear: lives of belts and chains, expected against happened, and the
 * assumptions they speak for (rules.md section 4, learning from breakdowns).
 */
@NullMarked
package knollfield.core.learn;

import org.jspecify.annotations.NullMarked;
