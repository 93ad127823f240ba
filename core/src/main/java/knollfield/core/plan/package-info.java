/**
 * When and who? The working calendar and the hard rules of a placement (rules.md section 11).
 */
@NullMarked
package knollfield.core.plan;

import org.jspecify.annotations.NullMarked;
