/**
 * What a policy would mean for the workshop's own vehicles: breakdowns, jobs, money and hours a year, jobs past the book
 * (rules.md section 4, marginal rule).
 */
@NullMarked
package knollfield.core.outlook;

import org.jspecify.annotations.NullMarked;
