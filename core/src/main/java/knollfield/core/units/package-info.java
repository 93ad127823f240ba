/**
 * Quantities of the job and their exact conversions (rules.md, opening; NIST SP 811).
 */
@NullMarked
package knollfield.core.units;

import org.jspecify.annotations.NullMarked;
