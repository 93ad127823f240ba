/**
 * When is it due, and why? Clocks per item, policy, evidence, status and reasons (rules.md sections 2 and 3).
 */
@NullMarked
package knollfield.core.due;

import org.jspecify.annotations.NullMarked;
