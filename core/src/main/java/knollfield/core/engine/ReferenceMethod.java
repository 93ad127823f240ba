package knollfield.core.engine;

/** What proves the timing: pins and bars, the maker's marks, or the workshop's own paint marks. */
public enum ReferenceMethod {
    PINS,
    MARKS,
    PAINT
}
