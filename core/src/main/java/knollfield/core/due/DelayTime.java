package knollfield.core.due;

/**
 * How long from what can be seen until it lets go, by sort of finding: the mean of an exponential delay (A. H. Christer and
 * W. M. Waller, "Delay Time Models of Industrial Inspection Maintenance Problems", Journal of the Operational Research
 * Society 35, 1984). Planning assumptions of rules.md section 3.
 */
public enum DelayTime {
    FRAYED_OR_RUMBLING("frayed edge, rumble of a bearing", 0.7),
    SOAKED(
            "oil or coolant on the belt, tensioner weeping or its pointer out, belt in oil swollen, debris, low oil pressure",
            1.4),
    CRACKED("cracks, glazing", 3),
    RATTLING("rattle at cold start", 3);

    private final String words;
    private final double years;

    DelayTime(String words, double years) {
        this.words = words;
        this.years = years;
    }

    public String words() {
        return words;
    }

    /** The assumed mean, years in use, above zero. */
    public double years() {
        return years;
    }
}
