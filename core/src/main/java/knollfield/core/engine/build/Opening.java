package knollfield.core.engine.build;

/**
 * A way into the engine that a part can fall into.
 *
 * @param openedBy code of the assembly that opens it by coming off
 */
public record Opening(String code, String name, String openedBy) {}
