/**
 * How is this engine built? What there is, how it is held and what lies before what. It describes and orders nothing: in
 * which order a job is worked follows from it ({@code route}), and is proven on it ({@code dryrun}). docs/route.md, "The
 * book describes things".
 */
@NullMarked
package knollfield.core.engine.build;

import org.jspecify.annotations.NullMarked;
