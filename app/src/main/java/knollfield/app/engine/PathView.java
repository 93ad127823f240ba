package knollfield.app.engine;

import java.util.List;
import knollfield.core.engine.BeltPath;
import knollfield.core.engine.Drive;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.TimingGeometry;

/**
 * A loop as the screens draw it.
 *
 * @param counted what is counted round it: teeth or links
 * @param runs free stretches between neighbouring wheels, in running order
 */
public record PathView(int teeth, String counted, boolean clockwise, List<PulleyView> pulleys, List<PathRun> runs) {

    public record PulleyView(
            String code,
            String name,
            Pulley.Role role,
            double x,
            double y,
            int teeth,
            double radiusMm,
            boolean outside,
            boolean marked) {}

    public record PathRun(String from, String to, TimingGeometry.Pull pull) {}

    public static PathView of(BeltPath path, Drive drive) {
        return new PathView(
                path.teeth(),
                drive.counted(),
                path.clockwise(),
                path.pulleys().stream()
                        .map(p -> new PulleyView(
                                p.code(),
                                p.name(),
                                p.role(),
                                p.x(),
                                p.y(),
                                p.teeth(),
                                p.radiusMm(),
                                p.outside(),
                                p.marked()))
                        .toList(),
                TimingGeometry.runs(path).stream()
                        .map(r -> new PathRun(r.from(), r.to(), r.pull()))
                        .toList());
    }
}
