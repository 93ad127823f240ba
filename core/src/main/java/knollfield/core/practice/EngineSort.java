package knollfield.core.practice;

import knollfield.core.engine.CrankFit;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;

/** Engines that ask for the same care: by what drives the camshafts and how the crank's wheel is held. */
public record EngineSort(Drive drive, CrankFit crankFit) implements Comparable<EngineSort> {

    public static EngineSort of(EngineFamily family) {
        return new EngineSort(family.drive(), family.crankFit());
    }

    /** Such as "belt, crank wheel held by its bolt alone". */
    public String words() {
        return drive.words()
                + (crankFit == CrankFit.KEYED ? ", crank wheel keyed" : ", crank wheel held by its bolt alone");
    }

    @Override
    public int compareTo(EngineSort other) {
        int byDrive = drive.compareTo(other.drive);
        return byDrive == 0 ? crankFit.compareTo(other.crankFit) : byDrive;
    }
}
