package knollfield.app.security;

import com.eatthepath.otp.TimeBasedOneTimePasswordGenerator;
import com.google.zxing.BarcodeFormat;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.security.InvalidKeyException;
import java.security.SecureRandom;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javax.crypto.spec.SecretKeySpec;
import org.apache.commons.codec.binary.Base32;

/** Codes that change every half minute, from a secret that a second device holds (TOTP, RFC 6238). */
final class SecondFactor {

    /** Bytes of a new secret; RFC 4226 section 4 asks for at least 16 and recommends 20. */
    private static final int SECRET_BYTES = 20;

    private static final TimeBasedOneTimePasswordGenerator CODES = new TimeBasedOneTimePasswordGenerator();

    private SecondFactor() {}

    /** A new secret, Base32. */
    static String secret() {
        byte[] bytes = new byte[SECRET_BYTES];
        new SecureRandom().nextBytes(bytes);
        return new Base32().encodeToString(bytes);
    }

    /**
     * The time step a code belongs to: the present one, or one beside it for clocks that differ (RFC 6238 section 5.2).
     *
     * @param code six digits; blanks do not count
     * @return empty where the code is none of them
     */
    static Optional<Long> step(String secret, String code, Instant now) {
        String digits = code.replaceAll("\\s", "");
        long length = CODES.getTimeStep().toSeconds();
        for (long shift : new long[] {0, -1, 1}) {
            Instant at = now.plusSeconds(shift * length);
            if (code(secret, at).equals(digits)) {
                return Optional.of(at.getEpochSecond() / length);
            }
        }
        return Optional.empty();
    }

    static String code(String secret, Instant at) {
        try {
            return CODES.generateOneTimePasswordString(
                    new SecretKeySpec(new Base32().decode(secret), CODES.getAlgorithm()), at, Locale.ROOT);
        } catch (InvalidKeyException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The address a second device reads the secret from. */
    static String address(String workshop, String signIn, String secret) {
        return "otpauth://totp/%s:%s?secret=%s&issuer=%s"
                .formatted(word(workshop), word(signIn), secret, word(workshop));
    }

    private static String word(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    /** An address as a QR code, row by row; {@code #} is dark. */
    static List<String> picture(String address) {
        try {
            BitMatrix matrix = new QRCodeWriter().encode(address, BarcodeFormat.QR_CODE, 0, 0);
            List<String> rows = new ArrayList<>();
            for (int y = 0; y < matrix.getHeight(); y++) {
                StringBuilder row = new StringBuilder();
                for (int x = 0; x < matrix.getWidth(); x++) {
                    row.append(matrix.get(x, y) ? '#' : ' ');
                }
                rows.add(row.toString());
            }
            return rows;
        } catch (WriterException e) {
            throw new IllegalStateException(e);
        }
    }
}
