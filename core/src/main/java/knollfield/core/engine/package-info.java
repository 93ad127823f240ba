/**
 * What is this engine? The family's book: items, limits, access steps, joints, belt path (rules.md
 * sections 5 and 7; procedure.md, "What the family's book must be able to say").
 */
@NullMarked
package knollfield.core.engine;

import org.jspecify.annotations.NullMarked;
