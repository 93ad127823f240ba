package knollfield.core.engine.build;

import java.util.Optional;

/**
 * What the crank is turned by.
 *
 * @param thing code of the assembly or joint it needs; empty for what always stays
 */
public record Turner(String code, String name, Kind kind, Optional<String> thing) {

    /** What a turner needs. */
    public enum Kind {
        /** It never comes off. */
        STAYS,
        /** An assembly that must be on, if only for now. */
        ASSEMBLY,
        /** A joint that must not be undone; its old bolt can be put in for now while it is. */
        JOINT,
        /** The old bolt of the assembly, put in for now while the assembly is off. */
        OLD_BOLT
    }

    /** True for what is put in for turning alone, and comes out again. */
    public boolean goesInForNow() {
        return kind == Kind.OLD_BOLT || kind == Kind.JOINT;
    }
}
