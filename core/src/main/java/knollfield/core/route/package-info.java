/**
 * What has to be done, and why there? The operations a job needs on an engine, what must come before what, laid in one line
 * (docs/route.md). It knows the book and not what proves its cards.
 */
@NullMarked
package knollfield.core.route;

import org.jspecify.annotations.NullMarked;
