package knollfield.core.kinds;

import knollfield.core.engine.build.Build;

/**
 * A kind of engine.
 *
 * @param code {@code e01} to {@code e12}
 * @param name what sets it apart, in a few words
 */
public record Kind(String code, String name, Build build) {}
