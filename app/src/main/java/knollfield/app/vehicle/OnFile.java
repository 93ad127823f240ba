package knollfield.app.vehicle;

/**
 * What is on file.
 *
 * @param vehicles how many there are
 * @param withoutFamily of these, how many have no engine family: nothing can be due on them
 * @param withoutReading of these, how many have no odometer reading that counts
 */
public record OnFile(int vehicles, int withoutFamily, int withoutReading) {}
