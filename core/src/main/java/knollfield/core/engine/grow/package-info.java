/**
 * The written migration of a book of schema version 1, which lists steps and joints, into one that says how the engine is
 * built. What version 1 cannot say stays careful: not on file, held, counted.
 */
@NullMarked
package knollfield.core.engine.grow;

import org.jspecify.annotations.NullMarked;
