/**
 * Would it work? A small engine that obeys physics: it takes a card operation by operation and refuses what cannot or must
 * not be done (docs/route.md, "The laws"). It reads the book and the operations, never how a card was laid.
 */
@NullMarked
package knollfield.core.dryrun;

import org.jspecify.annotations.NullMarked;
