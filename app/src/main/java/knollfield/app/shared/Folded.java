package knollfield.app.shared;

import java.text.Normalizer;
import java.util.Locale;

/** Text as it is searched: small letters without accents, so that Ase finds Åse, and Soren finds Søren. */
public final class Folded {

    private Folded() {}

    /** Letters with marks lose them (Unicode's canonical decomposition); those that have none to lose are spelled out. */
    public static String of(String text) {
        String small = text.toLowerCase(Locale.ROOT);
        if (small.chars().allMatch(c -> c < 128)) {
            return small;
        }
        StringBuilder folded = new StringBuilder(small.length());
        String apart = Normalizer.normalize(small, Normalizer.Form.NFD);
        for (int i = 0; i < apart.length(); i++) {
            char c = apart.charAt(i);
            switch (c) {
                case 'ø' -> folded.append('o');
                case 'æ' -> folded.append("ae");
                case 'œ' -> folded.append("oe");
                case 'ß' -> folded.append("ss");
                case 'ł' -> folded.append('l');
                case 'đ', 'ð' -> folded.append('d');
                case 'þ' -> folded.append("th");
                case 'ı' -> folded.append('i');
                case 'ς' -> folded.append('σ');
                default -> {
                    if (Character.getType(c) != Character.NON_SPACING_MARK) {
                        folded.append(c);
                    }
                }
            }
        }
        return folded.toString();
    }
}
