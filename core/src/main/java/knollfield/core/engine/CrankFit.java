package knollfield.core.engine;

/** How the crank sprocket is held: by a key, or by friction alone, so that the engine is timed before the bolt is undone. */
public enum CrankFit {
    KEYED,
    FRICTION_HELD
}
