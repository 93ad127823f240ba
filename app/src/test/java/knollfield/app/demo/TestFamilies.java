package knollfield.app.demo;

import java.util.List;
import knollfield.core.engine.EngineFamily;

/** Lends the demo's invented families to tests of other features. */
public final class TestFamilies {

    private TestFamilies() {}

    public static List<EngineFamily> all() {
        return SkerrowFamilies.all();
    }
}
