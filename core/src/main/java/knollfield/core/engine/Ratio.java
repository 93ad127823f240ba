package knollfield.core.engine;

import java.math.BigInteger;

/**
 * Turns of one shaft for each turn of another, as a whole fraction in lowest terms.
 *
 * @param numerator at least 1
 * @param denominator at least 1
 */
public record Ratio(long numerator, long denominator) {

    /** One turn for one turn. */
    public static final Ratio ONE = new Ratio(1, 1);

    public Ratio {
        if (numerator < 1 || denominator < 1) {
            throw new IllegalArgumentException(
                    "a ratio needs whole numbers of at least 1, not %d : %d".formatted(numerator, denominator));
        }
        long common = BigInteger.valueOf(numerator)
                .gcd(BigInteger.valueOf(denominator))
                .longValueExact();
        numerator /= common;
        denominator /= common;
    }

    public Ratio times(Ratio other) {
        return new Ratio(
                Math.multiplyExact(numerator, other.numerator), Math.multiplyExact(denominator, other.denominator));
    }

    public double value() {
        return (double) numerator / denominator;
    }
}
