package knollfield.core.engine.build;

import java.util.List;

/**
 * A start of seconds before all is closed.
 *
 * @param needsOn codes of the assemblies that must be on for it
 */
public record DryStart(List<String> needsOn) {
    public DryStart {
        needsOn = List.copyOf(needsOn);
    }
}
