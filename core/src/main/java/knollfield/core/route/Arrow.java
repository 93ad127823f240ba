package knollfield.core.route;

import knollfield.core.engine.work.Law;
import knollfield.core.engine.work.Operation;

/**
 * One operation comes before another.
 *
 * @param thing code of the thing in the book that says so
 * @param words why, in words that stand on the later one
 */
public record Arrow(Operation first, Operation then, Law law, String thing, String words) {}
