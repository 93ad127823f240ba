package knollfield.app.engine;

import knollfield.core.engine.EngineFamily;

/** A family as it stood at one version of its book; versions start at 1. */
public record VersionedFamily(EngineFamily family, int version) {}
