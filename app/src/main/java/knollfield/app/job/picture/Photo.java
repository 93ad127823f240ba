package knollfield.app.job.picture;

import java.time.Instant;

/**
 * A stored picture, without its bytes.
 *
 * @param width pixels
 * @param height pixels
 */
public record Photo(long id, int width, int height, String takenBy, Instant takenAt) {}
