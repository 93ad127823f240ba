/**
 * When and who? The board, its hard rules and its cost, and everything that is asked of it: a place, offers, a worked-out
 * plan, what if, why (rules.md section 11).
 *
 * <p>One board answers all of them. Time on it is counted in half-hour slots from {@link Ruler}'s first day, money in minor
 * units.
 */
@NullMarked
package knollfield.core.plan;

import org.jspecify.annotations.NullMarked;
