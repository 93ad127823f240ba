package knollfield.core.route;

import java.util.Optional;
import knollfield.core.engine.work.Operation;

/**
 * An operation with its place in the line.
 *
 * @param why the last arrow that binds it there; empty where nothing does
 */
public record Placed(Operation operation, Stretch stretch, Optional<Arrow> why) {}
