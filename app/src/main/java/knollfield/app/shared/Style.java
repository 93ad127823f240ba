package knollfield.app.shared;

import java.text.DecimalFormatSymbols;
import java.time.ZoneId;
import java.util.Locale;
import knollfield.core.units.DistanceUnit;
import org.springframework.stereotype.Component;

/** How this workshop writes distances and numbers, and the zone of its clock; set from its details, read everywhere. */
@Component
public class Style {

    /** How thousands are parted and decimals begin. */
    public enum NumberStyle {
        /** 64,785.30 */
        COMMA_POINT(',', '.'),
        /** 64.785,30 */
        POINT_COMMA('.', ','),
        /** 64 785,30 */
        SPACE_COMMA('\u00a0', ','),
        /** 64'785.30 */
        APOSTROPHE_POINT('\'', '.');

        private final char thousands;
        private final char decimals;

        NumberStyle(char thousands, char decimals) {
            this.thousands = thousands;
            this.decimals = decimals;
        }

        public DecimalFormatSymbols symbols() {
            DecimalFormatSymbols symbols = DecimalFormatSymbols.getInstance(Locale.UK);
            symbols.setGroupingSeparator(thousands);
            symbols.setDecimalSeparator(decimals);
            return symbols;
        }
    }

    /**
     * @param unit in which distances are written
     * @param zone of every time of day
     */
    public record State(DistanceUnit unit, NumberStyle numbers, ZoneId zone) {}

    private volatile State state = new State(DistanceUnit.KM, NumberStyle.COMMA_POINT, ZoneId.systemDefault());

    public State get() {
        return state;
    }

    /** For whoever keeps the workshop's details. */
    public void set(State next) {
        state = next;
    }
}
