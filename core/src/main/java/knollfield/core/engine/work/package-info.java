/**
 * What is done to an engine: operations, what a job is for, and the state an engine is in. What lays a card and what
 * proves it share these words and the book, and nothing else (docs/route.md).
 */
@NullMarked
package knollfield.core.engine.work;

import org.jspecify.annotations.NullMarked;
