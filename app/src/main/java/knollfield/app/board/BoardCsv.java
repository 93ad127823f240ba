package knollfield.app.board;

import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import knollfield.app.shared.Cells;

/** The board as CSV (RFC 4180): jobs with a place, then those that wait. */
final class BoardCsv {

    private BoardCsv() {}

    static String write(BoardViews.BoardView board) {
        Map<Long, String> technicians = board.technicians().stream()
                .collect(Collectors.toMap(TrackViews.TechnicianTrack::id, TrackViews.TechnicianTrack::name));
        Map<Long, String> bays =
                board.bays().stream().collect(Collectors.toMap(TrackViews.BayTrack::id, TrackViews.BayTrack::name));
        return Cells.list(csv -> {
            Cells.print(
                    csv,
                    "job",
                    "registration",
                    "owner",
                    "fleet",
                    "state",
                    "start",
                    "end",
                    "technician",
                    "bay",
                    "tool_set",
                    "hours",
                    "act_by");
            for (BoardViews.BlockView b : board.blocks()) {
                Cells.print(
                        csv,
                        b.jobId(),
                        b.registration(),
                        b.ownerName(),
                        b.fleet(),
                        b.work().name().toLowerCase(Locale.ROOT).replace('_', ' '),
                        b.startsAt(),
                        b.endsAt(),
                        technicians.get(b.technicianId()),
                        bays.getOrDefault(b.bayId(), ""),
                        b.toolSet(),
                        b.minutes() / 60.0,
                        null);
            }
            for (BoardViews.WaitingView w : board.waiting()) {
                Cells.print(
                        csv,
                        w.jobId(),
                        w.registration(),
                        w.ownerName(),
                        w.fleet(),
                        "waiting",
                        null,
                        null,
                        null,
                        null,
                        null,
                        w.minutes() / 60.0,
                        w.actBy());
            }
        });
    }
}
