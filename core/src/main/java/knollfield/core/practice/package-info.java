/**
 * A trainer for apprentices on the drawn loop: bring the marks in, lay the belt on, find the tooth that is out, decide
 * after two turns. Scored by the geometry of {@link knollfield.core.engine.TimingGeometry}; it touches no real job.
 */
@NullMarked
package knollfield.core.practice;

import org.jspecify.annotations.NullMarked;
