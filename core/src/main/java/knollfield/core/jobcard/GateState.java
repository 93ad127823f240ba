package knollfield.core.jobcard;

import java.util.Optional;

/**
 * How a gate stands.
 *
 * @param open everything it waits for is there, or a manager opened it
 * @param waitsFor in words, what opens it; empty when open
 * @param overriddenWith the manager's words, where one opened it
 */
public record GateState(GateKind kind, boolean open, Optional<String> waitsFor, Optional<String> overriddenWith) {}
