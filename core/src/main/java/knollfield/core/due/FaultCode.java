package knollfield.core.due;

import java.util.Arrays;
import java.util.Optional;

/**
 * Fault codes that speak of the timing drive: crankshaft position and camshaft position do not agree.
 *
 * <p>Source: SAE J2012 (ISO 15031-6), diagnostic trouble code definitions; bank 1 holds cylinder 1, sensor A is the
 * intake or single cam, B the exhaust cam.
 */
public enum FaultCode {
    P0016("Crankshaft position to camshaft position correlation, bank 1 sensor A"),
    P0017("Crankshaft position to camshaft position correlation, bank 1 sensor B"),
    P0018("Crankshaft position to camshaft position correlation, bank 2 sensor A"),
    P0019("Crankshaft position to camshaft position correlation, bank 2 sensor B");

    private final String meaning;

    FaultCode(String meaning) {
        this.meaning = meaning;
    }

    public String meaning() {
        return meaning;
    }

    /** What it is evidence of. */
    public EvidenceKind evidence() {
        return EvidenceKind.CORRELATION_CODE;
    }

    /** The code as a reader shows it, in any case and with blanks around; empty for one that says nothing of the drive. */
    public static Optional<FaultCode> of(String shown) {
        String code = shown.strip().toUpperCase(java.util.Locale.ROOT);
        return Arrays.stream(values()).filter(c -> c.name().equals(code)).findFirst();
    }
}
