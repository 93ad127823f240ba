package knollfield.core.engine.build;

/**
 * An order this engine asks for that follows from nothing else in the book.
 *
 * @param first operation that comes first, written as verb:thing
 * @param then operation that comes after it
 * @param because why, in the book's words
 */
public record OwnOrder(String first, String then, String because) {}
