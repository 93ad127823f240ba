/**
 * What happens at the bench? Generated cards, steps, gates, measurements, events (rules.md sections 8 and 9;
 * procedure.md).
 */
@NullMarked
package knollfield.core.jobcard;

import org.jspecify.annotations.NullMarked;
