/**
 * Orders of work written in short signs, and what the dry run makes of them: an independent check of the laws, by people
 * who know the work (docs/route.md, "How one knows").
 */
@NullMarked
package knollfield.core.dryrun.orders;

import org.jspecify.annotations.NullMarked;
