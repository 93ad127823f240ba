/**
 * The small sums of the bench: wrench, angle, belt tension, coolant, clearances (rules.md section 8). What follows from
 * teeth and throws stands in {@link knollfield.core.engine.TimingGeometry}.
 */
@NullMarked
package knollfield.core.calculator;

import org.jspecify.annotations.NullMarked;
