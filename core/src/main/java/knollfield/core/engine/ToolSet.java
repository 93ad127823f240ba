package knollfield.core.engine;

import java.util.List;

/**
 * The locking tools a family needs.
 *
 * @param pieces the very pieces, as the job needs them
 */
public record ToolSet(String name, List<Piece> pieces) {

    /**
     * One kind of piece.
     *
     * @param count how many the job needs at once, at least 1
     * @param use what it holds, or that it belongs to another engine of the same set
     */
    public record Piece(String name, int count, String use) {
        public Piece {
            if (count < 1) {
                throw new IllegalArgumentException("tool %s: count must be at least 1, not %d".formatted(name, count));
            }
        }
    }

    public ToolSet {
        pieces = List.copyOf(pieces);
    }

    public static ToolSet none() {
        return new ToolSet("", List.of());
    }
}
