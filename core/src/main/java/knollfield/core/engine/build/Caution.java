package knollfield.core.engine.build;

/** A short warning and the thing it belongs to. */
public record Caution(String thing, String words) {}
