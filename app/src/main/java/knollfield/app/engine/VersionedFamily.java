package knollfield.app.engine;

import java.time.Instant;
import knollfield.core.engine.EngineFamily;

/**
 * A family as it stood at one version of its book; versions start at 1.
 *
 * @param note why it was changed; may be empty
 * @param grown its build is not filed, but grown from what a book of schema version 1 says
 */
public record VersionedFamily(
        EngineFamily family, int version, String changedBy, Instant changedAt, String note, boolean grown) {}
