/**
 * What may waiting cost? Chance of failure, consequence, exposure (rules.md section 4).
 */
@NullMarked
package knollfield.core.risk;

import org.jspecify.annotations.NullMarked;
